import { applyChanges } from '../../change/apply.ts';
import { create, remove, update, type Change } from '../../change/change.ts';
import { removal, type Subject } from '../../change/removal.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { blankCloudSubnet, type CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import { blankGateway } from '../../model/kinds/cloud/gateway.ts';
import { blankInstance } from '../../model/kinds/cloud/instance.ts';
import { blankPeering } from '../../model/kinds/cloud/peering.ts';
import { gatewayDirections, verdicts } from '../../model/kinds/cloud/providerProfile.ts';
import { protocols } from '../../model/kinds/cloud/ports.ts';
import { blankCloudRoute, blankCloudTable } from '../../model/kinds/cloud/routeTable.ts';
import { blankRuleSet, blankTrafficRule, ruleDirections } from '../../model/kinds/cloud/ruleSet.ts';
import { blankVirtualNetwork } from '../../model/kinds/cloud/virtualNetwork.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { blankDevice } from '../../model/kinds/equipment/device.ts';
import { blankPort, type Port } from '../../model/kinds/lines/port.ts';
import { blankAddress } from '../../model/kinds/logical/address.ts';
import { blankPrefix } from '../../model/kinds/logical/prefix.ts';
import { blankVrf } from '../../model/kinds/logical/vrf.ts';
import type { Kind } from '../../model/kinds.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import { childPlaces } from '../../model/network/places.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { blocksOf, networksIn, prefixesOf, vrfOf } from '../inventory.ts';
import { documentedAccount } from '../observed/documented.ts';
import { differencesOf, type Difference } from '../observed/differences.ts';
import { observedRoles, type ObservedAccount } from '../observed/observed.ts';
import { rulesOf } from '../rules/letsPass.ts';
import { newPlace } from './places.ts';

/** What stands in the way of taking one difference over. */
class Refused extends Error {}
const missing = (what: string, name: string): never => {
  throw new Refused(`${what} ${name} is not documented. Take that over first.`);
};
/** A word of a list, as an account told it. */
function oneOf<W extends string>(words: readonly W[], text: string, what: string): W {
  const found = words.find((word) => word === text);
  if (found === undefined) throw new Refused(`“${text}” is no ${what}.`);
  return found;
}

/** The model while difference after difference is taken over. */
class Taking {
  constructor(
    readonly network: Network,
    readonly accountId: string,
  ) {}

  /** Splits `network/name rest` at the first name of a network that it begins with. */
  inNetwork(key: string): { place: Place; rest: string } {
    const place = networksIn(this.network, this.accountId)
      .filter(({ name }) => key.startsWith(`${name}/`))
      .sort((a, b) => b.name.length - a.name.length)[0];
    if (place === undefined) return missing('The network', key.split('/')[0] ?? '');
    return { place, rest: key.slice(place.name.length + 1) };
  }
  networkNamed(name: string): Place {
    return (
      networksIn(this.network, this.accountId).find((one) => one.name === name) ??
      missing('The network', name)
    );
  }
  region(name: string): Place {
    return (
      childPlaces(this.network, this.accountId).find((one) => one.kind === 'region' && one.name === name) ??
      missing('The region', name)
    );
  }
  zone(place: Place, name: string): string | null {
    if (name === '') return null;
    const zone = childPlaces(this.network, place.parentId).find(
      (one) => one.kind === 'zone' && one.name === name,
    );
    return (zone ?? missing('The zone', name)).id;
  }
  table(place: Place, name: string) {
    return (
      this.network.find('routeTablesByNetwork', place.id).find((one) => one.name === name) ??
      missing('The route table', name)
    );
  }
  set(place: Place, name: string) {
    return (
      this.network.find('ruleSetsByNetwork', place.id).find((one) => one.name === name) ??
      missing('The rule set', name)
    );
  }
  list(name: string) {
    return [...this.network.all('prefixList')].find((one) => one.name === name) ?? missing('The list', name);
  }
  device(name: string): Device {
    return this.network.findOne('deviceByName', name) ?? missing('The device', name);
  }
  nic(key: string): { device: Device; port: Port } {
    const at = key.lastIndexOf(':');
    const device = this.device(key.slice(0, at));
    const name = key.slice(at + 1);
    const port = this.network.findOne('portByName', `${device.id}:${name}`);
    return { device, port: port ?? missing('The interface', key) };
  }

