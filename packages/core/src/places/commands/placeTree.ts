import { create, remove, update, type Change, updateHeld } from '../../change/change.ts';
import { blankPlace, type Place, type PlaceKind } from '../../model/kinds/sites/place.ts';
import { newId } from '../../model/values/ids.ts';
import { removal } from '../../change/removal.ts';
import { referrers, type Network } from '../../model/network/network.ts';
import { devicesIn, placePath, placesWithin, racksIn } from '../../model/network/places.ts';
import { judged, type Attempt } from '../../commands/attempt.ts';
import { held } from '../../model/kinds.ts';

const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;

/** Puts a place with all that is in it inside another; null makes it a place of its own. */
export function movePlace(network: Network, place: Place, parentId: string | null): Attempt {
  const to = placePath(network, parentId);
  return judged(
    network,
    [update('place', place, { parentId })],
    to === ''
      ? `Moved ${place.name} out of ${placePath(network, place.parentId)}`
      : `Moved ${place.name} into ${to}`,
  );
}

/** Many places at once, one a name; empty lines and names that are there already are left out. */
export function addPlaces(
  network: Network,
  parentId: string | null,
  kind: PlaceKind,
  names: readonly string[],
): Attempt & { left: string[] } {
  const there = new Set(
    network.find('placesByParent', parentId ?? 'root').map((place) => place.name.toLowerCase()),
  );
  const left: string[] = [];
  const wanted: string[] = [];
  for (const name of names.map((text) => text.trim()).filter((text) => text !== '')) {
    if (there.has(name.toLowerCase())) left.push(name);
    else wanted.push(name);
    there.add(name.toLowerCase());
  }
  const inside = placePath(network, parentId);
  if (wanted.length === 0) return { ok: false, why: 'There is no new name among these.', left };
  const changes = wanted.map((name) => create('place', { ...blankPlace, id: newId(), name, kind, parentId }));
  const sentence = `Added ${counted(wanted.length, kind)}${inside === '' ? '' : ` in ${inside}`}: ${wanted.slice(0, 4).join(', ')}${wanted.length > 4 ? ' …' : ''}`;
  return { ...judged(network, changes, sentence), left };
}

/** A place that is empty now, and where it stands on sheets. */
const gone = (network: Network, place: Place): Change[] =>
  removal(network, [{ kind: 'place', id: place.id }]).changes.filter(({ kind }) => kind !== 'pathway');

/** Everything directly in a place, put into another; places of the same name there become one. */
function moveContents(network: Network, from: Place, into: Place, changes: (Change | null)[]): void {
  for (const { kind, fields, refersTo, index, onRemove } of referrers) {
    if (refersTo !== 'place' || onRemove !== 'holds' || index === 'placesByParent') continue;
    for (const row of network.find(index, from.id)) {
      const moved = fields.filter((field) => held(row)[field] === from.id);
      changes.push(updateHeld(kind, row, Object.fromEntries(moved.map((field) => [field, into.id]))));
    }
  }
  for (const pathway of network.find('pathwaysByPlace', from.id)) {
    const atA = pathway.aPlaceId === from.id;
    // A way between the two leads nowhere any more.
    if ((atA ? pathway.bPlaceId : pathway.aPlaceId) === into.id) changes.push(remove('pathway', pathway));
    else changes.push(update('pathway', pathway, atA ? { aPlaceId: into.id } : { bPlaceId: into.id }));
  }
  const there = new Map(
    network.find('placesByParent', into.id).map((place) => [place.name.toLowerCase(), place]),
  );
  for (const child of network.find('placesByParent', from.id)) {
    const same = there.get(child.name.toLowerCase());
    if (same === undefined || same.id === from.id) {
      if (child.id !== into.id) changes.push(update('place', child, { parentId: into.id }));
      continue;
    }
    moveContents(network, child, same, changes);
    changes.push(...gone(network, child));
  }
}

/**
 * Makes two places one: all of `from` goes into `into`, places of the same name are merged as well, and what
 * `into` does not say of itself (code, address, contacts …) is taken over.
 */
export function mergePlaces(network: Network, from: Place, into: Place): Attempt {
  if (from.id === into.id) return { ok: false, why: 'A place cannot be merged with itself.' };
  if (placesWithin(network, from.id).has(into.id))
    return { ok: false, why: `${into.name} lies inside ${from.name}. Choose a place outside it.` };
  const changes: (Change | null)[] = [];
  moveContents(network, from, into, changes);
  changes.push(
    ...gone(network, from),
    update('place', into, {
      code: into.code ?? from.code,
      address: into.address ?? from.address,
      latitude: into.latitude ?? from.latitude,
      longitude: into.latitude === null ? from.longitude : into.longitude,
      contacts: into.contacts ?? from.contacts,
      notes: into.notes ?? from.notes,
      trayHeightM: into.trayHeightM ?? from.trayHeightM,
    }),
  );
  return judged(
    network,
    changes,
    `Merged ${placePath(network, from.id)} into ${placePath(network, into.id)}`,
  );
}

export interface PlaceContents {
  places: number;
  racks: number;
  devices: number;
  sheets: number;
}

/** What is inside a place, all the way down. */
export function contentsOf(network: Network, place: Place): PlaceContents {
  const within = placesWithin(network, place.id);
  let sheets = 0;
  for (const id of within) sheets += network.countOf('sheetsByScope', id);
  return {
    places: within.size - 1,
    racks: racksIn(network, within).length,
    devices: devicesIn(network, within).length,
    sheets,
  };
}

/** "3 places, 2 racks, 41 devices", or "nothing". */
export function contentsText(contents: PlaceContents): string {
  const parts = [
    contents.places > 0 ? counted(contents.places, 'place') : '',
    contents.racks > 0 ? counted(contents.racks, 'rack') : '',
    contents.devices > 0 ? counted(contents.devices, 'device') : '',
    contents.sheets > 0 ? counted(contents.sheets, 'sheet') : '',
  ].filter((part) => part !== '');
  return parts.length === 0 ? 'nothing' : parts.join(', ');
}

/** Deletes a place after putting what is directly in it into another. */
export function deletePlaceMovingContents(network: Network, place: Place, into: Place): Attempt {
  const merged = mergePlaces(network, place, into);
  if (!merged.ok) return merged;
  // The place goes for good: nothing of what it said of itself is taken over.
  const changes = merged.set.changes.filter(
    (change) => !(change.op === 'update' && change.kind === 'place' && change.id === into.id),
  );
  return judged(
    network,
    changes,
    `Deleted ${place.kind} ${placePath(network, place.id)} and moved ${contentsText(contentsOf(network, place))} to ${placePath(network, into.id)}`,
  );
}
