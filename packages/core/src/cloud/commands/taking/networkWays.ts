import { create, update, type Change } from '../../../change/change.ts';
import { blankCloudSubnet, type CloudSubnet } from '../../../model/kinds/cloud/cloudSubnet.ts';
import { blankPeering } from '../../../model/kinds/cloud/peering.ts';
import { blankCloudTable } from '../../../model/kinds/cloud/routeTable.ts';
import { blankRuleSet } from '../../../model/kinds/cloud/ruleSet.ts';
import { blankVirtualNetwork } from '../../../model/kinds/cloud/virtualNetwork.ts';
import { blankPrefix } from '../../../model/kinds/logical/prefix.ts';
import { blankVrf } from '../../../model/kinds/logical/vrf.ts';
import type { Place } from '../../../model/kinds/sites/place.ts';
import type { Network } from '../../../model/network/network.ts';
import { newId } from '../../../model/values/ids.ts';
import { blocksOf, prefixesOf, vrfOf } from '../../inventory.ts';
import { newPlace } from '../places.ts';
import { missing, Refused, texts, type Facts, type Taking, type Ways } from './taking.ts';

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

/** Networks, what they consist of, and what joins them. */
export const networkWays = {
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
    changed: (taking, key, facts) => subnetChanges(taking, key, facts, taking.subnet(key)),
    gone: (taking, key) => {
      const subnet = taking.subnet(key);
      return [
        ...taking.without('cloudSubnet', subnet.id),
        ...prefixesOf(taking.network, subnet).flatMap(({ row }) => taking.without('prefix', row.id)),
      ];
    },
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
} satisfies Record<string, Ways>;
