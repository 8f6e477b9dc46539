import { nextFreeAddress, prefixOf } from '../../addressing/plan.ts';
import { applyChanges } from '../../change/apply.ts';
import { create, update, type Change } from '../../change/change.ts';
import { refuse } from '../../commands/attempt.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { blankCable, type Cable } from '../../model/kinds/lines/cable.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { blankAddress } from '../../model/kinds/logical/address.ts';
import type { Network } from '../../model/network/network.ts';
import { isPlaced, placeOfDevice } from '../../model/network/places.ts';
import { isCage } from '../../model/network/plugs.ts';
import { cableAt, everyPortOf } from '../../model/network/ports.ts';
import { newId } from '../../model/values/ids.ts';
import { formatIp, parseInterface } from '../../model/values/ip.ts';
import { growsPorts, grownPort } from '../grownPort.ts';
import { nextCableLabel } from '../labels.ts';
import { nextFreePort } from './cables.ts';

export interface CopyWish {
  /** How often, one after the other. */
  times: number;
  /** Cables to devices that are not copied: from the next free ports there. */
  toOthers: boolean;
  /** Addresses: the next free ones of the same subnets. */
  addresses: boolean;
  /** Where copies belong that stand elsewhere than here; undefined: where the originals do. */
  placeId?: string | null;
}

/** What was copied, in numbers; what could not be counted on is told with them. */
export interface CopyCounts {
  cables: number;
  addresses: number;
  /** Cables for which no port was free at the other end. */
  unplugged: number;
  /** Addresses for which their subnet had no other left. */
  unnumbered: number;
}
export type CopyAttempt =
  | { ok: false; why: string }
  | {
      ok: true;
      changes: Change[];
      network: Network;
      /** The new devices of each copy, in the order of the originals. */
      copies: Device[][];
      counts: CopyCounts;
    };

/** More copies at once are not made one by one by anybody. */
export const mostCopies = 100;
/** More devices at once do not fit a sheet. */
export const mostCopied = 500;

const numbered = /^(.*?)(\d+)$/;

/** The name counted on to the next one that is free: rt-9 gives rt-10, sw-07 sw-08, edge edge-2. */
export function nextNameAfter(network: Network, name: string): string {
  const [, stem, digits] = numbered.exec(name) ?? [];
  let number = digits === undefined ? 2 : Number(digits) + 1;
  const written = (): string =>
    stem === undefined || digits === undefined
      ? `${name}-${number}`
      : `${stem}${String(number).padStart(digits.length, '0')}`;
  while (network.findOne('deviceByName', written().toLowerCase()) !== null) number++;
  return written();
}

/** One copy that is being made, on what is there already. */
class Copy {
  readonly changes: Change[] = [];
  readonly devices: Device[] = [];
  private readonly ids = new Map<string, string>();
  /** Original ports and their copies. */
  private readonly ports: [Port, Port][] = [];

  constructor(
    public network: Network,
    private readonly counts: CopyCounts,
  ) {}

  private put(changes: readonly Change[]): void {
    const applied = applyChanges(this.network, changes);
    if (!applied.ok) throw new CannotCopy(applied.problems[0]?.message ?? 'It cannot be copied.');
    this.network = applied.network;
    this.changes.push(...changes);
  }

  private idOf(id: string | null): string | null {
    return id === null ? null : (this.ids.get(id) ?? null);
  }

  /** The device without what is its own alone: serial, purchase, place in a rack. What stands somewhere is only planned again. */
  device(original: Device, name: string, placeId: string | null): void {
    const device: Device = {
      ...original,
      id: newId(),
      name,
      status: isPlaced(original) && original.status === 'active' ? 'planned' : original.status,
      placeId,
      rackId: null,
      unit: null,
      feed: null,
      stack: null,
      serial: null,
      installedOn: null,
      assetNumber: null,
      orderNumber: null,
      boughtOn: null,
      priceMinor: null,
      currency: null,
      warrantyUntil: null,
      supportUntil: null,
      bridgeAddress: null,
      routerId: null,
    };
    const modules = this.network.find('modulesByDevice', original.id).map((row) => ({
      from: row.id,
      to: { ...row, id: newId(), deviceId: device.id, serial: null },
    }));
    for (const { from, to } of modules) this.ids.set(from, to.id);
    const ports = everyPortOf(this.network, original.id);
    for (const port of ports) this.ids.set(port.id, newId());
    const copies = ports.map((port): Port => ({
      ...port,
      id: this.idOf(port.id) ?? newId(),
      deviceId: device.id,
      moduleId: this.idOf(port.moduleId),
      leadsToId: this.idOf(port.leadsToId),
      aggregateId: this.idOf(port.aggregateId),
      parentId: this.idOf(port.parentId),
      mac: null,
      transceiverSerial: null,
      reserved: null,
    }));
    this.put([
      create('device', device),
      ...modules.map(({ to }) => create('module', to)),
      ...copies.map((port) => create('port', port)),
    ]);
    this.devices.push(device);
    copies.forEach((copy, at) => {
      const own = ports[at];
      if (own !== undefined) this.ports.push([own, copy]);
    });
  }

  private cable(like: Cable, a: Port, b: Port, more: readonly Change[] = []): void {
    const label = nextCableLabel(this.network, a, b);
    const { typeId, lengthM, status } = like;
    const ends = { aPortId: a.id, bPortId: b.id };
    this.put([
      ...more,
      create('cable', { ...blankCable, id: newId(), label, typeId, lengthM, status, ...ends }),
    ]);
    this.counts.cables++;
  }

