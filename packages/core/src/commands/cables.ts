import { create, remove, type ChangeSet } from '../change/change.ts';
import { cableOffers } from '../cabling/match.ts';
import { estimateLength } from '../cabling/length.ts';
import { nextCableLabel } from '../cabling/labels.ts';
import { newId } from '../model/ids.ts';
import type { Cable } from '../model/kinds/cable.ts';
import type { Port } from '../model/kinds/port.ts';
import type { Network } from '../model/network.ts';
import { cableAt, portsOf, portTitle } from '../model/ports.ts';

export interface Connection {
  aPortId: string;
  bPortId: string;
  label: string;
  typeId: string | null;
  lengthM: number | null;
}

const spoken = (network: Network, portId: string | null): string =>
  portTitle(network, portId).replace(':', ' ');

/** A cable between two ports. */
export function connect(network: Network, wish: Connection): ChangeSet & { cableId: string } {
  const cable: Cable = {
    id: newId(),
    label: wish.label.trim(),
    typeId: wish.typeId,
    lengthM: wish.lengthM,
    status: 'active',
    aPortId: wish.aPortId,
    bPortId: wish.bPortId,
    notes: null,
  };
  return {
    cableId: cable.id,
    changes: [create('cable', cable)],
    sentence: `Connected ${spoken(network, wish.aPortId)} to ${spoken(network, wish.bPortId)} with ${cable.label}`,
  };
}

/** The connection that would be made between two ports if nobody says otherwise: next label, best type, stock length. */
export function proposeConnection(network: Network, a: Port, b: Port): Connection {
  const left = network.get('device', a.deviceId);
  const right = network.get('device', b.deviceId);
  const needed = left === null || right === null ? null : estimateLength(network, left, right);
  const offer = cableOffers(network, a, b, needed?.metres ?? null)[0];
  const project = [...network.all('project')][0];
  return {
    aPortId: a.id,
    bPortId: b.id,
    label: nextCableLabel(network, a.id, project?.labelDigits ?? 5),
    typeId: offer?.type.id ?? null,
    lengthM: offer?.lengthM ?? null,
  };
}

export function disconnect(network: Network, cable: Cable): ChangeSet {
  const ends = [cable.aPortId, cable.bPortId].filter((id) => id !== null).map((id) => spoken(network, id));
  return {
    changes: [remove('cable', cable)],
    sentence: `Disconnected ${ends.join(' from ')}: removed ${cable.label}`,
  };
}

/** The next free port after this one on its device, of the same connector and role; null when there is none. */
export function nextFreePort(network: Network, port: Port): Port | null {
  const alike = portsOf(network, port.deviceId).filter(
    (other) => other.connector === port.connector && other.role === port.role && other.face === port.face,
  );
  const free = alike.filter((other) => other.id !== port.id && cableAt(network, other.id) === null);
  return free.find((other) => other.ordinal > port.ordinal) ?? free[0] ?? null;
}
