import type { Subject } from '../change/removal.ts';
import { cablesInScope } from '../cabling/reports/cables.ts';
import { stockOf } from '../cabling/stock.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { KitContents } from '../model/kinds/equipment/kit.ts';
import type { Cable } from '../model/kinds/lines/cable.ts';
import type { PartSection, PartsList } from '../model/kinds/purchase/partsList.ts';
import { nineteenInchMm } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { isInCloud } from '../model/network/cloudPlaces.ts';
import { devicesInScope, placeOfDevice, placesWithin, racksIn } from '../model/network/places.ts';
import { cableAt } from '../model/network/ports.ts';
import { compareNames } from '../model/values/order.ts';
import { hasCase, roles, type Role } from '../model/values/roles.ts';
import { cordLengthM, cordsOf } from './cords.ts';
import { modelPart, plainPart, type Need, type Part, type PartState } from './part.ts';

/** What a parts list counts: by default devices with all that is in them, their racks and cables. */
export interface Counted {
  devices: readonly Device[];
  cables: readonly Cable[];
  racks: readonly { units: number; widthMm: number; placeId: string; id: string; state: PartState }[];
}

const stateOf = ({ status }: { status: 'planned' | 'active' | 'retired' }): PartState | null =>
  status === 'retired' ? null : status === 'planned' ? 'planned' : 'in place';

/** The things of the network that a list is about, before it is asked which of them it counts. */
export function countedBy(network: Network, list: Pick<PartsList, 'id' | 'scopeId'>): Counted {
  const chosen = network
    .find('listedDevicesByList', list.id)
    .flatMap(({ deviceId }) => network.get('device', deviceId) ?? []);
  if (chosen.length > 0) {
    const cables = new Map<string, Cable>();
    for (const { id } of chosen)
      for (const port of network.find('portsByDevice', id))
        for (const cable of [cableAt(network, port.id) ?? []].flat()) cables.set(cable.id, cable);
    return {
      devices: chosen.sort((a, b) => compareNames(a.name, b.name)),
      cables: [...cables.values()].sort((a, b) => compareNames(a.label, b.label)),
      racks: [],
    };
  }
  const racks = racksIn(network, placesWithin(network, list.scopeId)).flatMap((rack) => {
    const within = network.find('devicesByRack', rack.id).flatMap((device) => stateOf(device) ?? []);
    // A rack that is there has something in it that is there, or nothing at all: of that nobody says it is planned.
    const state: PartState =
      within.length > 0 && within.every((one) => one === 'planned') ? 'planned' : 'in place';
    return [{ ...rack, state }];
  });
  return {
    devices: devicesInScope(network, list.scopeId),
    cables: cablesInScope(network, list.scopeId),
    racks,
  };
}

function sectionOf(role: Role, model: CatalogueModel | null): PartSection {
  if (role === 'PP') return 'Panels';
  return role === 'CA' || (model !== null && model.part !== null) ? 'Rack parts' : 'Devices';
}

const devicePart = (model: CatalogueModel | null, role: Role): Part =>
  model === null
    ? plainPart(sectionOf(role, null), `${roles[role].label}, model not chosen`, { gap: 'no model' })
    : modelPart(sectionOf(role, model), model);

/**
 * The part that a cable is bought as, and how much of it: of a type that is made in lengths the shortest that reaches,
 * of one that is cut from a drum its metres.
 */
export function cablePart(
  type: CatalogueModel | null,
  lengthM: number | null,
): { part: Part; count: number } {
  if (type === null)
    return { part: plainPart('Cables', 'Cable, type not chosen', { gap: 'no cable type' }), count: 1 };
  const part = modelPart('Cables', type);
  // Cable types have no maker: their name and length are all that is ordered by.
  const known: Part = { ...part, gap: null };
  if (lengthM === null)
    return { part: { ...known, what: `${part.what}, length not known`, gap: 'no length' }, count: 1 };
  const stock = stockOf(type, lengthM);
  if (stock === null) return { part: { ...known, unit: 'm' }, count: lengthM };
  const bought = stock.in ? lengthM : stock.nextM;
  if (bought !== null) return { part: { ...known, lengthM: bought }, count: 1 };
  return {
    part: { ...known, what: `${part.what}, longer than it is made`, lengthM, gap: 'no stock length reaches' },
    count: 1,
  };
}