  /** A prefix of a network: that which is there, or a new one. */
  prefix(place: Place, text: string, name: string): { id: string | null; changes: Change[] } {
    if (text === '') return { id: null, changes: [] };
    const vrfId = vrfOf(this.network, place.id);
    const known = this.network
      .find('prefixesByPlace', place.id)
      .find((one) => one.prefix === text && one.role !== 'pool');
    if (known !== undefined) return { id: known.id, changes: [] };
    const id = newId();
    const row = { ...blankPrefix, ...{ id, prefix: text, vrfId, placeId: place.id, name } };
    return { id, changes: [create('prefix', row)] };
  }

  without(kind: Kind, id: string): Change[] {
    const subject: Subject = { kind, id };
    return removal(this.network, [subject]).changes;
  }
}

type Facts = Readonly<Record<string, string>>;
/** What taking over one difference of a sort comes to. */
interface Ways {
  added: (taking: Taking, key: string, facts: Facts) => (Change | null)[];
  changed: (taking: Taking, key: string, facts: Facts) => (Change | null)[];
  gone: (taking: Taking, key: string) => (Change | null)[];
}

const texts = (list: string): string[] => (list === '' ? [] : list.split(', '));

function blockChanges(
  taking: Taking,
  place: Place,
  vrfId: string | null,
  wanted: readonly string[],
): Change[] {
  const there = blocksOf(taking.network, place.id).map(({ row }) => row);
  return [
    ...there
      .filter(({ prefix }) => !wanted.includes(prefix))
      .flatMap(({ id }) => taking.without('prefix', id)),
    ...wanted
      .filter((prefix) => !there.some((row) => row.prefix === prefix))
      .map((prefix) =>
        create('prefix', {
          ...blankPrefix,
          ...{ id: newId(), prefix, vrfId, role: 'pool' as const, placeId: place.id, name: place.name },
        }),
      ),
  ];
}

function freeVrfName(network: Network, name: string): string {
  const taken = new Set([...network.all('vrf')].map((vrf) => vrf.name.toLowerCase()));
  if (!taken.has(name.toLowerCase())) return name;
  for (let number = 2; ; number++)
    if (!taken.has(`${name}-${number}`.toLowerCase())) return `${name}-${number}`;
}

function seat(
  taking: Taking,
  port: Port,
  vrfId: string | null,
  place: Place | null,
  facts: Facts,
): (Change | null)[] {
  const { network } = taking;
  const wanted = texts(facts['addresses'] ?? '');
  const there = network.find('addressesByPort', port.id);
  const sets =
    place === null ? [] : texts(facts['rule sets'] ?? '').map((name) => taking.set(place, name).id);
  const uses = network.find('ruleSetUsesByPort', port.id);
  return [
    ...there.filter(({ address }) => !wanted.includes(address)).map((row) => remove('address', row)),
    ...wanted
      .filter((address) => !there.some((row) => row.address === address))
      .map((address) => create('address', { ...blankAddress, id: newId(), address, vrfId, portId: port.id })),
    ...uses.filter(({ setId }) => !sets.includes(setId)).map((use) => remove('ruleSetUse', use)),
    ...sets
      .filter((setId) => !uses.some((use) => use.setId === setId))
      .map((setId) => create('ruleSetUse', { id: newId(), setId, portId: port.id })),
  ];
}

function targetOf(taking: Taking, text: string) {
  const none = { gatewayId: null, peeringId: null, portId: null, attachmentId: null, discard: false };
  if (text === 'nowhere') return { ...none, discard: true };
  const [by, ...rest] = text.split(' ');
  const name = rest.join(' ');
  if (by === 'gateway') return { ...none, gatewayId: taking.device(name).id };
  if (by === 'interface') return { ...none, portId: taking.nic(name).port.id };
  const peering = [...taking.network.all('peering')].find((one) => one.name === name);
  return { ...none, peeringId: (peering ?? missing('The peering', name)).id };
}

