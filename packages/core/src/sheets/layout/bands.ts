import type { Role } from '../../model/values/roles.ts';
import type { GraphNode, SheetGraph } from '../graph/sheetGraph.ts';

/** From the outside at the top to end devices at the bottom; rows of a drawing hold one band each. */
const roleBand: Partial<Record<Role, number>> = {
  EX: 0,
  GW: 0,
  RT: 1,
  FW: 2,
  LB: 2,
  SW: 4,
  MC: 4,
  SV: 5.5,
  ST: 5.5,
  VM: 5.5,
  CH: 5.5,
  DB: 5.5,
  FN: 5.5,
  QU: 5.5,
  WB: 5,
  UP: 8,
  PD: 9,
};
const coreBand = 3;
/** Below the access switches at the latest. */
const lowestSwitch = 5;
const fibrePanelBand = 4;
const endBand = 7;
const hubBand = 3;
/** What is linked to nothing stands below all that is. */
export const looseBand = 20;

/** What leads outside or decides what may: switches beside these are the core. */
const leadsOut: ReadonlySet<Role> = new Set(['RT', 'GW', 'FW', 'EX', 'LB']);
const serves: ReadonlySet<Role> = new Set(['SV', 'ST', 'VM', 'CH', 'DB', 'FN', 'QU']);

type Near = ReadonlyMap<string, ReadonlySet<string>>;

function nearOf(graph: SheetGraph): { near: Near; fibre: ReadonlySet<string> } {
  const near = new Map(graph.nodes.map((node) => [node.id, new Set<string>()]));
  const fibre = new Set<string>();
  for (const link of graph.links) {
    if (link.management) continue;
    near.get(link.a)?.add(link.b);
    near.get(link.b)?.add(link.a);
    if (link.medium === 'fibre') fibre.add(link.a).add(link.b);
  }
  return { near, fibre };
}

/** The switches that each switch leads to, also through panels. */
function switchesBeyond(switches: readonly string[], role: (id: string) => Role | null, near: Near): Near {
  return new Map(
    switches.map((id) => {
      const found = new Set<string>();
      const seen = new Set([id]);
      const waiting = [id];
      for (const at of waiting)
        for (const other of near.get(at) ?? []) {
          if (seen.has(other)) continue;
          seen.add(other);
          if (role(other) === 'SW') found.add(other);
          else if (role(other) === 'PP') waiting.push(other);
        }
      return [id, found];
    }),
  );
}

/** Steps from the nearest of some to each that can be reached (breadth first). */
function depths(from: readonly string[], beyond: Near): Map<string, number> {
  const found = new Map(from.map((id) => [id, 0]));
  for (const [id, depth] of found)
    for (const other of beyond.get(id) ?? []) if (!found.has(other)) found.set(other, depth + 1);
  return found;
}

/** Above so many switches the middle is not sought by all their distances. */
const mostMeasured = 400;

/**
 * The core where nothing leads outside: the switches nearest to all others (least sum of distances, all within a
 * twentieth of it). A ring, a chain and a full mesh have no middle.
 */
function middleOf(beyond: Near): string[] {
  const ids = [...beyond.keys()].filter((id) => (beyond.get(id)?.size ?? 0) > 0);
  if (ids.length > mostMeasured || !ids.some((id) => (beyond.get(id)?.size ?? 0) >= 3)) return [];
  const sums = new Map(
    ids.map((id) => {
      const reached = depths([id], beyond);
      const sum = [...reached.values()].reduce((total, depth) => total + depth, 0);
      return [id, sum + (ids.length - reached.size) * ids.length];
    }),
  );
  const least = Math.min(...sums.values());
  const middle = ids.filter((id) => (sums.get(id) ?? Infinity) <= least * 1.05);
  return 2 * middle.length > ids.length ? [] : middle;
}

/** Core switches, and those below them by their distance from the core: closer and closer to the last band. */
function bandSwitches(graph: SheetGraph, near: Near, role: (id: string) => Role | null): Map<string, number> {
  const switches = graph.nodes.flatMap((node) => (role(node.id) === 'SW' ? [node.id] : []));
  const beyond = switchesBeyond(switches, role, near);
  const outer = switches.filter((id) =>
    [...(near.get(id) ?? [])].some((other) => leadsOut.has(role(other) ?? 'XX')),
  );
  const bands = new Map<string, number>();
  for (const [id, depth] of depths(outer.length > 0 ? outer : middleOf(beyond), beyond))
    bands.set(id, depth === 0 ? coreBand : lowestSwitch - 2 * 0.5 ** depth);
  return bands;
}

