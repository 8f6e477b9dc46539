import { create, remove, update, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { blankPartsList, type PartsList } from '../../model/kinds/purchase/partsList.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { freeName } from './freeName.ts';

type Fields = Partial<Omit<PartsList, 'id'>>;

const chosenFor = (network: Network, listId: string, deviceIds: Iterable<string>): Change[] => {
  const known = new Set(network.find('listedDevicesByList', listId).map(({ deviceId }) => deviceId));
  return [...new Set(deviceIds)]
    .filter((deviceId) => !known.has(deviceId))
    .map((deviceId) => create('listedDevice', { id: newId(), listId, deviceId }));
};

/** Begins a parts list, of a place, a kit, or of devices that were chosen. Without a name it gets the next that is free. */
export function beginPartsList(
  network: Network,
  fields: Fields,
  deviceIds: readonly string[] = [],
): Attempt & { id: string } {
  const id = newId();
  const name = fields.name?.trim() ?? freeName(network, 'partsList', 'Parts list');
  if (name === '') return { ...refuse('The parts list has no name. Give it one.'), id };
  const changes = [
    create('partsList', { ...blankPartsList, ...fields, id, name }),
    ...chosenFor(network, id, deviceIds),
  ];
  return { ...judged(network, changes, `Began the parts list ${name}`), id };
}

/** Changes what a list is of, counts, or holds beside. */
export function changePartsList(network: Network, list: PartsList, fields: Fields): Attempt {
  const name = fields.name === undefined ? list.name : fields.name.trim();
  if (name === '') return refuse('The parts list has no name. Give it one.');
  const change = update('partsList', list, { ...fields, name });
  return judged(
    network,
    [change],
    name === list.name
      ? `Changed the parts list ${list.name}`
      : `Renamed the parts list ${list.name} to ${name}`,
  );
}

/** Adds devices to those that a list counts alone. */
export function chooseForList(network: Network, list: PartsList, deviceIds: readonly string[]): Attempt {
  const changes = chosenFor(network, list.id, deviceIds);
  if (changes.length === 0) return refuse('They are in the list already.');
  return judged(
    network,
    changes,
    `Chose ${changes.length} ${changes.length === 1 ? 'device' : 'devices'} for the parts list ${list.name}`,
  );
}

/** Lets a list count all of its place again. */
export const unchooseAll = (network: Network, list: PartsList): Attempt =>
  judged(
    network,
    network.find('listedDevicesByList', list.id).map((row) => remove('listedDevice', row)),
    `Let the parts list ${list.name} count all of its place`,
  );

/** Deletes a list with its reservations; quotations that were made from it stay. */
export function removePartsList(network: Network, list: PartsList): Attempt {
  const quotations = network.find('quotationsByList', list.id);
  return judged(
    network,
    [
      ...quotations.map((row) => update('quotation', row, { partsListId: null })),
      ...network.find('listedDevicesByList', list.id).map((row) => remove('listedDevice', row)),
      ...network.find('reservedPartsByList', list.id).map((row) => remove('reservedPart', row)),
      remove('partsList', list),
    ],
    `Deleted the parts list ${list.name}`,
  );
}
