/** npm start: everything from a fresh clone to a served application, and a clean end on Ctrl+C. */
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { ensurePackages, root } from './install.mjs';
import { say, stopWith } from './say.mjs';

const known = new Set(['--empty', '--reset', '--yes']);
const flags = new Set(process.argv.slice(2));
for (const flag of flags) {
  if (!known.has(flag))
    stopWith(
      `Unknown option ${flag}. There are --empty (no demo data) and --reset (start over, after asking; --yes answers).`,
      2,
    );
}
const port = Number(process.env.PORT ?? 4400);
if (!Number.isInteger(port) || port < 0 || port > 65535)
  stopWith(`PORT is ${process.env.PORT}: set it to a number from 1 to 65535.`, 2);

const isFree = () =>
  new Promise((done) => {
    const server = createServer();
    server.once('error', () => done(false));
    server.listen(port, '127.0.0.1', () => server.close(() => done(true)));
  });

const folder = join(root, '.visograph');
const pidFile = join(folder, 'start.pid');
mkdirSync(folder, { recursive: true });

/** Two starts on one private database would stop it under each other. */
function takeTurn() {
  if (existsSync(pidFile)) {
    const pid = Number(readFileSync(pidFile, 'utf8'));
    const command = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
    if (command.includes('start.mjs'))
      stopWith(`Visograph already runs from this folder (process ${pid}). Stop it with Ctrl+C there first.`);
  }
  writeFileSync(pidFile, String(process.pid));
}

if (port !== 0 && !(await isFree())) {
  stopWith(
    `Port ${port} is taken by another program. Set PORT to a free one, for example: PORT=${port + 1} npm start`,
  );
}
const ownDatabase = process.env.DATABASE_URL === undefined;
if (ownDatabase) takeTurn();
ensurePackages();

if (flags.has('--reset')) {
  if (!ownDatabase)
    stopWith('--reset works on the private database only. Empty the database of DATABASE_URL yourself.', 2);
  if (!flags.has('--yes')) {
    const lines = createInterface({ input: process.stdin, output: process.stderr });
    const answer = await lines.question(
      'This deletes all projects and accounts of this Visograph. Type "reset" to go on: ',
    );
    lines.close();
    if (answer.trim() !== 'reset') stopWith('Nothing was deleted.', 0);
  }
}

const { openCluster } = await import('./postgres.mjs');
const { buildServer, buildWeb, fieldEntry, serverEntry, webFolder } = await import('./build.mjs');
const cluster = ownDatabase ? await openCluster('database', { fresh: flags.has('--reset') }) : null;

let server = null;
let field = null;
let ending = false;
async function end(code) {
  if (ending) return;
  ending = true;
  if (server !== null && server.exitCode === null && server.signalCode === null) {
    server.kill('SIGTERM');
    await new Promise((done) => {
      server.once('exit', done);
      setTimeout(() => (server.kill('SIGKILL'), done()), 8000).unref();
    });
  }
  if (field !== null && field.exitCode === null) field.kill('SIGTERM');
  await cluster?.stop();
  if (ownDatabase) rmSync(pidFile, { force: true });
  process.exit(code);
}
/** The key by which credentials are kept here: made once, for whoever owns this folder alone. */
function ownKey() {
  const file = join(folder, 'secret.key');
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8');
}

/** Starts the simulated account of the demo. Gives where it is; null where it does not start. */
function startField(demoFile) {
  return new Promise((done) => {
    field = spawn(process.execPath, [fieldEntry, demoFile], {
      cwd: root,
      env: { ...process.env, PORT: '0' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    field.once('exit', () => done(null));
    field.stdout.on('data', (data) => {
      const said = String(data);
      process.stdout.write(said);
      const at = /is at (http:\/\/\S+)/.exec(said)?.[1];
      if (at !== undefined) done(at);
    });
  });
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));

try {
  const databaseUrl = cluster === null ? process.env.DATABASE_URL : await cluster.ensureDatabase('visograph');
  await buildServer();
  await buildWeb();
  const demoFile = join(root, 'demo/marrow-sound-ferries.json');
  const demo = flags.has('--empty') ? {} : { VISOGRAPH_DEMO: demoFile };
  const origin = flags.has('--empty') ? null : await startField(demoFile);
  const origins = [process.env.VISOGRAPH_FIELD_ORIGINS, origin].filter(Boolean).join(',');
  server = spawn(process.execPath, ['--enable-source-maps', serverEntry], {
    cwd: root,
    env: {
      ...process.env,
      ...demo,
      VISOGRAPH_SECRET_KEY: process.env.VISOGRAPH_SECRET_KEY ?? ownKey(),
      VISOGRAPH_FIELD_ORIGINS: origins,
      NODE_ENV: 'production',
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      VISOGRAPH_WEB: webFolder,
    },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    detached: true,
  });
  server.on('exit', (code, signal) => {
    if (ending) return;
    if (signal !== null)
      say(`The server was ended by ${signal}. Start it again with npm start; no saved change is lost.`);
    void end(code ?? 1);
  });
} catch (error) {
  say(`Visograph cannot start: ${error.message}`);
  await end(1);
}
