import { applyChanges } from '../../../change/apply.ts';
import { create, update, type Change, type ChangeSet } from '../../../change/change.ts';
import { diffOf } from '../../../change/diff.ts';
import { portsFromModel } from '../../../catalogue/modelPorts.ts';
import { firstOfTheirRole } from '../../../catalogue/generic.ts';
import type { CatalogueModel } from '../../../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../../../model/kinds/equipment/device.ts';
import type { Port } from '../../../model/kinds/lines/port.ts';
import { blankPlace, type Place } from '../../../model/kinds/sites/place.ts';
import { kinds, modelTitle, type Kind } from '../../../model/kinds.ts';
import type { Network } from '../../../model/network/network.ts';
import { placeOfDevice, placePath, whereIs } from '../../../model/network/places.ts';
import { cableAt, otherEnds, portsOf } from '../../../model/network/ports.ts';
import { newId } from '../../../model/values/ids.ts';
import { addDevice } from '../../../racks/commands/devices.ts';
import { nextDeviceName } from '../../../racks/deviceNames.ts';
import { kindByDepth } from '../../../places/exchange/readPlace.ts';
import { joinDevices } from '../../commands/join.ts';
import { grownPort, growsPorts } from '../../grownPort.ts';
import { readTyped, type Extent, type Statement, type TypedEnd, type TypedLine } from './grammar.ts';
import { roleOfName } from '../../../model/values/roleWords.ts';
import { sortOf, type Sort } from './sorts.ts';

/** What one line comes to: what it makes in numbers, or why nothing. */
export interface TypedOutcome extends Pick<TypedLine, 'number' | 'text'> {
  /** "+2 devices, +4 cables"; empty where all of it is there already. */
  makes: string;
  problem: string | null;
}
export interface TypedResult {
  lines: TypedOutcome[];
  /** All good lines as one step; no changes where there is nothing to do. */
  set: ChangeSet;
  /** The network with them. */
  network: Network;
}
/** A text longer than this is not typed by anybody: tables are read as lists. */
export const mostTypedLines = 500;

/** What cannot be done, said to whoever typed it. */
class Refused extends Error {}

/** Statements carried out one after the other, each on what the ones before it left. */
class Staged {
  network: Network;
  readonly touched: Change[] = [];
  constructor(
    network: Network,
    private readonly placeId: string | null,
  ) {
    this.network = network;
  }

  make(changes: readonly Change[]): void {
    const applied = applyChanges(this.network, changes);
    if (!applied.ok) throw new Refused(applied.problems[0]?.message ?? 'It cannot be made.');
    this.network = applied.network;
    this.touched.push(...changes);
  }

  /** A device by its name, made where it is not there: of the role its name begins with. */
  device(name: string, sort: Sort | null = null): Device {
    const found = this.network.findOne('deviceByName', name.toLowerCase());
    if (found !== null) return found;
    const model = sort?.model ?? firstOfTheirRole(this.network, roleOfName(name));
    if (model === null)
      throw new Refused(`The catalogue has no model to make ${name} of. Write one: ${name}: MODEL`);
    const wish = { name, modelId: model.id, rackId: null, placeId: this.placeId, unit: null };
    const set = addDevice(this.network, wish);
    if (set === null) throw new Refused(`${modelTitle(model)} cannot be placed: it has no role.`);
    this.make(set.changes);
    return this.again(set.deviceId);
  }

  again(id: string): Device {
    const device = this.network.get('device', id);
    if (device === null) throw new Refused('A device of this line is not there.');
    return device;
  }

  /** So many new devices of a sort, numbered on from those that are there. */
  several(count: number, text: string): Device[] {
    const sort = sortOf(this.network, text);
    if (sort === null) throw new Refused(`There is no model or role “${text}” in the catalogue.`);
    return Array.from({ length: count }, () => this.device(this.nextName(sort), sort));
  }

  private nextName({ stem, model }: Sort): string {
    if (stem === null) return nextDeviceName(this.network, this.placeId, model.role ?? 'XX', model.id);
    const base = /[-_.]$/.test(stem) ? stem : `${stem}-`;
    let number = 1;
    while (this.network.findOne('deviceByName', `${base}${number}`.toLowerCase()) !== null) number++;
    return `${base}${number}`;
  }

