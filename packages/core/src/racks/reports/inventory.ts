import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { devicesInScope, isPlaced, notPlaced, placeOfDevice } from '../../model/network/places.ts';
import { tableOf, type Column, type Table } from '../../report/table.ts';

const columns: Column[] = [
  { key: 'name', label: 'Name' },
  { key: 'model', label: 'Model' },
  { key: 'serial', label: 'Serial' },
  { key: 'assetNumber', label: 'Asset number' },
  { key: 'responsible', label: 'Responsible' },
  { key: 'place', label: 'Place' },
  { key: 'supplier', label: 'Supplier' },
  { key: 'orderNumber', label: 'Order' },
  { key: 'boughtOn', label: 'Bought on' },
  { key: 'price', label: 'Price paid', numeric: true },
  { key: 'currency', label: 'Currency' },
  { key: 'warrantyUntil', label: 'Warranty until' },
  { key: 'contract', label: 'Support contract' },
  { key: 'supportUntil', label: 'Support until' },
  { key: 'softwareVersion', label: 'Software version' },
];

/** The inventory: what an owner is asked of every device of the scope. Prices in their currency. */
export function inventorySchedule(network: Network, scopeId: string | null): Table {
  return tableOf(columns, devicesInScope(network, scopeId), (device) => {
    const model = network.get('model', device.modelId);
    return {
      name: device.name,
      model: model === null ? null : modelTitle(model),
      serial: device.serial,
      assetNumber: device.assetNumber,
      responsible: device.responsible,
      place: isPlaced(device)
        ? (network.get('place', placeOfDevice(network, device))?.name ?? null)
        : notPlaced,
      supplier: device.supplier,
      orderNumber: device.orderNumber,
      boughtOn: device.boughtOn,
      price: device.priceMinor === null ? null : device.priceMinor / 100,
      currency: device.currency,
      warrantyUntil: device.warrantyUntil,
      contract: device.contract,
      supportUntil: device.supportUntil,
      softwareVersion: device.softwareVersion,
    };
  });
}
