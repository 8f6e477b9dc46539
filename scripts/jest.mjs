/** npm run jest [-- options]: Jest with the process for jobs built from the sources as they are. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root } from './install.mjs';
import { buildServer, jobProcess } from './build.mjs';

await buildServer();
const run = spawnSync(
  process.execPath,
  ['--experimental-vm-modules', join(root, 'node_modules/jest/bin/jest.js'), ...process.argv.slice(2)],
  { cwd: root, env: { ...process.env, VISOGRAPH_JOB_PROCESS: jobProcess }, stdio: 'inherit' },
);
process.exit(run.status ?? 1);
