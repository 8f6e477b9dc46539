/**
 * npm run bench [-- --json] [-- part …]: on a throw-away database with the safety of a real one. What it measures is
 * kept (docs/measurements.md). `crowd`, of five minutes, runs when it is named.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureChromium, ensurePackages, root } from './install.mjs';

ensurePackages();
const { openCluster } = await import('./postgres.mjs');
const { bundle } = await import('./run-ts.mjs');
const { keep } = await import('./measurements.mjs');
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
  'reports',
  'clouds',
  'beside',
  'frames',
  'sheetFrames',
  'ladderFrames',
];
const named = [...all, 'crowd'].filter((name) => process.argv.includes(name));
const parts = (named.length > 0 ? named : all).map((name) => ({
  name,
  figures: join(root, `.visograph/build/${name}.figures.json`),
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
const measured = {};
for (const { name, entry, figures } of parts) {
  rmSync(figures, { force: true });
  const run = spawnSync(
    process.execPath,
    ['--expose-gc', '--max-old-space-size=8192', entry, ...process.argv.slice(2)],
    { cwd: root, env: { ...env, BENCH_FIGURES: figures }, stdio: 'inherit' },
  );
  status ||= run.status ?? 1;
  if (existsSync(figures)) measured[name] = JSON.parse(readFileSync(figures, 'utf8'));
}
await keep(measured);
await cluster.stop();
process.exit(status);
