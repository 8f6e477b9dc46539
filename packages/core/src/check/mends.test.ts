import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { invert } from '../change/invert.ts';
import type { Network } from '../model/network/network.ts';
import { documented } from '../testing/testDocumented.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import { content } from '../testing/testEdits.ts';
import { everything } from '../testing/testKinds.ts';
import { networkOf } from '../testing/testNetwork.ts';
import { access, switched, trunk } from '../testing/testSwitching.ts';
import { findingKey } from './finding.ts';
import { findingsOf, mendsOf, rules } from './registry.ts';

/** One fault of each sort that can be mended without asking anybody. */
const faulty = switched(
  {
    a: {
      ports: [
        { ...trunk('1', [10, 20], 999), spanningTree: { cost: 200, priority: null, edge: true } },
        trunk('2', [20, 77]),
        access('3', 40),
        { name: 'vlan20', form: 'vlan', vid: 20, vrf: 'ops', addresses: ['10.1.0.1/25'] },
      ],
    },
    b: { ports: [trunk('1', [10], 20), access('3', 20)] },
    r: {
      role: 'RT',
      ports: [
        { name: 'e', mode: 'routed', vrf: 'ops', addresses: ['10.2.0.9/24'] },
        { name: 'f', mode: 'routed', vrf: 'ops', addresses: ['10.2.0.9/24'] },
      ],
    },
  },
  [
    ['a:1', 'b:1'],
    ['a:3', 'r:e'],
  ],
  {
    prefixes: [
      { prefix: '10.1.0.0/24', vrf: 'ops', gateway: '10.1.0.255', vlan: 'shore/20' },
      { prefix: '10.2.0.0/24', vrf: 'ops', gateway: '10.2.0.1', vlan: 'shore/40' },
      { prefix: '10.3.0.0/31', vrf: 'ops' },
    ],
  },
);
const open = networkOf({
  devices: [{ name: 'x', role: 'SW', ports: [{ name: '1' }] }],
  cables: [{ label: 'C-1', a: 'x:1' }],
});

/** What each finding of a rule offers, as its sentences. */
const offered = (network: Network, rule: string): string[][] =>
  findingsOf(network)
    .filter((finding) => finding.rule === rule)
    .map((finding) => mendsOf(network, finding).map(({ wish }) => wish))
    .sort();

