import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Network } from '../model/network/network.ts';
import { switched } from '../testing/testSwitching.ts';
import { routeTable, type RouteTable } from './routeTable.ts';
import { idleText } from './staticRoutes.ts';
import { runs } from '../testing/testRuns.ts';

interface Given {
  prefix: string;
  via?: string;
  out?: string;
  distance?: number;
  discard?: boolean;
}

/** One router with ports e0, e1 … and these static routes. */
function router(addresses: string[], routes: Given[]): { network: Network; table: RouteTable } {
  const network = switched(
    {
      r: {
        role: 'RT',
        ports: addresses.map((address, at) => ({ name: `e${at}`, mode: 'routed', addresses: [address] })),
        routes,
      },
    },
    [],
  );
  return { network, table: routeTable(network, network.findOne('deviceByName', 'r')?.id ?? '', null) };
}

/** `10.9.0.0/16 > 10.0.0.1@e0`: the static routes in use. */
function used({ network, table }: ReturnType<typeof router>): string[] {
  return table.routes
    .filter((route) => route.source === 'static')
    .map(
      (route) =>
        `${route.text} > ${route.nextHops.map((hop) => `${hop.via ?? ''}@${network.get('port', hop.portId)?.name ?? ''}`).join(' ')}`,
    );
}
const idle = ({ table }: ReturnType<typeof router>): string[] =>
  table.idle.map(({ route, reason }) => `${route.prefix}: ${idleText(reason)}`).sort();

describe('a next hop is looked up by longest match (RFC 1812 section 5.2.4.3)', () => {
  const two = ['192.168.0.1/24', '192.168.16.1/24'];

  test('over the table as it is in the end, not as it was in some pass', () => {
    const made = router(two, [
      { prefix: '0.0.0.0/0', via: '192.168.16.2' },
      { prefix: '10.1.0.0/16', via: '192.168.0.2' },
      { prefix: '10.2.0.0/16', via: '10.1.0.1' },
      { prefix: '10.3.0.0/16', via: '10.2.1.1' },
    ]);
    expect(used(made)).toEqual([
      '0.0.0.0/0 > 192.168.16.2@e1',
      '10.1.0.0/16 > 192.168.0.2@e0',
      '10.2.0.0/16 > 192.168.0.2@e0',
      '10.3.0.0/16 > 192.168.0.2@e0',
    ]);
    expect(idle(made)).toEqual([]);
  });

  test('all equal ways of what it is reached by are kept, each once', () => {
    const made = router(two, [
      { prefix: '10.1.0.0/16', via: '192.168.0.2' },
      { prefix: '10.1.0.0/16', via: '192.168.16.2' },
      { prefix: '10.2.0.0/16', via: '10.1.0.1' },
      { prefix: '10.2.0.0/16', via: '10.1.0.2' },
    ]);
    expect(used(made)).toEqual([
      '10.1.0.0/16 > 192.168.0.2@e0 192.168.16.2@e1',
      '10.2.0.0/16 > 192.168.0.2@e0 192.168.16.2@e1',
    ]);
  });

  test('a next hop behind a route out of a port stays with that port', () => {
    const made = router(two, [
      { prefix: '10.1.0.0/16', out: 'e1' },
      { prefix: '10.2.0.0/16', via: '10.1.0.5' },
    ]);
    expect(used(made)).toEqual(['10.1.0.0/16 > @e1', '10.2.0.0/16 > 10.1.0.5@e1']);
  });

  test('a route that is reached over itself alone is not used, and told', () => {
    const one = router(['192.168.0.1/24'], [{ prefix: '192.168.0.0/25', via: '192.168.0.2' }]);
    expect(used(one)).toEqual([]);
    expect(idle(one)).toEqual(['192.168.0.0/25: the next hop 192.168.0.2 is reached by this route alone']);
    const two = router(
      ['192.168.0.1/24'],
      [
        { prefix: '0.0.0.0/0', via: '192.168.0.2' },
        { prefix: '10.8.0.0/16', via: '10.8.2.1' },
      ],
    );
    expect(used(two)).toEqual(['0.0.0.0/0 > 192.168.0.2@e0']);
    expect(idle(two)).toEqual(['10.8.0.0/16: the next hop 10.8.2.1 is reached by this route alone']);
  });

  test('a host route to its own next hop goes to the subnet around it', () => {
    const made = router(['192.168.0.1/24'], [{ prefix: '192.168.0.9/32', via: '192.168.0.9' }]);
    expect(used(made)).toEqual(['192.168.0.9/32 > 192.168.0.9@e0']);
  });

  test('routes in a circle are not used even beside a default; what lies over them falls back', () => {
    const made = router(
      ['192.168.0.1/24'],
      [
        { prefix: '0.0.0.0/0', via: '192.168.0.2' },
        { prefix: '10.10.0.0/16', via: '10.11.0.1' },
        { prefix: '10.11.0.0/16', via: '10.10.0.1' },
        { prefix: '10.12.0.0/16', via: '10.11.9.9' },
      ],
    );
    expect(used(made)).toEqual(['0.0.0.0/0 > 192.168.0.2@e0', '10.12.0.0/16 > 192.168.0.2@e0']);
    expect(idle(made)).toEqual([
      '10.10.0.0/16: the next hop 10.11.0.1 is reached by 10.11.0.0/16, which in turn is reached by this route',
      '10.11.0.0/16: the next hop 10.10.0.1 is reached by 10.10.0.0/16, which in turn is reached by this route',
    ]);
  });

  test('when the preferred route falls out, the one kept for that takes its place', () => {
    const made = router(two, [
      { prefix: '10.9.0.0/16', via: '172.16.0.9' },
      { prefix: '10.9.0.0/16', via: '192.168.16.2', distance: 200 },
      { prefix: '10.5.0.0/16', via: '10.9.0.1' },
    ]);
    expect(used(made)).toEqual(['10.5.0.0/16 > 192.168.16.2@e1', '10.9.0.0/16 > 192.168.16.2@e1']);
    expect(idle(made)).toEqual(['10.9.0.0/16: no route leads to the next hop 172.16.0.9']);
  });

  test('a next hop in a prefix that is discarded is discarded as well', () => {
    const made = router(two, [
      { prefix: '0.0.0.0/0', via: '192.168.0.2' },
      { prefix: '172.16.0.0/24', discard: true },
      { prefix: '10.9.0.0/16', via: '172.16.0.9' },
    ]);
    expect(used(made)).toEqual(['0.0.0.0/0 > 192.168.0.2@e0', '10.9.0.0/16 > ', '172.16.0.0/24 > ']);
    expect(made.table.routes.find((one) => one.text === '10.9.0.0/16')?.why).toBe(
      'set by hand: 172.16.0.9 is reached by 172.16.0.0/24 (static), which discards',
    );
  });
});