  /** A port by its name; a device without a maker gets it where it is not there. */
  port(device: Device, name: string | null, far: Port | null, { speedBps }: Extent): Port | null {
    if (name === null) return null;
    const found = this.network.findOne('portByName', `${device.id}:${name.toLowerCase()}`);
    if (found !== null) return found;
    if (!growsPorts(this.network, device)) {
      const model = this.network.get('model', device.modelId);
      const some = portsOf(this.network, device.id).slice(0, 3);
      throw new Refused(
        `${device.name} (${model === null ? '' : modelTitle(model)}) has no port ${name}. Its ports are ${some.map((port) => port.name).join(', ')} …`,
      );
    }
    const port = grownPort(this.network, device, 'data', { far, name, role: 'network', speedBps });
    this.make([create('port', port)]);
    return port;
  }

  /** The cables that join two devices, at their main ends or at legs. */
  joining(a: Device, b: Device): number {
    const cables = new Set<string>();
    for (const port of portsOf(this.network, a.id)) {
      const cable = cableAt(this.network, port.id);
      if (cable === null) continue;
      const far = otherEnds(this.network, cable, port.id);
      if (far.some((id) => this.network.get('port', id)?.deviceId === b.id)) cables.add(cable.id);
    }
    return cables.size;
  }

  /** Joins two ends; what joins them already counts. */
  join(left: TypedEnd, right: TypedEnd, extent: Extent): void {
    const [a, b] = [this.device(left.device), this.device(right.device)];
    const known = (device: Device, name: string | null): Port | null =>
      name === null ? null : this.network.findOne('portByName', `${device.id}:${name.toLowerCase()}`);
    const aPort = this.port(a, left.port, known(b, right.port), extent);
    const bPort = this.port(b, right.port, aPort, extent);
    if (aPort !== null && bPort !== null) {
      const cable = cableAt(this.network, aPort.id);
      const joined = cable !== null && otherEnds(this.network, cable, aPort.id).includes(bPort.id);
      if (joined && this.joining(a, b) >= extent.count) return;
      if (joined) return this.more(a, b, extent);
    }
    if (aPort === null && bPort === null) return this.more(a, b, extent);
    this.joined({ a, b, aPort, bPort, count: extent.count, speedBps: extent.speedBps });
  }

  private more(a: Device, b: Device, extent: Extent): void {
    const missing = a.id === b.id ? 1 : extent.count - this.joining(a, b);
    if (missing > 0)
      this.joined({ a, b, aPort: null, bPort: null, count: missing, speedBps: extent.speedBps });
  }

  private joined(wish: {
    a: Device;
    b: Device;
    aPort: Port | null;
    bPort: Port | null;
    count: number;
    speedBps: number | null;
  }): void {
    const made = joinDevices(this.network, {
      aDeviceId: wish.a.id,
      bDeviceId: wish.b.id,
      aPortId: wish.aPort?.id ?? null,
      bPortId: wish.bPort?.id ?? null,
      count: wish.count,
      speedBps: wish.speedBps,
    });
    if (!made.ok) throw new Refused(made.why);
    this.network = made.network;
    this.touched.push(...made.changes);
  }

  /** A place by its path, or by its name where only one has it; made with what is missing around it. */
  place(path: string): Place {
    const names = path.split('/').map((name) => name.trim());
    if (names.some((name) => name === ''))
      throw new Refused(`“${path}” has an empty name in it. Write names separated by single slashes.`);
    if (names.length === 1) {
      const alike = [...this.network.all('place')].filter(
        (place) => place.name.toLowerCase() === names[0]?.toLowerCase(),
      );
      const [only] = alike;
      if (only !== undefined && alike.length === 1) return only;
      if (alike.length > 1)
        throw new Refused(
          `There are ${alike.length} places called ${path}: ${alike
            .map((place) => placePath(this.network, place.id))
            .sort()
            .slice(0, 3)
            .join(', ')}. Write the whole path.`,
        );
    }
    const found = names.reduce<Place | null>((parent, name, depth) => {
      const kind = depth > 0 && depth === names.length - 1 ? 'room' : (kindByDepth[depth] ?? 'room');
      return this.within(parent, name, kind);
    }, null);
    if (found === null) throw new Refused('Name a place.');
    return found;
  }

