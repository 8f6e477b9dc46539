/** npm run bench [-- --json] [-- part …]: on a throw-away database with the safety of a real one. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureChromium, ensurePackages, root } from './install.mjs';

ensurePackages();
const { openCluster } = await import('./postgres.mjs');
const { bundle } = await import('./run-ts.mjs');
const { buildServer, buildWeb, jobProcess, serverEntry } = await import('./build.mjs');
const chromium = ensureChromium();
await buildServer();
await buildWeb();
const all = [
  'bench',
  'logical',
  'drawings',
  'sheetFigures',
  'drawFirst',
  'lists',
  'beside',
  'frames',
  'sheetFrames',
  'ladderFrames',
];
const named = all.filter((name) => process.argv.includes(name));
const parts = (named.length > 0 ? named : all).map((name) => ({
  from: join(root, `packages/server/bench/${name}.ts`),
  entry: join(root, `.visograph/build/${name}.mjs`),
}));
for (const { from, entry } of parts) await bundle(from, entry);
const cluster = await openCluster('bench-database', { fresh: true });
const env = {
  ...process.env,
  CHROMIUM: chromium,
  NODE_ENV: 'production',
  VISOGRAPH_JOB_PROCESS: jobProcess,
  VISOGRAPH_SERVER: serverEntry,
  VISOGRAPH_TEST_DATABASE: cluster.url('postgres'),
};
let status = 0;
for (const { entry } of parts) {
  const run = spawnSync(
    process.execPath,
    ['--expose-gc', '--max-old-space-size=8192', entry, ...process.argv.slice(2)],
    { cwd: root, env, stdio: 'inherit' },
  );
  status ||= run.status ?? 1;
}
await cluster.stop();
process.exit(status);
