/** npm run abuse [-- --short]: plays attacks against a throw-away server and prints what others noticed of each. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensurePackages, root } from './install.mjs';

ensurePackages();
const { openCluster } = await import('./postgres.mjs');
const { bundle } = await import('./run-ts.mjs');
const { buildServer, jobProcess, serverEntry } = await import('./build.mjs');
await buildServer();
const entry = join(root, '.visograph/build/abuse.mjs');
await bundle(join(root, 'packages/server/bench/abuse.ts'), entry);
const given = process.env.VISOGRAPH_TEST_DATABASE;
const cluster = given === undefined ? await openCluster('abuse-database', { fresh: true }) : null;
const env = {
  ...process.env,
  NODE_ENV: 'production',
  VISOGRAPH_TEST_DATABASE: given ?? cluster.url('postgres'),
  VISOGRAPH_SERVER: serverEntry,
  VISOGRAPH_JOB_PROCESS: jobProcess,
  VISOGRAPH_DEMO: join(root, 'demo/marrow-sound-ferries.json'),
};
const run = spawnSync(process.execPath, [entry, ...process.argv.slice(2)], {
  cwd: root,
  env,
  stdio: 'inherit',
});
await cluster?.stop();
process.exit(run.status ?? 1);
