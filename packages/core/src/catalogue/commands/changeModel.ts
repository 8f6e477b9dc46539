import { applyChanges } from '../../change/apply.ts';
import { create, update, type Change } from '../../change/change.ts';
import { diffOf } from '../../change/diff.ts';
import { removal } from '../../change/removal.ts';
import type { Cable } from '../../model/kinds/lines/cable.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Network } from '../../model/network/network.ts';
import { isCage } from '../../model/network/plugs.ts';
import { cableAt, portsOf } from '../../model/network/ports.ts';
import { portsFromModel, portsFromModule } from '../modelPorts.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';

/** What becomes of one port that has a cable, when the device gets another model. */
export interface PortMove {
  port: Port;
  cable: Cable;
  /** The name the port has then; null when the new model has no port for it. */
  becomes: string | null;
}
export interface ModelChange {
  stay: PortMove[];
  move: PortMove[];
  /** Cables that would hang loose: their end at this device becomes open. */
  lost: PortMove[];
  portsBefore: number;
  portsAfter: number;
  attempt: Attempt;
}

const sameKind = (a: Port, b: Port): boolean =>
  a.role === b.role && a.connector === b.connector && a.face === b.face;
const carriesOn = (a: Port, b: Port): boolean => a.role === b.role && a.connector === b.connector;

/**
 * For every old port its new one. Ports with cables choose first: the same name and kind, then the same kind in
 * order; so nothing is lost that could stay. Front and rear of a panel go together.
 */
function matchPorts(
  before: readonly Port[],
  after: readonly Port[],
  cabled: ReadonlySet<string>,
): Map<string, Port> {
  const match = new Map<string, Port>();
  const free = new Map(after.map((port) => [port.id, port]));
  const oldById = new Map(before.map((port) => [port.id, port]));
  const freshById = new Map(after.map((port) => [port.id, port]));
  const pair = (old: Port, found: Port): void => {
    match.set(old.id, found);
    free.delete(found.id);
  };
  const take = (old: Port, found: Port | undefined): void => {
    if (found === undefined || match.has(old.id)) return;
    pair(old, found);
    const oldPartner = oldById.get(old.leadsToId ?? '');
    const partner = freshById.get(found.leadsToId ?? '');
    if (oldPartner !== undefined && partner !== undefined && free.has(partner.id)) pair(oldPartner, partner);
  };
  const inUse = (port: Port): boolean => cabled.has(port.id) || cabled.has(port.leadsToId ?? '');
  for (const group of [before.filter(inUse), before.filter((port) => !inUse(port))]) {
    for (const old of group) {
      const same = [...free.values()].find(
        (port) => port.name.toLowerCase() === old.name.toLowerCase() && carriesOn(port, old),
      );
      take(old, same);
    }
    for (const old of group)
      take(
        old,
        [...free.values()].find((port) => sameKind(port, old)) ??
          [...free.values()].find((port) => carriesOn(port, old)),
      );
  }
  return match;
}

/**
 * What giving a device another model would do: which cables stay on a port of the same name, which move to
 * another port of the same kind, which would hang loose; and the changes for it. Modules whose slot the new model
 * has as well stay with their ports.
 */
