/** Lines of parts lists as plain values, for tests. */
import type { PartsList } from '../model/kinds/purchase/partsList.ts';
import type { Network } from '../model/network/network.ts';
import type { Table } from '../report/table.ts';
import { partsOf } from '../purchase/partsOf.ts';

export const testLines = (network: Network, list: PartsList, day: string) =>
  partsOf(network, list, day).lines.map(
    ({ part, planned, inPlace, spares, reserved, held, toBuy, order, amountMinor }) => ({
      ...{ section: part.section, what: part.what, lengthM: part.lengthM, unit: part.unit, gap: part.gap },
      ...{ planned, inPlace, spares, reserved, held, toBuy, order, amount: amountMinor },
    }),
  );

export const reportRows = (table: Table): string =>
  table.rows.map((row) => table.columns.map(({ key }) => String(row[key] ?? '')).join(' | ')).join('\n');
