import { create, type Change, type ChangeSet } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import { nextCableLabel } from '../../cabling/labels.ts';
import { blankCable } from '../../model/kinds/lines/cable.ts';
import { blankDevice, type Device } from '../../model/kinds/equipment/device.ts';
import type { KitContents, Kit } from '../../model/kinds/equipment/kit.ts';
import { modelTitle } from '../../model/kinds.ts';
import { newId } from '../../model/values/ids.ts';
import { blankRack, type Rack } from '../../model/kinds/sites/rack.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath } from '../../model/network/places.ts';
import { nextDeviceName } from '../../racks/deviceNames.ts';
import { portsFromModel, portsFromModule } from '../modelPorts.ts';
import { judged, type Attempt } from '../../commands/attempt.ts';

const titleOf = (network: Network, modelId: string | null): string => {
  const model = network.get('model', modelId);
  return model === null ? '' : modelTitle(model);
};

/** What a selection comes to as a kit: its racks, its devices, and the cables with both ends among them. */
export function kitContents(network: Network, racks: readonly Rack[], loose: readonly Device[]): KitContents {
  const devices = new Map<string, Device>();
  for (const rack of racks)
    for (const device of network.find('devicesByRack', rack.id)) devices.set(device.id, device);
  for (const device of loose) devices.set(device.id, device);
  const inKit = new Set(racks.map((rack) => rack.id));
  const cables = new Map<string, KitContents['cables'][number]>();
  const end = (portId: string | null): [string, string] | null => {
    const port = network.get('port', portId);
    const device = devices.get(port?.deviceId ?? '');
    return port === null || device === undefined ? null : [device.name, port.name];
  };
  for (const device of devices.values()) {
    for (const port of network.find('portsByDevice', device.id)) {
      for (const cable of network.find('cablesByPort', port.id)) {
        const [a, b] = [end(cable.aPortId), end(cable.bPortId)];
        if (a === null || b === null || cables.has(cable.id)) continue;
        const type = titleOf(network, cable.typeId);
        cables.set(cable.id, {
          type: type === '' ? null : type,
          lengthM: cable.lengthM,
          status: cable.status,
          a,
          b,
        });
      }
    }
  }
  return {
    racks: racks.map((rack) => ({
      key: rack.name,
      units: rack.units,
      numbering: rack.numbering,
      widthMm: rack.widthMm,
      posts: rack.posts,
      depthMm: rack.depthMm,
      massLimitKg: rack.massLimitKg,
      feeds: rack.feeds,
    })),
    devices: [...devices.values()]
      .sort((a, b) => (a.name < b.name ? -1 : 1))
      .map((device) => ({
        key: device.name,
        role: device.role,
        model: titleOf(network, device.modelId),
        rack: inKit.has(device.rackId ?? '') ? (network.get('rack', device.rackId)?.name ?? null) : null,
        unit: inKit.has(device.rackId ?? '') ? device.unit : null,
        units: device.units,
        face: device.face,
        fillsBothFaces: device.fillsBothFaces,
        side: device.side,
        feed: device.feed,
        modules: network
          .find('modulesByDevice', device.id)
          .map((module) => ({ slot: module.slot, model: titleOf(network, module.modelId) })),
      })),
    cables: [...cables.values()],
  };
}

export function addKit(name: string, contents: KitContents): ChangeSet & { kitId: string } {
  const kit: Kit = { id: newId(), name: name.trim(), contents, notes: null };
  return { kitId: kit.id, changes: [create('kit', kit)], sentence: `Kept the kit ${kit.name}` };
}

/** "2 racks, 31 devices, 84 cables". */
export function kitText({ racks, devices, cables }: KitContents): string {
  const counted = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;
  return [
    counted(racks.length, 'rack'),
    counted(devices.length, 'device'),
    counted(cables.length, 'cable'),
  ].join(', ');
}

/** The next free rack name after those of a place: KQ-A3 gives KQ-A4. */
export function nextRackName(network: Network, placeId: string, wanted: string): string {
  const last = network
    .find('racksByPlace', placeId)
    .map((rack) => rack.name)
    .sort()
    .at(-1);
  const parts = /^(.*?)(\d+)$/.exec(last ?? wanted);
  const stem = parts?.[1] ?? `${last ?? wanted}-`;
  let number = Number(parts?.[2] ?? '0');
  if (last === undefined && network.findOne('rackByName', wanted.toLowerCase()) === null) return wanted;
  let name: string;
  do name = `${stem}${++number}`;
  while (network.findOne('rackByName', name.toLowerCase()) !== null);
  return name;
}