export function changeModel(network: Network, device: Device, model: CatalogueModel): ModelChange {
  const before = portsOf(network, device.id);
  const modules = network.find('modulesByDevice', device.id);
  const keptModules = modules.filter((module) =>
    model.slots.some(
      (slot) =>
        slot.name.toLowerCase() === module.slot.toLowerCase() &&
        slot.family === network.get('model', module.modelId)?.moduleFamily,
    ),
  );
  const fresh = [
    ...portsFromModel(model, device.id),
    ...keptModules.flatMap((module) => {
      const of = network.get('model', module.modelId);
      return of === null ? [] : portsFromModule(model, of, module);
    }),
  ];
  const cables = new Map<string, Cable>();
  for (const port of before) {
    const cable = cableAt(network, port.id);
    if (cable !== null) cables.set(port.id, cable);
  }
  const match = matchPorts(before, fresh, new Set(cables.keys()));
  const moves = before.flatMap((port): PortMove[] => {
    const cable = cables.get(port.id);
    return cable === undefined ? [] : [{ port, cable, becomes: match.get(port.id)?.name ?? null }];
  });
  const oldIdOf = new Map([...match].map(([oldId, port]) => [port.id, oldId]));
  const idOf = (port: Port): string => oldIdOf.get(port.id) ?? port.id;
  const byId = new Map(fresh.map((port) => [port.id, port]));
  const partner = (port: Port): string | null => {
    const other = byId.get(port.leadsToId ?? '');
    return other === undefined ? null : idOf(other);
  };
  const changes: (Change | null)[] = [
    update('device', device, {
      modelId: model.id,
      role: model.role ?? device.role,
      units: model.units,
      fillsBothFaces: model.fillsBothFaces,
      side: model.halfWidth ? (device.side === 'full' ? 'left' : device.side) : 'full',
      unit: model.units === 0 ? null : device.unit,
    }),
  ];
  const lost = moves.filter((move) => move.becomes === null);
  const going = [
    ...before.filter((port) => !match.has(port.id)).map(({ id }) => ({ kind: 'port' as const, id })),
    ...modules
      .filter((module) => !keptModules.includes(module))
      .map(({ id }) => ({ kind: 'module' as const, id })),
  ];
  changes.push(...removal(network, going).changes);
  const old = new Map(before.map((port) => [port.id, port]));
  for (const port of fresh) {
    const id = idOf(port);
    const existing = old.get(id);
    const row: Port = {
      ...existing,
      ...port,
      ...(existing === undefined ? {} : configurationOf(existing)),
      id,
      leadsToId: partner(port),
      transceiverId: isCage(port.connector) ? (existing?.transceiverId ?? null) : null,
      transceiverSerial: isCage(port.connector) ? (existing?.transceiverSerial ?? null) : null,
      reserved: existing?.reserved ?? null,
      notes: existing?.notes ?? null,
    };
    changes.push(existing === undefined ? create('port', row) : update('port', existing, row));
  }
  const made = mergeCableUpdates(changes.filter((change) => change !== null));
  const loose =
    lost.length === 0 ? '' : `; ${lost.length} ${lost.length === 1 ? 'cable hangs' : 'cables hang'} loose`;
  return {
    stay: moves.filter((move) => move.becomes === move.port.name),
    move: moves.filter((move) => move.becomes !== null && move.becomes !== move.port.name),
    lost,
    portsBefore: before.length,
    portsAfter: fresh.length,
    attempt: judged(network, made, `Changed the model of ${device.name} to ${modelTitle(model)}${loose}`),
  };
}

/** What giving several devices another model would do, all in one step. */
export type ModelsChange = Omit<ModelChange, 'portsBefore' | 'portsAfter'>;

/** Gives several devices another model, each on what the ones before it left. */
export function changeModels(
  network: Network,
  devices: readonly Device[],
  model: CatalogueModel,
): ModelsChange {
  const others = devices.filter((device) => device.modelId !== model.id);
  const [only] = others;
  if (only === undefined)
    return { stay: [], move: [], lost: [], attempt: refuse(`They are ${modelTitle(model)} already.`) };
  if (others.length === 1) return changeModel(network, only, model);
  const all: ModelsChange = { stay: [], move: [], lost: [], attempt: refuse('') };
  let staged = network;
  const touched: Change[] = [];
  for (const { id } of others) {
    const device = staged.get('device', id);
    if (device === null) continue;
    const { stay, move, lost, attempt } = changeModel(staged, device, model);
    const applied = attempt.ok ? applyChanges(staged, attempt.set.changes) : null;
    if (!attempt.ok) return { ...all, attempt };
    if (applied?.ok !== true) return { ...all, attempt: refuse(`${device.name} cannot be changed.`) };
    staged = applied.network;
    touched.push(...attempt.set.changes);
    all.stay.push(...stay);
    all.move.push(...move);
    all.lost.push(...lost);
  }
  const loose = all.lost.length;
  const hang = loose === 0 ? '' : `; ${loose} ${loose === 1 ? 'cable hangs' : 'cables hang'} loose`;
  const sentence = `Changed the model of ${others.length} devices to ${modelTitle(model)}${hang}`;
  return { ...all, attempt: judged(network, diffOf(network, staged, touched), sentence) };
}

/** What of a port is configured and not built. */
const configurationOf = ({
  mode,
  untaggedVid,
  taggedVids,
  voiceVid,
  vlanNumberingId,
  aggregateId,
  vrfId,
  ospf,
  spanningTree,
}: Port): Partial<Port> => ({
  mode,
  untaggedVid,
  taggedVids,
  voiceVid,
  vlanNumberingId,
  aggregateId,
  vrfId,
  ospf,
  spanningTree,
});

/** A cable from the device to itself may lose both ends: one update for it. */
function mergeCableUpdates(changes: readonly Change[]): Change[] {
  const merged = new Map<string, Change>();
  const kept: Change[] = [];
  for (const change of changes) {
    const earlier = change.kind === 'cable' ? merged.get(change.id) : undefined;
    if (earlier?.op === 'update' && change.op === 'update') {
      Object.assign(earlier.before, change.before);
      Object.assign(earlier.after, change.after);
      continue;
    }
    kept.push(change);
    if (change.kind === 'cable') merged.set(change.id, change);
  }
  return kept;
}