  /** Cables with both ends among the originals; those to others from the next free ports there. Breakouts are left out. */
  cables(toOthers: boolean): void {
    const done = new Set<string>();
    for (const [original, copy] of this.ports) {
      const cable = cableAt(this.network, original.id);
      if (cable === null || done.has(cable.id) || this.network.countOf('legsByCable', cable.id) > 0) continue;
      const near = cable.aPortId === original.id;
      const far = this.network.get('port', near ? cable.bPortId : cable.aPortId);
      if (far === null) continue;
      done.add(cable.id);
      const inside = this.network.get('port', this.idOf(far.id));
      const ends = (to: Port): [Port, Port] => (near ? [copy, to] : [to, copy]);
      if (inside !== null) this.cable(cable, ...ends(inside));
      else if (toOthers) {
        const onward = this.portBeside(far, copy);
        if (onward === null) this.counts.unplugged++;
        else this.cable(cable, ...ends(onward.port), onward.changes);
      }
    }
  }

  /** The next free port like one of another device, set as that one is; grown where nobody counted its ports. */
  private portBeside(far: Port, near: Port): { port: Port; changes: Change[] } | null {
    const free = nextFreePort(this.network, far);
    if (free !== null) {
      const { mode, untaggedVid, taggedVids, voiceVid } = far;
      const optic =
        isCage(free.connector) && free.transceiverId === null ? far.transceiverId : free.transceiverId;
      const set =
        free.mode === null && far.aggregateId === null ? { mode, untaggedVid, taggedVids, voiceVid } : {};
      const change = update('port', free, { ...set, transceiverId: optic });
      return { port: free, changes: change === null ? [] : [change] };
    }
    const device = this.network.get('device', far.deviceId);
    if (device === null || !growsPorts(this.network, device)) return null;
    const power = far.role === 'powerIn' || far.role === 'powerOut';
    const { role, speedBps } = far;
    const port = grownPort(this.network, device, power ? 'power' : 'data', { far: near, role, speedBps });
    return { port, changes: [create('port', port)] };
  }

  /** The next free addresses of the subnets the originals are in; a link between two of them would need a subnet of its own. */
  addresses(): void {
    for (const [original, copy] of this.ports) {
      const cable = cableAt(this.network, original.id);
      const ends = cable === null ? [] : [cable.aPortId, cable.bPortId];
      if (ends.length === 2 && ends.every((id) => this.idOf(id) !== null)) continue;
      for (const row of this.network.find('addressesByPort', original.id)) {
        const read = parseInterface(row.address);
        const prefix = read === null ? null : prefixOf(this.network, row.vrfId, read.address);
        const next =
          read === null || prefix === null
            ? null
            : (nextFreeAddress(this.network, prefix, read.address) ?? nextFreeAddress(this.network, prefix));
        if (next === null || read === null) {
          this.counts.unnumbered++;
          continue;
        }
        const address = `${formatIp(next)}/${read.length}`;
        const { vrfId, use } = row;
        this.put([create('address', { ...blankAddress, id: newId(), address, vrfId, use, portId: copy.id })]);
        this.counts.addresses++;
      }
    }
  }
}

class CannotCopy extends Error {}

/**
 * Copies devices, once or several times: with the next names, modules, ports and what is configured on them, cables of
 * their own where both ends are copied, and, as wished, cables to others from the next free ports there and the next
 * addresses. What is one device's alone is left out: serials, purchase, router ids, its place in a rack.
 */
export function copyDevices(network: Network, devices: readonly Device[], wish: CopyWish): CopyAttempt {
  if (devices.length === 0) return refuse('Choose devices to copy first.');
  if (!Number.isInteger(wish.times) || wish.times < 1 || wish.times > mostCopies)
    return refuse(`${wish.times} copies are not possible: say 1 to ${mostCopies}.`);
  const count = devices.length * wish.times;
  if (count > mostCopied)
    return refuse(`That would be ${count} devices: copy ${mostCopied} at a time, or fewer.`);
  const counts: CopyCounts = { cables: 0, addresses: 0, unplugged: 0, unnumbered: 0 };
  const changes: Change[] = [];
  const copies: Device[][] = [];
  let staged = network;
  const names = new Map(devices.map(({ id, name }) => [id, name]));
  try {
    for (let time = 0; time < wish.times; time++) {
      const copy = new Copy(staged, counts);
      for (const original of devices) {
        const name = nextNameAfter(copy.network, names.get(original.id) ?? original.name);
        names.set(original.id, name);
        const own = placeOfDevice(network, original);
        copy.device(original, name, wish.placeId === undefined ? own : wish.placeId);
      }
      copy.cables(wish.toOthers);
      if (wish.addresses) copy.addresses();
      staged = copy.network;
      changes.push(...copy.changes);
      copies.push(copy.devices);
    }
  } catch (error) {
    if (error instanceof CannotCopy) return refuse(error.message);
    throw error;
  }
  return { ok: true, changes, network: staged, copies, counts };
}

const some = (count: number, one: string, many = `${one}s`): string | null =>
  count === 0 ? null : `${count} ${count === 1 ? one : many}`;

/** "rt-6 to rt-8, 3 cables, 3 addresses": what was copied, and what of it found no port or address. */
export function copyText({ copies, counts }: Extract<CopyAttempt, { ok: true }>): string {
  const names = copies.flat().map(({ name }) => name);
  const [first = ''] = names;
  const called =
    names.length === 1
      ? first
      : copies[0]?.length === 1
        ? `${first} to ${names.at(-1) ?? ''}`
        : `${names.length} devices`;
  const left = [some(counts.unplugged, 'cable'), some(counts.unnumbered, 'address', 'addresses')]
    .filter((part) => part !== null)
    .join(' and ');
  const made = [called, some(counts.cables, 'cable'), some(counts.addresses, 'address', 'addresses')]
    .filter((part) => part !== null)
    .join(', ');
  return left === '' ? made : `${made}; ${left} left out: nothing free`;
}