function routeParts(taking: Taking, key: string) {
  const { place, rest } = taking.inNetwork(key);
  const table = taking.network
    .find('routeTablesByNetwork', place.id)
    .filter(({ name }) => rest.startsWith(`${name} `))
    .sort((a, b) => b.name.length - a.name.length)[0];
  if (table === undefined) return missing('The route table', rest.split(' ')[0] ?? '');
  const to = rest.slice(table.name.length + 1);
  const list = to.startsWith('list ') ? taking.list(to.slice(5)) : null;
  return { table, prefix: list === null ? to : null, listId: list?.id ?? null };
}

function ruleParts(taking: Taking, key: string) {
  const { place, rest } = taking.inNetwork(key.replace(/ \(\d+\)$/, ''));
  const set = taking.network
    .find('ruleSetsByNetwork', place.id)
    .filter(({ name }) => rest.startsWith(`${name} `))
    .sort((a, b) => b.name.length - a.name.length)[0];
  if (set === undefined) return missing('The rule set', rest.split(' ')[0] ?? '');
  const [way = '', says = '', protocol = '', ...more] = rest.slice(set.name.length + 1).split(' ');
  const ported = /^[\d,-]+$/.test(more[0] ?? '');
  const peer = more.slice(ported ? 1 : 0).join(' ');
  return {
    set,
    row: {
      direction: oneOf(ruleDirections, way, 'direction'),
      verdict: oneOf(verdicts, says, 'verdict'),
      protocol: oneOf(protocols, protocol, 'protocol'),
      ports: ported ? (more[0] ?? null) : null,
      prefix: /[.:]/.test(peer) && peer.includes('/') && !peer.startsWith('list ') ? peer : null,
      listId: peer.startsWith('list ') ? taking.list(peer.slice(5)).id : null,
      peerSetId: peer.startsWith('members of ') ? taking.set(place, peer.slice(11)).id : null,
    },
  };
}

/** The rule of a set that says this; of several alike that of the number in the key. */
function ruleLike(taking: Taking, key: string) {
  const { set, row } = ruleParts(taking, key);
  const number = Number(/ \((\d+)\)$/.exec(key)?.[1] ?? 1);
  const alike = rulesOf(taking.network, set.id, row.direction).filter(
    (one) =>
      one.verdict === row.verdict &&
      one.protocol === row.protocol &&
      one.ports === row.ports &&
      one.prefix === row.prefix &&
      one.listId === row.listId &&
      one.peerSetId === row.peerSetId,
  );
  return alike[number - 1] ?? missing('The rule', key);
}

function instanceRows(taking: Taking, facts: Facts) {
  const place =
    (facts['network'] ?? '') === ''
      ? taking.region(facts['region'] ?? '')
      : taking.networkNamed(facts['network'] ?? '');
  return {
    device: { role: oneOf(observedRoles, facts['role'] ?? '', 'sort of instance'), placeId: place.id },
    instance: {
      size: (facts['size'] ?? '') === '' ? null : (facts['size'] ?? null),
      running: facts['running'] === 'yes',
    },
  };
}

