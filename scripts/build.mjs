/** Builds the server and the web application where their sources are newer than what was built. */
import { existsSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';
import { say } from './say.mjs';

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))));
}

const sourcesOf = {
  server: [
    'packages/api/src',
    'packages/core/src',
    'packages/drawing/src',
    'packages/typeface/src',
    'packages/server/src',
    'packages/field/src',
    'package-lock.json',
  ],
  web: [
    'packages/api/src',
    'packages/core/src',
    'packages/drawing/src',
    'packages/web/src',
    'packages/web/index.html',
    'packages/web/vite.config.ts',
    'package-lock.json',
  ],
};

const built = (part) => join(root, 'packages', part, 'dist');

function isStale(part) {
  const stamp = join(built(part), '.stamp');
  if (!existsSync(stamp) || (part === 'server' && !existsSync(fieldEntry))) return true;
  const time = statSync(stamp).mtimeMs;
  return sourcesOf[part].some((source) => newest(join(root, source)) > time);
}

const done = (part) => writeFileSync(join(built(part), '.stamp'), '');

export const serverEntry = join(built('server'), 'main.mjs');
/** What the server starts for jobs; tests and benches, which run the sources, name it in their environment. */
export const jobProcess = join(built('server'), 'jobProcess.mjs');
/** What whoever runs the server does by the command line. */
export const operatorEntry = join(built('server'), 'operator.mjs');
/** A simulated cloud account, for the demo. */
export const fieldEntry = join(built('server'), 'field.mjs');
export const webFolder = built('web');

export async function buildServer() {
  if (!isStale('server')) return;
  const { bundle } = await import('./run-ts.mjs');
  await bundle(join(root, 'packages/server/src/main.ts'), serverEntry);
  await bundle(join(root, 'packages/server/src/jobs/jobProcess.ts'), jobProcess);
  await bundle(join(root, 'packages/server/src/operator/main.ts'), operatorEntry);
  await bundle(join(root, 'packages/field/src/main.ts'), fieldEntry);
  done('server');
}

export async function buildWeb() {
  if (!isStale('web')) return;
  say('Building the web application …');
  const { build } = await import('vite');
  await build({ root: join(root, 'packages/web'), logLevel: 'warn' });
  done('web');
}