  private within(parent: Place | null, name: string, kind: Place['kind']): Place {
    const parentId = parent?.id ?? null;
    const found = this.network
      .find('placesByParent', parentId ?? 'root')
      .find((place) => place.name.toLowerCase() === name.toLowerCase());
    if (found !== undefined) return found;
    const row: Place = { ...blankPlace, id: newId(), name, kind, parentId };
    this.make([create('place', row)]);
    return row;
  }

  /** Puts a device into a place; one that is there, in a rack or not, stays. */
  put(device: Device, place: Place): void {
    if (placeOfDevice(this.network, device) === place.id) return;
    if (device.rackId !== null)
      throw new Refused(
        `${device.name} is mounted at ${whereIs(this.network, device)}, in another place. Take it out of its rack first.`,
      );
    const change = update('device', device, { placeId: place.id });
    if (change !== null) this.make([change]);
  }

  /** Says what a device is: a new one is made of it, one without cables gets the ports of another model. */
  what(name: string, sort: Sort): void {
    const there = this.network.findOne('deviceByName', name.toLowerCase());
    if (there === null) return void this.device(name, sort);
    if (there.modelId === sort.model.id) return;
    const ports = portsOf(this.network, there.id);
    if (ports.some((port) => cableAt(this.network, port.id) !== null))
      throw new Refused(
        `${there.name} is a ${modelOf(this.network, there)} with cables in it. Change its model in its record.`,
      );
    const model = sort.model;
    if (there.rackId !== null || model.role === null)
      throw new Refused(
        `${there.name} is a ${modelOf(this.network, there)}. Change its model in its record.`,
      );
    const change = update('device', there, {
      modelId: model.id,
      role: model.role,
      units: model.units,
      fillsBothFaces: model.fillsBothFaces,
      side: model.halfWidth ? 'left' : 'full',
    });
    this.make([
      ...ports.map((port): Change => ({ op: 'delete', kind: 'port', id: port.id, before: port })),
      ...(change === null ? [] : [change]),
      ...portsFromModel(model, there.id).map((port) => create('port', port)),
    ]);
  }
}

const modelOf = (network: Network, device: Device): string => {
  const model: CatalogueModel | null = network.get('model', device.modelId);
  return model === null ? 'device without a model' : modelTitle(model);
};

/** The pairs that a shape joins: each with the next, a ring's last with its first, in a mesh each with each. */
function shapePairs(shape: 'ring' | 'row' | 'mesh', names: readonly string[]): [string, string][] {
  if (shape === 'mesh')
    return names.flatMap((name, at) => names.slice(at + 1).map((other): [string, string] => [name, other]));
  const next = shape === 'ring' ? [...names, ...names.slice(0, 1)] : names;
  return next.slice(1).map((name, at): [string, string] => [next[at] ?? name, name]);
}

function carryOut(staged: Staged, statement: Statement): void {
  const end = (device: string): TypedEnd => ({ device, port: null });
  const named = (shape: 'ring' | 'row' | 'mesh', names: readonly string[], extent: Extent): void => {
    for (const [a, b] of shapePairs(shape, names)) staged.join(end(a), end(b), extent);
  };
  switch (statement.form) {
    case 'devices':
      return statement.names.forEach((name) => void staged.device(name));
    case 'links':
      return statement.ends.slice(1).forEach((right, at) => {
        const left = statement.ends[at];
        if (left !== undefined) staged.join(left, right, statement.extent);
      });
    case 'each': {
      for (const name of statement.to) staged.device(name);
      for (const device of staged.several(statement.count, statement.sort))
        for (const name of statement.to) staged.join(end(device.name), end(name), statement.extent);
      return;
    }
    case 'shape':
      return named(statement.shape, statement.names, statement.extent);
    case 'shapeOf': {
      const made = staged.several(statement.count, statement.sort);
      return named(
        statement.shape,
        made.map((device) => device.name),
        statement.extent,
      );
    }
    case 'what': {
      const sort = sortOf(staged.network, statement.sort);
      if (sort === null || sort.stem !== null)
        throw new Refused(`There is no model or role “${statement.sort}” in the catalogue.`);
      return statement.names.forEach((name) => staged.what(name, sort));
    }
    case 'where': {
      const place = staged.place(statement.path);
      return statement.names.forEach((name) => staged.put(staged.device(name), place));
    }
  }
}

