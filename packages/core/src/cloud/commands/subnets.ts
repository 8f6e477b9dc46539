import { create, update, type Change } from '../../change/change.ts';
import { judged, refuse } from '../../commands/attempt.ts';
import { prefixTree } from '../../addressing/plan.ts';
import { blankCloudSubnet, type CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import { blankCloudTable, type CloudTable } from '../../model/kinds/cloud/routeTable.ts';
import {
  blankDnsRecord,
  type DnsRecord,
  type DnsZone,
  type RecordType,
} from '../../model/kinds/cloud/dns.ts';
import { blankPrefix } from '../../model/kinds/logical/prefix.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import { newId } from '../../model/values/ids.ts';
import { formatPrefix, holds, readPrefix } from '../../model/values/ip.ts';
import { profileAround } from '../../model/network/cloudPlaces.ts';
import type { Network } from '../../model/network/network.ts';
import { byName } from '../../model/values/order.ts';
import { blocksOf, vrfOf } from '../inventory.ts';
import { lengthFor } from './cutBlock.ts';
import type { Made } from './places.ts';

/** The next free prefix for so many hosts in the IPv4 blocks of a network; null where there is none. */
export function freeInBlocks(network: Network, networkId: string, hosts: number): string | null {
  const length = lengthFor(profileAround(network, networkId), hosts);
  const tree = prefixTree(network, vrfOf(network, networkId));
  for (const { prefix } of blocksOf(network, networkId)) {
    if (prefix.family !== 4 || length < prefix.length) continue;
    const found = tree.nextFree(prefix, length);
    if (found !== null) return formatPrefix(found);
  }
  return null;
}

/** A subnet of a network: in a zone or the region, with a prefix of its own, tied to a table. */
export function addSubnet(
  network: Network,
  place: Place,
  wish: { name: string; zoneId: string | null; prefix: string; routeTableId: string | null },
): Made<{ subnet: CloudSubnet }> {
  const read = readPrefix(wish.prefix.trim());
  if (!read.ok) return refuse(`“${wish.prefix.trim()}” ${read.reason}.`);
  const vrfId = vrfOf(network, place.id);
  if (vrfId === null)
    return refuse(`Nobody has said which VRF ${place.name} is in. Say it in its record first.`);
  const around = prefixTree(network, vrfId).around(read.prefix);
  const taken = around
    .flatMap(({ ids }) => ids.flatMap((id) => network.get('prefix', id) ?? []))
    .find(({ role }) => role !== 'pool');
  if (taken !== undefined)
    return refuse(`${formatPrefix(read.prefix)} lies in ${taken.prefix}, which is used. Choose free space.`);
  for (const { ids } of prefixTree(network, vrfId).inside(read.prefix)) {
    const row = network.get('prefix', ids[0] ?? null);
    if (row !== null)
      return refuse(`${formatPrefix(read.prefix)} holds ${row.prefix}, which is used. Choose free space.`);
  }
  const prefix = {
    ...blankPrefix,
    ...{ id: newId(), prefix: formatPrefix(read.prefix), vrfId, placeId: place.id, name: wish.name.trim() },
  };
  const subnet: CloudSubnet = {
    ...blankCloudSubnet,
    ...{ id: newId(), placeId: place.id, name: wish.name.trim(), zoneId: wish.zoneId },
    ...(read.prefix.family === 4 ? { prefixId: prefix.id } : { v6PrefixId: prefix.id }),
    routeTableId: wish.routeTableId,
  };
  const attempt = judged(
    network,
    [create('prefix', prefix), create('cloudSubnet', subnet)],
    `Added the subnet ${subnet.name} to ${place.name}`,
  );
  return attempt.ok ? { ...attempt, subnet } : attempt;
}

/** A further block of a network, on nothing that it has. */
export function addBlock(network: Network, place: Place, text: string): Made<{ prefixId: string }> {
  const read = readPrefix(text.trim());
  if (!read.ok) return refuse(`“${text.trim()}” ${read.reason}.`);
  const vrfId = vrfOf(network, place.id);
  const same = blocksOf(network, place.id).find(({ prefix }) => holds(prefix, read.prefix));
  if (same !== undefined)
    return refuse(
      `${formatPrefix(read.prefix)} lies in ${same.row.prefix}, which ${place.name} has already.`,
    );
  const row = {
    ...blankPrefix,
    ...{
      id: newId(),
      prefix: formatPrefix(read.prefix),
      vrfId,
      role: 'pool' as const,
      placeId: place.id,
      name: place.name,
    },
  };
  const attempt = judged(network, [create('prefix', row)], `Added the block ${row.prefix} to ${place.name}`);
  return attempt.ok ? { ...attempt, prefixId: row.id } : attempt;
}

/** A route table of a network. */
export function addTable(network: Network, place: Place, name: string): Made<{ table: CloudTable }> {
  const table: CloudTable = { ...blankCloudTable, id: newId(), placeId: place.id, name: name.trim() };
  const attempt = judged(
    network,
    [create('routeTable', table)],
    `Added the route table ${table.name} to ${place.name}`,
  );
  return attempt.ok ? { ...attempt, table } : attempt;
}

/** The zones of names that are seen in a network: those tied to it, and public ones; by name. */
export const zonesSeenIn = (network: Network, networkId: string): DnsZone[] => {
  const tied = new Set(network.find('zoneUsesByNetwork', networkId).map(({ zoneId }) => zoneId));
  return [...network.all('dnsZone')].filter(({ id, isPrivate }) => !isPrivate || tied.has(id)).sort(byName);
};

/** A zone of names: a private one is tied to the network. */
export function addZone(
  network: Network,
  place: Place,
  wish: { name: string; isPrivate: boolean },
): Made<{ zone: DnsZone }> {
  const zone: DnsZone = {
    ...{ id: newId(), name: wish.name.trim().toLowerCase().replace(/\.$/, ''), isPrivate: wish.isPrivate },
    ...{ ttlS: 3600, labels: {}, notes: null },
  };
  const changes: Change[] = [create('dnsZone', zone)];
  if (zone.isPrivate)
    changes.push(create('dnsZoneUse', { id: newId(), zoneId: zone.id, networkId: place.id }));
  const attempt = judged(network, changes, `Added the zone ${zone.name}`);
  return attempt.ok ? { ...attempt, zone } : attempt;
}

/** A record of a zone. */
export function addRecord(
  network: Network,
  zone: DnsZone,
  wish: { name: string; type: RecordType; value: string },
): Made<{ record: DnsRecord }> {
  const record: DnsRecord = { ...blankDnsRecord, ...wish, id: newId(), zoneId: zone.id };
  const attempt = judged(
    network,
    [create('dnsRecord', record)],
    `Added ${record.name} ${record.type} to ${zone.name}`,
  );
  return attempt.ok ? { ...attempt, record } : attempt;
}

/** Lets a table take in what gateways bring, or not. */
export const setLearns = (network: Network, table: CloudTable, learns: boolean) =>
  judged(
    network,
    [update('routeTable', table, { learns })],
    `${learns ? 'Let' : 'Kept'} ${table.name} ${learns ? 'take in' : 'from taking in'} what gateways bring`,
  );
