import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { placeChain } from '../../model/network/places.ts';
import type { GraphContainer, GraphNode } from './sheetGraph.ts';

/** More devices than this are not drawn on one sheet: nobody can read it, and an overview tells more. */
export const mostDevices = 4000;

/** The part of a device's way of places that is said on the sheet: from below its scope, or all beyond it. */
function containerTitle(network: Network, scopeId: string | null, placeId: string): string {
  const chain = placeChain(network, placeId);
  const outer = placeChain(network, scopeId).length;
  const inside = scopeId === null || chain.some((place) => place.id === scopeId);
  const from = inside ? Math.min(outer, chain.length - 1) : 0;
  return chain
    .slice(from)
    .map((place) => place.name)
    .join(' › ');
}

/** The places and racks that plates of a sheet stand in. */
export function containersOf(
  network: Network,
  sheet: Sheet,
  nodes: readonly Pick<GraphNode, 'containerId'>[],
  own: ReadonlyMap<string, string>,
): GraphContainer[] {
  const containers = new Map<string, GraphContainer>();
  const addPlace = (placeId: string): void => {
    if (containers.has(placeId)) return;
    containers.set(placeId, {
      id: placeId,
      form: 'place',
      title: containerTitle(network, sheet.scopeId, placeId),
      parentId: null,
      sheetId: own.get(placeId) ?? null,
    });
  };
  for (const { containerId } of nodes) {
    if (containerId === null || containers.has(containerId)) continue;
    const rack = network.get('rack', containerId);
    if (rack === null) addPlace(containerId);
    else {
      addPlace(rack.placeId);
      containers.set(rack.id, {
        id: rack.id,
        form: 'rack',
        title: rack.name,
        parentId: rack.placeId,
        sheetId: null,
      });
    }
  }
  return [...containers.values()];
}
