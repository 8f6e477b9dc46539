import { builtInModels, portsFromModel } from '@visograph/core/catalogue';
import {
  blankDevice,
  blankPlace,
  blankRack,
  newId,
  blankCable,
  newProject,
  portGroupSchema,
  type Cable,
  type CatalogueModel,
  type Device,
  type Place,
  type Port,
  type Project,
  type Rack,
} from '@visograph/core/model';

export interface Generated {
  project: Project[];
  place: Place[];
  rack: Rack[];
  model: CatalogueModel[];
  device: Device[];
  port: Port[];
  cable: Cable[];
}

const named = (models: readonly CatalogueModel[], name: string): CatalogueModel => {
  const found = models.find((model) => model.name === name);
  if (found === undefined) throw new Error(name);
  return found;
};

/**
 * A network of racks with ten switches and ten panels each: about 20 ports a device on average, half of them cabled. Racks are joined in rings of
 * panels, so that runs pass through several. Deterministic apart from ids.
 */
export function generate(devices: number, cables: number, projectId = newId()): Generated {
  const models = builtInModels().map((model) => ({ ...model, id: newId() }));
  const access = named(models, 'AX-2424P');
  const panel = {
    ...named(models, 'LP-24LC'),
    id: newId(),
    name: 'LP-6LC',
    portGroups: [
      portGroupSchema.parse({
        pattern: 'F1-6',
        connector: 'LC',
        role: 'panel',
        rearPattern: 'R1-6',
      }),
    ],
  };
  const type = named(models, 'OS2 duplex LC');
  const copper = named(models, 'Cat 6A RJ45');
  const result: Generated = {
    project: [{ ...newProject('Bench', projectId), labelDigits: 6 }],
    place: [],
    rack: [],
    model: [...models, panel],
    device: [],
    port: [],
    cable: [],
  };
  const site: Place = { ...blankPlace, id: newId(), name: 'Site', kind: 'site', code: 'BN' };
  result.place.push(site);
  const portsOf: Port[][] = [];
  for (let at = 0; at < devices; at++) {
    const slot = at % 20;
    if (slot === 0) {
      const room =
        at % 2000 === 0
          ? {
              ...blankPlace,
              id: newId(),
              name: `Room ${at / 2000 + 1}`,
              kind: 'room' as const,
              parentId: site.id,
            }
          : result.place.at(-1);
      if (room === undefined) throw new Error('room');
      if (at % 2000 === 0) result.place.push(room);
      result.rack.push({
        ...blankRack,
        id: newId(),
        name: `R-${at / 20 + 1}`,
        placeId: room.id,
        position: at / 20,
        massLimitKg: 900,
        feeds: [
          { name: 'A', volts: 230, amps: 32, phases: 1, derating: 0.8 },
          { name: 'B', volts: 230, amps: 32, phases: 1, derating: 0.8 },
        ],
      });
    }
    const isPanel = slot % 2 === 1;
    const model = isPanel ? panel : access;
    const device: Device = {
      ...blankDevice,
      id: newId(),
      name: `bn-${isPanel ? 'pp' : 'acc'}-${at}`,
      role: isPanel ? 'PP' : 'SW',
      modelId: model.id,
      rackId: result.rack.at(-1)?.id ?? null,
      unit: slot * 2 + 1,
      fillsBothFaces: model.fillsBothFaces,
      serial: `BN${at}`,
    };
    result.device.push(device);
    const ports = portsFromModel(model, device.id);
    portsOf.push(ports);
    result.port.push(...ports);
  }
  const used = new Set<string>();
  const join = (a: Port | undefined, b: Port | undefined, typeId: string): void => {
    if (a === undefined || b === undefined || result.cable.length >= cables) return;
    if (used.has(a.id) || used.has(b.id)) return;
    used.add(a.id).add(b.id);
    result.cable.push({
      ...blankCable,
      id: newId(),
      label: `BN-${String(result.cable.length + 1).padStart(6, '0')}`,
      typeId,
      lengthM: 3,
      aPortId: a.id,
      bPortId: b.id,
    });
  };
  const port = (device: number, name: string): Port | undefined =>
    portsOf[device]?.find((one) => one.name === name);
  // Chains of six panels with a switch at either end: a run through six pass-throughs, once for each fibre of the panels.
  for (let start = 0; start + 12 < devices; start += 14) {
    const panels = [1, 3, 5, 7, 9, 11].map((step) => start + step).map((at) => (at % 2 === 1 ? at : at + 1));
    for (let fibre = 1; fibre <= 4; fibre++) {
      join(port(start, `te1/${24 + fibre}`), port(panels[0] ?? 0, `F${fibre}`), type.id);
      for (let leg = 0; leg < 5; leg++) {
        const side = leg % 2 === 0 ? 'R' : 'F';
        join(
          port(panels[leg] ?? 0, `${side}${fibre}`),
          port(panels[leg + 1] ?? 0, `${side}${fibre}`),
          type.id,
        );
      }
      join(port(panels[5] ?? 0, `F${fibre}`), port(start + 12, `te1/${24 + fibre}`), type.id);
    }
  }
  for (let at = 0; at + 2 < devices && result.cable.length < cables; at += 4) {
    for (let number = 1; number <= 24; number++)
      join(port(at, `gi1/${number}`), port(at + 2, `gi1/${number}`), copper.id);
    for (let number = 25; number <= 28; number++)
      join(port(at, `te1/${number}`), port(at + 2, `te1/${number}`), type.id);
    for (const name of ['F5', 'F6', 'R5', 'R6']) join(port(at + 1, name), port(at + 3, name), type.id);
  }
  return result;
}
