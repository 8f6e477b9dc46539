import { demoPassword, demoPeople, loadDemo } from './people/demo.ts';
import { Account } from './database/rows.ts';
import { startServer } from './server.ts';

const databaseUrl = process.env['DATABASE_URL'];
const port = Number(process.env['PORT'] ?? 4400);
const demoFile = process.env['VISOGRAPH_DEMO'];

if (databaseUrl === undefined) {
  console.error(
    'DATABASE_URL is not set. Start Visograph with npm start, or set it to a PostgreSQL address.',
  );
  process.exit(2);
}

try {
  const server = await startServer({
    databaseUrl,
    port,
    webFolder: process.env['VISOGRAPH_WEB'] ?? null,
    ...(demoFile === undefined ? {} : { exampleFile: demoFile }),
    logLevel: process.env['VISOGRAPH_LOG'] ?? 'warn',
    signInTries: Number(process.env['VISOGRAPH_SIGNIN_TRIES'] ?? 10),
    prepare: async (knex, store) => (demoFile === undefined ? false : loadDemo(knex, store, demoFile)),
  });
  await server.jobs.open();
  console.log(`Visograph is ready at ${server.url}`);
  const demo = await Account.query(server.knex).findOne({ email: demoPeople[0].email });
  if (demo !== undefined) {
    console.log(
      `Demo sign-in: ${demoPeople.map((person) => `${person.email} (${person.role})`).join(', ')}; password ${demoPassword}`,
    );
  } else if ((await Account.query(server.knex).resultSize()) === 0) {
    console.log('There is no account yet: open the address and make the first one.');
  }
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
      `Port ${port} is taken by another program. Set PORT to a free one, for example: PORT=4401 npm start`,
    );
  } else {
    console.error(`Visograph cannot start: ${error instanceof Error ? error.message : String(error)}`);
  }
  process.exit(1);
}
