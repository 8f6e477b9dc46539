import type { Role } from '../../model/values/roles.ts';
import { linkFacets, type LinkFacet, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { SheetItem } from '../../model/kinds/drawings/sheetItem.ts';
import type { Network } from '../../model/network/network.ts';
import { byName } from '../../model/values/order.ts';
import type { ShadeKey } from './shading.ts';
import type { Line } from './sheetGraph.ts';
import type { Said, ToldGraph } from './told.ts';

export interface Entry {
  id: string;
  name: string;
  role: Role;
}

/** What reading the model for a sheet gives. */
export interface SheetReading {
  graph: ToldGraph;
  shades: ShadeKey[];
  linkShades: ShadeKey[];
  /** What colours stand for that are on the sheet whatever it is coloured by: VLANs, VRFs. */
  colours?: (Omit<ShadeKey, 'label'> & { label: Said })[];
  /** Devices of the scope that are not on the sheet yet. */
  waiting: Entry[];
  /** Devices that were left out by hand. */
  away: Entry[];
  /** How many devices were asked for, where they are too many to draw. */
  tooMany: number | null;
}

/** What is kept of one sheet, by the id of what it is about. */
export interface Kept {
  items: ReadonlyMap<string, SheetItem>;
  tells: (line: Line) => readonly LinkFacet[];
}

/** The items of a sheet, and what the labels of each of its links tell. */
export function keptOn(network: Network, sheet: Sheet): Kept {
  const items = new Map(network.find('sheetItemsBySheet', sheet.id).map((item) => [item.subjectId, item]));
  const own = new Map(network.find('sheetLinksBySheet', sheet.id).map((link) => [link.subjectId, link.show]));
  const usual = linkFacets.filter((facet) => sheet.show.includes(facet));
  return { items, tells: (line) => own.get(line.id) ?? usual };
}

/** The own sheet of each place, for plates that lead into one. */
export function sheetsByPlace(network: Network, but: string): Map<string, string> {
  const found = new Map<string, string>();
  for (const sheet of [...network.all('sheet')].sort(byName))
    if (sheet.scopeId !== null && sheet.id !== but && !sheet.picked && !found.has(sheet.scopeId))
      found.set(sheet.scopeId, sheet.id);
  return found;
}
