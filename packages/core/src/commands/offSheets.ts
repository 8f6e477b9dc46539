import { remove, update, type Change } from '../change/change.ts';
import type { Network } from '../model/network.ts';

/**
 * What goes from the sheets when a row is taken out of the model: positions, slid labels and dimensions of it.
 * A callout stays and points at nothing; a mark that led to a sheet stays and leads nowhere.
 */
export function offSheets(
  network: Network,
  kind: 'device' | 'place' | 'cable' | 'circuit' | 'prefix' | 'rack' | 'sheet',
  id: string,
): Change[] {
  const changes: (Change | null)[] = [];
  const items = {
    device: 'sheetItemsByDevice',
    place: 'sheetItemsByPlace',
    circuit: 'sheetItemsByCircuit',
    prefix: 'sheetItemsByPrefix',
    sheet: 'sheetItemsBySheet',
  } as const;
  if (kind !== 'cable' && kind !== 'rack')
    for (const item of network.find(items[kind], id)) changes.push(remove('sheetItem', item));
  if (kind === 'device')
    for (const mark of network.find('marksByDevice', id))
      changes.push(update('mark', mark, { deviceId: null }));
  if (kind === 'cable' || kind === 'circuit' || kind === 'prefix')
    for (const link of network.find('sheetLinksByLine', id)) changes.push(remove('sheetLink', link));
  if (kind === 'rack') for (const mark of network.find('marksByRack', id)) changes.push(remove('mark', mark));
  if (kind === 'sheet') {
    for (const mark of network.find('marksBySheet', id)) changes.push(remove('mark', mark));
    for (const link of network.find('sheetLinksBySheet', id)) changes.push(remove('sheetLink', link));
    for (const mark of network.find('marksByLinkedSheet', id))
      if (mark.sheetId !== id) changes.push(update('mark', mark, { linkSheetId: null }));
  }
  return changes.filter((change) => change !== null);
}
