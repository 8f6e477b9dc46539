import { applyChanges } from '../change/apply.ts';
import type { Change } from '../change/change.ts';
import { builtInModels } from '../catalogue/builtIn/index.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import { newProject } from '../model/kinds/sites/project.ts';
import { Network } from '../model/network/network.ts';
import { addDevice } from '../racks/commands/devices.ts';

/** A project with nothing in it but the catalogue. */
export const emptyProject = (): Network =>
  Network.of({ project: [newProject('Blank')], model: [...builtInModels()] });

export const modelNamed = (name: string): CatalogueModel => {
  const found = builtInModels().find((model) => model.name === name);
  if (found === undefined) throw new Error(`There is no model ${name}.`);
  return found;
};

export function changed(network: Network, changes: readonly Change[]): Network {
  const applied = applyChanges(network, changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
}

export const called = (network: Network, name: string): Device => {
  const found = network.findOne('deviceByName', name.toLowerCase());
  if (found === null) throw new Error(`There is no device ${name}.`);
  return found;
};

/** Devices that stand nowhere yet, each by its name and model. */
export function drawn(devices: Readonly<Record<string, string>>, start: Network = emptyProject()): Network {
  return Object.entries(devices).reduce((network, [name, model]) => {
    const set = addDevice(network, {
      name,
      modelId: modelNamed(model).id,
      ...{ rackId: null, placeId: null, unit: null },
    });
    return changed(network, set?.changes ?? []);
  }, start);
}

/** The cables of a network as "rt-1 eth0 – sw-1 1 · Cat 6", by label. */
export const cablesOf = (network: Network): string[] =>
  [...network.all('cable')]
    .sort((x, y) => (x.label < y.label ? -1 : 1))
    .map((cable) => {
      const end = (id: string | null): string => {
        const port = network.get('port', id);
        return `${network.get('device', port?.deviceId ?? null)?.name ?? '?'} ${port?.name ?? '?'}`;
      };
      return `${end(cable.aPortId)} – ${end(cable.bPortId)} · ${network.get('model', cable.typeId)?.name ?? 'no type'}`;
    });
