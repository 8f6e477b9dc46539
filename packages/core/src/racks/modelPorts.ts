import { newId } from '../model/ids.ts';
import { groupNames } from '../model/kinds/portGroup.ts';
import type { CatalogueModel } from '../model/kinds/catalogueModel.ts';
import type { Module } from '../model/kinds/module.ts';
import type { Port } from '../model/kinds/port.ts';
import type { Network } from '../model/network.ts';

/** The number a slot goes by in port names: the digits at its end ("slot 3" is 3, "psu2" is 2), else its order. */
export function slotNumber(model: Pick<CatalogueModel, 'slots'> | null, slotName: string): number {
  const digits = /(\d+)\D*$/.exec(slotName)?.[1];
  if (digits !== undefined) return Number(digits);
  return (model?.slots.findIndex((slot) => slot.name.toLowerCase() === slotName.toLowerCase()) ?? -1) + 1;
}

/** Where the ports of modules begin in the order of a device's ports, and how many a slot keeps free. */
const firstOfModules = 2000;
const perSlot = 200;

function portsOfGroups(
  model: Pick<CatalogueModel, 'portGroups'>,
  deviceId: string,
  from: number,
  within: { moduleId: string | null; slot: number; face: 'front' | 'rear' | null },
): Port[] {
  const ports: Port[] = [];
  for (const group of model.portGroups) {
    const rear = groupNames(group, 'other', within.slot);
    const face = within.face ?? group.face;
    groupNames(group, 'own', within.slot).forEach((name, at) => {
      const port: Port = {
        id: newId(),
        deviceId,
        name,
        connector: group.connector,
        speedBps: group.speedBps,
        role: group.role,
        face,
        ordinal: from + ports.length,
        moduleId: within.moduleId,
        passThroughId: null,
        notes: null,
      };
      ports.push(port);
      const rearName = rear[at];
      if (rearName === undefined) return;
      const partner: Port = {
        ...port,
        id: newId(),
        name: rearName,
        face: face === 'front' ? 'rear' : 'front',
        ordinal: from + ports.length,
        passThroughId: port.id,
      };
      port.passThroughId = partner.id;
      ports.push(partner);
    });
  }
  return ports;
}

/** The ports a device of this model has: in the order of the groups, pass-through pairs tied to each other. */
export const portsFromModel = (model: Pick<CatalogueModel, 'portGroups'>, deviceId: string): Port[] =>
  portsOfGroups(model, deviceId, 0, { moduleId: null, slot: 1, face: null });

/** The ports a module brings to its device; `{slot}` in their patterns becomes the number of the slot. */
export function portsFromModule(
  chassis: Pick<CatalogueModel, 'slots'>,
  model: Pick<CatalogueModel, 'portGroups'>,
  module: Pick<Module, 'id' | 'deviceId' | 'slot'>,
): Port[] {
  const at = chassis.slots.findIndex((slot) => slot.name.toLowerCase() === module.slot.toLowerCase());
  return portsOfGroups(model, module.deviceId, firstOfModules + Math.max(0, at) * perSlot, {
    moduleId: module.id,
    slot: slotNumber(chassis, module.slot),
    face: chassis.slots[at]?.face ?? null,
  });
}

/** Every port that the model of a device and the models of its modules bring. */
export function expectedPorts(network: Network, device: { id: string; modelId: string | null }): Port[] {
  const model = network.get('model', device.modelId);
  if (model === null) return [];
  const modules = network.find('modulesByDevice', device.id).flatMap((module) => {
    const of = network.get('model', module.modelId);
    return of === null ? [] : portsFromModule(model, of, module);
  });
  return [...portsFromModel(model, device.id), ...modules].sort((a, b) => a.ordinal - b.ordinal);
}
