import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Vlan } from '../model/kinds/logical/vlan.ts';
import type { Network } from '../model/network/network.ts';
import { findPort, portTitle } from '../model/network/ports.ts';
import { access, switched, trunk } from '../testing/testSwitching.ts';
import type { Bridge } from './bridges.ts';
import { layer2Of } from './layer2.ts';
import { handOffs, leaks, reachOf, seatOf, stopSaid, type Stop } from './reach.ts';
import { pathCost, spanningTree } from './spanningTree.ts';
import { VidSet } from './vidSet.ts';
import { runs } from '../testing/testRuns.ts';

const vlan = (network: Network, vid: number): Vlan => {
  const found = [...network.all('vlan')].find((one) => one.vid === vid);
  if (found === undefined) throw new Error(`no VLAN ${vid}`);
  return found;
};
const bridge = (network: Network, name: string): Bridge => {
  const found = [...layer2Of(network).bridging.bridges.values()].find((one) => one.name === name);
  if (found === undefined) throw new Error(`no bridge ${name}`);
  return found;
};
const heard = (network: Network, name: string, vid: number): string[] =>
  layer2Of(network)
    .domain(bridge(network, name), vid)
    .listeners.map((port) => portTitle(network, port.id))
    .sort();
const text = (network: Network, vid: number, stop: Stop): string =>
  stopSaid(network, vid, { ...stop, from: seatOf(stop.from), at: seatOf(stop.at) });
const reach = (network: Network, vid: number) => reachOf(layer2Of(network), vlan(network, vid));

describe('the reach of a VLAN', () => {
  const network = switched(
    {
      core: {
        ports: [
          trunk('1', [10, 20, 40], 999),
          trunk('2', [10, 20], 999),
          { name: 'vlan20', form: 'vlan', vid: 20 },
        ],
      },
      'acc-1': { ports: [trunk('up', [10, 20, 40], 999), access('1', 40), access('2', 20)] },
      'acc-2': { ports: [trunk('up', [10, 20, 40], 999), access('1', 40)] },
      cam: { role: 'CM', ports: [{ name: 'eth0' }] },
      cam2: { role: 'CM', ports: [{ name: 'eth0' }] },
      pc: { role: 'PC', ports: [{ name: 'eth0' }] },
    },
    [
      ['core:1', 'acc-1:up'],
      ['core:2', 'acc-2:up'],
      ['acc-1:1', 'cam:eth0'],
      ['acc-2:1', 'cam2:eth0'],
      ['acc-1:2', 'pc:eth0'],
    ],
  );

  test('who hears VLAN 20: the VLAN interface on the core and the desk', () => {
    expect(heard(network, 'acc-2', 20)).toEqual(['core:vlan20', 'pc:eth0']);
  });

  test('VLAN 40 is pruned at the core: two islands, and where it stops', () => {
    const { islands, stops, users } = reach(network, 40);
    expect(islands).toHaveLength(2);
    expect(stops.map((stop) => [stop.why, text(network, 40, stop)])).toEqual([
      ['pruned', 'acc-2 up carries VLAN 40, core 2 does not'],
    ]);
    expect(users.map((port) => portTitle(network, port.id)).sort()).toEqual(['cam2:eth0', 'cam:eth0']);
  });

  test('VLAN 10 is one domain over three switches that nobody uses', () => {
    const { islands, users } = reach(network, 10);
    expect(islands).toHaveLength(1);
    expect(islands[0]?.bridges).toHaveLength(3);
    expect(users).toEqual([]);
  });
});

