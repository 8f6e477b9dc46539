import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Network } from '../model/network/network.ts';

/** Power in watts: what a thing draws in ordinary work, and at most. */
export interface Watts {
  typicalW: number;
  maxW: number;
}

/** Share of the maximum that is taken as typical where a model states no typical draw. */
export const typicalShare = 0.6;

/** 1 W is 3.412142 BTU/h (ISO 31-4, international table BTU). */
export const btuPerHourPerWatt = 3.412142;

export const noWatts: Watts = { typicalW: 0, maxW: 0 };
export const addWatts = (a: Watts, b: Watts, times = 1): Watts => ({
  typicalW: a.typicalW + b.typicalW * times,
  maxW: a.maxW + b.maxW * times,
});

/** The draw of a model alone; the stated typical figure, or 60 % of the maximum. */
export function modelWatts(model: Pick<CatalogueModel, 'typicalPowerW' | 'maxPowerW'> | null): Watts {
  const maxW = model?.maxPowerW ?? model?.typicalPowerW ?? 0;
  return { typicalW: model?.typicalPowerW ?? maxW * typicalShare, maxW };
}

/** The draw of a device with its modules, in watts, without what it feeds to others. What is retired draws nothing. */
export function deviceWatts(network: Network, device: Device): Watts {
  if (device.status === 'retired') return noWatts;
  let sum = modelWatts(network.get('model', device.modelId));
  if (network.count('module') === 0) return sum;
  for (const module of network.find('modulesByDevice', device.id))
    sum = addWatts(sum, modelWatts(network.get('model', module.modelId)));
  return sum;
}

/** Mass of a device with its modules in kilograms; null where its model states none. */
export function deviceMassKg(network: Network, device: Device): number | null {
  const own = network.get('model', device.modelId)?.massKg ?? null;
  if (own === null || network.count('module') === 0) return own;
  return network
    .find('modulesByDevice', device.id)
    .reduce((sum, module) => sum + (network.get('model', module.modelId)?.massKg ?? 0), own);
}