/** Dotted quads as numbers, apart from the code under test. */
const number = (text: string): number => text.split('.').reduce((sum, part) => sum * 256 + Number(part), 0);
const covers = (prefix: string, address: string): boolean => {
  const [base = '', length = ''] = prefix.split('/');
  const block = 2 ** (32 - Number(length));
  return Math.floor(number(base) / block) === Math.floor(number(address) / block);
};
const longest = (prefixes: string[], address: string): string | undefined =>
  prefixes
    .filter((one) => covers(one, address))
    .sort((a, b) => Number(b.split('/')[1]) - Number(a.split('/')[1]))[0];

/** Ports that a packet for an address leaves by: looked up again and again, as a router would without recursion. */
function walk(routes: Given[], address: string, steps = 12): Set<string> {
  const connected: Record<string, string> = { '10.0.0.0/24': 'e0', '10.0.64.0/24': 'e1' };
  const match = longest([...Object.keys(connected), ...routes.map((one) => one.prefix)], address);
  if (match === undefined || steps === 0) return new Set();
  const port = connected[match];
  if (port !== undefined) return new Set([port]);
  return new Set(
    routes.filter((one) => one.prefix === match).flatMap(({ via = '' }) => [...walk(routes, via, steps - 1)]),
  );
}

const octet = fc.constantFrom(0, 64, 128, 192);
const somePrefix = fc
  .tuple(fc.constantFrom(0, 8, 16, 17, 18, 24, 26), fc.constantFrom(0, 1, 2), octet, octet)
  .map(([length, b, c, d]) => {
    const block = 2 ** (32 - length);
    const base = Math.floor(number(`10.${b}.${c}.${d}`) / block) * block;
    return `${[24, 16, 8, 0].map((shift) => Math.floor(base / 2 ** shift) % 256).join('.')}/${length}`;
  });
const someRoutes = fc.uniqueArray(
  fc.record({
    prefix: somePrefix,
    via: fc.tuple(fc.constantFrom(0, 1, 2), octet, octet).map(([b, c, d]) => `10.${b}.${c}.${d + 2}`),
  }),
  { minLength: 1, maxLength: 7, selector: ({ prefix, via }) => `${prefix} ${via}` },
);

describe('properties', () => {
  test('routes in use lead out of the ports that looking up again and again finds; idle ones would change nothing', () => {
    fc.assert(
      fc.property(someRoutes, (routes) => {
        const made = router(['10.0.0.1/24', '10.0.64.1/24'], routes);
        const { network, table } = made;
        const inUse = [...table.ways.keys()].flatMap((id) => {
          const row = network.get('route', id);
          return row?.via == null ? [] : [{ prefix: row.prefix, via: row.via, id }];
        });
        for (const one of inUse) {
          const ports = (table.ways.get(one.id) ?? []).map(
            (hop) => network.get('port', hop.portId)?.name ?? '',
          );
          expect(new Set(ports)).toEqual(walk(inUse, one.via));
          expect(ports.length).toBeGreaterThan(0);
        }
        for (const { route, reason } of table.idle) {
          const all = ['10.0.0.0/24', '10.0.64.0/24', ...inUse.map((one) => one.prefix)];
          if (reason.because === 'unreachable') expect(longest(all, route.via ?? '')).toBeUndefined();
          if (reason.because === 'over itself')
            expect(longest([...all, route.prefix], route.via ?? '')).toBe(route.prefix);
        }
        expect(inUse.length + table.idle.length).toBe(routes.length);
      }),
      { numRuns: runs(150) },
    );
  });
});
