import { faceLayout, faceWidthMm, unitHeightMm } from '../racks/faceplate.ts';
import type { Device } from '../model/kinds/device.ts';
import type { Rack } from '../model/kinds/rack.ts';
import type { Role } from '../model/roles.ts';
import { roles } from '../model/roles.ts';
import type { Network } from '../model/network.ts';
import { portsOf } from '../model/ports.ts';
import type { Box } from './scene.ts';

/** Sheet units: the height of one rack unit, the width between the rails, and a rail. */
export const unitHeight = 16;
export const faceWidth = 330;
export const railWidth = 26;

export interface ElevationPort {
  id: string;
  name: string;
  box: Box;
  used: boolean;
}

export interface ElevationPlate {
  deviceId: string;
  name: string;
  role: Role;
  box: Box;
  /** Seen from its back: it is mounted at the other face and reaches through. */
  back: boolean;
  planned: boolean;
  ports: ElevationPort[];
  spoken: string;
}

export interface ElevationFace {
  face: 'front' | 'rear';
  units: { unit: number; y: number; free: boolean }[];
  plates: ElevationPlate[];
}

/** A rack seen from the front and the rear, in sheet units from the top left of the rack. */
export interface ElevationScene {
  form: 'elevation';
  rackId: string;
  title: string;
  width: number;
  height: number;
  faces: ElevationFace[];
  /** Devices of the rack without a unit: at its side. */
  side: { deviceId: string; name: string; role: Role }[];
}

/** Distance from the top of the rack to the top of the device, in units. */
const unitsAbove = (rack: Rack, device: Device): number =>
  rack.numbering === 'up' ? rack.units - ((device.unit ?? 1) + device.units - 1) : (device.unit ?? 1) - 1;

function plateOf(network: Network, rack: Rack, device: Device, face: 'front' | 'rear'): ElevationPlate {
  const box: Box = {
    x: railWidth,
    y: unitsAbove(rack, device) * unitHeight,
    width: faceWidth,
    height: device.units * unitHeight,
  };
  const model = network.get('model', device.modelId);
  const side = face === device.face ? 'front' : 'rear';
  const byPort = new Map(portsOf(network, device.id).map((port) => [port.name, port]));
  const ports: ElevationPort[] = [];
  for (const spot of model === null ? [] : faceLayout(model, side)) {
    const port = byPort.get(spot.name);
    if (port === undefined) continue;
    ports.push({
      id: port.id,
      name: port.name,
      used: network.countOf('cablesByPort', port.id) > 0,
      box: {
        x: box.x + (spot.x / faceWidthMm) * faceWidth,
        y: box.y + (spot.y / unitHeightMm) * unitHeight,
        width: (spot.width / faceWidthMm) * faceWidth,
        height: (spot.height / unitHeightMm) * unitHeight,
      },
    });
  }
  const used = [...byPort.values()].filter((port) => network.countOf('cablesByPort', port.id) > 0).length;
  const where =
    device.units === 1
      ? `unit ${device.unit ?? 0}`
      : `units ${device.unit ?? 0} to ${(device.unit ?? 0) + device.units - 1}`;
  return {
    deviceId: device.id,
    name: device.name,
    role: device.role,
    box,
    back: face !== device.face,
    planned: device.status === 'planned',
    ports,
    spoken: `${device.name}, ${roles[device.role].label}, ${where}, ${used} of ${byPort.size} ports used`,
  };
}

/** The elevation projection of one rack. */
export function elevationScene(network: Network, rack: Rack): ElevationScene {
  const devices = network.find('devicesByRack', rack.id);
  const faces = (['front', 'rear'] as const).map((face): ElevationFace => {
    const seen = devices
      .filter((device) => device.unit !== null && (device.face === face || device.fullDepth))
      .sort((a, b) => unitsAbove(rack, a) - unitsAbove(rack, b));
    const taken = new Set<number>();
    for (const device of seen)
      for (let step = 0; step < device.units; step++) taken.add((device.unit ?? 0) + step);
    const units = Array.from({ length: rack.units }, (_, at) => {
      const unit = rack.numbering === 'up' ? rack.units - at : at + 1;
      return { unit, y: at * unitHeight, free: !taken.has(unit) };
    });
    return { face, units, plates: seen.map((device) => plateOf(network, rack, device, face)) };
  });
  return {
    form: 'elevation',
    rackId: rack.id,
    title: rack.name,
    width: faceWidth + 2 * railWidth,
    height: rack.units * unitHeight,
    faces,
    side: devices
      .filter((device) => device.unit === null)
      .map((device) => ({ deviceId: device.id, name: device.name, role: device.role })),
  };
}
