import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import type { Attempt } from '../../commands/attempt.ts';
import type { Network } from '../../model/network/network.ts';
import { portId } from '../../testing/testNetwork.ts';
import { access, switched, trunk } from '../../testing/testSwitching.ts';
import { vlanSchedule } from '../reports/vlans.ts';
import { createVlan, deleteVlan, firstFreeVid, setSwitching, settingText } from './vlans.ts';

const network = switched(
  {
    a: { ports: [trunk('1', [10, 20], 999), access('2', 40), { name: '3' }] },
    b: { ports: [trunk('1', [10])] },
  },
  [['a:1', 'b:1']],
  { prefixes: [{ prefix: '10.1.0.0/24', vrf: 'ops', vlan: 'shore/20' }] },
);
const shore = network.findOne('vlanNumberingByName', 'shore')?.id ?? '';
const vlan = (vid: number) => {
  const row =
    network.findOne('vlanByNumber', `${shore}/${vid}`) ??
    [...network.all('vlan')].find((one) => one.vid === vid);
  if (row == null) throw new Error(`no VLAN ${vid}`);
  return row;
};
const port = (of: Network, title: string) => {
  const row = of.get('port', portId(of, title));
  if (row === null) throw new Error(title);
  return row;
};
const done = (attempt: Attempt): { network: Network; sentence: string } => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return { network: applied.network, sentence: attempt.set.sentence };
};
const why = (attempt: { ok: boolean; why?: string }): string => (attempt.ok ? '' : (attempt.why ?? ''));

describe('a new VLAN', () => {
  test('has the next number as the numbering counts: in tens where most are', () => {
    expect(firstFreeVid(network, shore)).toBe(30);
    const ones = switched({}, [], {
      vlanNumberings: [
        {
          name: 'shore',
          vlans: [
            { vid: 1, name: 'a' },
            { vid: 2, name: 'b' },
          ],
        },
        { name: 'vessels' },
      ],
    });
    expect(firstFreeVid(ones, ones.findOne('vlanNumberingByName', 'shore')?.id ?? '')).toBe(3);
  });

  test('may bring its numbering; without a name it is none', () => {
    const wish = { numberingId: null, numberingName: 'yard', vid: 10, name: ' Cranes ' };
    const made = createVlan(network, wish);
    expect(done(made).sentence).toBe('Added VLAN 10 Cranes');
    expect(done(made).network.findOne('vlanNumberingByName', 'yard')).not.toBeNull();
    expect(why(createVlan(network, { ...wish, name: ' ' }))).toBe('Give the VLAN a name.');
    expect(why(createVlan(network, { ...wish, numberingName: '' }))).toBe('Give the VLAN numbering a name.');
    expect(why(createVlan(network, { ...wish, numberingId: shore, vid: 20 }))).toMatch(
      /already a VLAN with the number 20/,
    );
  });

  test('goes and leaves its prefixes', () => {
    const { network: left, sentence } = done(deleteVlan(network, vlan(20)));
    expect(sentence).toBe('Deleted VLAN 20 Operations; 1 prefix stays without a VLAN');
    expect([...left.all('prefix')].map(({ vlanId }) => vlanId)).toEqual([null]);
  });
});

describe('setting ports', () => {
  test('says how they are set', () => {
    expect(settingText({ mode: null, untaggedVid: null, taggedVids: null, voiceVid: null })).toBe(
      'not switched',
    );
    expect(settingText({ mode: 'trunk', untaggedVid: 999, taggedVids: [], voiceVid: null })).toBe(
      'trunk, untagged 999, tagged none',
    );
    expect(settingText(port(network, 'a:1'))).toBe('trunk, untagged 999, tagged 10,20');
  });

  test('a mode keeps what it has a use for', () => {
    const set = (title: string, fields: Parameters<typeof setSwitching>[2]) =>
      port(done(setSwitching(network, [port(network, title)], fields)).network, title);
    expect(set('a:1', { mode: 'access' })).toMatchObject({
      mode: 'access',
      untaggedVid: 999,
      taggedVids: null,
    });
    expect(set('a:2', { mode: 'trunk' })).toMatchObject({ mode: 'trunk', untaggedVid: 40, taggedVids: [] });
    expect(set('a:1', { mode: 'routed' })).toMatchObject({
      mode: 'routed',
      untaggedVid: null,
      taggedVids: null,
    });
    expect(set('a:1', { mode: null })).toMatchObject({ mode: null, untaggedVid: null, taggedVids: null });
  });

  test('several at once are one step; what contradicts itself names the port', () => {
    const both = [port(network, 'a:1'), port(network, 'b:1')];
    expect(done(setSwitching(network, both, { untaggedVid: 20, taggedVids: [10] })).sentence).toBe(
      'Set 2 ports to trunk, untagged 20, tagged 10',
    );
    expect(why(setSwitching(network, both, { untaggedVid: 10, taggedVids: [10] }))).toMatch(
      /hold 10, which goes untagged/,
    );
    expect(why(setSwitching(network, [], { mode: 'trunk' }))).toBe('There is no port to set.');
  });
});

test('the schedule of VLANs: what carries each, who uses it, in how many parts', () => {
  const table = vlanSchedule(network, null);
  const row = (vid: number) =>
    table.rows.find((cells) => cells['vid'] === vid && cells['numbering'] === 'shore');
  expect(row(10)).toMatchObject({ name: 'Management', switches: 2, ports: 2, users: 0 });
  expect(row(20)).toMatchObject({ prefixes: '10.1.0.0/24', vrf: 'ops' });
  expect(row(40)).toMatchObject({ switches: 1, ports: 1 });
});
