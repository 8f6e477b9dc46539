import { describe, expect, test } from '@jest/globals';
import { planOf } from '../sheets/projection/plan.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import { testDay } from '../testing/testFindings.ts';
import { networkOf } from '../testing/testNetwork.ts';
import { evidenceOf } from './evidence.ts';
import { grouped, inScope } from './grouping.ts';
import { placeOfRow } from './placeOf.ts';
import { reviewOf } from './review.ts';
import { toldInOrder } from './told.ts';

const demo = demoNetwork();
const open = toldInOrder(demo, reviewOf(demo, testDay).open);
const placeNamed = (name: string): string =>
  [...demo.all('place')].find((place) => place.name === name)?.id ?? '';

describe('groups', () => {
  test('by rule: every finding once, groups with a fault first, then by title', () => {
    const groups = grouped(demo, open, 'rule');
    expect(groups.flatMap(({ items }) => items)).toHaveLength(open.length);
    expect(groups.map(({ title, bad, warn }) => [title, bad, warn])).toEqual([
      ['Addresses given twice', 1, 0],
      ['Cable of another kind than what it joins', 1, 0],
      ['Cable with an end left open', 1, 0],
      ['Cloud subnets without a route table', 1, 0],
      ['More PoE promised than there is', 1, 0],
      ['Prefixes that overlap', 1, 0],
      ['Rack above a limit', 1, 0],
      ['Transceivers that do not belong together', 1, 0],
      ['Devices without a management address', 0, 1],
      ['Label number missing from its sequence', 0, 1],
      ['Public addresses that are kept and not used', 0, 1],
      ['VLANs that one end of a link carries and the other does not', 0, 1],
    ]);
  });

  test('by place: what is of none comes under its own title', () => {
    const titles = grouped(demo, open, 'place').map(({ title, items }) => [title, items.length]);
    expect(titles).toContainEqual(['Brinsay/Comms room', 3]);
    expect(new Map(titles as [string, number][]).get('Of no place')).toBeGreaterThan(0);
  });

  test('by thing: two faults of one device stand together', () => {
    const [first] = grouped(demo, open, 'thing').filter(({ items }) => items.length > 1);
    expect([first?.title, first?.items.map(({ finding }) => finding.rule)]).toEqual([
      'device br-acc-1',
      ['link-medium', 'link-optics'],
    ]);
  });

  test('a scope holds what is about anything in it, with what is inside', () => {
    const of = (name: string): number => inScope(demo, open, placeNamed(name)).length;
    // The rack, both faults of the link, and the prefix of Otterslip that lies in Brinsay's.
    expect([of('Brinsay'), inScope(demo, open, null).length]).toEqual([4, open.length]);
    const everywhere = ['Ashholm', 'Brinsay', 'Kelder Quay', 'Otterslip', 'MV Petrel', 'MV Sandpiper'].map(
      of,
    );
    // Those of no place are in none; one over two sites is in both.
    expect(everywhere.reduce((sum, count) => sum + count, 0)).toBeGreaterThanOrEqual(8);
  });
});

describe('evidence', () => {
  const drawn = (rule: string) => {
    const one = open.find(({ finding }) => finding.rule === rule);
    const evidence = one === undefined ? null : evidenceOf(demo, one.finding);
    if (evidence === null) return null;
    const { graph } = planOf(evidence.network, evidence.sheet, { today: testDay });
    return {
      projection: evidence.sheet.projection,
      devices: evidence.devices,
      plates: graph.nodes.length,
      links: graph.links.length,
    };
  };

  test('of a link: its two devices and what joins them', () => {
    expect(drawn('link-optics')).toMatchObject({ projection: 'cabling', devices: 2 });
    expect(drawn('vlan-stops')).toMatchObject({ projection: 'switching', devices: 2 });
    expect(drawn('vlan-stops')?.links).toBeGreaterThan(0);
  });

  test('of one device: with some of what it talks to; of a prefix or a rack none', () => {
    expect(drawn('poe-over-budget')?.devices).toBeGreaterThan(1);
    expect(drawn('poe-over-budget')?.devices).toBeLessThanOrEqual(5);
    expect([drawn('prefix-overlap'), drawn('rack-over-limit')]).toEqual([null, null]);
  });

  test('is kept by nobody: the network itself has no such sheet', () => {
    const before = demo.count('sheet');
    drawn('link-optics');
    expect(demo.count('sheet')).toBe(before);
  });
});

test('where a row stands: an address by its port, a cable by its first end, a VLAN nowhere', () => {
  const network = networkOf({
    places: [{ path: 'Quay' }],
    vrfs: [{ name: 'ops' }],
    devices: [
      {
        name: 'a',
        role: 'SW',
        place: 'Quay',
        ports: [{ name: '1', vrf: 'ops', addresses: ['10.0.0.1/24'] }],
      },
    ],
    cables: [{ label: 'C-1', b: 'a:1' }],
    prefixes: [{ prefix: '10.0.0.0/24', vrf: 'ops', place: 'Quay' }],
  });
  const quay = [...network.all('place')][0]?.id;
  for (const kind of ['address', 'cable', 'prefix', 'device', 'port', 'place'] as const) {
    const [row] = network.all(kind);
    expect([kind, placeOfRow(network, { kind, id: row?.id ?? '' })]).toEqual([kind, quay]);
  }
  const [vrf] = network.all('vrf');
  expect(placeOfRow(network, { kind: 'vrf', id: vrf?.id ?? '' })).toBeNull();
});
