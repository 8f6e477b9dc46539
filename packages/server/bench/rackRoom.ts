import { builtInModels, portsFromModel } from '@visograph/core/catalogue';
import {
  blankDevice,
  blankPlace,
  blankRack,
  newId,
  type CatalogueModel,
  type Device,
  type Place,
  type Port,
  type Rack,
} from '@visograph/core/model';

export interface RackRoom {
  place: Place[];
  rack: Rack[];
  model: CatalogueModel[];
  device: Device[];
  port: Port[];
}

const feed = (name: string) => ({ name, volts: 230, amps: 32, phases: 1 as const, derating: 0.8 });

/** A room of racks, each with as many devices: mostly switches of 24 ports, panels and servers. */
export function rackRoom(racks: number, devicesEach: number, withPorts: boolean): RackRoom {
  const model = builtInModels().map((one) => ({ ...one, id: newId() }));
  const named = (name: string): CatalogueModel => {
    const found = model.find((one) => one.name === name);
    if (found === undefined) throw new Error(name);
    return found;
  };
  const kinds = [named('AX-2424'), named('T1-Rack'), named('CP-24'), named('AX-2424')];
  const site: Place = { ...blankPlace, id: newId(), name: 'Site', kind: 'site', code: 'RR' };
  const room: RackRoom = { place: [site], rack: [], model, device: [], port: [] };
  let placeId = site.id;
  for (let at = 0; at < racks; at++) {
    if (at % 20 === 0) {
      const place: Place = {
        ...blankPlace,
        id: newId(),
        name: `Room ${at / 20 + 1}`,
        kind: 'room',
        parentId: site.id,
      };
      room.place.push(place);
      placeId = place.id;
    }
    const rack: Rack = {
      ...blankRack,
      id: newId(),
      name: `RR-${at + 1}`,
      placeId,
      position: at + 1,
      massLimitKg: 900,
      feeds: [feed('A'), feed('B')],
    };
    room.rack.push(rack);
    for (let slot = 0; slot < devicesEach; slot++) {
      const of = kinds[(slot + at) % kinds.length] ?? named('CP-24');
      const device: Device = {
        ...blankDevice,
        id: newId(),
        name: `rr-${at + 1}-${slot + 1}`,
        role: of.role ?? 'XX',
        modelId: of.id,
        rackId: rack.id,
        unit: slot + 1,
        units: of.units,
        fillsBothFaces: of.fillsBothFaces,
        feed: slot % 2 === 0 ? 'A' : 'B',
      };
      room.device.push(device);
      if (withPorts) room.port.push(...portsFromModel(of, device.id));
    }
  }
  return room;
}
