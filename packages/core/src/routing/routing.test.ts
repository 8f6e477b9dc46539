import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../change/apply.ts';
import { remove } from '../change/change.ts';
import type { Network } from '../model/network/network.ts';
import { parseIp } from '../model/values/ip.ts';
import { loopbackOf, routedNetwork, type TestLink } from '../testing/testRouting.ts';
import { access, switched, trunk } from '../testing/testSwitching.ts';
import { isRouter } from './interfaces.ts';
import { ospfCost } from './ospfCost.ts';
import { mismatchText, topologyOf } from './ospfGraph.ts';
import { lookUp, routeTable, type RouteTable } from './routeTable.ts';
import { idleText } from './staticRoutes.ts';
import { runs } from '../testing/testRuns.ts';

const vrf = (network: Network, name = 'ops'): string => network.findOne('vrfByName', name)?.id ?? '';
const tableOf = (network: Network, device: string, vrfName = 'ops'): RouteTable =>
  routeTable(network, network.findOne('deviceByName', device)?.id ?? '', vrf(network, vrfName));
/** `10.9.0.0/16 static 0 > 10.43.0.1`: a route in one line. */
const said = (network: Network, table: RouteTable): string[] =>
  table.routes.map(
    (route) =>
      `${route.text} ${route.source} ${route.metric} > ${route.nextHops
        .map((hop) => `${hop.via ?? ''}@${network.get('port', hop.portId)?.name ?? ''}`)
        .sort()
        .join(' ')}`,
  );
const ospf = (area: string, more: object = {}): object => ({
  area,
  cost: null,
  passive: false,
  network: 'point-to-point',
  ...more,
});

/** Two terminals behind a headquarters: edge, core, and a switch with one address. */
function quay(routes: object[] = [], moreRoutes: object[] = []): Network {
  return switched(
    {
      edge: {
        role: 'RT',
        ports: [
          { name: 'e1', mode: 'routed', vrf: 'ops', addresses: ['10.43.0.1/31'] },
          { name: 'e2', mode: 'routed', vrf: 'ops', addresses: ['198.51.100.2/30'] },
        ],
        routes: moreRoutes,
      },
      core: {
        ports: [
          { name: 'e1', mode: 'routed', vrf: 'ops', addresses: ['10.43.0.0/31'], speedBps: 1e10 },
          trunk('t1', [20, 40]),
          { name: 'vlan20', form: 'vlan', vid: 20, vrf: 'ops', addresses: ['10.40.8.1/22'] },
          { name: 'vlan40', form: 'vlan', vid: 40, vrf: 'ops', addresses: ['10.40.3.1/24'] },
          { name: 'lo0', form: 'loopback', vrf: 'ops', addresses: ['10.43.255.1/32'] },
        ],
        routes,
      },
      acc: {
        ports: [
          trunk('t1', [20, 40]),
          access('g1', 20),
          { name: 'vlan20', form: 'vlan', vid: 20, vrf: 'ops', addresses: ['10.40.8.2/22'] },
        ],
      },
    },
    [
      ['edge:e1', 'core:e1'],
      ['core:t1', 'acc:t1'],
    ],
  );
}

describe('who routes', () => {
  test('routers, and switches that are the way out of two subnets; not one with addresses for its management', () => {
    const network = quay([{ vrf: 'ops', prefix: '0.0.0.0/0', via: '10.43.0.1' }]);
    const routes = (name: string): boolean => {
      const device = network.findOne('deviceByName', name);
      return device !== null && isRouter(network, device);
    };
    expect([routes('edge'), routes('core'), routes('acc')]).toEqual([true, true, false]);
  });
});

