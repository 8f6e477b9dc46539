import type { PartsList } from '../model/kinds/purchase/partsList.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import type { Column, Table, TableRow } from '../report/table.ts';
import { wholeUp, type PartLine, type PartsAnswer } from './partsOf.ts';

/** By what the lines of a list stand together. */
export const partGroupings = ['section', 'supplier', 'place'] as const;
export type PartGrouping = (typeof partGroupings)[number];

/** What is said of a part without a price list. */
const ofCatalogue = 'catalogue price';
const nobody = 'no price';
/** Of services and parts that the list itself prices. */
const ofList = 'own price';

/** From whom a part is at the price of its line. */
const fromWhom = ({ part, offer }: PartLine): string =>
  offer === null ? nobody : (offer.supplier ?? (part.modelId === null ? ofList : ofCatalogue));

export interface PartGroup {
  title: string;
  rows: readonly TableRow[];
  /** The keys of the lines. */
  ids: readonly string[];
  /** The sum of the amounts that are known, in minor units; null where the group holds no amounts. */
  totalMinor: number | null;
}

const units = (minor: number | null): number | null => (minor === null ? null : minor / 100);

function rowOf(line: PartLine, currency: string): TableRow {
  const { part, offer } = line;
  return {
    what: part.what,
    partNumber: part.partNumber,
    lengthM: part.lengthM,
    unit: part.unit,
    planned: line.planned,
    inPlace: line.inPlace,
    spares: line.spares,
    reserved: line.reserved + line.held,
    inStock: line.inStock,
    toBuy: line.toBuy,
    pack: offer?.pack ?? null,
    order: line.order,
    price: offer?.currency === currency ? units(offer.unitMinor) : null,
    amount: units(line.amountMinor),
    supplier: offer === null ? null : fromWhom(line),
  };
}

export const partColumns = (currency: string): Column[] => [
  { key: 'what', label: 'Part' },
  { key: 'partNumber', label: 'Part number' },
  { key: 'lengthM', label: 'Length', numeric: true, unit: 'm' },
  { key: 'planned', label: 'Planned', numeric: true },
  { key: 'inPlace', label: 'In place', numeric: true },
  { key: 'spares', label: 'Spares', numeric: true },
  { key: 'reserved', label: 'Reserved or held', numeric: true },
  { key: 'inStock', label: 'Free in stock', numeric: true },
  { key: 'toBuy', label: 'To buy', numeric: true },
  { key: 'pack', label: 'Pack', numeric: true },
  { key: 'order', label: 'Order', numeric: true },
  { key: 'price', label: 'Each', numeric: true, unit: currency },
  { key: 'amount', label: 'Amount', numeric: true, unit: currency },
  { key: 'supplier', label: 'Supplier' },
];

/** The lines of a list in groups. By place they stand at each site with what is for it: amounts are of the whole list. */
export function partGroupsOf(
  network: Network,
  list: PartsList,
  { lines }: PartsAnswer,
  by: PartGrouping,
): PartGroup[] {
  if (by === 'place') {
    const sites = new Map<string, { rows: TableRow[]; ids: string[] }>();
    for (const line of lines)
      for (const [site, count] of line.bySite) {
        const title = site === null ? 'in no place' : (network.get('place', site)?.name ?? '');
        const group = sites.get(title) ?? { rows: [], ids: [] };
        sites.set(title, group);
        const { what = null, partNumber = null, lengthM = null, unit = null } = rowOf(line, list.currency);
        group.rows.push({ what, partNumber, lengthM, unit, count: wholeUp(count) });
        group.ids.push(line.key);
      }
    return [...sites]
      .sort(([a], [b]) => compareNames(a, b))
      .map(([title, group]) => ({ title, ...group, totalMinor: null }));
  }
  const groups = new Map<string, PartLine[]>();
  for (const line of lines) {
    const title = by === 'section' ? line.part.section : fromWhom(line);
    groups.set(title, [...(groups.get(title) ?? []), line]);
  }
  const made = [...groups].map(([title, of]): PartGroup => ({
    title,
    rows: of.map((line) => rowOf(line, list.currency)),
    ids: of.map(({ key }) => key),
    totalMinor: of.reduce((sum, { amountMinor }) => sum + (amountMinor ?? 0), 0),
  }));
  return by === 'section' ? made : made.sort((a, b) => compareNames(a.title, b.title));
}

export const placeColumns: Column[] = [
  { key: 'what', label: 'Part' },
  { key: 'partNumber', label: 'Part number' },
  { key: 'lengthM', label: 'Length', numeric: true, unit: 'm' },
  { key: 'count', label: 'Count', numeric: true },
];

/** A list as one table, its groups in a column of their own: for files. */
export function partsTable(network: Network, list: PartsList, answer: PartsAnswer, by: PartGrouping): Table {
  const groups = partGroupsOf(network, list, answer, by);
  const label = { section: 'Section', supplier: 'Supplier', place: 'Place' }[by];
  const columns = by === 'place' ? placeColumns : partColumns(list.currency);
  return {
    columns: [{ key: 'group', label }, ...columns.filter(({ label: own }) => own !== label)],
    rows: groups.flatMap(({ title, rows }) => rows.map((row) => ({ group: title, ...row }))),
    ids: groups.flatMap(({ ids }) => [...ids]),
  };
}
