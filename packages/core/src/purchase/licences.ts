import type { Day } from '../model/values/day.ts';
import type { CatalogueModel, Licence } from '../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { HeldLicence } from '../model/kinds/purchase/stock.ts';
import type { Network } from '../model/network/network.ts';

/** That devices need licences of one name, sold for one model. */
export interface LicenceNeed {
  model: CatalogueModel;
  licence: Licence;
  /** One licence for each. */
  devices: readonly Device[];
}

export const licenceKey = (modelId: string, name: string): string => `${modelId}/${name.toLowerCase()}`;

/** Whether a device is set up so that it needs what is licensed. */
export function usesFeature(
  network: Network,
  device: Device,
  feature: NonNullable<Licence['feature']>,
): boolean {
  switch (feature) {
    case 'stack':
      return device.stack !== null;
    case 'BGP':
      return network.find('bgpSessionsByDevice', device.id).length > 0;
    case 'OSPF':
      return network.find('portsByDevice', device.id).some(({ ospf }) => ospf !== null);
    case 'several VRFs':
      return new Set(network.find('portsByDevice', device.id).map(({ vrfId }) => vrfId)).size > 1;
  }
}

/**
 * What licences devices need: one each; one each where it is set up so; or for a device that manages others one for
 * each device among them that has the role it manages and is of its own maker (of any, where it has none itself).
 * Several that manage the same devices need them once.
 */
export function licenceNeeds(network: Network, devices: readonly Device[]): LicenceNeed[] {
  const needs = new Map<string, { model: CatalogueModel; licence: Licence; devices: Map<string, Device> }>();
  for (const device of devices) {
    const model = network.get('model', device.modelId);
    for (const licence of model?.licences ?? []) {
      if (model === null) continue;
      const manages = licence.per === 'managed device' ? (licence.manages ?? null) : null;
      const key = licenceKey(model.id, licence.name);
      const known = needs.get(key);
      if (known !== undefined && manages !== null) continue;
      const need = known ?? { model, licence, devices: new Map<string, Device>() };
      if (manages !== null) {
        for (const one of devices) {
          const maker = network.get('model', one.modelId)?.maker ?? null;
          if (one.role === manages && (model.maker === null || maker === model.maker))
            need.devices.set(one.id, one);
        }
      } else if (licence.feature == null || usesFeature(network, device, licence.feature)) {
        need.devices.set(device.id, device);
      }
      if (need.devices.size > 0) needs.set(key, need);
    }
  }
  return [...needs.values()].map((need) => ({ ...need, devices: [...need.devices.values()] }));
}

/** Whether a licence that is held counts on a day. */
export const holdsOn = ({ validFrom, validUntil }: HeldLicence, day: Day): boolean =>
  (validFrom === null || validFrom <= day) && (validUntil === null || validUntil >= day);

/** How many licences of a name are held for a model on a day. */
export const heldOn = (network: Network, modelId: string, name: string, day: Day): number =>
  network
    .find('heldLicencesByModel', modelId)
    .filter((held) => held.name.toLowerCase() === name.toLowerCase() && holdsOn(held, day))
    .reduce((sum, { count }) => sum + count, 0);

/** "Threat filter, 12 months": its name and how long it holds. */
export const licenceText = ({ name, termMonths }: Licence): string =>
  termMonths == null ? name : `${name}, ${termMonths} months`;
