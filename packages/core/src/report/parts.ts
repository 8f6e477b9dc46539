import { speedText } from '../model/values/speed.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { devicesInScope, whereIs } from '../model/network/places.ts';
import { portsOf, portTitle } from '../model/network/ports.ts';
import type { Column, Table, TableRow } from './table.ts';

/** What narrows a report beside its scope: one device. */
export interface ForDevice {
  device?: Device;
}

export const titleOf = (network: Network, modelId: string | null): string | null => {
  const model = network.get('model', modelId);
  return model === null ? null : modelTitle(model);
};
export const spoken = (network: Network, portId: string | null): string | null =>
  portTitle(network, portId).replace(':', ' ') || null;
export const gigabits = (bps: number | null): string | null => (bps === null ? null : speedText(bps));

/** Builds a table of rows that belong to ids, in the order given. */
export function table(columns: Column[], rows: { id: string; cells: TableRow }[]): Table {
  return { columns, rows: rows.map((row) => row.cells), ids: rows.map((row) => row.id) };
}

export const portsInScope = (
  network: Network,
  scopeId: string | null,
): { port: Port; device: string; where: string }[] =>
  devicesInScope(network, scopeId).flatMap((device) =>
    portsOf(network, device.id).map((port) => ({
      port,
      device: device.name,
      where: whereIs(network, device),
    })),
  );
