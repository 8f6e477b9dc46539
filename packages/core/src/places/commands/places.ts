import { create, type ChangeSet } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import { newId } from '../../model/values/ids.ts';
import { blankPlace, type Place } from '../../model/kinds/sites/place.ts';
import { blankRack, type Rack } from '../../model/kinds/sites/rack.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath } from '../../model/network/places.ts';

export function addPlace(
  network: Network,
  wish: Pick<Place, 'name' | 'kind' | 'parentId' | 'code'>,
): ChangeSet & { placeId: string } {
  const place: Place = { ...blankPlace, id: newId(), ...wish, name: wish.name.trim() };
  const inside = placePath(network, wish.parentId);
  return {
    placeId: place.id,
    changes: [create('place', place)],
    sentence: `Added ${place.kind} ${place.name}${inside === '' ? '' : ` in ${inside}`}`,
  };
}

export function addRack(
  network: Network,
  wish: { name: string; placeId: string; units: number },
): ChangeSet & { rackId: string } {
  const neighbours = network.find('racksByPlace', wish.placeId);
  const rack: Rack = {
    ...blankRack,
    id: newId(),
    name: wish.name.trim(),
    placeId: wish.placeId,
    units: wish.units,
    position: Math.max(0, ...neighbours.map((other) => other.position)) + 1,
  };
  return {
    rackId: rack.id,
    changes: [create('rack', rack)],
    sentence: `Added rack ${rack.name} in ${placePath(network, wish.placeId)}`,
  };
}

/** Removes an empty place with the pathways that end there; applyChanges says what is still inside. */
export const deletePlace = (network: Network, place: Place): ChangeSet => ({
  changes: removal(network, [{ kind: 'place', id: place.id }]).changes,
  sentence: `Deleted ${place.kind} ${placePath(network, place.id)}`,
});

export const deleteRack = (network: Network, rack: Rack): ChangeSet => ({
  changes: removal(network, [{ kind: 'rack', id: rack.id }]).changes,
  sentence: `Deleted rack ${rack.name}`,
});
