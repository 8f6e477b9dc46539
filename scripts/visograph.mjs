/** npm run visograph -- …: the command-line tool on exchange files, and what whoever runs a server does with it. */
import { ensurePackages } from './install.mjs';

ensurePackages();
const [verb = '', ...args] = process.argv.slice(2);
if (verb === 'backup' || verb === 'restore') {
  const { run } = await import('./backup.mjs');
  await run(verb, args);
} else if (['people', 'new-password', 'remove-account', 'archive', 'restore-project'].includes(verb)) {
  const { buildServer, operatorEntry } = await import('./build.mjs');
  const { withDatabase } = await import('./postgres.mjs');
  await buildServer();
  await withDatabase(async (url) => {
    process.env.DATABASE_URL = url;
    await import(operatorEntry);
  });
} else {
  const { runTs } = await import('./run-ts.mjs');
  await runTs('packages/cli/src/main.ts');
}
