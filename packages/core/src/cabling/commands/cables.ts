import { create, remove, update, type Change, type ChangeSet, asChange } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import { applyChanges } from '../../change/apply.ts';
import { neededM } from '../length.ts';
import { nextCableLabel } from '../labels.ts';
import { cableTypes, mismatch, waysToJoin, type Way } from '../match.ts';
import { newId } from '../../model/values/ids.ts';
import { blankCable, type Cable } from '../../model/kinds/lines/cable.ts';
import type { Circuit } from '../../model/kinds/lines/circuit.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt, endsOf, filledBy, isFree, portsOf, portTitle } from '../../model/network/ports.ts';
import { judged, type Attempt } from '../../commands/attempt.ts';
import { metresText } from '../../model/values/numbers.ts';

export interface Connection {
  aPortId: string;
  bPortId: string;
  label: string;
  typeId: string | null;
  lengthM: number | null;
  /** Transceivers that go into cages with it. */
  optics?: Way['optics'];
  /** Where its further plugs go. */
  aLegs?: readonly Port[];
  bLegs?: readonly Port[];
}

const spoken = (network: Network, portId: string | null): string =>
  portTitle(network, portId).replace(':', ' ');

/** A cable between two ports, with the transceivers and further legs it needs; a reservation of its ports ends. */
export function connect(network: Network, wish: Connection): ChangeSet & { cableId: string } {
  const cable: Cable = {
    ...blankCable,
    id: newId(),
    label: wish.label.trim(),
    typeId: wish.typeId,
    lengthM: wish.lengthM,
    aPortId: wish.aPortId,
    bPortId: wish.bPortId,
  };
  const ports = new Map<string, Partial<Port>>();
  const touch = (id: string, fields: Partial<Port>): void =>
    void ports.set(id, { ...ports.get(id), ...fields });
  for (const { port, model } of wish.optics ?? []) touch(port.id, { transceiverId: model.id });
  for (const id of [wish.aPortId, wish.bPortId])
    if (network.get('port', id)?.reserved != null) touch(id, { reserved: null });
  const portChanges = [...ports].flatMap(([id, fields]) => {
    const port = network.get('port', id);
    return port === null ? [] : (update('port', port, fields) ?? []);
  });
  const legs = (['a', 'b'] as const).flatMap((side) =>
    ((side === 'a' ? wish.aLegs : wish.bLegs) ?? []).map((port, at) =>
      create('leg', { id: newId(), cableId: cable.id, side, number: at + 2, portId: port.id }),
    ),
  );
  const optics = wish.optics?.length ?? 0;
  const also = optics === 0 ? '' : ` and ${optics} ${optics === 1 ? 'transceiver' : 'transceivers'}`;
  return {
    cableId: cable.id,
    changes: [...portChanges, create('cable', cable), ...legs],
    sentence: `Connected ${spoken(network, wish.aPortId)} to ${spoken(network, wish.bPortId)} with ${cable.label}${also}`,
  };
}

/** A way to join two ports as a connection, with the next label. */
export const connectionOf = (network: Network, a: Port, b: Port, way: Way | null): Connection => ({
  aPortId: a.id,
  bPortId: b.id,
  label: nextCableLabel(network, a, b),
  typeId: way?.type.id ?? null,
  lengthM: way?.lengthM ?? null,
  optics: way?.optics ?? [],
  aLegs: way?.aLegs ?? [],
  bLegs: way?.bLegs ?? [],
});

/** The connection that would be made between two ports if nobody says otherwise: next label, best type, stock length. */
export const proposeConnection = (network: Network, a: Port, b: Port): Connection =>
  connectionOf(network, a, b, waysToJoin(network, a, b, neededM(network, a, b)).fits[0] ?? null);

/** What is written for a pair of ports: connected, or why not. */
export interface Pair {
  a: Port;
  b: Port;
}
export interface PairResult extends Pair {
  label: string | null;
  problem: string | null;
}

/**
 * Connects many pairs of ports with cables of one type, or each with what fits it best. Every pair is told what it
 * comes to; those that cannot be joined leave the others standing.
 */
