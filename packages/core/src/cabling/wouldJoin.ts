import { portsFromModel } from '../catalogue/modelPorts.ts';
import { modulesFor } from '../racks/slots.ts';
import { modelTitle } from '../model/kinds.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import { roleCodes } from '../model/values/roles.ts';
import { growing } from './grownPort.ts';
import { cableTypes, mismatch } from './match.ts';

/** A way to get a port that would match: a module for an empty slot of the device, or another model in its place. */
export interface WouldJoin {
  model: CatalogueModel;
  /** The empty slot that the module goes into; null for another model. */
  slot: string | null;
}

const most = 2;

/** Whether a device of this model, or this module, brings a port that one of these could be plugged into. */
function brings(types: readonly CatalogueModel[], model: CatalogueModel, far: readonly Port[]): boolean {
  const ports = portsFromModel(model, model.id).filter(
    ({ role }) => role !== 'console' && role !== 'management',
  );
  return ports.some((port) => far.some((other) => mismatch(types, port, other) === null));
}

/** Models of devices that could stand at the other end of these ports, those without a maker first, by role and title. */
export function modelsAtEnd(network: Network, far: readonly Port[]): CatalogueModel[] {
  const types = cableTypes(network);
  const grows = (model: CatalogueModel): boolean => model.maker === null && growing(model.role);
  const order = (model: CatalogueModel): number => roleCodes.indexOf(model.role ?? 'XX');
  return [...network.all('model')]
    .filter(
      (model) =>
        model.form === 'device' &&
        !model.retired &&
        model.role !== null &&
        model.part === null &&
        (grows(model) || brings(types, model, far)),
    )
    .sort(
      (x, y) =>
        Number(y.maker === null) - Number(x.maker === null) ||
        order(x) - order(y) ||
        compareNames(modelTitle(x), modelTitle(y)),
    );
}

/**
 * What would give a device a port that matches one of these: modules for its empty slots first, then models of its
 * maker and role with more of them; two of each at most, cheapest first, by title where prices are alike or unknown.
 */
export function wouldJoin(network: Network, device: Device, far: readonly Port[]): WouldJoin[] {
  const own = network.get('model', device.modelId);
  if (own === null || far.length === 0) return [];
  const types = cableTypes(network);
  const priced = (models: readonly CatalogueModel[]): CatalogueModel[] =>
    models
      .filter((model) => brings(types, model, far))
      .sort(
        (x, y) =>
          (x.priceMinor ?? Infinity) - (y.priceMinor ?? Infinity) ||
          compareNames(modelTitle(x), modelTitle(y)),
      )
      .slice(0, most);
  const filled = new Set(
    network.find('modulesByDevice', device.id).map((module) => module.slot.toLowerCase()),
  );
  const slot = own.slots.find(
    (one) =>
      !filled.has(one.name.toLowerCase()) &&
      modulesFor(network, device, one.name).some((model) => brings(types, model, far)),
  );
  const modules = slot === undefined ? [] : priced(modulesFor(network, device, slot.name));
  const count = (model: CatalogueModel): number =>
    portsFromModel(model, '').filter((port) => far.some((other) => mismatch(types, port, other) === null))
      .length;
  const ownCount = count(own);
  const others = [...network.all('model')].filter(
    (model) =>
      model.form === 'device' &&
      !model.retired &&
      model.id !== own.id &&
      model.role === own.role &&
      model.maker === own.maker &&
      count(model) > ownCount,
  );
  return [
    ...modules.map((model) => ({ model, slot: slot?.name ?? null })),
    ...priced(others).map((model) => ({ model, slot: null })),
  ];
}

/** The same in a sentence: "LC-8 in slot 2 would have one. So would AX-2448P." Empty where nothing would. */
export function wouldText(would: readonly WouldJoin[]): string {
  const said = would.map(({ model, slot }) =>
    slot === null ? modelTitle(model) : `${modelTitle(model)} in ${slot}`,
  );
  if (said.length === 0) return '';
  return ` ${said.length === 1 ? (said[0] ?? '') : `${said.slice(0, -1).join(', ')} or ${said.at(-1) ?? ''}`} would have one.`;
}
