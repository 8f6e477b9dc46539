import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Network } from '../model/network/network.ts';

/** Modules of the catalogue that a slot of this device takes. */
export function modulesFor(network: Network, device: Device, slotName: string): CatalogueModel[] {
  const slot = network.get('model', device.modelId)?.slots.find((one) => one.name === slotName);
  return [...network.all('model')].filter(
    (model) => model.form === 'module' && model.moduleFamily === slot?.family && !model.retired,
  );
}
