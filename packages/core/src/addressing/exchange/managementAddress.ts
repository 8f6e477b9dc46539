import { create, update, type Change } from '../../change/change.ts';
import { grownPort, growing } from '../../cabling/grownPort.ts';
import { Wrong } from '../../exchange/listRows.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { blankAddress, type Address } from '../../model/kinds/logical/address.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import { blankPort, type Port } from '../../model/kinds/lines/port.ts';
import { bitsOf, formatIp, parseInterface, parsePrefix, type IpAddress } from '../../model/values/ip.ts';
import { roles } from '../../model/values/roles.ts';
import { newId } from '../../model/values/ids.ts';
import { macOf } from '../../model/values/mac.ts';
import type { Network } from '../../model/network/network.ts';
import { addressesOf, carriesData, managementPort } from '../management.ts';
import { prefixOf } from '../plan.ts';

/** A device as a list leaves it, with the ports it has then. */
export interface Managed {
  device: Device;
  model: CatalogueModel | null;
  ports: readonly Port[];
  /** The device is new: its ports are still to be made. */
  fresh: boolean;
  /** The VLAN whose interface a switch is managed by where nothing else says it. */
  managementVid: number | null;
}

/** What a list says of the network of a device: the changes for it, and the MAC address of one of its new ports. */
export interface Net {
  changes: Change[];
  /** In words; empty where nothing differs. */
  said: string;
  portId: string | null;
  mac: string | null;
  /** What no port could be found for, and is kept as own fields. */
  kept: Readonly<Record<string, string>>;
  /** An address without a port: the number of a management VLAN would give it one. */
  wantsVlan: boolean;
}
export const noNet: Net = { changes: [], said: '', portId: null, mac: null, kept: {}, wantsVlan: false };

/** Own fields in which is kept what no port could be found for. */
export const keptAs = { address: 'Management address', mac: 'MAC address' } as const;

const hostOf = (row: Address): string => row.address.slice(0, row.address.indexOf('/'));

/** Whether a device can be managed by the interface of a VLAN: what forwards or protects, with several ports. */
const takesVlan = ({ device, ports }: Managed): boolean =>
  ['forwarding', 'protection'].includes(roles[device.role].family) && ports.filter(carriesData).length > 1;

/** The subnet that holds an address, in the one table that has such; null where none has, or several have. */
function subnetAround(network: Network, address: IpAddress): Prefix | null {
  const vrfs = [null, ...[...network.all('vrf')].map((vrf) => vrf.id)];
  const around = vrfs.flatMap((vrfId) => {
    const prefix = prefixOf(network, vrfId, address);
    return prefix === null || prefix.role === 'pool' ? [] : [prefix];
  });
  return around.length === 1 ? (around[0] ?? null) : (around.find((one) => one.vrfId === null) ?? null);
}

/**
 * A port to be managed by that is not there yet: the interface of the VLAN that the address is in, or of the one that
 * is said; one that is grown where nobody counted the ports. Null: nothing tells which.
 */
function newPortFor(network: Network, managed: Managed, subnet: Prefix | null): Port | null {
  const { device, model, ports, managementVid } = managed;
  const vlan = network.get('vlan', subnet?.vlanId ?? null);
  const vid = takesVlan(managed) ? (vlan?.vid ?? managementVid) : null;
  if (vid !== null) {
    const there = ports.find((port) => port.form === 'vlan' && port.vid === vid);
    const name = `vlan${vid}`;
    const vrfId = subnet?.vrfId ?? null;
    return there ?? { ...blankPort, id: newId(), deviceId: device.id, name, form: 'vlan', vid, vrfId };
  }
  if ((model !== null && model.maker !== null) || !growing(device.role)) return null;
  const port = grownPort(network, device, 'data', { far: null, name: 'mgmt', role: 'management' });
  return { ...port, ordinal: Math.max(-1, ...ports.map((one) => one.ordinal)) + 1 };
}

interface Placed {
  port: Port;
  changes: Change[];
  said: string;
}

/** The length of an address that is written without one: that of its subnet. Null: it is not known. */
const lengthFor = (subnet: Prefix | null, { family }: IpAddress, port: Port): number | null =>
  parsePrefix(subnet?.prefix ?? '')?.length ?? (port.form === 'loopback' ? bitsOf(family) : null);