describe('untagged frames', () => {
  test('two ends that number them differently join two VLANs, and it is told once', () => {
    const network = switched(
      { a: { ports: [trunk('1', [20], 10), access('2', 10)] }, b: { ports: [trunk('1', [20], 40)] } },
      [['a:1', 'b:1']],
    );
    const layer2 = layer2Of(network);
    expect(layer2.sameDomain(bridge(network, 'a'), 10, bridge(network, 'b'), 40)).toBe(true);
    expect(
      reach(network, 10)
        .stops.concat(reach(network, 40).stops)
        .map((stop) => stop.why),
    ).toEqual(['native']);
  });

  test('tagged at one end and untagged at the other does not meet', () => {
    const network = switched({ a: { ports: [trunk('1', [20], 10)] }, b: { ports: [trunk('1', [10, 20])] } }, [
      ['a:1', 'b:1'],
    ]);
    expect(layer2Of(network).sameDomain(bridge(network, 'a'), 10, bridge(network, 'b'), 10)).toBe(false);
    expect(reach(network, 10).stops.map((stop) => text(network, 10, stop))).toEqual([
      'VLAN 10 goes untagged at a 1 and tagged at b 1',
    ]);
  });

  test('an access port in between cuts off what is tagged', () => {
    const network = switched({ a: { ports: [trunk('1', [20, 40])] }, b: { ports: [access('1', 40)] } }, [
      ['a:1', 'b:1'],
    ]);
    expect(reach(network, 20).stops.map((stop) => text(network, 20, stop))).toEqual([
      'b 1 is an access port, a 1 sends VLAN 20 tagged',
    ]);
    expect(reach(network, 40).stops.map((stop) => text(network, 40, stop))).toEqual([
      'VLAN 40 goes untagged at b 1 and tagged at a 1',
    ]);
  });
});

test('a phone hears the voice VLAN, and the desk behind it the other', () => {
  const network = switched(
    {
      sw: { ports: [{ ...access('1', 20), voice: 50 }] },
      phone: { role: 'PH', ports: [{ name: 'eth0' }] },
    },
    [['sw:1', 'phone:eth0']],
  );
  expect(heard(network, 'sw', 50)).toEqual(['phone:eth0']);
  expect(heard(network, 'sw', 20)).toEqual([]);
});

test('through a panel, a media converter and a radio bridge frames keep their tags', () => {
  const network = switched(
    {
      a: { ports: [trunk('1', [20, 40])] },
      panel: {
        role: 'PP',
        ports: [
          { name: 'F1', leadsTo: 'R1' },
          { name: 'R1', leadsTo: 'F1' },
        ],
      },
      mc: { role: 'MC', ports: [{ name: 'copper' }, { name: 'fibre' }] },
      b: { ports: [trunk('1', [40]), access('2', 40)] },
      cam: { role: 'CM', ports: [{ name: 'eth0' }] },
    },
    [
      ['a:1', 'panel:F1'],
      ['panel:R1', 'mc:copper'],
      ['mc:fibre', 'b:1'],
      ['b:2', 'cam:eth0'],
    ],
  );
  expect(heard(network, 'a', 40)).toEqual(['cam:eth0']);
  expect(heard(network, 'a', 20)).toEqual([]);
  expect(leaks(layer2Of(network))).toEqual([]);
});

test('an aggregate over both switches of a pair is one link; its members set nothing', () => {
  const lag = (members: string[]) => ({
    ...trunk('lag1', [20]),
    form: 'aggregate' as const,
    members,
    lacp: 'active' as const,
  });
  const network = switched(
    {
      'core-1': { stack: 'core', ports: [{ name: '1', speedBps: 1e10 }, lag(['1'])] },
      'core-2': { stack: 'core', ports: [{ name: '1', speedBps: 1e10 }, lag(['1'])] },
      acc: { ports: [{ name: '1', speedBps: 1e10 }, { name: '2', speedBps: 1e10 }, lag(['1', '2'])] },
    },
    [
      ['core-1:1', 'acc:1'],
      ['core-2:1', 'acc:2'],
    ],
  );
  const layer2 = layer2Of(network);
  expect(layer2.bridging.bridges.size).toBe(2);
  expect(layer2.links).toHaveLength(1);
  expect(layer2.links[0]?.speedBps).toBe(2e10);
  expect(spanningTree(layer2, bridge(network, 'acc'), 20)?.blocked.size).toBe(0);
});