describe('mends', () => {
  test('say what they would do', () => {
    expect(offered(faulty, 'vlan-undefined')).toEqual([['Add VLAN 77 to shore']]);
    expect(offered(faulty, 'edge-port-to-switch')).toEqual([['Take the edge setting off a 1']]);
    expect(offered(faulty, 'gateway-no-host')).toEqual([
      ['Take 10.1.0.1 as the gateway', 'Take 10.1.0.254 as the gateway'],
    ]);
    expect(offered(faulty, 'address-outside-prefix')).toEqual([['Correct the length to /24']]);
    expect(offered(faulty, 'address-duplicate')).toEqual([
      ['Move the address on r:e to 10.2.0.2/24', 'Move the address on r:f to 10.2.0.2/24'],
    ]);
    expect(offered(faulty, 'point-to-point-misuse')).toEqual([['Make it a transit prefix']]);
    expect(offered(open, 'cable-one-end')).toEqual([['Remove C-1']]);
  });

  test('of a VLAN that stops: carried on, taken off, or the same number untagged at both ends', () => {
    expect(offered(faulty, 'vlan-stops').flat()).toEqual(
      expect.arrayContaining(['Let untagged frames be VLAN 20 at a 1 too']),
    );
    const pruned = switched(
      {
        a: { ports: [trunk('1', [10, 40]), access('2', 40)] },
        b: { ports: [trunk('1', [10]), access('2', 40)] },
      },
      [['a:1', 'b:1']],
    );
    expect(offered(pruned, 'vlan-stops')).toEqual([['Carry VLAN 40 at b 1 too', 'Take VLAN 40 off a 1']]);
  });

  test.each([
    ['every kind', everything],
    ['the demo', demoNetwork()],
    ['faulty switches', faulty],
    ['an open cable', open],
    ['racks and what stands in them', documented],
  ])('each mend of %s takes its finding away, and is undone as one step', (_name, network) => {
    let tried = 0;
    for (const finding of findingsOf(network))
      for (const { wish, set } of mendsOf(network, finding)) {
        const applied = applyChanges(network, set.changes);
        expect([wish, applied.ok, set.sentence.length > 10]).toEqual([wish, true, true]);
        if (!applied.ok) continue;
        tried++;
        const left = findingsOf(applied.network).map(findingKey);
        expect([wish, left.includes(findingKey(finding))]).toEqual([wish, false]);
        const back = applyChanges(applied.network, invert(applied.changes));
        expect(back.ok && content(back.network)).toBe(content(network));
      }
    expect(tried).toBeGreaterThan(0);
  });

  test('what a mend of the demo usually means brings nothing new to mend', () => {
    const demo = demoNetwork();
    const before = new Set(findingsOf(demo).map(findingKey));
    for (const finding of findingsOf(demo)) {
      const [mend] = mendsOf(demo, finding);
      const applied = applyChanges(demo, mend?.set.changes ?? []);
      if (!applied.ok) throw new Error(mend?.wish);
      const fresh = findingsOf(applied.network).filter((one) => !before.has(findingKey(one)));
      expect([mend?.wish, fresh.map(({ rule }) => rule)]).toEqual([mend?.wish, []]);
    }
  });

  test('of the demo: what each fault offers', () => {
    const demo = demoNetwork();
    expect(offered(demo, 'no-management-address')).toEqual([
      ['Give kq-cam-14 eth0 10.40.3.4/24 (VLAN 40 Cameras · 10.40.3.0/24)'],
    ]);
    expect(offered(demo, 'prefix-overlap')).toEqual([['Move 10.41.3.64/26 with all in it to 10.41.32.0/26']]);
    expect(offered(demo, 'link-optics')).toEqual([['Put Lumenroot LR-10 into br-acc-1 te1/25']]);
    expect(offered(demo, 'link-medium')).toEqual(offered(demo, 'link-optics'));
    expect(offered(demo, 'cable-one-end')).toEqual([
      [
        'Plug its B end into ah-edge-1:ge0/4, free in Comms room',
        'Plug its B end into ah-acc-2:gi1/1, free in Ashholm',
        'Remove AH-00016',
      ],
    ]);
    expect(offered(demo, 'label-gap')).toEqual([
      ['Label AH-00018, the last of the sequence, AH-00017 instead'],
    ]);
    expect(offered(demo, 'poe-over-budget')).toEqual([['Put Norvane AX-2448P in its place: 740 W']]);
    expect(offered(demo, 'rack-over-limit')).toEqual([['Have feed A of BR-A1 rated 16 A instead of 10 A']]);
    // Its rack has no free outlet on another feed, as its waiver says.
    expect(offered(demo, 'single-fed').flat()).toEqual([]);
  });

  test('of racks: blanks, names, router ids, feeds', () => {
    expect(offered(documented, 'rack-blanks-missing')).toEqual([['Close them with 9 blanks']]);
    expect(offered(documented, 'name-otherwise').flat()[0]).toMatch(/^Rename it to q-/);
    expect(offered(documented, 'dhcp-over-fixed')).toEqual([['Cut the range around them']]);
    // Both strips hang on feed A: there is no other to plug into.
    expect(offered(documented, 'inlets-one-feed').flat()).toEqual([]);
  });

  test('of a rack above its limit: the smallest thing that is enough, to the nearest rack of the site', () => {
    const heavy = networkOf({
      places: [
        { path: 'Quay', kind: 'site' },
        { path: 'Quay/Room', kind: 'room' },
        { path: 'Quay/Loft', kind: 'room' },
        { path: 'Boat', kind: 'site' },
      ],
      racks: [
        {
          name: 'R1',
          place: 'Quay/Room',
          units: 20,
          massLimitKg: 50,
          feeds: [{ name: 'A', volts: 230, amps: 16, phases: 1, derating: 0.8 }],
        },
        { name: 'R2', place: 'Quay/Room', units: 20, massLimitKg: 12 },
        { name: 'R3', place: 'Quay/Loft', units: 20, massLimitKg: 400 },
        { name: 'R9', place: 'Boat', units: 20, massLimitKg: 900 },
      ],
      models: [
        { form: 'device', name: 'Heavy', role: 'SV', units: 4, massKg: 40, maxPowerW: 500 },
        { form: 'device', name: 'Light', role: 'SV', units: 1, massKg: 15, maxPowerW: 100 },
      ],
      devices: [
        { name: 'heavy', model: 'Heavy', rack: 'R1', unit: 1 },
        { name: 'light', model: 'Light', rack: 'R1', unit: 10 },
      ],
    });
    // 55 kg in a rack of 50: the light one is enough. R2 carries only 12 kg, so it goes up to the loft, not onto the boat.
    expect(offered(heavy, 'rack-over-limit')).toEqual([['Move light to R3 U20']]);
  });

  test('what has become impossible meanwhile is not offered', () => {
    const [finding] = findingsOf(open).filter(({ rule }) => rule === 'cable-one-end');
    if (finding === undefined) throw new Error('no open cable');
    const [mend] = mendsOf(open, finding);
    const applied = applyChanges(open, mend?.set.changes ?? []);
    if (!applied.ok) throw new Error('it could not be removed');
    expect(mendsOf(applied.network, finding)).toEqual([]);
  });

  test('a rule without mends offers none', () => {
    const bare = rules.filter(({ mendable }) => !mendable);
    expect(bare.length).toBeGreaterThan(10);
    for (const rule of bare)
      for (const finding of rule.findings(demoNetwork()))
        expect(rule.mends(finding, demoNetwork())).toEqual([]);
  });
});