/** Puts an address on the port that a device is managed by; a text says why it can be put on none. */
function placed(
  network: Network,
  managed: Managed,
  text: string,
): Placed | { why: string; wantsVlan: boolean } {
  const read = parseInterface(text);
  if (read === null) throw new Wrong(`“${text}” is not an address such as 10.40.8.1 or 10.40.8.1/24`);
  const host = formatIp(read.address);
  const given = text.includes('/') ? `${host}/${read.length}` : null;
  const own = new Map(managed.ports.map((port) => [port.id, port]));
  const holders = network.find('addressesByHost', host);
  const mine = holders.find((row) => row.portId !== null && own.has(row.portId));
  const there =
    mine === undefined ? managementPort(network, managed.ports) : (own.get(mine.portId ?? '') ?? null);
  const subnet = subnetAround(network, read.address);
  const port = there ?? newPortFor(network, managed, subnet);
  if (port === null) return { why: 'none of its ports is for management', wantsVlan: takesVlan(managed) };
  const row = mine ?? (own.has(port.id) ? addressesOf(network, port.id)[0] : undefined);
  const length = lengthFor(subnet, read.address, port);
  const vrfId = row?.vrfId ?? port.vrfId ?? subnet?.vrfId ?? null;
  const other = mine === undefined ? holders.find((one) => one.vrfId === vrfId) : undefined;
  if (other !== undefined) throw new Wrong(`${host} is taken: ${ownerOf(network, other.portId)}`);
  const whole = given ?? mine?.address ?? (length === null ? null : `${host}/${length}`);
  if (whole === null) return { why: 'no subnet holds it, so that its length is not known', wantsVlan: false };
  const made = own.has(port.id) ? [] : [create('port', port)];
  if (row === undefined) {
    const address = { ...blankAddress, id: newId(), address: whole, vrfId, portId: port.id };
    return { port, said: host, changes: [...made, create('address', address)] };
  }
  const change = update('address', row, { address: whole });
  return {
    port,
    said: change === null ? '' : `management address ${hostOf(row)} → ${host}`,
    changes: change === null ? [] : [change],
  };
}

function ownerOf(network: Network, portId: string | null): string {
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  return device === null ? 'it is reserved' : `${device.name} ${port?.name ?? ''} has it`;
}

/** The port that a MAC address alone belongs to: the management port, else the only one that carries data. */
function macPort(ports: readonly Port[]): Port | null {
  const data = ports.filter(carriesData);
  return ports.find((port) => port.role === 'management') ?? (data.length === 1 ? (data[0] ?? null) : null);
}

/**
 * Takes over the address a device is managed by and its MAC address, each where it is given. A MAC address belongs to
 * the port of the address, else to the management port, else to the only one that carries data. What no port can be
 * found for is kept as it was said.
 */
export function netOf(
  network: Network,
  managed: Managed,
  { address, mac }: { address: string; mac: string },
): Net {
  const by = address === '' ? null : placed(network, managed, address);
  const on = by !== null && 'port' in by ? by : null;
  const kept: Record<string, string> = on === null && address !== '' ? { [keptAs.address]: address } : {};
  const parts = [on?.said ?? ''];
  if (by !== null && 'why' in by) parts.push(`${address} is kept as an own field: ${by.why}`);
  const net: Net = {
    ...noNet,
    changes: on?.changes ?? [],
    kept,
    wantsVlan: by !== null && 'why' in by && by.wantsVlan,
  };
  const known = mac === '' ? null : macOf(mac);
  if (mac !== '' && known === null)
    throw new Wrong(`“${mac}” is not a MAC address such as 02:00:5e:00:53:01`);
  if (known !== null) {
    const port = on?.port.form === 'physical' ? on.port : macPort(managed.ports);
    if (port === null) {
      kept[keptAs.mac] = known;
      parts.push(`${known} is kept as an own field: it has several ports`);
    } else Object.assign(net, macOn(managed, port, known, net.changes, parts));
  }
  return { ...net, said: parts.filter((part) => part !== '').join(', ') };
}

/** The same with a MAC address put on a port: of a new device with the port, else as a change of it. */
function macOn(
  managed: Managed,
  port: Port,
  mac: string,
  changes: readonly Change[],
  parts: string[],
): Pick<Net, 'changes' | 'portId' | 'mac'> {
  const there = managed.ports.some((one) => one.id === port.id);
  const set = there && !managed.fresh ? update('port', port, { mac }) : null;
  if (managed.fresh || !there || set !== null) parts.push(mac);
  const made = changes.map((one) =>
    one.op === 'create' && one.kind === 'port' && one.id === port.id ? create('port', { ...port, mac }) : one,
  );
  return {
    changes: set === null ? made : [...made, set],
    portId: there && managed.fresh ? port.id : null,
    mac,
  };
}