const rackPart = ({ units, widthMm }: { units: number; widthMm: number }): Part =>
  plainPart('Racks', `Rack ${units} U${widthMm === nineteenInchMm ? '' : `, plates of ${widthMm} mm`}`);

const cordPart = (inlet: string, type: CatalogueModel | null): { part: Part; count: number } => {
  if (type === null)
    return {
      part: plainPart('Power cords', `Power cord for a ${inlet} inlet`, { gap: 'no cord fits' }),
      count: 1,
    };
  const { part, count } = cablePart(type, cordLengthM);
  return { part: { ...part, section: 'Power cords' }, count };
};

/** Transceivers in the cages of devices. One is planned where its device is, or every cable that is drawn at it. */
function* transceivers(network: Network, states: ReadonlyMap<string, [Device, PartState]>): Iterable<Need> {
  const models = [...network.all('model')].filter(({ form }) => form === 'transceiver');
  for (const model of models) {
    const part = modelPart('Transceivers', model);
    for (const port of network.find('portsByTransceiver', model.id)) {
      const [device, its] = states.get(port.deviceId) ?? [];
      if (device === undefined || its === undefined) continue;
      const state = cableAt(network, port.id)?.status === 'planned' ? 'planned' : its;
      const placeId = placeOfDevice(network, device);
      yield { part, count: 1, state, placeId, thing: { kind: 'port', id: port.id } };
    }
  }
}

/** Everything that the things of a list need, thing by thing. What is retired needs nothing. */
export function needsOf(network: Network, { devices, cables, racks }: Counted): Need[] {
  const needs: Need[] = [];
  const states = new Map<string, [Device, PartState]>();
  const cords = cordsOf(network);
  for (const device of devices) {
    const state = stateOf(device);
    if (state === null || !hasCase(device.role) || isInCloud(network, device)) continue;
    states.set(device.id, [device, state]);
    const placeId = placeOfDevice(network, device);
    const thing: Subject = { kind: 'device', id: device.id };
    const model = network.get('model', device.modelId);
    needs.push({ part: devicePart(model, device.role), count: 1, state, placeId, thing });
    for (const { id, modelId } of network.find('modulesByDevice', device.id)) {
      const of = network.get('model', modelId);
      if (of !== null)
        needs.push({
          ...{ part: modelPart('Modules', of), count: 1, state, placeId },
          thing: { kind: 'module', id },
        });
    }
    // What stands already hangs on some cord, drawn or not.
    if (state === 'planned')
      for (const { inlet, type } of cords(device))
        needs.push({ ...cordPart(inlet, type), state, placeId, thing });
  }
  needs.push(...transceivers(network, states));
  for (const cable of cables) {
    const state = stateOf(cable);
    if (state === null) continue;
    const port = network.get('port', cable.aPortId) ?? network.get('port', cable.bPortId);
    const at = network.get('device', port?.deviceId ?? null);
    const { part, count } = cablePart(network.get('model', cable.typeId), cable.lengthM);
    const placeId = at === null ? null : placeOfDevice(network, at);
    needs.push({ part, count, state, placeId, thing: { kind: 'cable', id: cable.id } });
  }
  for (const { id, placeId, state, ...rack } of racks)
    needs.push({ part: rackPart(rack), count: 1, state, placeId, thing: { kind: 'rack', id } });
  return needs;
}

/** What a kit needs when it is placed so many times: all of it planned, in no place yet. */
export function needsOfKit(network: Network, contents: KitContents, times: number): Need[] {
  const model = (title: string | null): CatalogueModel | null =>
    title === null ? null : network.findOne('modelByTitle', title.toLowerCase());
  const parts = [
    ...contents.racks.map((rack) => ({ part: rackPart(rack), count: 1 })),
    ...contents.devices
      .filter(({ role }) => hasCase(role))
      .flatMap((device) => [
        { part: devicePart(model(device.model), device.role), count: 1 },
        ...device.modules.flatMap(({ model: title }) => {
          const of = model(title);
          return of === null ? [] : [{ part: modelPart('Modules', of), count: 1 }];
        }),
      ]),
    ...contents.cables.map(({ type, lengthM }) => cablePart(model(type), lengthM)),
  ];
  return parts.map(({ part, count }) => ({
    ...{ part, count: count * times, state: 'planned' as const },
    ...{ placeId: null, thing: null },
  }));
}
