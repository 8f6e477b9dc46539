/** npm run visograph -- …: the command-line tool on exchange files. Its answers go to standard output alone. */
import { ensurePackages } from './install.mjs';

ensurePackages();
const { runTs } = await import('./run-ts.mjs');
await runTs('packages/cli/src/main.ts');
