/** npm run build: the server, the process for jobs and the web application, below packages/server/dist and packages/web/dist. */
import { ensurePackages } from './install.mjs';

ensurePackages();
const { buildServer, buildWeb } = await import('./build.mjs');
await buildServer();
await buildWeb();
