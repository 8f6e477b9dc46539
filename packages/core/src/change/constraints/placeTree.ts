import { placeKinds, type Place } from '../../model/kinds/sites/place.ts';
import type { Network } from '../../model/network/network.ts';
import type { Problem } from '../../model/fields/problem.ts';

const about = (place: Place, field: string, message: string): Problem => ({
  code: 'impossible',
  kind: 'place',
  id: place.id,
  about: `place ${place.name}`,
  field,
  message,
});

/** A place cannot lie inside itself. */
export function placesFormTree(network: Network, place: Place): Problem[] {
  const seen = new Set([place.id]);
  for (
    let above = network.get('place', place.parentId);
    above !== null;
    above = network.get('place', above.parentId)
  ) {
    if (seen.has(above.id)) {
      return [
        about(
          place,
          'parentId',
          `${place.name} cannot be moved there: it would lie inside itself. Choose a place outside it.`,
        ),
      ];
    }
    seen.add(above.id);
  }
  return [];
}

/** Site, building, floor, room, row: an inner kind does not hold an outer one; any step may be skipped. */
export function placesNest(network: Network, place: Place): Problem[] {
  const rank = (one: Place): number => placeKinds.indexOf(one.kind);
  const outer = network.get('place', place.parentId);
  if (outer !== null && rank(outer) > rank(place)) {
    return [
      about(
        place,
        'parentId',
        `${place.name} is a ${place.kind}, which cannot lie inside the ${outer.kind} ${outer.name}. Choose a ${placeKinds
          .slice(0, rank(place) + 1)
          .join(', ')
          .replace(/, ([^,]*)$/, ' or $1')} for it.`,
      ),
    ];
  }
  const inner = network.find('placesByParent', place.id).find((child) => rank(child) < rank(place));
  if (inner === undefined) return [];
  return [
    about(
      place,
      'kind',
      `${place.name} cannot be a ${place.kind}: it holds the ${inner.kind} ${inner.name}. Move that out first.`,
    ),
  ];
}
