import { expect, test } from '@jest/globals';
import { version } from '@visograph/api/version';
import { readFile } from 'node:fs/promises';

test('the version is one, wherever it stands', async () => {
  const read = (path: string): Promise<string> =>
    readFile(new URL(`../../../${path}`, import.meta.url), 'utf8');
  const { version: own } = JSON.parse(await read('package.json')) as { version: string };
  expect(version).toBe(own);
  expect(await read('CHANGELOG.md')).toContain(`Visograph ${version}`);
});
