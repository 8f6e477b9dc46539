import { create, update, type Change, type ChangeSet } from '../../change/change.ts';
import type { Mark } from '../../model/kinds/drawings/mark.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { byName } from '../../model/values/order.ts';

/** Sheets in the order a person gave them, then by name. */
export const inSheetOrder = (sheets: Iterable<Sheet>): Sheet[] =>
  [...sheets].sort((a, b) => (a.position ?? Infinity) - (b.position ?? Infinity) || byName(a, b));

/**
 * Gives sheets an order of their own. They keep their places among those that are not in the list, as when only the
 * sheets of one site are looked at.
 *
 * @param ids the sheets that are put in order, first to last
 */
export function orderSheets(network: Network, ids: readonly string[]): ChangeSet {
  const own = new Set(ids);
  const next = ids.flatMap((id) => network.get('sheet', id) ?? []);
  const all = inSheetOrder(network.all('sheet'));
  let at = 0;
  const ordered = all.map((sheet) => (own.has(sheet.id) ? (next[at++] ?? sheet) : sheet));
  const changes = ordered.flatMap((sheet, index) => update('sheet', sheet, { position: index + 1 }) ?? []);
  return { changes, sentence: 'Put sheets in order' };
}

const numbered = /^(.*?) \((\d+)\)$/;

/** "Data room (2)" after "Data room": the next name that no sheet has. */
export function nextSheetName(network: Network, name: string): string {
  const taken = new Set([...network.all('sheet')].map((sheet) => sheet.name.toLowerCase()));
  const stem = numbered.exec(name)?.[1] ?? name;
  let number = 2;
  while (taken.has(`${stem} (${number})`.toLowerCase())) number++;
  return `${stem} (${number})`;
}

/** A copy of a sheet with all that was done on it by hand, after it in the order; nothing of the network is copied. */
export function copySheet(network: Network, sheet: Sheet): ChangeSet & { sheetId: string } {
  const sheetId = newId();
  const marks = new Map(
    network.find('marksBySheet', sheet.id).map((mark): [string, Mark] => [mark.id, mark]),
  );
  const ids = new Map([...marks.keys()].map((id) => [id, newId()]));
  const idOf = (id: string): string => ids.get(id) ?? id;
  const copy: Sheet = {
    ...sheet,
    id: sheetId,
    name: nextSheetName(network, sheet.name),
    groups: sheet.groups.map((group) => ({ ...group, id: newId(), members: group.members.map(idOf) })),
  };
  const changes: Change[] = [
    create('sheet', copy),
    ...network
      .find('sheetItemsBySheet', sheet.id)
      .map((row) => create('sheetItem', { ...row, id: newId(), sheetId })),
    ...network
      .find('sheetLinksBySheet', sheet.id)
      .map((row) => create('sheetLink', { ...row, id: newId(), sheetId })),
    ...[...marks.values()].map((mark) => create('mark', { ...mark, id: idOf(mark.id), sheetId })),
  ];
  return { sheetId, changes, sentence: `Copied sheet ${sheet.name} to ${copy.name}` };
}

/** Sheets with a mark that leads to a sheet, by name. */
export function sheetsLeadingTo(network: Network, sheetId: string): Sheet[] {
  const ids = new Set(network.find('marksByLinkedSheet', sheetId).map((mark) => mark.sheetId));
  return [...ids].flatMap((id) => network.get('sheet', id) ?? []).sort(byName);
}
