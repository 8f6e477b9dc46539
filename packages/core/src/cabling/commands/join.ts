import { applyChanges } from '../../change/apply.ts';
import { create, sameValue, type Change, type ChangeSet } from '../../change/change.ts';
import { diffOf } from '../../change/diff.ts';
import { invert } from '../../change/invert.ts';
import { refuse, type Attempt } from '../../commands/attempt.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { filledBy, isFree } from '../../model/network/ports.ts';
import { speedText } from '../../model/values/speed.ts';
import { growsPorts, grownPort } from '../grownPort.ts';
import { cableTypes, mismatch } from '../match.ts';
import {
  lineEnds,
  lineSort,
  portsToJoin,
  powerFlow,
  reaches,
  type Fitting,
  type LineSort,
} from '../portsToJoin.ts';
import { wouldJoin, wouldText } from '../wouldJoin.ts';
import { connect, connectionOf } from './cables.ts';

/** A line between two devices as somebody pulled or typed it: whatever is not said is chosen. */
export interface JoinWish {
  aDeviceId: string;
  bDeviceId: string;
  aPortId?: string | null;
  bPortId?: string | null;
  typeId?: string | null;
  /** Bit/s that both ends are to do; what is nearest above is taken. */
  speedBps?: number | null;
  /** Cables beside each other, each with ports of its own; ports that are named are those of the first. */
  count?: number;
}

export interface JoinedLine {
  aPortId: string;
  /** Null: it leads into the network of a provider. */
  bPortId: string | null;
  /** The cable or circuit. */
  lineId: string;
}
export interface Joined extends ChangeSet {
  ok: true;
  lines: JoinedLine[];
  /** The changes that the line itself is, to make it otherwise or take it back later. */
  made: Change[];
  /** The network with it. */
  network: Network;
}
export type JoinAttempt = Joined | { ok: false; why: string };

/** More than one asks for by mistake only. */
export const mostParallel = 64;

const spoken = (network: Network, device: Device): string => {
  const model = network.get('model', device.modelId);
  return model === null ? device.name : `${device.name} (${modelTitle(model)})`;
};

/** Why a port that was named cannot be used. */
function unusable(network: Network, device: Device, port: Port | null): string | null {
  if (port === null) return null;
  if (port.deviceId !== device.id) return `${port.name} is a port of another device than ${device.name}.`;
  const held = filledBy(network, port.id);
  return held === null ? null : `${device.name} ${port.name} holds ${held} already. Choose a free port.`;
}

/** Why nothing joins two devices, and what would. */
function noPorts(
  network: Network,
  a: Device,
  b: Device,
  { named, speedBps }: { named: readonly (Port | null)[]; speedBps: number | null },
): string {
  const sort = lineSort(a, b);
  const [one, other] = named;
  if (one != null && other != null) {
    const reason = mismatch(cableTypes(network), one, other);
    return `${a.name} ${one.name} and ${b.name} ${other.name} cannot be joined: ${reason ?? 'no cable of the catalogue fits'}.`;
  }
  const ends = [a, b].map((device, at) =>
    lineEnds(network, device, sort, at === 0 ? b : a).filter((port) => reaches(port, speedBps)),
  );
  const what = sort === 'power' ? ' for power' : speedBps === null ? '' : ` of ${speedText(speedBps)}`;
  for (const [at, device] of [a, b].entries()) {
    const own = ends[at] ?? [];
    const far = (ends[1 - at] ?? []).filter((port) => isFree(network, port.id) && port.role !== 'management');
    if (own.some((port) => isFree(network, port.id) && port.reserved === null)) continue;
    const state =
      own.length === 0 ? `has no port${what}` : `has no free port${what}: all ${own.length} are taken`;
    return `${spoken(network, device)} ${state}.${wouldText(wouldJoin(network, device, far))}`;
  }
  const free = (at: number): Port[] => (ends[at] ?? []).filter((port) => isFree(network, port.id));
  const kinds = (at: number): string =>
    [...new Set(free(at).map((port) => port.connector ?? 'unknown'))].join(', ');
  const would = [...wouldJoin(network, b, free(0)), ...wouldJoin(network, a, free(1))].slice(0, 2);
  return `No free port of ${spoken(network, a)} (${kinds(0)}) matches one of ${spoken(network, b)} (${kinds(1)}).${wouldText(would)}`;
}

