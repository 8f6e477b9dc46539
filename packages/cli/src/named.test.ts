import { expect, test } from '@jest/globals';
import { rules } from '@visograph/core/check';
import { reports } from '@visograph/core/report';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { commands } from './commands.ts';

const packages = fileURLToPath(new URL('../../', import.meta.url));
/** What all tests of all packages say, those of the real interface included; not this one. */
const said = [packages, `${packages}../e2e/`]
  .flatMap((folder) =>
    readdirSync(folder, { recursive: true, encoding: 'utf8' })
      .filter((file) => /\.(test|spec)\.tsx?$/.test(file))
      .filter((file) => !file.includes('node_modules') && !file.endsWith('named.test.ts'))
      .map((file) => readFileSync(`${folder}${file}`, 'utf8')),
  )
  .join('\n');

/** In quotes, or at the start of a text: "loop-unbroken bad: …", "vlan-numbering and vrf". */
const named = (name: string): boolean => new RegExp(`['"\`]${name}['"\`: ,]|and ${name}[ ,:]`).test(said);

test('every rule is named by a test', () => {
  expect(rules.map(({ key }) => key).filter((key) => !named(key))).toEqual([]);
});

test('every command of the tool is named by a test', () => {
  expect(Object.keys(commands).filter((name) => !named(name))).toEqual([]);
});

// That every call of the server is made, by every role, is asked for by server/src/http/api.test.ts.
test('every schedule is named by a test', () => {
  expect(reports.map(({ key }) => key).filter((key) => !named(key))).toEqual([]);
});
