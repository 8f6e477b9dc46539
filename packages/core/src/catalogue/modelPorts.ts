import { strandsOf } from '../model/values/connectors.ts';
import { newId } from '../model/values/ids.ts';
import { groupNames, type PortGroup } from '../model/kinds/equipment/portGroup.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Module } from '../model/kinds/equipment/module.ts';
import { blankPort, type Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';

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
    const own = groupNames(group, 'own', within.slot);
    const face = within.face ?? group.face;
    const farFace = face === 'front' ? 'rear' : 'front';
    const shared = group.rearConnector !== null && group.rearConnector !== group.connector;
    const share = shared && rear.length > 0 ? own.length / rear.length : 1;
    const strands = strandsOf[group.connector] ?? 1;
    let common: Port | null = null;
    own.forEach((name, at) => {
      const port: Port = {
        ...blankPort,
        id: newId(),
        deviceId,
        name,
        connector: group.connector,
        speedBps: group.speedBps,
        // What has another port behind it is a panel's, whatever else the group says.
        role: rear.length > 0 ? 'panel' : group.role,
        face,
        ordinal: from + ports.length,
        moduleId: within.moduleId,
      };
      ports.push(port);
      const rearName = rear[Math.floor(at / share)];
      if (rearName === undefined) return;
      if (shared) {
        if (at % share === 0) {
          common = {
            ...port,
            id: newId(),
            name: rearName,
            connector: group.rearConnector,
            face: farFace,
            ordinal: from + ports.length,
          };
          ports.push(common);
        }
        port.leadsToId = common?.id ?? null;
        port.leadsToStrand = (at % share) * strands + 1;
        return;
      }
      const partner: Port = {
        ...port,
        id: newId(),
        name: rearName,
        face: farFace,
        ordinal: from + ports.length,
        leadsToId: port.id,
      };
      port.leadsToId = partner.id;
      ports.push(partner);
    });
  }
  return ports;
}

/** The ports a device of this model has: in the order of the groups, pass-through pairs tied to each other. */
export const portsFromModel = (model: Pick<CatalogueModel, 'portGroups'>, deviceId: string): Port[] =>
  portsOfGroups(model, deviceId, 0, { moduleId: null, slot: 1, face: null });

/** The ports a module brings to its device; `slot` in their patterns becomes the number of the slot. */
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

const groupsByName = new WeakMap<CatalogueModel, Map<number, Map<string, PortGroup>>>();

/** The group of a model that yields a port name; worked out once for a model and a slot number. */
function groupNamed(model: CatalogueModel, slot: number, name: string): PortGroup | null {
  const bySlot = groupsByName.get(model) ?? new Map<number, Map<string, PortGroup>>();
  groupsByName.set(model, bySlot);
  let names = bySlot.get(slot);
  if (names === undefined) {
    names = new Map();
    for (const group of model.portGroups)
      for (const one of [...groupNames(group, 'own', slot), ...groupNames(group, 'other', slot)])
        names.set(one.toLowerCase(), group);
    bySlot.set(slot, names);
  }
  return names.get(name.toLowerCase()) ?? null;
}

/** The group of the model, or of the module, that a port comes from; null where it is an own addition. */
export function portGroupOf(network: Network, port: Port): PortGroup | null {
  const chassis = network.get('model', network.get('device', port.deviceId)?.modelId ?? null);
  const module = network.get('module', port.moduleId);
  if (module === null) return chassis === null ? null : groupNamed(chassis, 1, port.name);
  const model = network.get('model', module.modelId);
  return model === null ? null : groupNamed(model, slotNumber(chassis, module.slot), port.name);
}