interface PlacedKit {
  attempt: Attempt;
  deviceIds: string[];
  rackIds: string[];
}

/**
 * Places a kit in a place: new racks, or its first rack's contents into `rackId`; devices and cables get the
 * next names and labels of the place's own patterns.
 */
export function placeKit(
  network: Network,
  kit: Kit,
  to: { placeId: string; rackId: string | null },
): PlacedKit {
  const { contents } = kit;
  const changes: Change[] = [];
  let staged = network;
  const refuse = (why: string): PlacedKit => ({ attempt: { ok: false, why }, deviceIds: [], rackIds: [] });
  const stage = (made: Change[]): void => {
    changes.push(...made);
    const draft = staged.passingDraft(new Set(made.map((change) => change.kind)));
    for (const change of made) if (change.op === 'create') draft.put(change.kind, change.after);
    staged = draft.finish();
  };
  const racks = new Map<string, string>();
  contents.racks.forEach((rack, at) => {
    if (at === 0 && to.rackId !== null) return void racks.set(rack.key, to.rackId);
    const { key, ...figures } = rack;
    const row: Rack = {
      ...blankRack,
      ...figures,
      id: newId(),
      placeId: to.placeId,
      name: nextRackName(staged, to.placeId, key),
      position: Math.max(0, ...staged.find('racksByPlace', to.placeId).map((one) => one.position)) + 1,
    };
    racks.set(key, row.id);
    stage([create('rack', row)]);
  });
  const devices = new Map<string, string>();
  for (const entry of contents.devices) {
    const model = staged.findOne('modelByTitle', entry.model.toLowerCase());
    if (entry.model !== '' && model === null)
      return refuse(
        `The kit needs the model ${entry.model}, which the catalogue does not have. Add it first.`,
      );
    const rackId = entry.rack === null ? null : (racks.get(entry.rack) ?? null);
    const device: Device = {
      ...blankDevice,
      id: newId(),
      name: nextDeviceName(staged, to.placeId, entry.role, model?.id ?? null),
      role: entry.role,
      status: 'planned',
      modelId: model?.id ?? null,
      rackId,
      placeId: rackId === null ? to.placeId : null,
      unit: entry.unit,
      units: entry.units,
      face: entry.face,
      fillsBothFaces: entry.fillsBothFaces,
      side: entry.side,
      feed: entry.feed,
    };
    devices.set(entry.key, device.id);
    const made = [create('device', device)];
    if (model !== null) made.push(...portsFromModel(model, device.id).map((port) => create('port', port)));
    for (const { slot, model: title } of entry.modules) {
      const of = staged.findOne('modelByTitle', title.toLowerCase());
      if (of === null || model === null) continue;
      const module = { id: newId(), deviceId: device.id, slot, modelId: of.id, serial: null, notes: null };
      made.push(
        create('module', module),
        ...portsFromModule(model, of, module).map((port) => create('port', port)),
      );
    }
    stage(made);
  }
  const portAt = ([key, name]: [string, string]): string | null =>
    staged.findOne('portByName', `${devices.get(key) ?? ''}:${name.toLowerCase()}`)?.id ?? null;
  for (const entry of contents.cables) {
    const aPortId = portAt(entry.a);
    const cable = {
      ...blankCable,
      id: newId(),
      label: nextCableLabel(staged, staged.get('port', aPortId)),
      typeId:
        entry.type === null ? null : (staged.findOne('modelByTitle', entry.type.toLowerCase())?.id ?? null),
      lengthM: entry.lengthM,
      status: 'planned' as const,
      aPortId,
      bPortId: portAt(entry.b),
    };
    stage([create('cable', cable)]);
  }
  const sentence = `Placed the kit ${kit.name} in ${placePath(network, to.placeId)}: ${kitText(contents)}`;
  return {
    attempt: judged(network, changes, sentence),
    deviceIds: [...devices.values()],
    rackIds: [...racks.values()],
  };
}

/** Deletes a kit; parts lists that counted it count their place again. */
export const removeKit = (network: Network, kit: Kit): Attempt =>
  judged(network, removal(network, [{ kind: 'kit', id: kit.id }]).changes, `Deleted the kit ${kit.name}`);
