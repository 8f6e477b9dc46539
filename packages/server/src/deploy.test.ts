/** The files for running it elsewhere, checked as far as they can be without an engine: what they copy and name is there. */
import { expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { readFile, mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { settings } from './settings.ts';

const root = fileURLToPath(new URL('../../../', import.meta.url));
const deployed = (name: string): Promise<string> => readFile(join(root, 'deploy', name), 'utf8');
/** What a build makes, which a fresh checkout does not have. */
const made = /(^|\/)(node_modules|dist)(\/|$)/;

test('the image copies what there is, starts what a build makes, and sets what is a setting', async () => {
  const text = await deployed('Dockerfile');
  const copied = [...text.matchAll(/^COPY (?!--from)(.+)$/gm)].flatMap(([, words = '']) =>
    words.split(' ').slice(0, -1),
  );
  expect(copied.length).toBeGreaterThan(4);
  for (const path of copied) expect([path, existsSync(join(root, path))]).toEqual([path, true]);
  const kept = [...text.matchAll(/^COPY --from=build \/build\/(\S+) /gm)].map(([, path = '']) => path);
  for (const path of kept)
    expect([path, made.test(path) || existsSync(join(root, path))]).toEqual([path, true]);
  // Workspaces are links from node_modules into packages: both are there.
  expect(kept).toEqual(expect.arrayContaining(['node_modules', 'packages']));
  for (const [name] of text.matchAll(/VISOGRAPH_\w+/g)) expect(Object.keys(settings)).toContain(name);
  const ignored = (await readFile(join(root, '.dockerignore'), 'utf8')).split('\n');
  for (const path of copied) expect(ignored).not.toContain(path);
});

test('compose and the service name settings and files that there are', async () => {
  const [compose, unit] = [await deployed('compose.yaml'), await deployed('visograph.service')];
  const own = new Set([...Object.keys(settings), 'VISOGRAPH_DATABASE_PASSWORD']);
  for (const [name] of `${compose}${unit}`.matchAll(/VISOGRAPH_\w+/g)) expect([...own]).toContain(name);
  const [, dockerfile = ''] = /dockerfile: (\S+)/.exec(compose) ?? [];
  expect(existsSync(join(root, dockerfile))).toBe(true);
  const [, documentation = ''] = /Documentation=file:\/opt\/visograph\/(\S+)/.exec(unit) ?? [];
  expect(existsSync(join(root, documentation))).toBe(true);
});

const verifier = '/usr/bin/systemd-analyze';
(existsSync(verifier) ? test : test.skip)('the service is one that systemd understands', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'visograph-unit-'));
  const unit = (await deployed('visograph.service'))
    // The program, folder and file of an installation are not here.
    .replace('ExecStart=/usr/bin/node', `ExecStart=${process.execPath}`)
    .replaceAll('/opt/visograph', root.replace(/\/$/, ''));
  const path = join(folder, 'visograph.service');
  await writeFile(path, unit);
  const { stderr } = spawnSync(verifier, ['verify', '--man=no', path], { encoding: 'utf8' });
  expect(stderr.split('\n').filter((line) => line.includes('visograph.service'))).toEqual([]);
});