export function connectPairs(
  network: Network,
  pairs: readonly Pair[],
  wish: { typeId?: string | null; lengthM?: number | null } = {},
): { results: PairResult[]; set: ChangeSet } {
  const types = cableTypes(network);
  const changes: Change[] = [];
  const results: PairResult[] = [];
  let staged = network;
  for (const pair of pairs) {
    const [a, b] = [staged.get('port', pair.a.id) ?? pair.a, staged.get('port', pair.b.id) ?? pair.b];
    const full = [a, b].find((port) => !isFree(staged, port.id));
    const why =
      full !== undefined
        ? `${spoken(network, full.id)} holds ${filledBy(staged, full.id) ?? ''}`
        : mismatch(types, a, b);
    if (why !== null) {
      results.push({ ...pair, label: null, problem: why });
      continue;
    }
    const needed = wish.lengthM ?? neededM(staged, a, b);
    const { fits, doesNotFit } = waysToJoin(staged, a, b, needed);
    const way =
      wish.typeId == null ? (fits[0] ?? null) : (fits.find((one) => one.type.id === wish.typeId) ?? null);
    if (wish.typeId != null && way === null) {
      const reason = doesNotFit.find((one) => one.type.id === wish.typeId)?.reason ?? 'its plugs do not fit';
      results.push({ ...pair, label: null, problem: reason });
      continue;
    }
    const connection = connectionOf(staged, a, b, way);
    const made = connect(staged, { ...connection, lengthM: wish.lengthM ?? connection.lengthM }).changes;
    const applied = applyChanges(staged, made);
    if (!applied.ok) {
      results.push({ ...pair, label: null, problem: applied.problems[0]?.message ?? 'it cannot be done' });
      continue;
    }
    staged = applied.network;
    changes.push(...made);
    results.push({ ...pair, label: connection.label, problem: null });
  }
  const made = results.filter((result) => result.label !== null);
  const [first] = made;
  const sentence =
    made.length === 1 && first !== undefined
      ? `Connected ${spoken(network, first.a.id)} to ${spoken(network, first.b.id)} with ${first.label ?? ''}`
      : `Connected ${made.length} pairs of ports, ${first?.label ?? ''} to ${made.at(-1)?.label ?? ''}`;
  return { results, set: { changes: mergeUpdates(changes), sentence } };
}

/** Two updates of one port, such as an optic and then a reservation, become one. */
function mergeUpdates(changes: readonly Change[]): Change[] {
  const merged = new Map<string, Change>();
  for (const change of changes) {
    const earlier = merged.get(change.id);
    merged.set(
      change.id,
      earlier?.op === 'update' && change.op === 'update'
        ? asChange({
            ...change,
            before: { ...change.before, ...earlier.before },
            after: { ...earlier.after, ...change.after },
          })
        : change,
    );
  }
  return [...merged.values()];
}

/** Takes a cable out of the model; its number becomes free again. */
export function disconnect(network: Network, cable: Cable): ChangeSet {
  const ends = [cable.aPortId, cable.bPortId].filter((id) => id !== null).map((id) => spoken(network, id));
  return {
    changes: removal(network, [{ kind: 'cable', id: cable.id }]).changes,
    sentence: `Disconnected ${ends.join(' from ')}: removed ${cable.label}`,
  };
}

/** Pulls a cable out of use but keeps its label: it hangs nowhere and its number is not given again. */
export function retireCable(network: Network, cable: Cable): ChangeSet {
  const change = update('cable', cable, { aPortId: null, bPortId: null, status: 'retired' });
  return {
    changes: [
      ...network.find('legsByCable', cable.id).map((leg) => remove('leg', leg)),
      ...(change === null ? [] : [change]),
    ],
    sentence: `Retired ${cable.label}`,
  };
}

/** Turns a cable round: its A end becomes its B end. Refused where the ends differ in their plugs. */
export function swapEnds(network: Network, cable: Cable): Attempt {
  const type = network.get('model', cable.typeId);
  if (type !== null && type.legsA !== type.legsB)
    return {
      ok: false,
      why: `${cable.label} is a ${modelTitle(type)} with ${type.legsA} and ${type.legsB} plugs: its ends cannot change places.`,
    };
  const change = update('cable', cable, { aPortId: cable.bPortId, bPortId: cable.aPortId });
  const legs = network
    .find('legsByCable', cable.id)
    .map((leg) => update('leg', leg, { side: leg.side === 'a' ? 'b' : 'a' }));
  return judged(
    network,
    [change, ...legs].filter((one) => one !== null),
    `Swapped the ends of ${cable.label}`,
  );
}

/** Plugs one end of a cable into another port; label, history and the other end stay. */
export function moveEnd(network: Network, cable: Cable, side: 'a' | 'b', to: Port): Attempt {
  const other = network.get('port', side === 'a' ? cable.bPortId : cable.aPortId);
  const why = other === null ? null : mismatch(cableTypes(network), to, other);
  if (why !== null)
    return {
      ok: false,
      why: `${cable.label} cannot be plugged into ${spoken(network, to.id)}: ${why}.`,
    };
  const change = update('cable', cable, side === 'a' ? { aPortId: to.id } : { bPortId: to.id });
  return judged(
    network,
    change === null ? [] : [change],
    `Moved the ${side.toUpperCase()} end of ${cable.label} to ${spoken(network, to.id)}`,
  );
}

/** Puts a cable of another type along the same run: same ends and label, the next stock length. */
export function replaceCable(network: Network, cable: Cable, typeId: string): Attempt {
  const type = network.get('model', typeId);
  if (type === null) return { ok: false, why: 'This cable type is no longer in the catalogue.' };
  const needed = cable.lengthM;
  const stock = type.stockLengthsM.filter((length) => needed === null || length >= needed);
  if (needed !== null && type.stockLengthsM.length > 0 && stock.length === 0)
    return {
      ok: false,
      why: `${modelTitle(type)} comes in lengths up to ${Math.max(...type.stockLengthsM)} m; the run of ${cable.label} is ${needed} m.`,
    };
  const lengthM = needed === null || stock.length === 0 ? needed : Math.min(...stock);
  const change = update('cable', cable, { typeId, lengthM });
  return judged(
    network,
    change === null ? [] : [change],
    `Replaced ${cable.label} by ${modelTitle(type)}${lengthM === null ? '' : `, ${metresText(lengthM)}`}`,
  );
}

