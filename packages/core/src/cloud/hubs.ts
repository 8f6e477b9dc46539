import type { HubAttachment } from '../model/kinds/cloud/gateway.ts';
import type { Network } from '../model/network/network.ts';
import { compareIp, holds, parsePrefix, type IpAddress, type IpPrefix } from '../model/values/ip.ts';
import { byName } from '../model/values/order.ts';
import { blocksOf } from './inventory.ts';
import { destinationsOf } from './effectiveRoutes.ts';
import { learnedBy } from './learned.ts';

/** A route of a router of the region: through one of its attachments, or nowhere. */
export interface HubRoute {
  prefix: IpPrefix;
  text: string;
  /** Null: dropped. */
  attachmentId: string | null;
  source: 'written' | 'learned';
  routeId: string | null;
}

export const attachmentsOf = (network: Network, hubId: string): HubAttachment[] =>
  network.find('hubAttachmentsByHub', hubId).sort(byName);

/** The prefixes that an attachment leads to; those behind other routers as far as they have not been passed yet. */
function behind(network: Network, attachment: HubAttachment, passed: ReadonlySet<string>): string[] {
  if (attachment.networkId !== null)
    return blocksOf(network, attachment.networkId).map(({ row }) => row.prefix);
  if (attachment.portId !== null)
    return learnedBy(network, attachment.hubId)
      .filter(({ portId }) => portId === null || portId === attachment.portId)
      .map(({ text }) => text);
  if (attachment.otherHubId === null || passed.has(attachment.otherHubId)) return [];
  const further = new Set([...passed, attachment.otherHubId]);
  return attachmentsOf(network, attachment.otherHubId)
    .filter(({ otherHubId }) => otherHubId !== attachment.hubId)
    .flatMap((one) => behind(network, one, further));
}

/** The routes of a table of a router of the region, each prefix once, written before learned; in order of prefix. */
export function hubRoutes(network: Network, tableId: string): HubRoute[] {
  const table = network.get('routeTable', tableId);
  const { hubId } = table ?? { hubId: null };
  if (table === null || hubId === null) return [];
  const found = new Map<string, HubRoute>();
  for (const route of network.find('cloudRoutesByTable', tableId))
    for (const text of destinationsOf(network, route)) {
      const prefix = parsePrefix(text);
      const attachment = network.get('hubAttachment', route.attachmentId);
      if (prefix === null || (!route.discard && attachment?.hubId !== hubId)) continue;
      found.set(text, {
        prefix,
        text,
        attachmentId: attachment?.id ?? null,
        source: 'written',
        routeId: route.id,
      });
    }
  if (table.learns)
    for (const attachment of attachmentsOf(network, hubId))
      for (const text of behind(network, attachment, new Set([hubId]))) {
        const prefix = parsePrefix(text);
        if (prefix !== null && !found.has(text))
          found.set(text, { prefix, text, attachmentId: attachment.id, source: 'learned', routeId: null });
      }
  return [...found.values()].sort((a, b) => compareIp(a.prefix, b.prefix));
}

export type HubEnd =
  | { at: 'network'; networkId: string; hubs: string[] }
  | { at: 'port'; portId: string; hubs: string[] }
  | {
      at: 'nowhere';
      because: 'not attached' | 'no table' | 'no route' | 'dropped' | 'circle';
      hubs: string[];
    };

/** Where a router of the region sends what comes in by an attachment, over further routers where it leads to them. */
export function throughHub(
  network: Network,
  from: HubAttachment,
  ip: IpAddress,
  passed: readonly string[] = [],
): HubEnd {
  const hubs = [...passed, from.hubId];
  if (passed.includes(from.hubId)) return { at: 'nowhere', because: 'circle', hubs };
  if (from.tableId === null) return { at: 'nowhere', because: 'no table', hubs };
  let best: HubRoute | null = null;
  for (const route of hubRoutes(network, from.tableId))
    if (holds(route.prefix, ip) && (best === null || route.prefix.length > best.prefix.length)) best = route;
  if (best === null) return { at: 'nowhere', because: 'no route', hubs };
  const to = network.get('hubAttachment', best.attachmentId);
  if (to === null) return { at: 'nowhere', because: 'dropped', hubs };
  if (to.networkId !== null) return { at: 'network', networkId: to.networkId, hubs };
  if (to.portId !== null) return { at: 'port', portId: to.portId, hubs };
  const arrival = attachmentsOf(network, to.otherHubId ?? '').find(
    ({ otherHubId }) => otherHubId === from.hubId,
  );
  return arrival === undefined
    ? { at: 'nowhere', because: 'not attached', hubs }
    : throughHub(network, arrival, ip, hubs);
}

/** The attachment by which a network is joined to a router of the region. */
export const attachmentFor = (network: Network, hubId: string, networkId: string): HubAttachment | null =>
  network.find('hubAttachmentsByNetwork', networkId).find((one) => one.hubId === hubId) ?? null;
