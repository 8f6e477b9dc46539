import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { placeChain } from '../../model/network/places.ts';
import type { GraphContainer, GraphNode } from './sheetGraph.ts';

/** More devices than this are not drawn on one sheet: nobody can read it, and an overview tells more. */
export const mostDevices = 4000;

/** The way of places down to one, from below the scope of the sheet, or all of it beyond that. */
function waysOf(network: Network, scopeId: string | null, placeId: string): string[] {
  const chain = placeChain(network, placeId);
  const outer = placeChain(network, scopeId).length;
  const inside = scopeId === null || chain.some((place) => place.id === scopeId);
  const from = inside ? Math.min(outer, chain.length - 1) : 0;
  return chain.slice(from).map((place) => place.name);
}

/** What each place is called on the sheet: its own name, with as many of the places around it as tell it from the others. */
function titlesOf(ways: ReadonlyMap<string, readonly string[]>): Map<string, string> {
  const ends = new Map<string, number>();
  const endOf = (way: readonly string[], parts: number): string => way.slice(-parts).join(' › ');
  for (const way of ways.values())
    for (let parts = 1; parts <= way.length; parts++)
      ends.set(endOf(way, parts), (ends.get(endOf(way, parts)) ?? 0) + 1);
  return new Map(
    [...ways].map(([id, way]) => {
      let parts = 1;
      while (parts < way.length && (ends.get(endOf(way, parts)) ?? 0) > 1) parts++;
      return [id, endOf(way, parts)];
    }),
  );
}

/** The places and racks that plates of a sheet stand in. */
export function containersOf(
  network: Network,
  sheet: Sheet,
  nodes: readonly Pick<GraphNode, 'containerId'>[],
  own: ReadonlyMap<string, string>,
): GraphContainer[] {
  const containers = new Map<string, GraphContainer>();
  const ways = new Map<string, string[]>();
  const addPlace = (placeId: string): void => {
    if (containers.has(placeId)) return;
    ways.set(placeId, waysOf(network, sheet.scopeId, placeId));
    containers.set(placeId, {
      id: placeId,
      form: 'place',
      title: '',
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
  const titles = titlesOf(ways);
  return [...containers.values()].map((container) => ({
    ...container,
    title: titles.get(container.id) ?? container.title,
  }));
}
