import { derived, keptOnPaper } from '../model/network/derived.ts';
import { formatIp, holds, parseIp, sizeOf, type IpAddress, type IpPrefix } from '../model/values/ip.ts';
import type { Redundancy } from '../model/kinds/logical/routing.ts';
import type { Network } from '../model/network/network.ts';
import { subnetOf } from './subnet.ts';

/** An address that routers share (VRRP, RFC 9568), with the parts of those that share it. */
export interface Virtual {
  vrfId: string | null;
  address: IpAddress;
  parts: Redundancy[];
}

/**
 * The VRF of a shared address: that of the address of its port whose subnet it is in, otherwise that of the port.
 */
export function vrfOfVirtual(network: Network, part: Redundancy): string | null {
  const address = parseIp(part.virtual);
  const around = network.find('addressesByPort', part.portId).find((row) => {
    const subnet = subnetOf(row);
    return address !== null && subnet !== null && subnet.family === address.family && holds(subnet, address);
  });
  return around === undefined ? (network.get('port', part.portId)?.vrfId ?? null) : around.vrfId;
}

/** All shared addresses, each once in its VRF, in order of address. */
export const virtualsOf: (network: Network) => readonly Virtual[] = derived((network) => {
  const found = new Map<string, Virtual>();
  for (const part of network.all('redundancy')) {
    const address = parseIp(part.virtual);
    if (address === null) continue;
    const vrfId = vrfOfVirtual(network, part);
    const key = `${vrfId ?? ''} ${formatIp(address)}`;
    const one = found.get(key) ?? { vrfId, address, parts: [] };
    one.parts.push(part);
    found.set(key, one);
  }
  return [...found.values()].sort((a, b) =>
    a.address.value < b.address.value ? -1 : a.address.value > b.address.value ? 1 : 0,
  );
}, keptOnPaper);

/** The shared addresses of a VRF inside a prefix. */
export function virtualsIn(network: Network, vrfId: string | null, prefix: IpPrefix): Virtual[] {
  const list = virtualsOf(network);
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((list[middle]?.address.value ?? 0n) < prefix.value) low = middle + 1;
    else high = middle;
  }
  const found: Virtual[] = [];
  const end = prefix.value + sizeOf(prefix);
  for (let one = list[low]; one !== undefined && one.address.value < end; one = list[++low])
    if (one.vrfId === vrfId && one.address.family === prefix.family) found.push(one);
  return found;
}
