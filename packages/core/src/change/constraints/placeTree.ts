import {
  isCloudPlaceKind,
  placeKindTitle,
  premisesKinds,
  type Place,
  type PlaceKind,
} from '../../model/kinds/sites/place.ts';
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

/** What a place of a cloud lies in; null: in nothing. */
const cloudHolder = { account: null, region: 'account', zone: 'region', network: 'region' } as const;
const cloudWays = {
  account: 'An account stands by itself, beside the sites.',
  region: 'Choose an account for it.',
  zone: 'Choose a region for it.',
  network: 'Choose a region for it.',
} as const;

/** Places of a cloud lie in each other as they do there, and apart from the premises. */
function cloudNests(network: Network, place: Place): Problem[] {
  const outer = network.get('place', place.parentId);
  const within = outer?.kind ?? null;
  const title = placeKindTitle(place.kind);
  const holds = (one: PlaceKind): PlaceKind | null => (isCloudPlaceKind(one) ? cloudHolder[one] : null);
  if (isCloudPlaceKind(place.kind) && within !== cloudHolder[place.kind])
    return [
      about(
        place,
        'parentId',
        `${place.name} is ${place.kind === 'account' ? 'an' : 'a'} ${title}, which cannot lie ${outer === null ? 'by itself' : `inside the ${placeKindTitle(outer.kind)} ${outer.name}`}. ${cloudWays[place.kind]}`,
      ),
    ];
  if (!isCloudPlaceKind(place.kind) && within !== null && isCloudPlaceKind(within))
    return [
      about(
        place,
        'parentId',
        `${place.name} is a ${place.kind} and cannot lie inside the ${placeKindTitle(within)} ${outer?.name ?? ''} of a cloud. Choose a place of the premises for it.`,
      ),
    ];
  const misfit = network
    .find('placesByParent', place.id)
    .find(
      (child) =>
        isCloudPlaceKind(child.kind) !== isCloudPlaceKind(place.kind) ||
        (isCloudPlaceKind(child.kind) && holds(child.kind) !== place.kind),
    );
  if (misfit === undefined) return [];
  return [
    about(
      place,
      'kind',
      `${place.name} cannot be ${place.kind === 'account' ? 'an' : 'a'} ${title}: it holds the ${placeKindTitle(misfit.kind)} ${misfit.name}. Move that out first.`,
    ),
  ];
}

/** Site, building, floor, room, row: an inner kind does not hold an outer one; any step may be skipped. */
export function placesNest(network: Network, place: Place): Problem[] {
  const apart = cloudNests(network, place);
  if (apart.length > 0 || isCloudPlaceKind(place.kind)) return apart;
  const rank = (one: Place): number => premisesKinds.findIndex((kind) => kind === one.kind);
  const outer = network.get('place', place.parentId);
  if (outer !== null && rank(outer) > rank(place)) {
    return [
      about(
        place,
        'parentId',
        `${place.name} is a ${place.kind}, which cannot lie inside the ${outer.kind} ${outer.name}. Choose a ${premisesKinds
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