/** "+2 devices, +4 cables, +1 place": what came to be between two networks, of these changes. */
function madeText(changes: readonly Change[], sign: string): string {
  const counted: readonly Kind[] = ['device', 'cable', 'place'];
  return counted
    .map((kind) => ({
      kind,
      count: changes.filter((change) => change.op === 'create' && change.kind === kind).length,
    }))
    .filter(({ count }) => count > 0)
    .map(({ kind, count }) => `${sign}${count} ${count === 1 ? kinds[kind].one : kinds[kind].many}`)
    .join(', ');
}

/** A line carried out: what it came to, and the network after it. */
interface Carried {
  text: string;
  outcome: TypedOutcome;
  network: Network;
  changes: Change[];
}

function carryLine(before: Network, line: TypedLine, placeId: string | null): Carried {
  const { number, text, statement, problem } = line;
  const outcome: TypedOutcome = { number, text, makes: '', problem };
  const nothing: Carried = { text, outcome, network: before, changes: [] };
  if (statement === null) return nothing;
  const staged = new Staged(before, placeId);
  try {
    carryOut(staged, statement);
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return { ...nothing, outcome: { ...outcome, problem: error.message } };
  }
  const changes = diffOf(before, staged.network, staged.touched);
  const makes = madeText(changes, '+') || (changes.length > 0 ? 'changed' : '');
  return { text, outcome: { ...outcome, makes }, network: staged.network, changes };
}

function resultOf(start: Network, all: readonly TypedLine[], carried: readonly Carried[]): TypedResult {
  const network = carried.at(-1)?.network ?? start;
  const lines = carried.map(({ outcome }) => outcome);
  const beyond = all[mostTypedLines];
  if (beyond !== undefined)
    lines.push({
      number: beyond.number,
      text: beyond.text,
      makes: '',
      problem: `The text has ${all.length} lines; ${mostTypedLines} are read at a time. Take over the rest after these.`,
    });
  const changes = diffOf(
    start,
    network,
    carried.flatMap((one) => one.changes),
  );
  const made = madeText(changes, '');
  const sentence = made === '' ? 'Changed by a typed topology' : `Typed ${made}`;
  return { lines, network, set: { changes, sentence } };
}

/**
 * Reads a text that grows as it is typed: lines that stand as they stood, from the first on, are not carried out
 * again, so that what they made keeps its ids. Another network begins anew.
 */
export function typing(placeId: string | null): (network: Network, text: string) => TypedResult {
  let start: Network | null = null;
  let carried: Carried[] = [];
  return (network, text) => {
    const all = readTyped(text);
    const lines = all.slice(0, mostTypedLines);
    const differs = lines.findIndex((line, at) => carried[at]?.text !== line.text);
    const kept = start !== network ? 0 : differs < 0 ? lines.length : differs;
    const next = carried.slice(0, kept);
    for (const line of lines.slice(kept))
      next.push(carryLine(next.at(-1)?.network ?? network, line, placeId));
    start = network;
    carried = next;
    return resultOf(network, all, next);
  };
}

/**
 * What a typed topology makes of a network: each line on what the ones before it left. A line that is wrong makes
 * nothing, says why, and leaves the others standing. What is there already is not made again. New devices stand in the
 * given place; without one they are not placed yet.
 */
export const takeOverTyped = (network: Network, text: string, placeId: string | null): TypedResult =>
  typing(placeId)(network, text);
