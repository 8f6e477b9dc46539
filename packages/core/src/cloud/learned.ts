import type { Network } from '../model/network/network.ts';
import { announcedTo, portTowards } from '../routing/announced.ts';
import { compareIp, parsePrefix, type IpPrefix } from '../model/values/ip.ts';
import { gatewayOf } from './inventory.ts';

/** A prefix that a gateway knows from its far side: by BGP, by a route of its own, or because somebody noted it. */
export interface LearnedPrefix {
  prefix: IpPrefix;
  text: string;
  by: 'BGP' | 'static' | 'noted';
  /** The tunnel or line it came over, where that is known. */
  portId: string | null;
}

/** All that a gateway knows of its far side, each prefix once, in order. */
export function learnedBy(network: Network, deviceId: string): LearnedPrefix[] {
  const statics = network.find('routesByDevice', deviceId).flatMap((route): LearnedPrefix[] => {
    const prefix = route.discard ? null : parsePrefix(route.prefix);
    const portId = route.viaPortId ?? (route.via === null ? null : portTowards(network, deviceId, route.via));
    return prefix === null ? [] : [{ prefix, text: route.prefix, by: 'static', portId }];
  });
  const told = announcedTo(network, deviceId).map(({ prefix, text, portId }): LearnedPrefix => ({
    prefix,
    text,
    by: 'BGP',
    portId,
  }));
  const noted = (gatewayOf(network, deviceId)?.gateway.learned ?? []).flatMap((text): LearnedPrefix[] => {
    const prefix = parsePrefix(text);
    return prefix === null ? [] : [{ prefix, text, by: 'noted', portId: null }];
  });
  const found = new Map<string, LearnedPrefix>();
  for (const one of [...statics, ...told, ...noted]) if (!found.has(one.text)) found.set(one.text, one);
  return [...found.values()].sort((a, b) => compareIp(a.prefix, b.prefix));
}