describe('connected and static routes', () => {
  test('every subnet with an address is connected, whatever its form', () => {
    const network = quay();
    expect(said(network, tableOf(network, 'core'))).toEqual([
      '10.40.3.0/24 connected 0 > @vlan40',
      '10.40.8.0/22 connected 0 > @vlan20',
      '10.43.0.0/31 connected 0 > @e1',
      '10.43.255.1/32 connected 0 > @lo0',
    ]);
    expect(tableOf(network, 'core', 'guest').routes).toEqual([]);
  });

  test('a next hop is followed over other routes until a port is found', () => {
    const network = quay([
      { vrf: 'ops', prefix: '0.0.0.0/0', via: '10.43.0.1' },
      { vrf: 'ops', prefix: '10.9.0.0/16', via: '172.16.0.9' },
      { vrf: 'ops', prefix: '172.16.0.0/24', via: '10.43.0.1' },
    ]);
    const table = tableOf(network, 'core');
    expect(said(network, table).filter((line) => line.includes('static'))).toEqual([
      '0.0.0.0/0 static 0 > 10.43.0.1@e1',
      '10.9.0.0/16 static 0 > 10.43.0.1@e1',
      '172.16.0.0/24 static 0 > 10.43.0.1@e1',
    ]);
    expect(table.routes[1]?.why).toBe('set by hand: 172.16.0.9 is reached by 172.16.0.0/24 (static)');
  });

  test('next hops that nothing leads to, that lead to each other, or are the device itself, are told and not used', () => {
    const network = quay([
      { vrf: 'ops', prefix: '10.9.0.0/16', via: '172.16.0.9' },
      { vrf: 'ops', prefix: '10.10.0.0/16', via: '10.11.0.1' },
      { vrf: 'ops', prefix: '10.11.0.0/16', via: '10.10.0.1' },
      { vrf: 'ops', prefix: '10.12.0.0/16', via: '10.43.0.0' },
    ]);
    const table = tableOf(network, 'core');
    expect(table.routes.some((route) => route.source === 'static')).toBe(false);
    expect(table.idle.map(({ route, reason }) => `${route.prefix}: ${idleText(reason)}`).sort()).toEqual([
      '10.10.0.0/16: the next hop 10.11.0.1 is reached by 10.11.0.0/16, which in turn is reached by this route',
      '10.11.0.0/16: the next hop 10.10.0.1 is reached by 10.10.0.0/16, which in turn is reached by this route',
      '10.12.0.0/16: next hop 10.43.0.0 is the device itself',
      '10.9.0.0/16: no route leads to the next hop 172.16.0.9',
    ]);
  });

  test('the lower distance is used; equal static routes share the load; a discard route has no next hop', () => {
    const network = quay(
      [],
      [
        { vrf: 'ops', prefix: '0.0.0.0/0', via: '198.51.100.1' },
        { vrf: 'ops', prefix: '0.0.0.0/0', via: '10.43.0.0', distance: 200 },
        { vrf: 'ops', prefix: '10.40.0.0/16', via: '10.43.0.0' },
        { vrf: 'ops', prefix: '10.40.0.0/14', discard: true },
      ],
    );
    const table = tableOf(network, 'edge');
    expect(said(network, table)).toEqual([
      '0.0.0.0/0 static 0 > 198.51.100.1@e2',
      '10.40.0.0/14 static 0 > ',
      '10.40.0.0/16 static 0 > 10.43.0.0@e1',
      '10.43.0.0/31 connected 0 > @e1',
      '198.51.100.0/30 connected 0 > @e2',
    ]);
    expect(table.idle.map(({ reason }) => idleText(reason))).toEqual([
      'static is preferred: distance 1 is below 200',
    ]);
    const sent = (address: string): string | null =>
      lookUp(table, parseIp(address) ?? { family: 4, value: 0n })?.text ?? null;
    expect([sent('10.40.9.1'), sent('10.41.0.1'), sent('8.8.8.8')]).toEqual([
      '10.40.0.0/16',
      '10.40.0.0/14',
      '0.0.0.0/0',
    ]);
  });
});