/** Ports for one line, grown where a device without a maker has none; the network with them. */
function endsFor(
  network: Network,
  a: Device,
  b: Device,
  at: { a: Port | null; b: Port | null; typeId: string | null; speedBps: number | null },
): { network: Network; made: Change[]; fitting: Fitting } | null {
  const found = portsToJoin(network, a, b, at);
  if (found !== null) return { network, made: [], fitting: found };
  const sort = lineSort(a, b);
  const grows = [a, b].map(
    (device, side) => (side === 0 ? at.a : at.b) === null && growsPorts(network, device),
  );
  const roleAt = (device: Device): Port['role'] =>
    sort === 'data' ? 'network' : powerFlow(a, b).from.id === device.id ? 'powerOut' : 'powerIn';
  const grow = (
    start: Network,
    device: Device,
    far: Port | null,
  ): { network: Network; made: Change[] } | null => {
    const port = grownPort(start, device, sort, { far, role: roleAt(device), speedBps: at.speedBps });
    const made = [create('port', port)];
    const applied = applyChanges(start, made);
    return applied.ok ? { network: applied.network, made } : null;
  };
  const farOf = (device: Device, other: Device, named: Port | null): Port | null =>
    named ?? freeEnds(network, other, sort, device).find((port) => reaches(port, at.speedBps)) ?? null;
  const tries: (readonly [Device, Port | null])[][] = [
    ...(grows[1] === true ? [[[b, farOf(b, a, at.a)] as const]] : []),
    ...(grows[0] === true ? [[[a, farOf(a, b, at.b)] as const]] : []),
    ...(grows[0] === true && grows[1] === true ? [[[a, null] as const, [b, null] as const]] : []),
  ];
  for (const steps of tries) {
    let staged: { network: Network; made: Change[] } | null = { network, made: [] };
    for (const [device, far] of steps) {
      const grown: { network: Network; made: Change[] } | null = grow(staged.network, device, far);
      if (grown === null) break;
      staged = { network: grown.network, made: [...staged.made, ...grown.made] };
    }
    const fitting = portsToJoin(staged.network, a, b, at);
    if (fitting !== null) return { ...staged, fitting };
  }
  return null;
}

const freeEnds = (network: Network, device: Device, sort: LineSort, other: Device): Port[] =>
  lineEnds(network, device, sort, other).filter(
    (port) => isFree(network, port.id) && port.reserved === null && port.role !== 'management',
  );

const portText = (network: Network, portId: string | null): string => {
  const port = network.get('port', portId);
  return `${network.get('device', port?.deviceId ?? null)?.name ?? ''} ${port?.name ?? ''}`.trim();
};

function sentenceOf(network: Network, lines: readonly JoinedLine[], a: Device, b: Device): string {
  const labels = lines.map(({ lineId }) => network.get('cable', lineId)?.label ?? '');
  const [first] = lines;
  return first !== undefined && lines.length === 1
    ? `Connected ${portText(network, first.aPortId)} to ${portText(network, first.bPortId)} with ${labels[0] ?? ''}`
    : `Connected ${a.name} to ${b.name} with ${lines.length} cables, ${labels[0] ?? ''} to ${labels.at(-1) ?? ''}`;
}

/**
 * Joins two devices by as many cables as wished: the ports that fit best (`portsToJoin`), the best cable with matched
 * optics, the next labels. A device without a maker gets ports as needed. All or nothing; the reason says which device
 * has no port that matches, and what would have one.
 */
