import { compareNames } from '../../model/values/order.ts';
import type { ObservedAccount } from './observed.ts';

/** What is compared, in the order in which one needs the other. */
export const differenceSorts = [
  'network',
  'list',
  'table',
  'rule set',
  'subnet',
  'gateway',
  'peering',
  'instance',
  'interface',
  'route',
  'rule',
  'public address',
  'target',
  'zone',
  'record',
  'label',
] as const;
export type DifferenceSort = (typeof differenceSorts)[number];

/** One thing by what it is called, and what is said of it, as text. */
export interface Thing {
  sort: DifferenceSort;
  /** By which it is found on either side: names, never ids. */
  key: string;
  facts: Readonly<Record<string, string>>;
}

const yes = (value: boolean): string => (value ? 'yes' : 'no');
const many = (texts: readonly string[]): string => [...texts].sort(compareNames).join(', ');

/** An account as things by name. What names something that is not there says `unknown`. */
export function thingsOf(account: ObservedAccount): Map<string, Thing> {
  const found = new Map<string, Thing>();
  const add = (sort: DifferenceSort, key: string, facts: Thing['facts']): void => {
    // Two of one name: the second is told apart by its number, on both sides alike.
    let id = `${sort} ${key}`;
    for (let number = 2; found.has(id); number++) id = `${sort} ${key} (${number})`;
    found.set(id, { sort, key: id.slice(sort.length + 1), facts });
  };
  const byId = <T extends { id: string }>(rows: readonly T[]): Map<string, T> =>
    new Map(rows.map((row) => [row.id, row]));
  const nets = byId(account.networks);
  const netName = (id: string | null): string => (id === null ? '' : (nets.get(id)?.name ?? 'unknown'));
  const qualified = (row: { name: string; networkId: string } | undefined): string =>
    row === undefined ? 'unknown/unknown' : `${netName(row.networkId)}/${row.name}`;
  const tables = byId(account.routeTables);
  const sets = byId(account.ruleSets);
  const lists = byId(account.prefixLists);
  const gateways = byId(account.gateways);
  const peerings = byId(account.peerings);
  const instances = byId(account.instances);
  const nics = byId(account.interfaces);
  for (const { name, region, blocks } of account.networks)
    add('network', name, { region, blocks: blocks.join(', ') });
  for (const { name, prefixes } of account.prefixLists) add('list', name, { prefixes: many(prefixes) });
  for (const table of account.routeTables) add('table', qualified(table), {});
  for (const set of account.ruleSets)
    add('rule set', qualified(set), { remembers: yes(set.remembers), 'in order': yes(set.ordered) });
  for (const subnet of account.subnets)
    add('subnet', qualified(subnet), {
      zone: subnet.zone ?? '',
      prefix: subnet.prefix ?? '',
      'IPv6 prefix': subnet.v6Prefix ?? '',
      'route table': subnet.routeTableId === null ? '' : (tables.get(subnet.routeTableId)?.name ?? 'unknown'),
    });
  for (const { name, networkId, region, direction, translates } of account.gateways)
    add('gateway', name, { network: netName(networkId), region, direction, translates: yes(translates) });
  for (const peering of account.peerings)
    add('peering', peering.name, {
      between: many([netName(peering.aNetworkId), netName(peering.bNetworkId)]),
      'accepted by': many([
        ...(peering.aAccepted ? [netName(peering.aNetworkId)] : []),
        ...(peering.bAccepted ? [netName(peering.bNetworkId)] : []),
      ]),
    });
  for (const { name, networkId, region, role, size, running } of account.instances)
    add('instance', name, {
      ...{ network: netName(networkId), region, role, size: size ?? '' },
      running: yes(running),
    });
  for (const nic of account.interfaces)
    add('interface', `${instances.get(nic.instanceId)?.name ?? 'unknown'}:${nic.name}`, {
      network: netName(nic.networkId),
      addresses: many(nic.addresses),
      'rule sets': many(nic.ruleSetIds.map((id) => sets.get(id)?.name ?? 'unknown')),
    });
  const through = ({ through: by, throughId }: ObservedAccount['routes'][number]): string => {
    if (by === 'nowhere') return 'nowhere';
    if (throughId === null) return 'unknown';
    if (by === 'gateway') return `gateway ${gateways.get(throughId)?.name ?? 'unknown'}`;
    if (by === 'peering') return `peering ${peerings.get(throughId)?.name ?? 'unknown'}`;
    const nic = nics.get(throughId);
    return `interface ${instances.get(nic?.instanceId ?? '')?.name ?? 'unknown'}:${nic?.name ?? ''}`;
  };
  for (const route of account.routes) {
    const { prefix, prefixListId } = route;
    const to = prefix ?? `list ${lists.get(prefixListId ?? '')?.name ?? 'unknown'}`;
    add('route', `${qualified(tables.get(route.routeTableId))} ${to}`, { through: through(route) });
  }
  const peerOf = (rule: ObservedAccount['rules'][number]): string => {
    if (rule.prefix !== null) return rule.prefix;
    if (rule.prefixListId !== null) return `list ${lists.get(rule.prefixListId)?.name ?? 'unknown'}`;
    if (rule.peerSetId !== null) return `members of ${sets.get(rule.peerSetId)?.name ?? 'unknown'}`;
    return 'everybody';
  };
  for (const rule of [...account.rules].sort((a, b) => a.position - b.position)) {
    const set = sets.get(rule.ruleSetId);
    const { direction, verdict, protocol, ports } = rule;
    const what = [direction, verdict, protocol, ...(ports === null ? [] : [ports]), peerOf(rule)].join(' ');
    // Where the first that fits decides, the place is part of what a rule says.
    add(
      'rule',
      `${qualified(set)} ${what}`,
      set?.ordered === true ? { position: String(rule.position) } : {},
    );
  }
  const standsFor = ({ interfaceId, gatewayId }: ObservedAccount['publicAddresses'][number]): string => {
    if (gatewayId !== null) return `gateway ${gateways.get(gatewayId)?.name ?? 'unknown'}`;
    const nic = nics.get(interfaceId ?? '');
    if (interfaceId === null) return '';
    return `${instances.get(nic?.instanceId ?? '')?.name ?? 'unknown'}:${nic?.name ?? ''}`;
  };
  for (const row of account.publicAddresses)
    add('public address', row.address, {
      ...{ region: row.region ?? '', stays: row.stays, 'stands for': standsFor(row) },
    });
  for (const { balancerId, instanceId, protocol, listens, port } of account.targets) {
    const [balancer, target] = [balancerId, instanceId].map((id) => instances.get(id)?.name ?? 'unknown');
    add('target', `${balancer ?? ''} ${protocol} ${listens} to ${target ?? ''}`, { port: String(port) });
  }
  const zones = byId(account.zones);
  const subnets = byId(account.subnets);
  const addresses = byId(account.publicAddresses);
  for (const zone of account.zones)
    add('zone', zoneKey(zone), { 'seen in': many(zone.networkIds.map((id) => netName(id))) });
  for (const { zoneId, name, type, value, ttlS } of account.records) {
    const zone = zones.get(zoneId);
    add('record', `${zone === undefined ? 'unknown' : zoneKey(zone)} ${name} ${type} ${value}`, {
      'time to live': ttlS === null ? '' : String(ttlS),
    });
  }
  const labelled = {
    networks: ['network', (id: string) => nets.get(id)?.name],
    subnets: ['subnet', (id: string) => qualified(subnets.get(id))],
    gateways: ['gateway', (id: string) => gateways.get(id)?.name],
    instances: ['instance', (id: string) => instances.get(id)?.name],
    ruleSets: ['rule set', (id: string) => qualified(sets.get(id))],
    publicAddresses: ['public address', (id: string) => addresses.get(id)?.address],
  } as const;
  for (const { of, ofId, key, value } of account.labels) {
    const [sort, nameIn] = labelled[of];
    add('label', `${sort} ${nameIn(ofId) ?? 'unknown'}${labelMark}${key}`, { value });
  }
  return found;
}

