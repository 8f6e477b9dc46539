import { expect, test } from '@jest/globals';
import { kindNames } from '../model/kinds.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import { asChange, create, remove, type Change } from './change.ts';
import { completed, shortened } from './invert.ts';

const demo = demoNetwork();
const every = kindNames.flatMap((kind) => [...demo.all(kind)].map((row): Change => create(kind, row)));

test('what is kept of a new row is read as the whole row again, for every row of the demo', () => {
  for (const change of every) expect(completed(shortened(change))).toEqual(change);
});

test('it is a good deal shorter, and only what is empty in a blank row too is left out', () => {
  const [port] = every.filter((change) => change.kind === 'port');
  const kept = shortened(port ?? fail());
  expect(Object.keys(kept.op === 'create' ? kept.after : {})).not.toContain('vrfId');
  expect(JSON.stringify(every.map(shortened)).length).toBeLessThan(JSON.stringify(every).length * 0.75);
  const bare = asChange({ op: 'create', kind: 'cable', id: 'c', after: { id: 'c', status: null } });
  expect(shortened(bare)).toEqual(bare);
});

test('a row that goes is kept whole: it is what comes back', () => {
  const [device] = demo.all('device');
  const change = remove('device', device ?? fail());
  expect(shortened(change)).toBe(change);
});

function fail(): never {
  throw new Error('the demo has none');
}