describe('OSPF', () => {
  test('cost follows the speed, of all members of an aggregate together', () => {
    const network = switched(
      {
        r: {
          role: 'RT',
          ports: [
            { name: 'x1', speedBps: 1e10 },
            { name: 'x2', speedBps: 1e10 },
            { name: 'lag1', form: 'aggregate', members: ['x1', 'x2'] },
            { name: 'lag1.90', form: 'subinterface', over: 'lag1', vid: 90 },
            { name: 'g1', speedBps: 1e9 },
            { name: 'lo0', form: 'loopback' },
            { name: 'slow', speedBps: 64000 },
          ],
        },
      },
      [],
    );
    const costs = [...network.all('port')]
      .sort((a, b) => (a.name < b.name ? -1 : 1))
      .map((port) => `${port.name} ${ospfCost(network, port)}`);
    expect(costs).toEqual(['g1 100', 'lag1 5', 'lag1.90 5', 'lo0 0', 'slow 65535', 'x1 10', 'x2 10']);
  });

  test('two ways of equal cost are both used, a dearer one is not', () => {
    const network = routedNetwork(4, [
      { a: 0, b: 1, cost: 10 },
      { a: 0, b: 2, cost: 10 },
      { a: 1, b: 3, cost: 5 },
      { a: 2, b: 3, cost: 5 },
      { a: 0, b: 3, cost: 40 },
    ]);
    const line = said(network, tableOf(network, 'r0')).find((one) => one.startsWith(loopbackOf(3)));
    expect(line).toBe(`${loopbackOf(3)} OSPF 15 > 10.0.0.1@e0 10.0.0.3@e1`);
  });

  test('a subnet that several routers share is crossed at the cost of going in alone', () => {
    const port = (last: number, cost: number): object => ({
      name: 'e0',
      mode: 'routed',
      vrf: 'ops',
      addresses: [`10.1.0.${last}/24`],
      ospf: ospf('0', { network: 'broadcast', cost }),
    });
    const lo = (last: number): object => ({
      name: 'lo0',
      form: 'loopback',
      vrf: 'ops',
      addresses: [`10.255.0.${last}/32`],
      ospf: ospf('0', { passive: true }),
    });
    const network = switched(
      {
        r1: { role: 'RT', ports: [port(1, 10), lo(1)] as never },
        r2: { role: 'RT', ports: [port(2, 20), lo(2)] as never },
        r3: { role: 'RT', ports: [port(3, 30), lo(3)] as never },
        sw: { ports: [access('g1', 20), access('g2', 20), access('g3', 20)] },
      },
      [
        ['r1:e0', 'sw:g1'],
        ['r2:e0', 'sw:g2'],
        ['r3:e0', 'sw:g3'],
      ],
    );
    expect(said(network, tableOf(network, 'r1')).filter((line) => line.includes('OSPF'))).toEqual([
      '10.255.0.2/32 OSPF 10 > 10.1.0.2@e0',
      '10.255.0.3/32 OSPF 10 > 10.1.0.3@e0',
    ]);
    expect(said(network, tableOf(network, 'r3')).filter((line) => line.includes('OSPF'))).toEqual([
      '10.255.0.1/32 OSPF 30 > 10.1.0.1@e0',
      '10.255.0.2/32 OSPF 30 > 10.1.0.2@e0',
    ]);
  });

  test('neighbours in two areas, of two kinds, or one of them passive: none, and told', () => {
    const pair = (a: object, b: object): string[] => {
      const port = (last: number, how: object): never =>
        ({ name: 'e0', mode: 'routed', vrf: 'ops', addresses: [`10.1.0.${last}/31`], ospf: how }) as never;
      const network = switched(
        { r1: { role: 'RT', ports: [port(0, a)] }, r2: { role: 'RT', ports: [port(1, b)] } },
        [['r1:e0', 'r2:e0']],
      );
      expect(tableOf(network, 'r1').routes.map((route) => route.source)).toEqual(['connected']);
      return topologyOf(network, vrf(network), 4).mismatches.map((one) =>
        mismatchText(one.why, [one.a.area, one.b.area]),
      );
    };
    expect(pair(ospf('0'), ospf('1'))).toEqual(['one is in area 0, the other in area 1']);
    expect(pair(ospf('0'), ospf('0.0.0.0', { network: 'broadcast' }))).toEqual([
      'one is point-to-point, the other broadcast',
    ]);
    expect(pair(ospf('0'), ospf('0', { passive: true }))).toEqual(['one of them is passive']);
    expect(pair(ospf('0', { passive: true }), ospf('0', { passive: true }))).toEqual([]);
  });

  test('areas are joined at their borders; what is inside an area is preferred even where it is dearer', () => {
    // r0 and r1 are the backbone; r1 and r2 border area 1, in which r3 hangs.
    const links: TestLink[] = [
      { a: 0, b: 1, cost: 10 },
      { a: 0, b: 2, cost: 10 },
      { a: 1, b: 3, cost: 100, area: '1' },
      { a: 2, b: 3, cost: 1, area: '1' },
    ];
    const network = routedNetwork(4, links, { areaOf: (router) => (router === 3 ? '1' : '0') });
    const from = (name: string, to: number): string | undefined =>
      said(network, tableOf(network, name)).find((line) => line.startsWith(`${loopbackOf(to)} `));
    expect(from('r0', 3)).toBe(`${loopbackOf(3)} OSPF between areas 11 > 10.0.0.3@e1`);
    expect(from('r1', 3)).toBe(`${loopbackOf(3)} OSPF 100 > 10.0.0.5@e2`);
    expect(from('r3', 0)).toBe(`${loopbackOf(0)} OSPF between areas 11 > 10.0.0.6@e3`);
  });

  test('a border router that discards a summary tells it in place of what lies inside, at the highest cost', () => {
    const network = switched(
      {
        r0: {
          role: 'RT',
          ports: [
            {
              name: 'e0',
              mode: 'routed',
              vrf: 'ops',
              addresses: ['10.1.0.0/31'],
              ospf: ospf('0', { cost: 10 }),
            },
          ] as never,
        },
        r1: {
          role: 'RT',
          ports: [
            {
              name: 'e0',
              mode: 'routed',
              vrf: 'ops',
              addresses: ['10.1.0.1/31'],
              ospf: ospf('0', { cost: 10 }),
            },
            {
              name: 'e1',
              mode: 'routed',
              vrf: 'ops',
              addresses: ['10.40.32.1/24'],
              ospf: ospf('1', { cost: 7 }),
            },
            {
              name: 'e2',
              mode: 'routed',
              vrf: 'ops',
              addresses: ['10.40.33.1/24'],
              ospf: ospf('1', { cost: 9 }),
            },
          ] as never,
          routes: [{ vrf: 'ops', prefix: '10.40.32.0/19', discard: true }],
        },
      },
      [['r0:e0', 'r1:e0']],
    );
    expect(said(network, tableOf(network, 'r0'))).toEqual([
      '10.1.0.0/31 connected 0 > @e0',
      '10.40.32.0/19 OSPF between areas 19 > 10.1.0.1@e0',
    ]);
  });

  test('a border router takes no summary of a range of its own from another (RFC 2328 section 16.2 (3))', () => {
    // r0 is the backbone; r1 and r2 border area 1 with r3 and both tell 10.1.0.0/16; r4 hangs on r2 in area 2.
    const links: TestLink[] = [
      { a: 0, b: 1, cost: 10 },
      { a: 0, b: 2, cost: 10 },
      { a: 1, b: 3, cost: 20, area: '1' },
      { a: 2, b: 3, cost: 10, area: '1' },
      { a: 2, b: 4, cost: 10, area: '2' },
    ];
    const network = routedNetwork(5, links, {
      areaOf: (router) => (router === 3 ? '1' : router === 4 ? '2' : '0'),
      loopbacks: { 3: '10.1.0.3/32' },
      ranges: { 1: ['10.1.0.0/16'], 2: ['10.1.0.0/16'] },
    });
    const to = (name: string): string[] =>
      said(network, tableOf(network, name)).filter((line) => line.startsWith('10.1.0.0/16'));
    expect(to('r3')).toEqual([]);
    expect(to('r0')).toEqual(['10.1.0.0/16 OSPF between areas 20 > 10.0.0.3@e1']);
    expect(to('r4')).toEqual(['10.1.0.0/16 OSPF between areas 20 > 10.0.0.8@e4']);
  });

  test('a second subnet of a shared segment is told by the routers that have it', () => {
    const port = (addresses: string[]): object => ({
      name: 'e0',
      mode: 'routed',
      vrf: 'ops',
      addresses,
      ospf: ospf('0', { network: 'broadcast', cost: 10 }),
    });
    const network = switched(
      {
        r1: { role: 'RT', ports: [port(['10.0.0.1/24', '2001:db8:1::1/64'])] as never },
        r2: {
          role: 'RT',
          ports: [
            port([
              '10.0.0.2/24',
              '2001:db8:1::2/64',
              { address: '10.0.7.1/24', use: 'secondary' } as never,
              { address: '2001:db8:2::2/64', use: 'secondary' } as never,
            ]),
          ] as never,
        },
      },
      [['r1:e0', 'r2:e0']],
    );
    expect(said(network, tableOf(network, 'r1')).filter((line) => line.includes('OSPF'))).toEqual([
      '10.0.7.0/24 OSPF 20 > 10.0.0.2@e0',
      // All subnets of a link hang on the link itself in IPv6 (RFC 5340 section 4.4.3.9).
      '2001:db8:2::/64 OSPF 10 > @e0',
    ]);
  });

  test('a loopback is told as a host, whatever the length of its prefix (RFC 2328 section 12.4.1)', () => {
    const network = routedNetwork(2, [{ a: 0, b: 1, cost: 4 }], { loopbacks: { 1: '10.9.8.7/24' } });
    expect(said(network, tableOf(network, 'r0')).filter((line) => line.includes('OSPF'))).toEqual([
      '10.9.8.7/32 OSPF 4 > 10.0.0.1@e0',
    ]);
  });

  test('IPv6 goes the same ways with next hops of its own family', () => {
    const network = switched(
      {
        r1: {
          role: 'RT',
          ports: [
            {
              name: 'e0',
              mode: 'routed',
              vrf: 'ops',
              addresses: ['10.1.0.0/31', '2001:db8::/127'],
              ospf: ospf('0', { cost: 3 }),
            },
          ] as never,
        },
        r2: {
          role: 'RT',
          ports: [
            {
              name: 'e0',
              mode: 'routed',
              vrf: 'ops',
              addresses: ['10.1.0.1/31', '2001:db8::1/127'],
              ospf: ospf('0'),
            },
            {
              name: 'lo0',
              form: 'loopback',
              vrf: 'ops',
              addresses: ['10.2.0.1/32', '2001:db8:ff::1/128'],
              ospf: ospf('0'),
            },
          ] as never,
        },
      },
      [['r1:e0', 'r2:e0']],
    );
    expect(said(network, tableOf(network, 'r1')).filter((line) => line.includes('OSPF'))).toEqual([
      '10.2.0.1/32 OSPF 3 > 10.1.0.1@e0',
      '2001:db8:ff::1/128 OSPF 3 > 2001:db8::1@e0',
    ]);
    const [port] = network.find('portByName', `${network.findOne('deviceByName', 'r1')?.id ?? ''}:e0`);
    const six = network.find('addressesByPort', port?.id ?? '').find((row) => row.address.includes(':'));
    const without = applyChanges(network, six === undefined ? [] : [remove('address', six)]);
    if (!without.ok) throw new Error('cannot be removed');
    expect(
      said(without.network, tableOf(without.network, 'r1')).filter((line) => line.includes('OSPF')),
    ).toEqual(['10.2.0.1/32 OSPF 3 > 10.1.0.1@e0']);
  });
});

