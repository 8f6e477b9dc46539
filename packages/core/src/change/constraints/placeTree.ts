import type { Place } from '../../model/kinds/place.ts';
import type { Network } from '../../model/network.ts';
import type { Problem } from '../../model/problem.ts';

/** A place cannot lie inside itself. */
export function placesFormTree(network: Network, place: Place): Problem[] {
  const seen = new Set([place.id]);
  for (
    let above = network.get('place', place.parentId);
    above !== null;
    above = network.get('place', above.parentId)
  ) {
    if (!seen.has(above.id)) {
      seen.add(above.id);
      continue;
    }
    return [
      {
        code: 'impossible',
        kind: 'place',
        id: place.id,
        about: `place ${place.name}`,
        field: 'parentId',
        message: `${place.name} cannot be moved there: it would lie inside itself. Choose a place outside it.`,
      },
    ];
  }
  return [];
}