const ways: Record<Difference['sort'], Ways> = {
  network: {
    added: (taking, key, facts) => {
      const region = taking.region(facts['region'] ?? '');
      const place = newPlace(key, 'network', region.id);
      const vrf = { ...blankVrf, id: newId(), name: freeVrfName(taking.network, key) };
      return [
        create('place', place),
        create('vrf', vrf),
        create('virtualNetwork', { ...blankVirtualNetwork, id: newId(), placeId: place.id, vrfId: vrf.id }),
        ...blockChanges(taking, place, vrf.id, texts(facts['blocks'] ?? '')),
      ];
    },
    changed: (taking, key, facts) => {
      const place = taking.networkNamed(key);
      return [
        update('place', place, { parentId: taking.region(facts['region'] ?? '').id }),
        ...blockChanges(taking, place, vrfOf(taking.network, place.id), texts(facts['blocks'] ?? '')),
      ];
    },
    gone: (taking, key) => taking.without('place', taking.networkNamed(key).id),
  },
  list: {
    added: (_taking, key, facts) => [
      create('prefixList', { id: newId(), name: key, prefixes: texts(facts['prefixes'] ?? ''), notes: null }),
    ],
    changed: (taking, key, facts) => [
      update('prefixList', taking.list(key), { prefixes: texts(facts['prefixes'] ?? '') }),
    ],
    gone: (taking, key) => taking.without('prefixList', taking.list(key).id),
  },
  table: {
    added: (taking, key) => {
      const { place, rest } = taking.inNetwork(key);
      return [create('routeTable', { ...blankCloudTable, id: newId(), placeId: place.id, name: rest })];
    },
    changed: () => [],
    gone: (taking, key) => {
      const { place, rest } = taking.inNetwork(key);
      return taking.without('routeTable', taking.table(place, rest).id);
    },
  },
  'rule set': {
    added: (taking, key, facts) => {
      const { place, rest } = taking.inNetwork(key);
      return [
        create('ruleSet', {
          ...blankRuleSet,
          ...{ id: newId(), placeId: place.id, name: rest },
          ...{ remembers: facts['remembers'] === 'yes', ordered: facts['in order'] === 'yes' },
        }),
      ];
    },
    changed: (taking, key, facts) => {
      const { place, rest } = taking.inNetwork(key);
      return [
        update('ruleSet', taking.set(place, rest), {
          ...{ remembers: facts['remembers'] === 'yes', ordered: facts['in order'] === 'yes' },
        }),
      ];
    },
    gone: (taking, key) => {
      const { place, rest } = taking.inNetwork(key);
      return taking.without('ruleSet', taking.set(place, rest).id);
    },
  },
  subnet: {
    added: (taking, key, facts) => subnetChanges(taking, key, facts, null),
    changed: (taking, key, facts) => subnetChanges(taking, key, facts, subnetAt(taking, key)),
    gone: (taking, key) => {
      const subnet = subnetAt(taking, key);
      return [
        ...taking.without('cloudSubnet', subnet.id),
        ...prefixesOf(taking.network, subnet).flatMap(({ row }) => taking.without('prefix', row.id)),
      ];
    },
  },
  gateway: {
    added: (taking, key, facts) => {
      const place = (facts['network'] ?? '') === '' ? null : taking.networkNamed(facts['network'] ?? '');
      const placeId = place?.id ?? taking.region(facts['region'] ?? '').id;
      const device: Device = { ...blankDevice, ...{ id: newId(), name: key, role: 'GW', placeId, units: 0 } };
      return [
        create('device', device),
        create('gateway', {
          ...blankGateway,
          ...{ id: newId(), deviceId: device.id, networkId: place?.id ?? null },
          direction: oneOf(gatewayDirections, facts['direction'] ?? '', 'direction'),
          translates: facts['translates'] === 'yes',
        }),
      ];
    },
    changed: (taking, key, facts) => {
      const gateway = taking.network.findOne('gatewayByDevice', taking.device(key).id);
      return gateway === null
        ? missing('The gateway', key)
        : [
            update('gateway', gateway, {
              networkId:
                (facts['network'] ?? '') === '' ? null : taking.networkNamed(facts['network'] ?? '').id,
              direction: oneOf(gatewayDirections, facts['direction'] ?? '', 'direction'),
              translates: facts['translates'] === 'yes',
            }),
          ];
    },
    gone: (taking, key) => [update('device', taking.device(key), { status: 'retired' })],
  },
  peering: {
    added: (taking, key, facts) => {
      const [a = '', b = ''] = texts(facts['between'] ?? '');
      const accepted = texts(facts['accepted by'] ?? '');
      return [
        create('peering', {
          ...blankPeering,
          ...{ id: newId(), name: key },
          ...{ aNetworkId: taking.networkNamed(a).id, bNetworkId: taking.networkNamed(b).id },
          ...{ aAccepted: accepted.includes(a), bAccepted: accepted.includes(b) },
        }),
      ];
    },
    changed: (taking, key, facts) => {
      const peering = [...taking.network.all('peering')].find(({ name }) => name === key);
      if (peering === undefined) return missing('The peering', key);
      const accepted = texts(facts['accepted by'] ?? '');
      const by = (id: string): boolean => accepted.includes(taking.network.get('place', id)?.name ?? '');
      const [a = '', b = ''] = texts(facts['between'] ?? '');
      const ends = new Set([peering.aNetworkId, peering.bNetworkId]);
      if (![a, b].every((name) => ends.has(taking.networkNamed(name).id)))
        throw new Refused(`${key} joins other networks. Remove it here and take it over anew.`);
      return [
        update('peering', peering, { aAccepted: by(peering.aNetworkId), bAccepted: by(peering.bNetworkId) }),
      ];
    },
    gone: (taking, key) => {
      const peering = [...taking.network.all('peering')].find(({ name }) => name === key);
      return peering === undefined ? [] : taking.without('peering', peering.id);
    },
  },
  instance: {
    added: (taking, key, facts) => {
      const { device, instance } = instanceRows(taking, facts);
      const id = newId();
      return [
        create('device', { ...blankDevice, ...device, ...{ id, name: key, units: 0 } }),
        create('instance', { ...blankInstance, ...instance, id: newId(), deviceId: id }),
      ];
    },
    changed: (taking, key, facts) => {
      const { device, instance } = instanceRows(taking, facts);
      const row = taking.device(key);
      const known = taking.network.findOne('instanceByDevice', row.id);
      return [
        update('device', row, device),
        known === null
          ? create('instance', { ...blankInstance, ...instance, id: newId(), deviceId: row.id })
          : update('instance', known, instance),
      ];
    },
    gone: (taking, key) => [update('device', taking.device(key), { status: 'retired' })],
  },
  interface: {
    added: (taking, key, facts) => {
      const at = key.lastIndexOf(':');
      const device = taking.device(key.slice(0, at));
      const place = (facts['network'] ?? '') === '' ? null : taking.networkNamed(facts['network'] ?? '');
      const vrfId = place === null ? null : vrfOf(taking.network, place.id);
      const port: Port = {
        ...blankPort,
        ...{ id: newId(), deviceId: device.id, name: key.slice(at + 1), form: 'virtual', vrfId },
      };
      return [create('port', port), ...seat(taking, port, vrfId, place, facts)];
    },
    changed: (taking, key, facts) => {
      const { port } = taking.nic(key);
      const place = (facts['network'] ?? '') === '' ? null : taking.networkNamed(facts['network'] ?? '');
      const vrfId = place === null ? null : vrfOf(taking.network, place.id);
      return [update('port', port, { vrfId }), ...seat(taking, port, vrfId, place, facts)];
    },
    gone: (taking, key) => taking.without('port', taking.nic(key).port.id),
  },
  route: {
    added: (taking, key, facts) => {
      const { table, prefix, listId } = routeParts(taking, key);
      return [
        create('cloudRoute', {
          ...blankCloudRoute,
          ...{ id: newId(), tableId: table.id, prefix, listId },
          ...targetOf(taking, facts['through'] ?? ''),
        }),
      ];
    },
    changed: (taking, key, facts) => [
      update('cloudRoute', routeAt(taking, key), targetOf(taking, facts['through'] ?? '')),
    ],
    gone: (taking, key) => [remove('cloudRoute', routeAt(taking, key))],
  },
  rule: {
    added: (taking, key, facts) => {
      const { set, row } = ruleParts(taking, key);
      const last = rulesOf(taking.network, set.id, row.direction).at(-1)?.position ?? 0;
      const position = facts['position'] === undefined ? last + 10 : Number(facts['position']);
      return [
        create('trafficRule', { ...blankTrafficRule, ...row, ...{ id: newId(), setId: set.id, position } }),
      ];
    },
    changed: (taking, key, facts) => [
      update('trafficRule', ruleLike(taking, key), { position: Number(facts['position'] ?? 1) }),
    ],
    gone: (taking, key) => [remove('trafficRule', ruleLike(taking, key))],
  },
};

