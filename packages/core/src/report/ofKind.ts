import { factFieldsOf, type FactField } from '../model/factFields.ts';
import { kinds, type Kind, type Row } from '../model/kinds.ts';
import type { Network } from '../model/network.ts';
import { compareNames } from '../model/order.ts';
import { rowTitle, titleOf } from '../model/titles.ts';
import type { Cell, Table } from './table.ts';

function cellOf(network: Network, row: Row, { field, form, to }: FactField): Cell {
  const value = (row as unknown as Record<string, unknown>)[field];
  if (value === null || value === undefined) return null;
  if (form === 'yes or no') return value === true ? 'yes' : 'no';
  if (to !== null) return titleOf(network, to, String(value));
  return typeof value === 'number' ? value : String(value);
}

/** Every row of a kind with its facts, as the kind says them: for kinds that nobody wrote a schedule for. */
export function kindSchedule(network: Network, kind: Kind): Table {
  const fields = factFieldsOf(kind);
  const rows = [...network.all(kind)].map((row) => {
    const cells = Object.fromEntries(fields.map((field) => [field.field, cellOf(network, row, field)]));
    return { id: row.id, cells, text: `${rowTitle(network, kind, row)} ${JSON.stringify(cells)}` };
  });
  rows.sort((a, b) => compareNames(a.text, b.text));
  return {
    columns: fields.map(({ field, label, unit, form }) => ({
      key: field,
      label,
      ...(form === 'number' ? { numeric: true } : {}),
      ...(unit === null ? {} : { unit }),
    })),
    rows: rows.map(({ cells }) => cells),
    ids: rows.map(({ id }) => id),
  };
}

/** `bgpSession` as it stands in an address: `bgp-session`. */
export const kindKey = (kind: Kind): string =>
  kind.replaceAll(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
export const kindHeading = (kind: Kind): string =>
  kinds[kind].many.charAt(0).toUpperCase() + kinds[kind].many.slice(1);
