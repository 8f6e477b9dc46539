import { factFieldsOf, type FactField } from '../model/fields/factFields.ts';
import { kinds, leads, refsOf, type Kind, type Row, held } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import { devicesInScope, placesWithin } from '../model/network/places.ts';
import { rowTitle, titleOf } from '../model/fields/titles.ts';
import type { Cell, Table } from './table.ts';

/** What a fact of a row is as a cell: a row that it names by its title. */
export function cellOf(network: Network, row: Row, { field, form, to }: FactField): Cell {
  const value = held(row)[field];
  if (value === null || value === undefined) return null;
  if (form === 'yes or no') return value === true ? 'yes' : 'no';
  if (to !== null) return titleOf(network, to, String(value));
  return typeof value === 'number' ? value : String(value);
}

/** Whether a row is of a place: by the device, port, rack or place that it refers to; all are where it refers to none. */
function scopeOf(network: Network, kind: Kind, scopeId: string | null): (row: Row) => boolean {
  const refs = refsOf(kind).filter(([, { to }]) => ['device', 'port', 'rack', 'place'].includes(to));
  if (scopeId === null || refs.length === 0) return () => true;
  const places = placesWithin(network, scopeId);
  const devices = new Set(devicesInScope(network, scopeId).map(({ id }) => id));
  const holds = (to: Kind, id: string): boolean => {
    if (to === 'device') return devices.has(id);
    if (to === 'port') return devices.has(network.get('port', id)?.deviceId ?? '');
    return places.has(to === 'rack' ? (network.get('rack', id)?.placeId ?? '') : id);
  };
  return (row) =>
    refs.some(([field, lead]) => {
      const id = held(row)[field];
      return typeof id === 'string' && leads(row, lead) && holds(lead.to, id);
    });
}

/** Every row of a kind in a place with its facts, as the kind says them: for kinds that nobody wrote a schedule for. */
export function kindSchedule(network: Network, kind: Kind, scopeId: string | null): Table {
  const fields = factFieldsOf(kind);
  const rows = [...network.all(kind)].filter(scopeOf(network, kind, scopeId)).map((row) => {
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