function subnetAt(taking: Taking, key: string): CloudSubnet {
  const { place, rest } = taking.inNetwork(key);
  return (
    taking.network.find('cloudSubnetsByNetwork', place.id).find(({ name }) => name === rest) ??
    missing('The subnet', key)
  );
}

function subnetChanges(
  taking: Taking,
  key: string,
  facts: Facts,
  known: CloudSubnet | null,
): (Change | null)[] {
  const { place, rest } = taking.inNetwork(key);
  const table = facts['route table'] ?? '';
  const [v4, v6] = [facts['prefix'] ?? '', facts['IPv6 prefix'] ?? ''].map((text) =>
    taking.prefix(place, text, rest),
  );
  const fields = {
    zoneId: taking.zone(place, facts['zone'] ?? ''),
    ...{ prefixId: v4?.id ?? null, v6PrefixId: v6?.id ?? null },
    routeTableId: table === '' ? null : taking.table(place, table).id,
  };
  return [
    ...(v4?.changes ?? []),
    ...(v6?.changes ?? []),
    known === null
      ? create('cloudSubnet', { ...blankCloudSubnet, ...fields, id: newId(), placeId: place.id, name: rest })
      : update('cloudSubnet', known, fields),
  ];
}

function routeAt(taking: Taking, key: string) {
  const { table, prefix, listId } = routeParts(taking, key);
  return (
    taking.network
      .find('cloudRoutesByTable', table.id)
      .find((one) => one.prefix === prefix && one.listId === listId) ?? missing('The route', key)
  );
}