describe('routed hand-over between numberings', () => {
  const hop = (vlans: [string, number][], bridged: boolean) =>
    switched(
      {
        quay: { ports: [trunk('1', [20])] },
        edge: {
          role: 'RT',
          ports: bridged
            ? [trunk('1', 'all'), trunk('2', 'all')]
            : [
                { name: '1' },
                { name: '2' },
                ...vlans.map(([over, vid]) => ({
                  name: `${over}.${vid}`,
                  form: 'subinterface' as const,
                  over,
                  vid,
                  vrf: 'ops',
                })),
              ],
        },
        boat: { place: 'Boat', ports: [trunk('1', bridged ? [20, 120] : [120])] },
      },
      [
        ['quay:1', 'edge:1'],
        ['edge:2', 'boat:1'],
      ],
    );

  test('a router with VLAN 20 on one side and 120 on the other hands ops over', () => {
    const network = hop(
      [
        ['1', 20],
        ['2', 120],
      ],
      false,
    );
    expect(handOffs(network)).toHaveLength(1);
    expect(heard(network, 'quay', 20)).toEqual(['edge:1.20']);
    expect(heard(network, 'boat', 120)).toEqual(['edge:2.120']);
    expect(leaks(layer2Of(network))).toEqual([]);
  });

  test('bridged through, the VLAN of the quay reaches the boat: told', () => {
    const found = leaks(layer2Of(hop([], true)));
    expect(found.some((leak) => leak.domain.bridges.some((one) => one.vid === 20))).toBe(true);
  });
});

test('with two tags the inner one counts, over a link and through a switch alike (IEEE 802.1ad)', () => {
  const sub = (inner: number): object => ({
    name: `1.100.${inner}`,
    form: 'subinterface',
    over: '1',
    vid: 100,
    innerVid: inner,
  });
  const router = (...inner: number[]) => ({ role: 'RT', ports: [{ name: '1' }, ...inner.map(sub)] as never });
  const segments = (network: Network): (string | null)[] =>
    ['r1:1.100.5', 'r1:1.100.6', 'r2:1.100.5'].map((title) => {
      const [device = '', port = ''] = title.split(':');
      const found = findPort(network, device, port);
      return found === null ? null : layer2Of(network).segmentOf(found);
    });
  const wires = [
    [['r1:1', 'r2:1']],
    [
      ['r1:1', 'sw:1'],
      ['sw:2', 'r2:1'],
    ],
  ] as [string, string][][];
  for (const links of wires) {
    const network = switched(
      { r1: router(5, 6), r2: router(5), sw: { ports: [trunk('1', [100]), trunk('2', [100])] } },
      links,
    );
    const [five, six, other] = segments(network);
    expect(five).not.toBeNull();
    expect(other).toBe(five);
    expect(six).not.toBe(five);
  }
});

describe('spanning tree', () => {
  const ring = (priorities: Record<string, number>) =>
    switched(
      Object.fromEntries(
        ['a', 'b', 'c'].map((name) => [
          name,
          {
            bridgePriority: priorities[name] ?? null,
            ports: ['1', '2'].map((port) => ({ ...trunk(port, [20]), speedBps: 1e9 })),
          },
        ]),
      ),
      [
        ['a:1', 'b:2'],
        ['b:1', 'c:2'],
        ['c:1', 'a:2'],
      ],
    );

  test('of a ring of three the link farthest from the root is blocked', () => {
    const network = ring({ a: 4096 });
    const tree = spanningTree(layer2Of(network), bridge(network, 'b'), 20);
    expect(tree?.root.name).toBe('a');
    expect(
      [...(tree?.blocked.values() ?? [])].map((port) => `${port.bridge.name} ${port.port.name}`),
    ).toEqual(['c 2']);
  });

  test('the priority moves the root, and the blocked port with it', () => {
    const network = ring({ c: 8192 });
    const tree = spanningTree(layer2Of(network), bridge(network, 'b'), 20);
    expect(tree?.root.name).toBe('c');
    expect(
      [...(tree?.blocked.values() ?? [])].map((port) => `${port.bridge.name} ${port.port.name}`),
    ).toEqual(['b 2']);
  });

  test('cost by speed: 2,000 for 10 Gbit/s, 20,000 for 1, 200 for 100 (IEEE 802.1D-2004 table 17-3)', () => {
    expect([1e10, 1e9, 1e11, 1e8].map(pathCost)).toEqual([2000, 20000, 200, 200000]);
  });

  test('property: what forwards is a tree over all switches, whatever is cabled', () => {
    const pair = fc.tuple(fc.nat({ max: 7 }), fc.nat({ max: 7 })).filter(([a, b]) => a !== b);
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 14 }), (pairs) => {
        const used = Array.from({ length: 8 }, () => 0);
        const links = pairs.map(
          ([a, b]) =>
            [`s${a}:${(used[a] = (used[a] ?? 0) + 1)}`, `s${b}:${(used[b] = (used[b] ?? 0) + 1)}`] as const,
        );
        const network = switched(
          Object.fromEntries(
            used.map((count, at) => [
              `s${at}`,
              { ports: Array.from({ length: Math.max(1, count) }, (_, n) => trunk(String(n + 1), [20])) },
            ]),
          ),
          links,
        );
        const layer2 = layer2Of(network);
        const start = bridge(network, 's0');
        const tree = spanningTree(layer2, start, 20);
        const inside = layer2.domain(start, 20).bridges.length;
        const forwarding = layer2.links.filter(
          (link) => tree?.costs.has(link.a.bridge.key) === true && !tree.blocked.has(link.key),
        );
        expect(forwarding).toHaveLength(inside - 1);
        expect(tree?.costs.size).toBe(inside);
      }),
      { numRuns: runs(40) },
    );
  });
});

