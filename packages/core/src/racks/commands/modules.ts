import { create, type ChangeSet } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Module } from '../../model/kinds/equipment/module.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt } from '../../model/network/ports.ts';
import { portsFromModule } from '../../catalogue/modelPorts.ts';
import type { Attempt } from '../../commands/attempt.ts';

/** Puts a module into a slot and adds the ports it brings. */
export function insertModule(
  network: Network,
  device: Device,
  slot: string,
  model: CatalogueModel,
): ChangeSet {
  const module: Module = {
    id: newId(),
    deviceId: device.id,
    slot,
    modelId: model.id,
    serial: null,
    notes: null,
  };
  const chassis = network.get('model', device.modelId);
  const ports = chassis === null ? [] : portsFromModule(chassis, model, module);
  const brings = ports.length === 0 ? '' : ` with ${ports.length} ${ports.length === 1 ? 'port' : 'ports'}`;
  return {
    changes: [create('module', module), ...ports.map((port) => create('port', port))],
    sentence: `Put ${modelTitle(model)} into ${device.name} ${slot}${brings}`,
  };
}

/** Takes a module out with its ports; refused with the list when cables are plugged into them. */
export function takeOutModule(network: Network, module: Module): Attempt {
  const device = network.get('device', module.deviceId);
  const ports = network.find('portsByModule', module.id).sort((a, b) => a.ordinal - b.ordinal);
  const cabled = ports.flatMap((port) => {
    const cable = cableAt(network, port.id);
    return cable === null ? [] : [`${port.name} (${cable.label})`];
  });
  if (cabled.length > 0)
    return {
      ok: false,
      why: `${module.slot} of ${device?.name ?? ''} cannot be emptied: ${cabled.length === 1 ? 'a cable is' : `${cabled.length} cables are`} plugged in at ${cabled.slice(0, 12).join(', ')}${cabled.length > 12 ? ` and ${cabled.length - 12} more` : ''}. Disconnect ${cabled.length === 1 ? 'it' : 'them'} first.`,
    };
  return {
    ok: true,
    set: {
      changes: removal(network, [{ kind: 'module', id: module.id }]).changes,
      sentence: `Took the module out of ${device?.name ?? ''} ${module.slot}`,
    },
  };
}
