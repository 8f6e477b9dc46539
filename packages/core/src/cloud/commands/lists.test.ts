import { expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { findingsOf } from '../../check/registry.ts';
import { testCloud, testInstance } from '../../testing/testCloud.ts';
import { addPrefixList, demandLabel } from './lists.ts';

const cloud = testCloud({ devices: [testInstance('web', 'one', '10.1.0.10/24')] });

test('a list holds each prefix once, as it is canonically written', () => {
  const made = addPrefixList(cloud, {
    name: ' offices ',
    prefixes: ['10.40.0.0/16', '10.40.0.0/16', '2001:DB8::/32'],
  });
  expect(made.ok ? made.list : made.why).toMatchObject({
    name: 'offices',
    prefixes: ['10.40.0.0/16', '2001:db8::/32'],
  });
  expect(addPrefixList(cloud, { name: 'x', prefixes: ['10.40.0.0/33'] })).toMatchObject({ ok: false });
  expect(addPrefixList(cloud, { name: ' ', prefixes: [] })).toMatchObject({ ok: false });
});

test('a demanded label is missed at once where it is not; demanded twice it is refused', () => {
  const attempt = demandLabel(cloud, { key: 'owner', on: 'instances' });
  const done = attempt.ok ? applyChanges(cloud, attempt.set.changes) : null;
  if (done?.ok !== true) throw new Error('not demanded');
  const missing = findingsOf(done.network).filter(({ rule }) => rule === 'cloud-label-missing');
  expect(
    missing.map(({ subjects }) => subjects.map(({ id }) => done.network.get('device', id)?.name)),
  ).toEqual([['web']]);
  expect(demandLabel(done.network, { key: 'owner', on: 'instances' })).toMatchObject({ ok: false });
});
