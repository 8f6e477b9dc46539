/** npm run dev: the server restarted and the web application refreshed at every change of a source. */
import { spawn } from 'node:child_process';
import { watch } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages, root } from './install.mjs';

ensurePackages();
const { openCluster } = await import('./postgres.mjs');
const { buildServer, serverEntry } = await import('./build.mjs');
const { createServer } = await import('vite');
const cluster = await openCluster('database');
const databaseUrl = await cluster.ensureDatabase('visograph');
const port = 4401;
let server = null;
const env = {
  ...process.env,
  DATABASE_URL: databaseUrl,
  PORT: String(port),
  VISOGRAPH_LOG: 'debug',
  VISOGRAPH_DEMO: join(root, 'demo/marrow-sound-ferries.json'),
};
async function restart() {
  await buildServer();
  server?.kill('SIGTERM');
  server = spawn(process.execPath, ['--enable-source-maps', serverEntry], { env, stdio: 'inherit' });
}
await restart();
let timer = null;
for (const part of ['core', 'drawing', 'server']) {
  watch(join(root, 'packages', part, 'src'), { recursive: true }, () => {
    clearTimeout(timer);
    timer = setTimeout(() => restart().catch((error) => console.error(error.message)), 200);
  });
}
const web = await createServer({
  root: join(root, 'packages/web'),
  server: {
    host: '127.0.0.1',
    port: Number(process.env.PORT ?? 4400),
    proxy: {
      '/api': { target: `http://127.0.0.1:${port}`, ws: true },
      '/fonts': `http://127.0.0.1:${port}`,
    },
  },
});
await web.listen();
web.printUrls();
const end = async () => {
  server?.kill('SIGTERM');
  await web.close();
  await cluster.stop();
  process.exit(0);
};
process.on('SIGINT', () => void end());
process.on('SIGTERM', () => void end());
