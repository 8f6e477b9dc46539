import type { Module } from '../../model/kinds/equipment/module.ts';
import type { Network } from '../../model/network/network.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Problem } from '../../model/fields/problem.ts';

/** A module sits in a slot its device has, of the family the slot takes. */
export function moduleFitsSlot(network: Network, module: Module): Problem[] {
  const device = network.get('device', module.deviceId);
  const model = network.get('model', module.modelId);
  const chassis = network.get('model', device?.modelId ?? null);
  const problem = (field: string, message: string): Problem[] => [
    { code: 'impossible', kind: 'module', id: module.id, about: `module ${module.slot}`, field, message },
  ];
  if (device === null || model === null) return [];
  if (model.form !== 'module')
    return problem(
      'modelId',
      `${modelTitle(model)} is not a module, so it cannot go into ${device.name} ${module.slot}.`,
    );
  const slot = chassis?.slots.find((one) => one.name.toLowerCase() === module.slot.toLowerCase());
  if (slot === undefined) {
    const there = chassis?.slots.map((one) => one.name).join(', ') ?? '';
    return problem(
      'slot',
      `${device.name} has no slot ${module.slot}. ${there === '' ? 'Its model has no slots.' : `It has ${there}.`}`,
    );
  }
  if (slot.family !== model.moduleFamily)
    return problem(
      'modelId',
      `${slot.name} of ${device.name} takes modules of the family ${slot.family}; ${modelTitle(model)} is of ${model.moduleFamily ?? 'none'}.`,
    );
  return [];
}