/** Costs by the plainest Dijkstra there is: look for the nearest that is open, again and again. */
function plainCosts(routers: number, links: readonly TestLink[], from: number): number[] {
  const costs = Array.from({ length: routers }, (_, at) => (at === from ? 0 : Infinity));
  const open = new Set(costs.keys());
  while (open.size > 0) {
    const nearest = [...open].reduce((a, b) => ((costs[b] ?? 0) < (costs[a] ?? 0) ? b : a));
    open.delete(nearest);
    for (const { a, b, cost, back } of links)
      for (const [here, there, price] of [
        [a, b, cost],
        [b, a, back ?? cost],
      ] as const)
        if (here === nearest)
          costs[there] = Math.min(costs[there] ?? Infinity, (costs[nearest] ?? Infinity) + price);
  }
  return costs;
}

describe('properties', () => {
  const routers = 7;
  const someLinks = fc.array(
    fc
      .record({
        a: fc.integer({ min: 0, max: routers - 1 }),
        b: fc.integer({ min: 0, max: routers - 1 }),
        cost: fc.integer({ min: 1, max: 12 }),
        back: fc.integer({ min: 1, max: 12 }),
      })
      .filter(({ a, b }) => a !== b),
    { minLength: 4, maxLength: 14 },
  );

  test('costs are those of a plain Dijkstra, and every first step leads on at the cost that is left', () => {
    fc.assert(
      fc.property(someLinks, (links) => {
        const network = routedNetwork(routers, links);
        for (let from = 0; from < routers; from++) {
          const costs = plainCosts(routers, links, from);
          const table = tableOf(network, `r${from}`);
          for (let to = 0; to < routers; to++) {
            if (to === from) continue;
            const route = table.routes.find((one) => one.text === loopbackOf(to));
            expect(route?.metric ?? Infinity).toBe(costs[to]);
            const firsts = new Set(
              (route?.nextHops ?? []).map((hop) => network.get('port', hop.portId)?.name ?? ''),
            );
            const wanted = links.flatMap(({ a, b, cost, back }, at) =>
              [
                [a, b, cost],
                [b, a, back],
              ].flatMap(([here = 0, there = 0, price = 0]) =>
                here === from &&
                costs[to] !== Infinity &&
                price + (plainCosts(routers, links, there)[to] ?? Infinity) === costs[to]
                  ? [`e${at}`]
                  : [],
              ),
            );
            expect([...firsts].sort()).toEqual([...new Set(wanted)].sort());
          }
        }
      }),
      { numRuns: runs(25) },
    );
  });
});
