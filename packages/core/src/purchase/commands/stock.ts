import { create, remove, update, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { PartsList } from '../../model/kinds/purchase/partsList.ts';
import type { StockLine } from '../../model/kinds/purchase/stock.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath } from '../../model/network/places.ts';
import { newId } from '../../model/values/ids.ts';
import { compareNames } from '../../model/values/order.ts';
import type { PartLine } from '../partsOf.ts';

type Key = Pick<StockLine, 'placeId' | 'modelId' | 'lengthM'>;

/** The stock line of a part in a store; null where it was never there. */
export const stockLineOf = (network: Network, { placeId, modelId, lengthM }: Key): StockLine | null =>
  network
    .find('stockByModel', modelId)
    .find((line) => line.placeId === placeId && line.lengthM === lengthM) ?? null;

/** How many of a part in a store are kept for lists. */
export const reservedIn = (network: Network, { placeId, modelId, lengthM }: Key): number =>
  network
    .find('reservedPartsByModel', modelId)
    .filter((row) => row.placeId === placeId && row.lengthM === lengthM)
    .reduce((sum, { count }) => sum + count, 0);

const spoken = (network: Network, { placeId, modelId, lengthM }: Key): string => {
  const model = network.get('model', modelId);
  return `${model === null ? 'a part' : modelTitle(model)}${lengthM === null ? '' : ` ${lengthM} m`} in ${placePath(network, placeId)}`;
};

/** A length belongs to what is made in lengths, and to nothing else. */
function wrongLength(network: Network, { modelId, lengthM }: Key): string | null {
  const model = network.get('model', modelId);
  if (model === null) return 'The part is no longer in the catalogue. Choose another.';
  const title = modelTitle(model);
  if (lengthM === null)
    return model.stockLengthsM.length === 0 ? null : `${title} is kept by its length. Choose one.`;
  if (model.stockLengthsM.includes(lengthM)) return null;
  return model.stockLengthsM.length === 0
    ? `${title} is not made in lengths. Leave the length empty.`
    : `${title} is not made in ${lengthM} m. Choose one of ${model.stockLengthsM.join(', ')} m.`;
}

/** Counts a part in a store: so many are there. */
export function countStock(
  network: Network,
  key: Key,
  fields: Partial<Pick<StockLine, 'count' | 'least' | 'notes'>>,
): Attempt {
  const wrong = wrongLength(network, key);
  if (wrong !== null) return refuse(wrong);
  const line = stockLineOf(network, key);
  const change: Change | null =
    line === null
      ? create('stock', { id: newId(), count: 0, least: null, notes: null, ...key, ...fields })
      : update('stock', line, fields);
  const count = fields.count ?? line?.count ?? 0;
  return judged(network, [change], `Counted ${count} of ${spoken(network, key)}`);
}

/** Takes so many into a store. */
export function receiveStock(network: Network, key: Key, count: number): Attempt {
  const wrong = wrongLength(network, key);
  if (wrong !== null) return refuse(wrong);
  if (!Number.isInteger(count) || count < 1)
    return refuse(`${count} cannot be received. Give a whole number from 1 on.`);
  const line = stockLineOf(network, key);
  const change =
    line === null
      ? create('stock', { id: newId(), ...key, count, least: null, notes: null })
      : update('stock', line, { count: line.count + count });
  return judged(network, [change], `Received ${count} of ${spoken(network, key)}`);
}

/** Takes so many out of a store; what is kept for a list stays. */
export function issueStock(network: Network, line: StockLine, count: number): Attempt {
  if (!Number.isInteger(count) || count < 1)
    return refuse(`${count} cannot be taken out. Give a whole number from 1 on.`);
  const free = line.count - reservedIn(network, line);
  if (count > free)
    return refuse(
      `${spoken(network, line)}: ${line.count} are on hand and ${line.count - free} of them reserved. Take at most ${Math.max(0, free)}, or give reservations back first.`,
    );
  return judged(
    network,
    [update('stock', line, { count: line.count - count })],
    `Took ${count} of ${spoken(network, line)}`,
  );
}

export const removeStock = (network: Network, line: StockLine): Attempt => {
  const reserved = reservedIn(network, line);
  return reserved > 0
    ? refuse(`${spoken(network, line)}: ${reserved} are reserved. Give them back first.`)
    : judged(network, [remove('stock', line)], `Removed ${spoken(network, line)} from the stock`);
};

/** Reserves for a list what its lines still need and stores have: from the store with most of it first. */
export function reserveInStock(network: Network, list: PartsList, lines: readonly PartLine[]): Attempt {
  const changes: Change[] = [];
  let pieces = 0;
  for (const { part, toBuy } of lines) {
    if (part.modelId === null || part.licence !== null) continue;
    const stores = network
      .find('stockByModel', part.modelId)
      .filter(({ lengthM }) => lengthM === part.lengthM)
      .map((line) => ({ line, free: line.count - reservedIn(network, line) }))
      .filter(({ free }) => free > 0)
      .sort(
        (a, b) =>
          b.free - a.free ||
          compareNames(placePath(network, a.line.placeId), placePath(network, b.line.placeId)),
      );
    let wanted = toBuy;
    for (const { line, free } of stores) {
      const count = Math.min(wanted, free);
      if (count === 0) break;
      wanted -= count;
      pieces += count;
      const { placeId, modelId, lengthM } = line;
      const kept = network
        .find('reservedPartsByList', list.id)
        .find((row) => row.placeId === placeId && row.modelId === modelId && row.lengthM === lengthM);
      changes.push(
        kept === undefined
          ? create('reservedPart', { id: newId(), listId: list.id, placeId, modelId, lengthM, count })
          : {
              ...{ op: 'update', kind: 'reservedPart', id: kept.id },
              ...{ before: { count: kept.count }, after: { count: kept.count + count } },
            },
      );
    }
  }
  if (pieces === 0) return refuse('No store has any of what is still to be bought.');
  return judged(
    network,
    changes,
    `Reserved ${pieces} ${pieces === 1 ? 'piece' : 'pieces'} for the parts list ${list.name}`,
  );
}

/** Gives back what is reserved for a list: of one part, or of all. */
export function giveBack(network: Network, list: PartsList, line: PartLine | null): Attempt {
  const rows = network
    .find('reservedPartsByList', list.id)
    .filter(
      ({ modelId, lengthM }) =>
        line === null || (modelId === line.part.modelId && lengthM === line.part.lengthM),
    );
  if (rows.length === 0) return refuse('Nothing is reserved.');
  const pieces = rows.reduce((sum, { count }) => sum + count, 0);
  return judged(
    network,
    rows.map((row) => remove('reservedPart', row)),
    `Gave back ${pieces} reserved for the parts list ${list.name}`,
  );
}
