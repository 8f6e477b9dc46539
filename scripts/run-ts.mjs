/** Bundles a TypeScript entry of the workspace and imports it: how the CLI, the bench and the makers of data run. */
import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';

export async function bundle(entry, outfile, extra = {}) {
  mkdirSync(resolve(outfile, '..'), { recursive: true });
  await build({
    entryPoints: [entry],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: 'linked',
    conditions: ['visograph-src'],
    packages: 'bundle',
    plugins: [ownSourceOnly],
    logLevel: 'warning',
    jsx: 'automatic',
    define: { 'process.env.NODE_ENV': '"production"' },
    ...extra,
  });
}

/** Bundles our own packages; npm packages stay where they are. */
const ownSourceOnly = {
  name: 'own-source-only',
  setup(api) {
    api.onResolve({ filter: /^[^./]/ }, ({ path, kind }) => {
      if (kind === 'entry-point' || path.startsWith('@visograph/')) return undefined;
      return { path, external: true };
    });
  },
};

export async function runTs(entry) {
  const root = resolve(import.meta.dirname, '..');
  const name = entry.replaceAll(/[^a-z0-9]+/gi, '-');
  const outfile = resolve(root, '.visograph/build', `${name}.mjs`);
  await bundle(resolve(root, entry), outfile);
  return import(pathToFileURL(outfile).href);
}
