import { unconfigure, unroute } from './unconfigure.ts';
import { create, remove, type Change, type ChangeSet } from '../change/change.ts';
import { blankDevice, type Device } from '../model/kinds/device.ts';
import { newId } from '../model/ids.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network.ts';
import { placePath, whereIs } from '../model/places.ts';
import { portsOf } from '../model/ports.ts';
import { portsFromModel } from '../racks/modelPorts.ts';
import { offSheets } from './offSheets.ts';
import { removeCable, unplug } from './unplug.ts';

export interface NewDevice {
  name: string;
  modelId: string;
  rackId: string | null;
  placeId: string | null;
  unit: number | null;
  face?: 'front' | 'rear';
  side?: Device['side'];
}

/** A device of a catalogue model with the ports its model brings. Null when the model is not there. */
export function addDevice(network: Network, wish: NewDevice): (ChangeSet & { deviceId: string }) | null {
  const model = network.get('model', wish.modelId);
  if (model === null || model.role === null) return null;
  const device: Device = {
    ...blankDevice,
    id: newId(),
    name: wish.name.trim(),
    role: model.role,
    modelId: model.id,
    placeId: wish.rackId === null ? wish.placeId : null,
    rackId: wish.rackId,
    unit: wish.unit,
    units: model.units,
    face: wish.face ?? 'front',
    fullDepth: model.fullDepth,
    side: wish.side ?? (model.halfWidth ? 'left' : 'full'),
  };
  const ports = portsFromModel(model, device.id);
  const place = wish.rackId === null ? placePath(network, wish.placeId) : whereIs(network, device);
  return {
    deviceId: device.id,
    changes: [create('device', device), ...ports.map((port) => create('port', port))],
    sentence: `Added ${device.name} (${modelTitle(model)})${place === '' ? '' : ` at ${place}`}`,
  };
}

export interface Removal extends ChangeSet {
  /** What goes with it, in numbers: "48 ports and 6 cables". */
  alsoGone: string;
}

const counted = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;

/**
 * Removes a device, its ports, the cables plugged into them and its positions on sheets. Of a breakout whose
 * common end is elsewhere only the leg goes; a circuit stays with that end open.
 */
export function deleteDevice(network: Network, device: Device): Removal {
  const ports = portsOf(network, device.id);
  const cables = new Map(
    ports.flatMap((port) => {
      const cable = network.findOne('cablesByPort', port.id);
      return cable === null ? [] : [[cable.id, cable] as const];
    }),
  );
  const changes = new Map<string, Change>();
  const add = (made: readonly Change[]): void => {
    for (const change of made) {
      const earlier = changes.get(change.id);
      const merged =
        earlier?.op === 'update' && change.op === 'update'
          ? {
              ...change,
              before: { ...earlier.before, ...change.before },
              after: { ...earlier.after, ...change.after },
            }
          : change;
      changes.set(change.id, merged as Change);
    }
  };
  for (const port of ports) add(unplug(network, port.id));
  const every = network.find('everyPortByDevice', device.id);
  add(unconfigure(network, every));
  add(unroute(network, device.id));
  for (const cable of cables.values()) add(removeCable(network, cable));
  add(offSheets(network, 'device', device.id));
  for (const port of every) add([remove('port', port)]);
  for (const module of network.find('modulesByDevice', device.id)) add([remove('module', module)]);
  add([remove('device', device)]);
  const alsoGone = `${counted(ports.length, 'port')} and ${counted(cables.size, 'cable')}`;
  return { changes: [...changes.values()], alsoGone, sentence: `Deleted ${device.name} with ${alsoGone}` };
}
