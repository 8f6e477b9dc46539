/** npm run visograph -- …: the command-line tool on exchange files, and backup and restore of the whole installation. */
import { ensurePackages } from './install.mjs';

ensurePackages();
const [verb = '', ...args] = process.argv.slice(2);
if (verb === 'backup' || verb === 'restore') {
  const { run } = await import('./backup.mjs');
  await run(verb, args);
} else {
  const { runTs } = await import('./run-ts.mjs');
  await runTs('packages/cli/src/main.ts');
}
