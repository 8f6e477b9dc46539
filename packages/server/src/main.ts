import { readFile } from 'node:fs/promises';
import { demoPassword, demoPeople, loadDemo } from './people/demo.ts';
import { Account } from './database/rows.ts';
import { startServer, type RunningServer, type ServerOptions } from './server.ts';
import { readSettings, type Settings } from './settings.ts';

const read = readSettings(process.env);
if (!read.ok) {
  for (const problem of read.problems) console.error(problem);
  process.exit(2);
}
const { settings } = read;

async function tlsOf({
  VISOGRAPH_TLS_CERT: cert,
  VISOGRAPH_TLS_KEY: key,
}: Settings): Promise<{ cert: string; key: string } | undefined> {
  if (cert === undefined || key === undefined) return undefined;
  return { cert: await readFile(cert, 'utf8'), key: await readFile(key, 'utf8') };
}

const mailOf = ({
  VISOGRAPH_MAIL_SERVER: server,
  VISOGRAPH_MAIL_FROM: from,
  VISOGRAPH_ADDRESS: address,
}: Settings): Pick<ServerOptions, 'mail'> =>
  server === undefined || from === undefined || address === undefined
    ? {}
    : { mail: { server, from, address } };

async function start(): Promise<RunningServer> {
  const demoFile = settings.VISOGRAPH_DEMO;
  const tls = await tlsOf(settings);
  const metricsPort = settings.VISOGRAPH_METRICS_PORT;
  return startServer({
    databaseUrl: settings.DATABASE_URL,
    port: settings.PORT,
    host: settings.VISOGRAPH_HOST,
    ...(tls === undefined ? {} : { tls }),
    trustedProxies: settings.VISOGRAPH_TRUSTED_PROXIES ?? [],
    secureCookies: settings.VISOGRAPH_SECURE_COOKIES,
    webFolder: settings.VISOGRAPH_WEB ?? null,
    ...(demoFile === undefined ? {} : { exampleFile: demoFile }),
    logLevel: settings.VISOGRAPH_LOG,
    signInTries: settings.VISOGRAPH_SIGNIN_TRIES,
    workers: { short: settings.VISOGRAPH_SHORT_WORKERS, long: settings.VISOGRAPH_LONG_WORKERS },
    ...mailOf(settings),
    deletedDays: settings.VISOGRAPH_DELETED_DAYS,
    jobMegabytes: settings.VISOGRAPH_JOB_MB,
    cacheRows: settings.VISOGRAPH_CACHE_ROWS,
    ...(metricsPort === undefined
      ? {}
      : { metrics: { host: settings.VISOGRAPH_METRICS_HOST, port: metricsPort } }),
    prepare: async (knex, store) => (demoFile === undefined ? false : loadDemo(knex, store, demoFile)),
  });
}

async function tell(server: RunningServer): Promise<void> {
  console.log(`Visograph is ready at ${server.url}`);
  if (server.metricsUrl !== null) console.log(`Metrics are at ${server.metricsUrl}`);
  const demo = await Account.query(server.knex).findOne({ email: demoPeople[0].email });
  if (demo !== undefined) {
    console.log(
      `Demo sign-in: ${demoPeople.map((person) => `${person.email} (${person.role})`).join(', ')}; password ${demoPassword}`,
    );
  } else if ((await Account.query(server.knex).resultSize()) === 0) {
    console.log('There is no account yet: open the address and make the first one.');
  }
}

try {
  const server = await start();
  await server.jobs.open();
  await tell(server);
  let stopping = false;
  const stop = (): void => {
    if (stopping) return;
    stopping = true;
    void server.stop().then(() => process.exit(0));
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  process.on('disconnect', stop);
} catch (error) {
  const { code } = error as { code?: string };
  if (code === 'EADDRINUSE') {
    console.error(
      `Port ${settings.PORT} is taken by another program. Set PORT to a free one, for example: PORT=4401 npm start`,
    );
  } else {
    console.error(`Visograph cannot start: ${error instanceof Error ? error.message : String(error)}`);
  }
  process.exit(1);
}
