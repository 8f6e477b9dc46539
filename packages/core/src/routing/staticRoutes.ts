import { PrefixTree } from '../addressing/prefixTree.ts';
import {
  bitsOf,
  compareIp,
  parseIp,
  parsePrefix,
  type IpAddress,
  type IpPrefix,
} from '../model/values/ip.ts';
import type { Route } from '../model/kinds/logical/routing.ts';
import type { Network } from '../model/network/network.ts';
import { joinedHops, type NextHop, type RouteSource, type TableRoute } from './tableRoute.ts';

/** Why a static route is not used. */
export type IdleReason =
  | { because: 'itself' | 'unreachable' | 'over itself'; via: string }
  /** The next hop is reached only by a route that is itself reached by this one. */
  | { because: 'in a circle'; via: string; over: string }
  | { because: 'preferred'; source: RouteSource; distance: number; own: number };

/** A static route that is not used, with the reason. */
export interface IdleRoute {
  route: Route;
  reason: IdleReason;
}

export function idleText(reason: IdleReason): string {
  switch (reason.because) {
    case 'itself':
      return `next hop ${reason.via} is the device itself`;
    case 'unreachable':
      return `no route leads to the next hop ${reason.via}`;
    case 'over itself':
      return `the next hop ${reason.via} is reached by this route alone`;
    case 'in a circle':
      return `the next hop ${reason.via} is reached by ${reason.over}, which in turn is reached by this route`;
    case 'preferred':
      return `${reason.source} is preferred: distance ${reason.distance} is below ${reason.own}`;
  }
}

/** A static route whose next hop is to be found in the table. */
interface Candidate {
  route: Route;
  prefix: IpPrefix;
  via: IpAddress;
  /** Prefixes that hold the next hop, the longest first; its own only where it is a host route. */
  holders: readonly string[];
}

/** What stands in the table without a look at next hops, and the candidates that may still join it. */
interface Table {
  fixed: ReadonlyMap<string, readonly TableRoute[]>;
  open: Map<string, Candidate[]>;
}

/** What is in force at a prefix: the fixed routes or the candidates of the least distance. */
function winners({ fixed, open }: Table, text: string): { fixed: readonly TableRoute[]; open: Candidate[] } {
  const settled = fixed.get(text) ?? [];
  const waiting = open.get(text) ?? [];
  const least = Math.min(
    ...settled.map((one) => one.distance),
    ...waiting.map(({ route }) => route.distance),
  );
  return {
    fixed: settled.filter((one) => one.distance === least),
    open: waiting.filter(({ route }) => route.distance === least),
  };
}

/** The longest prefix of the table that holds the next hop of a candidate. */
const matchOf = (table: Table, { holders }: Candidate): string | null =>
  holders.find((text) => (table.fixed.get(text)?.length ?? 0) + (table.open.get(text)?.length ?? 0) > 0) ??
  null;

/** Candidates that are reached over what is settled, by as many steps as it takes. */
function grounded(table: Table, all: readonly Candidate[]): Set<Candidate> {
  const found = new Set<Candidate>();
  for (let before = -1; before < found.size;) {
    before = found.size;
    for (const one of all) {
      const match = matchOf(table, one);
      if (found.has(one) || match === null || match === one.route.prefix) continue;
      const over = winners(table, match);
      if (over.fixed.length > 0 || over.open.some((other) => found.has(other))) found.add(one);
    }
  }
  return found;
}

/** Whether a candidate is reached over itself, following the longest matches of those that are not grounded. */
function isInCircle(table: Table, start: Candidate): boolean {
  const seen = new Set<Candidate>();
  const open = [start];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const match = matchOf(table, next);
    if (match === null) continue;
    if (match === start.route.prefix) return true;
    for (const other of winners(table, match).open)
      if (!seen.has(other)) {
        seen.add(other);
        open.push(other);
      }
  }
  return false;
}

/** The ways of a candidate: those of what its next hop is reached by, which names it where it stands on the subnet. */
function hopsOf(
  table: Table,
  used: ReadonlySet<Candidate>,
): Map<Candidate, { hops: NextHop[]; source: RouteSource }> {
  const found = new Map<Candidate, { hops: NextHop[]; source: RouteSource }>();
  for (let changed = true; changed;) {
    changed = false;
    for (const one of used) {
      const over = winners(table, matchOf(table, one) ?? '');
      const hops = joinedHops(
        ...over.fixed.map((route) => route.nextHops),
        ...over.open.map((other) => found.get(other)?.hops ?? []),
      ).map((hop) => ({ via: hop.via ?? one.route.via, portId: hop.portId }));
      const known = found.get(one);
      if (known !== undefined && known.hops.length === hops.length) continue;
      found.set(one, { hops, source: over.fixed[0]?.source ?? 'static' });
      changed = true;
    }
  }
  return found;
}

/** How a next hop of a row is meant before any look at the table. */
type Meant =
  { settled: TableRoute } | { candidate: Omit<Candidate, 'holders'> } | { idle: IdleReason } | null;

