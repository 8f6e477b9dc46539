import type { Role } from '../../model/values/roles.ts';
import type { SheetGraph } from '../graph/sheetGraph.ts';

const roleTier: Partial<Record<Role, number>> = {
  EX: 0,
  GW: 0,
  RT: 1,
  FW: 2,
  LB: 2,
  SW: 4,
  MC: 4,
  WB: 5,
  SV: 5,
  ST: 5,
  VM: 5,
  UP: 8,
  PD: 9,
};
const endTier = 7;
const hubTier = 3;

/** Between the core and what it leads to. */
const fibrePanelTier = 3.5;

/**
 * Which tier of the drawing each plate belongs to, from the outside at the top to end devices at the bottom. A
 * switch that leads to several other switches (also through panels) is core and stands above those; a fibre
 * panel stands below the core, a copper panel just below the switch that it serves.
 */
export function tiersOf(graph: SheetGraph): Map<string, number> {
  const role = new Map(graph.nodes.map((node) => [node.id, node.role]));
  const near = new Map<string, Set<string>>(graph.nodes.map((node) => [node.id, new Set<string>()]));
  const fibre = new Set<string>();
  for (const link of graph.links) {
    if (link.management) continue;
    near.get(link.a)?.add(link.b);
    near.get(link.b)?.add(link.a);
    if (link.medium === 'fibre') fibre.add(link.a).add(link.b);
  }
  const tiers = new Map<string, number>();
  for (const node of graph.nodes) {
    if (node.form === 'place' || node.form === 'subnet') continue;
    if (node.role !== 'PP') tiers.set(node.id, roleTier[node.role] ?? endTier);
    else if (fibre.has(node.id)) tiers.set(node.id, fibrePanelTier);
  }
  const neighbours = (id: string): string[] => [...(near.get(id) ?? [])];
  for (const node of graph.nodes) {
    if (node.role !== 'SW') continue;
    const upward = neighbours(node.id).some((other) => (tiers.get(other) ?? endTier) <= 2);
    const switches = neighbours(node.id).filter((other) => role.get(other) === 'SW').length;
    if (upward || switches >= 3) tiers.set(node.id, 3);
  }
  const places = graph.nodes.filter((node) => node.form === 'place');
  const [hub] = [...places].sort(
    (a, b) =>
      (near.get(b.id)?.size ?? 0) - (near.get(a.id)?.size ?? 0) || b.deviceIds.length - a.deviceIds.length,
  );
  if (hub !== undefined) {
    // Sites stand around the one that most others hang on.
    let ring = [hub.id];
    for (let tier = hubTier; ring.length > 0; tier++) {
      for (const id of ring) tiers.set(id, tier);
      ring = [...new Set(ring.flatMap((id) => [...(near.get(id) ?? [])]))].filter(
        (id) => !tiers.has(id) && places.some((place) => place.id === id),
      );
    }
    for (const place of places) if (!tiers.has(place.id)) tiers.set(place.id, hubTier + 1);
  }
  // A shared subnet stands between those above and those below it.
  for (const { id, form } of graph.nodes) {
    if (form !== 'subnet') continue;
    const around = neighbours(id).flatMap((other) => tiers.get(other) ?? []);
    if (around.length === 0) continue;
    const [least, most] = [Math.min(...around), Math.max(...around)];
    tiers.set(id, least === most ? least + 0.5 : (least + most) / 2);
  }
  const waiting = graph.nodes.filter((node) => !tiers.has(node.id)).map((node) => node.id);
  for (let pass = 0; pass < 3; pass++) {
    for (const id of waiting) {
      const known = neighbours(id)
        .map((other) => tiers.get(other))
        .filter((tier) => tier !== undefined && tier < endTier);
      if (known.length > 0) tiers.set(id, Math.min(...known.filter((tier) => tier !== undefined)) + 1);
    }
  }
  for (const id of waiting) if (!tiers.has(id)) tiers.set(id, endTier - 1);
  return tiers;
}