/** All facts of a thing as the account has them. */
const observedFacts = (difference: Difference, all: Facts): Facts =>
  Object.fromEntries([
    ...Object.entries(all),
    ...difference.facts.map(({ name, observed }) => [name, observed] as const),
  ]);

/** What of some differences can be taken over, and what cannot, with the reason. */
export interface TakenOver {
  attempt: Attempt;
  taken: readonly string[];
  left: readonly { id: string; why: string }[];
}

/**
 * Takes differences over into the model: what is not documented is added, what differs becomes as it was read, what is
 * not there any more is removed; instances and gateways are retired, for what hangs on them is not forgotten. Each in
 * the order in which one needs the other; one that cannot be is left, with the reason.
 *
 * @param facts what was read of each thing by the id of its difference
 */
export function takeOver(
  network: Network,
  accountId: string,
  differences: readonly Difference[],
  facts: ReadonlyMap<string, Facts>,
): TakenOver {
  let staged = network;
  const changes: Change[] = [];
  const taken: string[] = [];
  const left: { id: string; why: string }[] = [];
  const one = (difference: Difference): void => {
    const { id, key, how, sort } = difference;
    const all = observedFacts(difference, facts.get(id) ?? {});
    try {
      const taking = new Taking(staged, accountId);
      const way = ways[sort];
      const made =
        how === 'not documented'
          ? way.added(taking, key, all)
          : how === 'different'
            ? way.changed(taking, key, all)
            : way.gone(taking, key);
      const real = made.filter((change) => change !== null);
      const applied = applyChanges(staged, real);
      if (!applied.ok) throw new Refused(applied.problems[0]?.message ?? 'It cannot be done.');
      staged = applied.network;
      changes.push(...real);
      taken.push(id);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      left.push({ id, why: error.message });
    }
  };
  // What goes makes room first, the parts before the whole; then what comes, the whole before its parts.
  const going = differences.filter(({ how }) => how === 'not there');
  for (const difference of going.slice().reverse()) one(difference);
  for (const difference of differences) if (!going.includes(difference)) one(difference);
  const account = network.get('place', accountId)?.name ?? '';
  const count = `${taken.length} ${taken.length === 1 ? 'difference' : 'differences'}`;
  const attempt =
    taken.length === 0
      ? refuse(left[0]?.why ?? 'Nothing differs.')
      : judged(network, changes, `Took over ${count} from the account ${account}`);
  return { attempt, taken, left };
}

/** The differences of an account now. */
export const accountDifferences = (
  network: Network,
  accountId: string,
  observed: ObservedAccount,
): Difference[] =>
  differencesOf(
    documentedAccount(network, accountId, new Set(observed.prefixLists.map(({ name }) => name))),
    observed,
  );
