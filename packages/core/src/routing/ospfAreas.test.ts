import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../testing/testRuns.ts';
import { routedNetwork, type TestLink } from '../testing/testRouting.ts';
import { routeTable } from './routeTable.ts';

/** Routers, links and ranges, with a loopback in the home area of each router. */
interface Given {
  homes: number[];
  links: (TestLink & { area: string })[];
  ranges: Record<number, string[]>;
}

const loopback = (given: Given, router: number): string =>
  `172.${given.homes[router] ?? 0}.${router % 2}.${router}/32`;
const covers = (range: string, host: string): boolean => {
  const [base = '', length = '0'] = range.split('/');
  const parts = Number(length) / 8;
  return base.split('.').slice(0, parts).join('.') === host.split('.').slice(0, parts).join('.');
};

/**
 * What every router knows, by the text of RFC 2328 sections 12.4.3 and 16, over all pairs: distances in each area by
 * Floyd and Warshall, then what border routers tell the backbone, then what they tell the others.
 */
function oracle(given: Given): Map<string, number>[] {
  const count = given.homes.length;
  const routers = [...Array(count).keys()];
  const areas = ['0', '1', '2'];
  const areasOf = routers.map(
    (router) =>
      new Set([
        String(given.homes[router]),
        ...given.links.filter(({ a, b }) => a === router || b === router).map(({ area }) => area),
      ]),
  );
  const isBorder = (router: number): boolean =>
    (areasOf[router]?.size ?? 0) > 1 && areasOf[router]?.has('0') === true;
  const distance = new Map<string, number>();
  const between = (area: string, a: number, b: number): number =>
    distance.get(`${area} ${a} ${b}`) ?? Infinity;
  const least = (area: string, a: number, b: number, cost: number): void =>
    void (cost < between(area, a, b) && distance.set(`${area} ${a} ${b}`, cost));
  for (const area of areas) {
    for (const router of routers) if (areasOf[router]?.has(area)) least(area, router, router, 0);
    for (const { a, b, cost, back, area: of } of given.links)
      if (of === area) {
        least(area, a, b, cost);
        least(area, b, a, back ?? cost);
      }
    for (const k of routers)
      for (const i of routers)
        for (const j of routers) least(area, i, j, between(area, i, k) + between(area, k, j));
  }
  const put = (table: Map<string, number>, key: string, cost: number): void =>
    void (cost < (table.get(key) ?? Infinity) && table.set(key, cost));
  /** Loopbacks inside one area. */
  const inside = (router: number, area: string): Map<string, number> => {
    const found = new Map<string, number>();
    for (const other of routers)
      if (String(given.homes[other]) === area && between(area, router, other) < Infinity)
        put(found, loopback(given, other), between(area, router, other));
    return found;
  };
  const rangesOf = (router: number): string[] =>
    (given.ranges[router] ?? []).filter((range) =>
      areas.some(
        (area) =>
          areasOf[router]?.has(area) && [...inside(router, area).keys()].some((host) => covers(range, host)),
      ),
    );
  const told = (router: number, into: string): Map<string, number> => {
    const found = new Map<string, number>();
    for (const area of areas) {
      if (area === into || !areasOf[router]?.has(area)) continue;
      for (const [host, cost] of inside(router, area)) {
        const range = rangesOf(router)
          .filter((one) => covers(one, host))
          .sort((a, b) => Number(b.split('/')[1]) - Number(a.split('/')[1]))[0];
        const key = range ?? host;
        found.set(key, Math.max(found.get(key) ?? 0, cost));
      }
    }
    return found;
  };
  const tables = routers.map((router) => {
    const table = new Map<string, number>();
    for (const area of areas)
      if (areasOf[router]?.has(area)) for (const [key, cost] of inside(router, area)) put(table, key, cost);
    return table;
  });
  const hears = (
    router: number,
    area: string,
    tells: (other: number) => Map<string, number>,
  ): Map<string, number> => {
    const found = new Map<string, number>();
    for (const other of routers)
      if (other !== router && isBorder(other) && between(area, router, other) < Infinity)
        for (const [key, cost] of tells(other))
          if (!tables[router]?.has(key) && !(isBorder(router) && rangesOf(router).includes(key)))
            put(found, key, between(area, router, other) + cost);
    return found;
  };
  const overBackbone = routers.map((router) =>
    areasOf[router]?.has('0') ? hears(router, '0', (other) => told(other, '0')) : new Map<string, number>(),
  );
  return routers.map((router) => {
    const found = new Map(overBackbone[router]);
    if (!isBorder(router))
      for (const area of areas)
        if (area !== '0' && areasOf[router]?.has(area))
          for (const [key, cost] of hears(
            router,
            area,
            (other) => new Map([...(overBackbone[other] ?? []), ...told(other, area)]),
          ))
            put(found, key, cost);
    return new Map([...found, ...(tables[router] ?? [])]);
  });
}

const routers = 6;
const someNetwork = fc.record({
  homes: fc.array(fc.integer({ min: 0, max: 2 }), { minLength: routers, maxLength: routers }),
  links: fc.array(
    fc
      .record({
        a: fc.integer({ min: 0, max: routers - 1 }),
        b: fc.integer({ min: 0, max: routers - 1 }),
        cost: fc.integer({ min: 1, max: 9 }),
        back: fc.integer({ min: 1, max: 9 }),
        area: fc.constantFrom('0', '0', '1', '2'),
      })
      .filter(({ a, b }) => a !== b),
    { minLength: 5, maxLength: 11 },
  ),
  ranges: fc.dictionary(
    fc.constantFrom('0', '1', '2', '3', '4', '5'),
    fc.uniqueArray(
      fc.constantFrom('172.0.0.0/16', '172.1.0.0/16', '172.2.0.0/16', '172.1.1.0/24', '172.0.0.0/8'),
      {
        maxLength: 2,
      },
    ),
  ),
});

test('every metric of a network of areas and ranges is that of the text of the standard', () => {
  fc.assert(
    fc.property(someNetwork, (given) => {
      const network = routedNetwork(routers, given.links, {
        areaOf: (router) => String(given.homes[router]),
        loopbacks: Object.fromEntries(given.homes.map((_, router) => [router, loopback(given, router)])),
        ranges: given.ranges,
      });
      const vrfId = network.findOne('vrfByName', 'ops')?.id ?? '';
      const expected = oracle(given);
      for (let router = 0; router < routers; router++) {
        const device = network.findOne('deviceByName', `r${router}`);
        const discarded = new Set<string>(given.ranges[router] ?? []);
        const wanted = [...(expected[router] ?? [])]
          .filter(([key]) => key !== loopback(given, router) && !discarded.has(key))
          .map(([key, cost]) => `${key} ${cost}`);
        const got = routeTable(network, device?.id ?? '', vrfId)
          .routes.filter((route) => route.source.startsWith('OSPF') && !/\/31$/.test(route.text))
          .map((route) => `${route.text} ${route.metric}`);
        expect(got.sort()).toEqual(wanted.sort());
      }
    }),
    { numRuns: runs(60) },
  );
});
