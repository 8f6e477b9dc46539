import { create, type ChangeSet } from '../../change/change.ts';
import { inNumbers, removal } from '../../change/removal.ts';
import { blankDevice, type Device } from '../../model/kinds/equipment/device.ts';
import { newId } from '../../model/values/ids.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath, whereIs } from '../../model/network/places.ts';
import { portsOf } from '../../model/network/ports.ts';
import { portsFromModel } from '../../catalogue/modelPorts.ts';

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
    fillsBothFaces: model.fillsBothFaces,
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

/** A removal, and what goes with it in numbers: "48 ports and 6 cables". */
export interface DeviceRemoval extends ChangeSet {
  alsoGone: string;
}

/**
 * Removes a device with all that is its own, and the cables plugged into it. Of a breakout whose common end is
 * elsewhere only the leg goes; a circuit stays with that end open.
 */
export function deleteDevice(network: Network, device: Device): DeviceRemoval {
  const cables = new Set(
    portsOf(network, device.id).flatMap((port) => network.find('cablesByPort', port.id).map(({ id }) => id)),
  );
  const { changes, along } = removal(network, [
    { kind: 'device', id: device.id },
    ...[...cables].map((id) => ({ kind: 'cable' as const, id })),
  ]);
  const plugged = [...cables].flatMap((id) => network.get('cable', id) ?? []);
  const alsoGone = inNumbers([...along, ...plugged.map((row) => ({ kind: 'cable' as const, row }))]);
  return {
    changes,
    alsoGone,
    sentence: `Deleted ${device.name}${alsoGone === '' ? '' : ` with ${alsoGone}`}`,
  };
}