/** Keeps a port for something, with a note; an empty note frees it. */
export function reservePort(network: Network, port: Port, note: string | null): ChangeSet {
  const kept = note?.trim() ?? '';
  const change = update('port', port, { reserved: kept === '' ? null : kept });
  return {
    changes: change === null ? [] : [change],
    sentence:
      kept === '' ? `Freed ${spoken(network, port.id)}` : `Reserved ${spoken(network, port.id)} for ${kept}`,
  };
}

/** Puts a transceiver into a cage, or takes it out. */
export function setTransceiver(network: Network, port: Port, modelId: string | null): ChangeSet {
  const model = network.get('model', modelId);
  const change = update('port', port, {
    transceiverId: modelId,
    ...(modelId === null ? { transceiverSerial: null } : {}),
  });
  const title = spoken(network, port.id);
  return {
    changes: change === null ? [] : [change],
    sentence:
      model === null ? `Took the transceiver out of ${title}` : `Put ${modelTitle(model)} into ${title}`,
  };
}

/** Plugs a further leg of a breakout or a trunk into a port, or pulls it out. */
export function setLeg(
  network: Network,
  cable: Cable,
  side: 'a' | 'b',
  number: number,
  portId: string | null,
): Attempt {
  const leg = network.find('legsByCable', cable.id).find((one) => one.side === side && one.number === number);
  const change =
    portId === null
      ? leg === undefined
        ? null
        : remove('leg', leg)
      : leg === undefined
        ? create('leg', { id: newId(), cableId: cable.id, side, number, portId })
        : update('leg', leg, { portId });
  const where = portId === null ? 'Pulled out' : 'Plugged in';
  return judged(network, change === null ? [] : [change], `${where} leg ${number} of ${cable.label}`);
}

/** The next free port after this one on its device, of the same connector and role; null when there is none. */
export function nextFreePort(network: Network, port: Port): Port | null {
  const alike = portsOf(network, port.deviceId).filter(
    (other) => other.connector === port.connector && other.role === port.role && other.face === port.face,
  );
  const free = alike.filter(
    (other) => other.id !== port.id && other.reserved === null && isFree(network, other.id),
  );
  return free.find((other) => other.ordinal > port.ordinal) ?? free[0] ?? null;
}

/** Devices that a set of cables joins, by the ports they hold; panels pass, so that only what is reached counts. */
function neighbours(network: Network, deviceId: string, without: string): string[] {
  const found: string[] = [];
  for (const port of network.find('portsByDevice', deviceId)) {
    if (port.role === 'powerIn' || port.role === 'powerOut') continue;
    const cable = cableAt(network, port.id);
    const circuit = network.count('circuit') === 0 ? null : network.findOne('circuitByPort', port.id);
    const far =
      cable !== null && cable.id !== without
        ? [...endsOf(network, cable, 'a'), ...endsOf(network, cable, 'b')]
        : circuit !== null
          ? [circuit.aPortId, circuit.bPortId]
          : [];
    for (const id of far) {
      const device = network.get('port', id)?.deviceId;
      if (device !== undefined && device !== deviceId) found.push(device);
    }
  }
  return found;
}

/**
 * Devices that lose every path to the rest when a cable is pulled: the smaller side of the network without it.
 * Empty when another path remains.
 */
export function cutOff(network: Network, cable: Cable): string[] {
  const sides = [cable.aPortId, cable.bPortId].map((id) => network.get('port', id)?.deviceId ?? null);
  const [left, right] = sides;
  if (left == null || right == null || left === right) return [];
  const reached = [new Set([left]), new Set([right])] as const;
  const open = [[left], [right]];
  // Both sides grow in turn: the smaller one is exhausted first, and ends the search.
  for (;;) {
    for (const side of [0, 1] as const) {
      const next: string[] = [];
      for (const id of open[side] ?? [])
        for (const other of neighbours(network, id, cable.id)) {
          if (reached[1 - side]?.has(other) === true) return [];
          if (reached[side].has(other)) continue;
          reached[side].add(other);
          next.push(other);
        }
      if (next.length === 0)
        return [...reached[side]].filter((id) => network.get('device', id)?.role !== 'PP');
      open[side] = next;
    }
  }
}

/** Takes a circuit out of the model; its ports are free again. */
export const deleteCircuit = (network: Network, circuit: Circuit): ChangeSet => ({
  changes: removal(network, [{ kind: 'circuit', id: circuit.id }]).changes,
  sentence: `Deleted circuit ${circuit.number}`,
});