export function joinDevices(network: Network, wish: JoinWish): JoinAttempt {
  const [a, b] = [network.get('device', wish.aDeviceId), network.get('device', wish.bDeviceId)];
  if (a === null || b === null) return refuse('A device of this line is no longer there.');
  if (a.id === b.id) return refuse(`${a.name} cannot be connected to itself: let go on another device.`);
  const count = wish.count ?? 1;
  if (!Number.isInteger(count) || count < 1 || count > mostParallel)
    return refuse(`${count} cables in parallel are not possible: say 1 to ${mostParallel}.`);
  const lines: JoinedLine[] = [];
  const touched: Change[] = [];
  let staged = network;
  for (let at = 0; at < count; at++) {
    const named = (id: string | null | undefined): Port | null =>
      at === 0 ? staged.get('port', id ?? null) : null;
    const ports = {
      a: named(wish.aPortId),
      b: named(wish.bPortId),
      typeId: wish.typeId ?? null,
      speedBps: wish.speedBps ?? null,
    };
    const why = unusable(staged, a, ports.a) ?? unusable(staged, b, ports.b);
    if (why !== null) return refuse(why);
    const ends = endsFor(staged, a, b, ports);
    if (ends === null) {
      const short = at === 0 ? '' : `Only ${at} of ${count} cables fit. `;
      return refuse(
        `${short}${noPorts(staged, a, b, { named: [ports.a, ports.b], speedBps: ports.speedBps })}`,
      );
    }
    const { fitting } = ends;
    const made = connect(ends.network, connectionOf(ends.network, fitting.a, fitting.b, fitting.way));
    const applied = applyChanges(ends.network, made.changes);
    if (!applied.ok) return refuse(applied.problems[0]?.message ?? 'It cannot be connected.');
    staged = applied.network;
    touched.push(...ends.made, ...made.changes);
    lines.push({ aPortId: fitting.a.id, bPortId: fitting.b.id, lineId: made.cableId });
  }
  const changes = diffOf(network, staged, touched);
  const sentence = sentenceOf(staged, lines, a, b);
  return { ok: true, changes, made: changes, sentence, lines, network: staged };
}

/** Several lines as one step, each on what the ones before it left; the first that cannot be made is the reason. */
export function joinAll(network: Network, wishes: readonly JoinWish[]): JoinAttempt {
  const lines: JoinedLine[] = [];
  const touched: Change[] = [];
  let staged = network;
  let sentence = '';
  for (const wish of wishes) {
    const made = joinDevices(staged, wish);
    if (!made.ok) return made;
    staged = made.network;
    touched.push(...made.changes);
    lines.push(...made.lines);
    sentence = made.sentence;
  }
  const changes = diffOf(network, staged, touched);
  const said =
    wishes.length === 1
      ? sentence
      : `Connected ${wishes.length} pairs of devices with ${lines.length} cables`;
  return { ok: true, changes, made: changes, sentence: said, lines, network: staged };
}

const changedSince = 'This line was changed since. Change it in its record.';

/** The network as it was before these changes; null where somebody has built upon them since. */
function withoutLine(network: Network, made: readonly Change[]): Network | null {
  const untouched = made.every(
    (change) => change.op !== 'create' || sameValue(network.get(change.kind, change.id), change.after),
  );
  const back = applyChanges(network, invert(made));
  return untouched && back.ok ? back.network : null;
}

/**
 * Makes a line that has just been pulled otherwise: it is taken back, and made anew on what is left. The labels stay
 * where there is a cable for them. Refused where somebody has built upon it since.
 *
 * @param made the changes the line was made by
 */
export function lineOtherwise(
  network: Network,
  made: readonly Change[],
  make: (without: Network) => JoinAttempt,
): JoinAttempt {
  const back = withoutLine(network, made);
  if (back === null) return refuse(changedSince);
  const joined = make(back);
  if (!joined.ok) return joined;
  return {
    ...joined,
    changes: diffOf(network, joined.network, [...made, ...joined.changes]),
    sentence: joined.sentence.replace('Connected', 'Connected otherwise:'),
  };
}

/** The same with other ports, another cable, more or fewer beside each other. */
export const joinOtherwise = (network: Network, made: readonly Change[], wish: JoinWish): JoinAttempt =>
  lineOtherwise(network, made, (without) => joinDevices(without, wish));

/** Takes a line back that has just been pulled, with whatever else was made by these changes. */
export function takeLineBack(network: Network, made: readonly Change[]): Attempt {
  const back = withoutLine(network, made);
  if (back === null) return refuse(changedSince);
  const lines = made.filter(
    ({ kind, op }) => (kind === 'cable' || kind === 'circuit') && op === 'create',
  ).length;
  return {
    ok: true,
    set: {
      changes: diffOf(network, back, made),
      sentence: `Took ${lines === 1 ? 'a line' : `${lines} lines`} back`,
    },
  };
}
