import type { Place } from '../../model/kinds/sites/place.ts';
import type { Network } from '../../model/network/network.ts';
import { placeChain } from '../../model/network/places.ts';
import type { Kept } from '../../sheets/graph/reading.ts';
import type { GraphContainer } from '../../sheets/graph/sheetGraph.ts';
import { networksIn, prefixesOf, zonesAround } from '../inventory.ts';
import type { CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import { natureOf } from '../nature.ts';

/** The container of a zone in one network: the same zone stands in each network of its region. */
export const zoneBox = (networkId: string, zoneId: string): string => `${networkId}/${zoneId}`;

/** By what a sheet keeps what a person did with a subnet: its first prefix. Null: it has none. */
export const subjectOf = (network: Network, subnet: CloudSubnet): string | null =>
  prefixesOf(network, subnet)[0]?.row.id ?? null;

/** The networks that a sheet shows, those that lead beyond last, and those that were left out by hand. */
export function networksOn(
  network: Network,
  scopeId: string | null,
  kept: Kept,
): { shown: Place[]; away: Place[] } {
  const all = networksIn(network, scopeId);
  const away = all.filter(({ id }) => kept.items.get(id)?.away === true);
  const leads = ({ id }: Place): number =>
    Number(
      network
        .find('gatewaysByNetwork', id)
        .some(
          ({ deviceId, direction }) => direction === 'between' && network.get('device', deviceId) !== null,
        ),
    );
  return {
    shown: all.filter((place) => !away.includes(place)).sort((a, b) => leads(a) - leads(b)),
    away,
  };
}

/** Account, region and network of those that are shown, as far as they are within the scope. */
export function outerBoxes(
  network: Network,
  scopeId: string | null,
  shown: readonly Place[],
  sheetOf: ReadonlyMap<string, string>,
): GraphContainer[] {
  const boxes = new Map<string, GraphContainer>();
  const outside = new Set(
    placeChain(network, scopeId)
      .slice(0, -1)
      .map(({ id }) => id),
  );
  shown.forEach((place, order) => {
    let parentId: string | null = null;
    for (const one of placeChain(network, place.id)) {
      if (outside.has(one.id)) continue;
      const { kind } = one;
      if (kind !== 'account' && kind !== 'region' && kind !== 'network') continue;
      if (!boxes.has(one.id))
        boxes.set(one.id, {
          ...{ id: one.id, form: kind, title: one.name, parentId, order },
          sheetId: sheetOf.get(one.id) ?? null,
        });
      parentId = one.id;
    }
  });
  return [...boxes.values()];
}

/** A subnet in its box, in the box of its zone. */
export function subnetBox(network: Network, subnet: CloudSubnet, row: number): GraphContainer {
  const { nature } = natureOf(network, subnet);
  return {
    ...{ id: subnet.id, form: 'subnet', title: `${subnet.name} · ${nature}`, nature, row, sheetId: null },
    parentId: subnet.zoneId === null ? subnet.placeId : zoneBox(subnet.placeId, subnet.zoneId),
  };
}

/** The zones of a network that subnets stand in, from the left. */
export const zoneBoxes = (network: Network, place: Place, used: ReadonlySet<string>): GraphContainer[] =>
  zonesAround(network, place.id).flatMap((zone, order): GraphContainer[] =>
    used.has(zone.id)
      ? [
          {
            ...{ id: zoneBox(place.id, zone.id), form: 'zone', title: zone.name, parentId: place.id, order },
            sheetId: null,
          },
        ]
      : [],
  );
