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

  test('of the demo: what each fault offers', () => {
    const demo = demoNetwork();
    expect(offered(demo, 'no-management-address')).toEqual([
      ['Give kq-cam-14 eth0 10.40.3.4/24 (VLAN 40 Cameras · 10.40.3.0/24)'],
    ]);
    expect(offered(demo, 'prefix-overlap')).toEqual([['Move 10.41.3.64/26 with all in it to 10.41.1.0/26']]);
    expect(offered(demo, 'link-optics')).toEqual([['Put Lumenroot LR-10 into br-acc-1 te1/25']]);
    expect(offered(demo, 'link-medium')).toEqual(offered(demo, 'link-optics'));
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

  test('what has become impossible meanwhile is not offered', () => {
    const [finding] = findingsOf(open).filter(({ rule }) => rule === 'cable-one-end');
    if (finding === undefined) throw new Error('no open cable');
    const [mend] = mendsOf(open, finding);
    const applied = applyChanges(open, mend?.set.changes ?? []);
    if (!applied.ok) throw new Error('it could not be removed');
    expect(mendsOf(applied.network, finding)).toEqual([]);
  });

  test('a rule without mends offers none', () => {
    const bare = rules.filter(({ key }) => key === 'label-gap' || key === 'rack-over-limit');
    for (const rule of bare)
      for (const finding of rule.findings(demoNetwork()))
        expect(rule.mends(finding, demoNetwork())).toEqual([]);
  });
});
