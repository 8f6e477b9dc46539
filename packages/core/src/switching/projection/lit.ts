import type { Vlan } from '../../model/kinds/logical/vlan.ts';
import type { Network } from '../../model/network/network.ts';
import { setPort } from '../bridges.ts';
import type { Layer2 } from '../layer2.ts';
import { reachOf } from '../reach.ts';
import { treeOfPart } from '../spanningTree.ts';

/** What a chosen VLAN lights up on a switching sheet. */
export interface Lit {
  devices: ReadonlySet<string>;
  /** Keys of the links that carry it. */
  links: ReadonlySet<string>;
  /** Of links that its spanning tree blocks: the key of the port that forwards nothing. */
  blocked: ReadonlyMap<string, string>;
}

/** Everything a VLAN reaches, in all its parts; null where none is chosen. */
export function litBy(network: Network, layer2: Layer2, vlan: Vlan | null): Lit | null {
  if (vlan === null) return null;
  const devices = new Set<string>();
  const links = new Set<string>();
  const blocked = new Map<string, string>();
  for (const part of reachOf(layer2, vlan).islands) {
    for (const { bridge } of part.bridges) for (const device of bridge.devices) devices.add(device.id);
    for (const port of part.listeners) devices.add(port.deviceId);
    const carrying = new Set(part.ports.map(({ at }) => at.key));
    for (const link of layer2.links)
      if (carrying.has(link.a.key) && carrying.has(link.b.key)) links.add(link.key);
    for (const { at } of part.ports)
      for (const member of at.members) {
        const far = network.get('port', layer2.bridging.farOf(member.id));
        if (far === null || layer2.bridging.byMember.has(far.id)) continue;
        const set = setPort(network, far).id;
        if (part.listeners.some((port) => port.id === set || port.parentId === set))
          links.add([at.key, set].sort().join(' '));
      }
    for (const [key, port] of treeOfPart(layer2, part)?.blocked ?? []) blocked.set(key, port.key);
  }
  return { devices, links, blocked };
}