function meant(network: Network, route: Route, own: readonly IpAddress[]): Meant {
  const prefix = parsePrefix(route.prefix);
  if (prefix === null) return null;
  const settled = (nextHops: NextHop[], why: string): Meant => ({
    settled: { ...shape(route, prefix), nextHops, why },
  });
  if (route.discard) return settled([], 'set by hand: discards what matches nothing longer');
  const via = route.via === null ? null : parseIp(route.via);
  if (via !== null && own.some((address) => compareIp(address, via) === 0))
    return { idle: { because: 'itself', via: route.via ?? '' } };
  const port = network.get('port', route.viaPortId);
  if (port !== null)
    return settled([{ via: route.via, portId: port.id }], `set by hand: out of ${port.name}`);
  return via === null ? null : { candidate: { route, prefix, via } };
}

const shape = (route: Route, prefix: IpPrefix): Omit<TableRoute, 'nextHops' | 'why'> => ({
  prefix,
  text: route.prefix,
  source: 'static',
  distance: route.distance,
  metric: 0,
  routeIds: [route.id],
});

const byText = (a: Route, b: Route): number =>
  a.prefix < b.prefix ? -1 : a.prefix > b.prefix ? 1 : (a.via ?? '') < (b.via ?? '') ? -1 : 1;

/**
 * The static routes of a device in one VRF that are in force, and those that are not. A next hop is looked up in the
 * table as it will be, static routes among it, by the longest match (RFC 1812 section 5.2.4.3): until nothing changes,
 * what has no match falls out, then what is reached only over itself, whether at once or by way of others. A host
 * route to its own next hop is looked up around itself, since nothing else can be meant.
 */
export function staticRoutes(
  network: Network,
  rows: readonly Route[],
  own: readonly IpAddress[],
  learned: readonly TableRoute[],
): { routes: TableRoute[]; idle: IdleRoute[] } {
  const idle: IdleRoute[] = [];
  const routes: TableRoute[] = [];
  const waiting: Omit<Candidate, 'holders'>[] = [];
  for (const route of rows.slice().sort(byText)) {
    const how = meant(network, route, own);
    if (how === null) continue;
    if ('settled' in how) routes.push(how.settled);
    else if ('idle' in how) idle.push({ route, reason: how.idle });
    else waiting.push(how.candidate);
  }
  if (waiting.length === 0) return { routes, idle };
  const fixed = new Map<string, TableRoute[]>();
  for (const route of [...learned, ...routes])
    fixed.set(route.text, [...(fixed.get(route.text) ?? []), route]);
  const candidates = withHolders(waiting, [...learned, ...routes]);
  const open = new Map<string, Candidate[]>();
  for (const one of candidates) open.set(one.route.prefix, [...(open.get(one.route.prefix) ?? []), one]);
  const table: Table = { fixed, open };
  const drop = (one: Candidate, reason: IdleReason): void => {
    idle.push({ route: one.route, reason });
    open.set(
      one.route.prefix,
      (open.get(one.route.prefix) ?? []).filter((other) => other !== one),
    );
  };
  for (;;) {
    const all = [...open.values()].flat();
    const matches = new Map(all.map((one) => [one, matchOf(table, one)]));
    const lost = all.filter((one) => matches.get(one) === null);
    if (lost.length > 0) {
      for (const one of lost) drop(one, { because: 'unreachable', via: one.route.via ?? '' });
      continue;
    }
    const used = grounded(table, all);
    const circles = all.filter((one) => !used.has(one) && isInCircle(table, one));
    if (circles.length === 0) {
      const hops = hopsOf(table, used);
      for (const one of all) {
        const { hops: nextHops = [], source = 'static' } = hops.get(one) ?? {};
        const means = nextHops.length === 0 ? ', which discards' : '';
        const why = `set by hand: ${one.route.via ?? ''} is reached by ${matches.get(one) ?? ''} (${source})${means}`;
        routes.push({ ...shape(one.route, one.prefix), nextHops, why });
      }
      return { routes, idle };
    }
    for (const one of circles) {
      const over = matches.get(one) ?? '';
      const via = one.route.via ?? '';
      drop(
        one,
        over === one.route.prefix ? { because: 'over itself', via } : { because: 'in a circle', via, over },
      );
    }
  }
}

/** Candidates with the prefixes around their next hops. */
function withHolders(
  waiting: readonly Omit<Candidate, 'holders'>[],
  others: readonly TableRoute[],
): Candidate[] {
  const texts = new Map<string, IpPrefix>();
  for (const one of waiting) texts.set(one.route.prefix, one.prefix);
  for (const one of others) texts.set(one.text, one.prefix);
  const tree = PrefixTree.of([...texts].map(([text, prefix]): [IpPrefix, string] => [prefix, text]));
  return waiting.map((one) => ({
    ...one,
    holders: tree
      .around({ ...one.via, length: bitsOf(one.via.family) })
      .flatMap((entry) => entry.ids)
      .filter((text) => text !== one.route.prefix || one.prefix.length < bitsOf(one.via.family))
      .reverse(),
  }));
}
