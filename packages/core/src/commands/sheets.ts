import { create, remove, update, type Change, type ChangeSet } from '../change/change.ts';
import { newId } from '../model/ids.ts';
import { facets, type Facet, type Sheet } from '../model/kinds/sheet.ts';
import type { Network } from '../model/network.ts';

export const defaultShow: readonly Facet[] = facets.filter((facet) => facet !== 'power');

/** A cabling sheet of a place; null stands for the whole project. */
export function addSheet(network: Network, scopeId: string | null): ChangeSet & { sheetId: string } {
  const stem = `${network.get('place', scopeId)?.name ?? 'All sites'} · cabling`;
  const taken = new Set([...network.all('sheet')].map((sheet) => sheet.name.toLowerCase()));
  let name = stem;
  for (let number = 2; taken.has(name.toLowerCase()); number++) name = `${stem} ${number}`;
  const sheet: Sheet = { id: newId(), name, projection: 'cabling', scopeId, show: [...defaultShow] };
  return { sheetId: sheet.id, changes: [create('sheet', sheet)], sentence: `Added sheet ${name}` };
}

/** Keeps where plates have been put, in sheet units. */
export function placeOnSheet(
  network: Network,
  sheet: Sheet,
  positions: ReadonlyMap<string, { x: number; y: number }>,
): ChangeSet {
  const items = new Map(network.find('sheetItemsBySheet', sheet.id).map((item) => [item.deviceId, item]));
  const changes: Change[] = [];
  const names: string[] = [];
  for (const [deviceId, { x, y }] of positions) {
    const item = items.get(deviceId);
    const at = { x: Math.round(x), y: Math.round(y) };
    const change =
      item === undefined
        ? create('sheetItem', { id: newId(), sheetId: sheet.id, deviceId, ...at })
        : update('sheetItem', item, at);
    if (change === null) continue;
    changes.push(change);
    names.push(network.get('device', deviceId)?.name ?? '');
  }
  const what = names.length === 1 ? (names[0] ?? '') : `${names.length} plates`;
  return { changes, sentence: `Moved ${what} on sheet ${sheet.name}` };
}

/** Gives up all hand-made positions of a sheet, so that it is laid out afresh. */
export const tidySheet = (network: Network, sheet: Sheet): ChangeSet => ({
  changes: network.find('sheetItemsBySheet', sheet.id).map((item) => remove('sheetItem', item)),
  sentence: `Laid out sheet ${sheet.name} afresh`,
});

export function showFacets(_network: Network, sheet: Sheet, show: readonly Facet[]): ChangeSet {
  const change = update('sheet', sheet, { show: facets.filter((facet) => show.includes(facet)) });
  return { changes: change === null ? [] : [change], sentence: `Changed what sheet ${sheet.name} shows` };
}

export const deleteSheet = (network: Network, sheet: Sheet): ChangeSet => ({
  changes: [
    ...network.find('sheetItemsBySheet', sheet.id).map((item) => remove('sheetItem', item)),
    remove('sheet', sheet),
  ],
  sentence: `Deleted sheet ${sheet.name}`,
});
