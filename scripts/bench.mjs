/** npm run bench [-- --json]: on a throw-away database with the safety of a real one. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensurePackages, root } from './install.mjs';

ensurePackages();
const { openCluster } = await import('./postgres.mjs');
const { bundle } = await import('./run-ts.mjs');
const entry = join(root, '.visograph/build/bench.mjs');
await bundle(join(root, 'packages/server/bench/bench.ts'), entry);
const cluster = await openCluster('bench-database', { fresh: true });
const env = { ...process.env, NODE_ENV: 'production', VISOGRAPH_TEST_DATABASE: cluster.url('postgres') };
const { status } = spawnSync(
  process.execPath,
  ['--expose-gc', '--max-old-space-size=8192', entry, ...process.argv.slice(2)],
  { cwd: root, env, stdio: 'inherit' },
);
await cluster.stop();
process.exit(status ?? 1);