/** Sites around the one that most others hang on, ring by ring. */
function bandPlaces(places: readonly GraphNode[], near: Near): Map<string, number> {
  const bands = new Map<string, number>();
  const [hub] = [...places].sort(
    (a, b) =>
      (near.get(b.id)?.size ?? 0) - (near.get(a.id)?.size ?? 0) || b.deviceIds.length - a.deviceIds.length,
  );
  if (hub === undefined) return bands;
  const among = new Set(places.map(({ id }) => id));
  const between = new Map(
    places.map(({ id }) => [id, new Set([...(near.get(id) ?? [])].filter((other) => among.has(other)))]),
  );
  for (const [id, depth] of depths([hub.id], between)) bands.set(id, hubBand + depth);
  for (const { id } of places) if (!bands.has(id)) bands.set(id, hubBand + 1);
  return bands;
}

/**
 * The band of the drawing that each plate belongs to: parties outside, routers, firewalls, core and access switches by
 * their distance from what leads outside, servers, end devices below what they hang on. A fibre panel stands with the
 * access switches, a copper panel just below the switch that it serves, a shared subnet between its routers.
 */
export function bandsOf(graph: SheetGraph): Map<string, number> {
  const roles = new Map(
    graph.nodes.map((node) => [node.id, node.form === 'place' || node.form === 'subnet' ? null : node.role]),
  );
  const role = (id: string): Role | null => roles.get(id) ?? null;
  const { near, fibre } = nearOf(graph);
  const around = (id: string): string[] => [...(near.get(id) ?? [])];
  const bands = new Map<string, number>();
  for (const { id } of graph.nodes) {
    const own = role(id);
    if (own === null) continue;
    if (own !== 'PP') bands.set(id, roleBand[own] ?? endBand);
    else if (fibre.has(id)) bands.set(id, fibrePanelBand);
  }
  const switchBands = bandSwitches(graph, near, role);
  for (const [id, band] of switchBands) bands.set(id, band);
  for (const { id } of graph.nodes) {
    const own = role(id);
    if (own === null || own === 'SW' || own === 'PP' || leadsOut.has(own)) continue;
    const above = around(id).filter((other) => role(other) === 'SW');
    const below = serves.has(own) ? 0.5 : 1;
    if (above.length > 0)
      bands.set(
        id,
        Math.max(bands.get(id) ?? endBand, ...above.map((other) => (bands.get(other) ?? 4) + below)),
      );
  }
  // A workstation behind a phone, and whatever else hangs on one end device alone, stands just below that.
  for (const { id } of graph.nodes) {
    const [only, second] = around(id);
    if (role(id) === 'PC' && only !== undefined && second === undefined && role(only) === 'PH')
      bands.set(id, (bands.get(only) ?? endBand) + 0.5);
  }
  const places = graph.nodes.filter((node) => node.form === 'place');
  for (const [id, band] of bandPlaces(places, near)) bands.set(id, band);
  for (const { id, form } of graph.nodes) {
    if (form !== 'subnet') continue;
    const known = around(id).flatMap((other) => bands.get(other) ?? []);
    if (known.length === 0) continue;
    const [least, most] = [Math.min(...known), Math.max(...known)];
    bands.set(id, least === most ? least + 0.5 : (least + most) / 2);
  }
  const waiting = graph.nodes.flatMap(({ id }) => (bands.has(id) ? [] : [id]));
  for (let pass = 0; pass < 3; pass++)
    for (const id of waiting) {
      const known = around(id).flatMap((other) => bands.get(other) ?? []);
      const above = known.filter((band) => band < endBand);
      if (above.length > 0) bands.set(id, Math.min(...above) + 1);
    }
  for (const id of waiting) if (!bands.has(id)) bands.set(id, endBand - 1);
  // What hangs on a panel stands below it.
  for (const { id } of graph.nodes) {
    const own = role(id);
    if (own === null || own === 'SW' || own === 'PP' || leadsOut.has(own) || serves.has(own)) continue;
    const panels = around(id).flatMap((other) => (role(other) === 'PP' ? (bands.get(other) ?? []) : []));
    if (panels.length > 0) bands.set(id, Math.max(bands.get(id) ?? endBand, Math.max(...panels) + 0.5));
  }
  const joined = new Set(graph.links.flatMap(({ a, b }) => [a, b]));
  for (const stub of graph.stubs) joined.add(stub.a);
  if (joined.size > 0)
    for (const { id, form } of graph.nodes) if (!joined.has(id) && form !== 'place') bands.set(id, looseBand);
  return bands;
}
