import { applyChanges, type ChangeSet } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { isFree, moneyText, portsOf, readMoney, type Device, type Network } from '@visograph/core/model';
import { findReport } from '@visograph/core/report';
import { Status, Strip } from '../../kit/grid/drawn.tsx';
import type { GridColumn, GridRow } from '../../kit/grid/Grid.tsx';

const standing: readonly GridColumn[] = [
  { key: 'name', label: 'Name', width: 112, editable: true },
  { key: 'role', label: 'Role', width: 92, text: true },
  { key: 'model', label: 'Model', width: 134, text: true },
  {
    ...{ key: 'status', label: 'Status', width: 72, text: true, editable: true },
    draw: (value) => <Status value={value} />,
  },
  { key: 'place', label: 'Place', width: 92, text: true },
  { key: 'rack', label: 'Rack', width: 60 },
  { key: 'unit', label: 'Unit', width: 46, numeric: true },
  { key: 'serial', label: 'Serial', width: 104, editable: true },
  {
    ...{ key: 'portsUsed', label: 'Ports used', width: 132, numeric: true },
    draw: (value, { ports, strip }) => (
      <Strip used={String(strip ?? '')} figureWidth={8}>
        {`${value} of ${ports}`}
      </Strip>
    ),
  },
];
const inventory: readonly GridColumn[] = [
  { key: 'name', label: 'Name', width: 112, editable: true },
  { key: 'model', label: 'Model', width: 146, text: true },
  { key: 'serial', label: 'Serial', width: 108, editable: true },
  { key: 'assetNumber', label: 'Asset number', width: 92, editable: true },
  { key: 'responsible', label: 'Responsible', width: 110, text: true, editable: true },
  { key: 'supplier', label: 'Supplier', width: 110, text: true, editable: true },
  { key: 'orderNumber', label: 'Order', width: 84, editable: true },
  { key: 'boughtOn', label: 'Bought on', width: 84, editable: true },
  { key: 'price', label: 'Price paid', width: 100, numeric: true, editable: true },
  { key: 'warrantyUntil', label: 'Warranty until', width: 96, editable: true },
  { key: 'contract', label: 'Support contract', width: 112, editable: true },
  { key: 'supportUntil', label: 'Support until', width: 90, editable: true },
  { key: 'softwareVersion', label: 'Software version', width: 108, editable: true },
];
/** What of devices is listed: where they stand, or what their owner is asked for. */
export const deviceViews = { standing: 'Where it stands', inventory: 'Inventory' } as const;
export type DeviceView = keyof typeof deviceViews;
export const deviceColumns: Readonly<Record<DeviceView, readonly GridColumn[]>> = { standing, inventory };

/** One letter for each port of a device, in their order: 1 is used, 0 free. */
const stripOf = (network: Network, deviceId: string): string =>
  portsOf(network, deviceId)
    .map(({ id }) => (isFree(network, id) ? '0' : '1'))
    .join('');

/** The devices of a scope as grid rows. */
export function deviceRows(
  network: Network,
  scopeId: string | null,
  view: DeviceView = 'standing',
): GridRow[] {
  const table = findReport(view === 'standing' ? 'devices' : 'inventory')?.make(network, scopeId);
  return (table?.rows ?? []).map((cells, at) => {
    const id = table?.ids[at] ?? '';
    if (view === 'standing') return { id, cells: { ...cells, strip: stripOf(network, id) } };
    const device = network.get('device', id);
    return { id, cells: device === null ? cells : { ...cells, price: moneyText(device) } };
  });
}

/** The fields that a text in a cell means; a text says why it means none. */
function fieldsOf(device: Device, key: string, text: string): Partial<Device> | string {
  const value = text.trim() === '' ? null : text.trim();
  if (key !== 'price')
    return value === null && (key === 'name' || key === 'status') ? 'Give a value.' : { [key]: value };
  if (value === null) return { priceMinor: null, currency: null };
  const paid = readMoney(value, device.currency);
  if (paid === null) return `“${value}” is not an amount such as 1250.00 EUR.`;
  return paid.currency === null ? 'Say the currency too, as in 1250.00 EUR.' : paid;
}

/** Tries an edit of one cell; gives the reason why not, or null when it was made. */
export function editDevice(
  network: Network,
  device: Device,
  key: string,
  text: string,
  commit: (set: ChangeSet) => { ok: boolean },
): string | null {
  const fields = fieldsOf(device, key, text);
  if (typeof fields === 'string') return fields;
  const set = editRow(network, 'device', device, fields);
  const tried = applyChanges(network, set.changes);
  if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
  commit(set);
  return null;
}