test('property: a set of VLAN numbers as bits is the set', () => {
  const vids = fc.uniqueArray(fc.integer({ min: 0, max: 4094 }), { maxLength: 200 });
  fc.assert(
    fc.property(vids, vids, (a, b) => {
      const sorted = (list: number[]): number[] => [...list].sort((x, y) => x - y);
      expect(VidSet.of(a).list()).toEqual(sorted(a));
      expect(VidSet.of(a).and(VidSet.of(b)).list()).toEqual(sorted(a.filter((one) => b.includes(one))));
      const both = VidSet.of(a);
      both.addAll(VidSet.of(b));
      expect(both.list()).toEqual(sorted([...new Set([...a, ...b])]));
    }),
  );
  expect(VidSet.all(false).list()).toHaveLength(4094);
});

describe('domains', () => {
  test('property: each bridge and number is in exactly one, that of its own; they tell their numberings', () => {
    const spec = fc.array(
      fc.tuple(fc.nat(5), fc.nat(5), fc.subarray([10, 20, 30, 40]), fc.subarray([10, 20, 30, 40])),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(spec, (links) => {
        const joined = links.flatMap(([a, b, one, other], at) => (a === b ? [] : [{ a, b, one, other, at }]));
        const ports = (of: number) =>
          joined.flatMap(({ a, b, one, other, at }) => [
            ...(a === of ? [trunk(`p${at}`, one, 999)] : []),
            ...(b === of ? [trunk(`q${at}`, other, 50)] : []),
          ]);
        const devices = [0, 1, 2, 3, 4, 5].map((of) => [
          `s${of}`,
          { ports: ports(of), place: of < 4 ? 'Quay' : 'Boat' },
        ]);
        const network = switched(
          Object.fromEntries(devices),
          joined.map(({ a, b, at }) => [`s${a}:p${at}`, `s${b}:q${at}`]),
        );
        const layer2 = layer2Of(network);
        const seen = new Map<string, number>();
        for (const { id, bridges } of layer2.domains()) {
          expect(layer2.bridgesOfDomain(id)).toEqual(bridges);
          for (const { bridge: one, vid } of bridges) {
            expect(seen.has(`${one.key} ${vid}`)).toBe(false);
            seen.set(`${one.key} ${vid}`, id);
            expect(layer2.domainId(one, vid)).toBe(id);
          }
          const numberings = new Set(
            bridges.flatMap(({ bridge: one }) => (one.form === 'switch' ? (one.numberingId ?? []) : [])),
          );
          expect(layer2.numberingsOfDomain(id)).toEqual(numberings);
        }
        for (const one of layer2.bridging.bridges.values())
          layer2.vidsOf(one).each((vid) => expect(seen.has(`${one.key} ${vid}`)).toBe(true));
      }),
      { numRuns: runs(60) },
    );
  });
});