/** Between what a label is on and its key. */
export const labelMark = ' # ';
/** A zone by its name; a private one says so, for there may be a public one of the same name. */
export const zoneKey = ({ name, isPrivate }: { name: string; isPrivate: boolean }): string =>
  isPrivate ? `${name} (private)` : name;

export interface Difference {
  /** The sort and the key: the same for as long as the difference is there. */
  id: string;
  sort: DifferenceSort;
  key: string;
  /** Only in the account, only documented, or in both and otherwise. */
  how: 'not documented' | 'not there' | 'different';
  facts: readonly { name: string; documented: string; observed: string }[];
}

/** Where what is documented of an account and what was read of it differ, in the order in which one needs the other. */
export function differencesOf(documented: ObservedAccount, observed: ObservedAccount): Difference[] {
  const [ours, theirs] = [thingsOf(documented), thingsOf(observed)];
  const found: Difference[] = [];
  for (const id of new Set([...ours.keys(), ...theirs.keys()])) {
    const [own, other] = [ours.get(id), theirs.get(id)];
    const thing = own ?? other;
    if (thing === undefined) continue;
    const names = [...new Set([...Object.keys(own?.facts ?? {}), ...Object.keys(other?.facts ?? {})])];
    const facts = names
      .map((name) => ({ name, documented: own?.facts[name] ?? '', observed: other?.facts[name] ?? '' }))
      .filter((one) => one.documented !== one.observed);
    const how = own === undefined ? 'not documented' : other === undefined ? 'not there' : 'different';
    if (how !== 'different' || facts.length > 0)
      found.push({ id, sort: thing.sort, key: thing.key, how, facts });
  }
  const gone = new Set(found.filter(({ how }) => how === 'not there').map(({ id }) => id));
  /** What goes with its owner is not told by itself: an owner that is retired keeps it. */
  const goesAlong = ({ sort, key, how }: Difference): boolean => {
    if (how !== 'not there') return false;
    if (sort === 'label') return gone.has(key.slice(0, key.lastIndexOf(labelMark)));
    const ends = sort === 'target' ? (/^(.+) \S+ \d+ to (.+)$/.exec(key)?.slice(1) ?? []) : [];
    return ends.some((name) => gone.has(`instance ${name}`));
  };
  const rank = ({ sort }: Difference): number => differenceSorts.indexOf(sort);
  return found
    .filter((one) => !goesAlong(one))
    .sort((a, b) => rank(a) - rank(b) || compareNames(a.key, b.key));
}
