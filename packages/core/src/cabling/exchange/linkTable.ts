import { create, type Change } from '../../change/change.ts';
import { blankDevice, type Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Network } from '../../model/network/network.ts';
import { portsOf } from '../../model/network/ports.ts';
import { newId } from '../../model/values/ids.ts';
import { roleOfName } from '../../model/values/roleWords.ts';
import { portRange } from '../commands/portRange.ts';
import { grownPort, growsPorts } from '../grownPort.ts';
import type { CableColumns } from './cableColumns.ts';
import { endIn, partsOfEnd } from './cableEnds.ts';

/** What a table of links names that is not there yet, and the network with it. */
export interface LinksMade {
  network: Network;
  devices: ReadonlyMap<string, Device>;
  ports: ReadonlyMap<string, Port>;
}

interface NamedEnd {
  device: string;
  port: string;
}

function namedEnd(columns: CableColumns, cells: readonly string[], side: 'a' | 'b'): NamedEnd | null {
  const end = endIn(columns, (field) => cells[columns[field] ?? -1]?.trim() ?? '', side);
  if (end === undefined) return null;
  const parts = 'whole' in end ? partsOfEnd(end.whole) : end;
  return parts === null || parts.device === '' || parts.port === '' ? null : parts;
}

/** Devices and ports of a table taken up one after the other. */
class Making {
  readonly devices = new Map<string, Device>();
  readonly ports = new Map<string, Port>();
  private readonly known = new Map<string, Device>();
  private readonly byPort = new Map<string, Port>();
  /** How many ports each device has been given. */
  private readonly given = new Map<string, number>();

  constructor(
    private readonly network: Network,
    private readonly placeId: string | null,
  ) {}

  /** What a device is that is not there: of the role that its name begins with; its model is not known. */
  private device(name: string): Device {
    const key = name.toLowerCase();
    const found = this.known.get(key) ?? this.network.findOne('deviceByName', key);
    if (found !== null) return found;
    const made: Device = {
      ...blankDevice,
      id: newId(),
      name,
      role: roleOfName(name),
      placeId: this.placeId,
    };
    this.known.set(key, made);
    this.devices.set(made.id, made);
    return made;
  }

  /** The port of an end: found, or made where nobody counted the ports of its device. */
  private port(end: NamedEnd, far: Port | null): Port | null {
    const device = this.device(end.device);
    const isNew = this.devices.has(device.id);
    const key = `${device.id}:${end.port.toLowerCase()}`;
    const found = this.byPort.get(key) ?? (isNew ? null : this.network.findOne('portByName', key));
    if (found !== null) return found;
    if (!isNew && (!growsPorts(this.network, device) || portRange(this.network, device, end.port).ok))
      return null;
    const last = isNew ? [] : portsOf(this.network, device.id).map((one) => one.ordinal);
    const grown = this.given.get(device.id) ?? 0;
    this.given.set(device.id, grown + 1);
    const port: Port = {
      ...grownPort(this.network, device, 'data', { far, name: end.port, role: 'network' }),
      ordinal: Math.max(-1, ...last) + 1 + grown,
    };
    this.byPort.set(key, port);
    this.ports.set(port.id, port);
    return port;
  }

  take(a: NamedEnd | null, b: NamedEnd | null): void {
    if (a === null && b === null) return;
    const known = a === null ? null : this.port(a, null);
    if (b !== null) this.port(b, known);
  }
}

/** Takes up the devices and ports that the rows of a table name and that are not there yet. */
export function linksToMake(
  network: Network,
  rows: readonly (readonly string[])[],
  columns: CableColumns,
  placeId: string | null,
): LinksMade {
  const making = new Making(network, placeId);
  for (const cells of rows) making.take(namedEnd(columns, cells, 'a'), namedEnd(columns, cells, 'b'));
  const draft = network.draft();
  for (const device of making.devices.values()) draft.put('device', device);
  for (const port of making.ports.values()) draft.put('port', port);
  return { network: draft.finish(), devices: making.devices, ports: making.ports };
}

/** The changes that make what these ports need: themselves, and the devices that they are on. */
export function changesForPorts({ devices, ports }: LinksMade, used: Iterable<string>): Change[] {
  const wanted = [...new Set(used)].flatMap((id) => ports.get(id) ?? []);
  const on = new Set(wanted.map((port) => port.deviceId));
  return [
    ...[...devices.values()].filter((device) => on.has(device.id)).map((device) => create('device', device)),
    ...wanted.map((port) => create('port', port)),
  ];
}
