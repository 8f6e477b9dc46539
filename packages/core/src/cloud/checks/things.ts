import { defineRule, type Rule } from '../../check/finding.ts';
import { nameOf, subjectText } from '../../check/names.ts';
import { rowParts } from '../../check/rowParts.ts';
import { remove, update } from '../../change/change.ts';
import { judged } from '../../commands/attempt.ts';
import type { DemandedLabel, LabelledThing } from '../../model/kinds/cloud/demandedLabel.ts';
import { limited, type Limited } from '../../model/kinds/cloud/providerProfile.ts';
import type { Kind } from '../../model/kinds.ts';
import { isInCloud, profileAround } from '../../model/network/cloudPlaces.ts';
import { allOf } from '../../model/network/reads.ts';
import type { Network } from '../../model/network/network.ts';
import { parseIp, parsePrefix } from '../../model/values/ip.ts';
import { prefixesOf, zonesOf } from '../inventory.ts';
import { limitUses } from '../limits.ts';
import { routeReads } from '../reads.ts';

const standbyBeside = defineRule({
  key: 'cloud-standby-in-same-zone',
  title: 'Standbys in the zone of what they stand by for',
  why: 'The zone that takes the one takes the other with it.',
  reads: allOf(routeReads, { instance: ['deviceId', 'standbyForId'] }),
  find: rowParts('instance', (network, { deviceId, standbyForId }) => {
    const [standby, main] = [network.get('device', deviceId), network.get('device', standbyForId)];
    if (standby === null || main === null) return null;
    const [own, theirs] = [standby, main].map((one) => zonesOf(network, one).map(({ id }) => id));
    const [zone] = own ?? [];
    if (zone === undefined || own?.length !== 1 || theirs?.length !== 1 || theirs[0] !== zone) return null;
    return {
      severity: 'bad',
      subjects: [standby, main].map(({ id }) => ({ kind: 'device' as const, id })),
      facts: { zone },
    };
  }),
  says: ({ zone }, network, [standby, main]) =>
    `${nameOf(network, 'device', standby?.id ?? null)} stands by for ${nameOf(network, 'device', main?.id ?? null)} in the same zone ${nameOf(network, 'place', zone)}. Move it to another zone.`,
});

interface Labelled {
  kind: Kind;
  id: string;
  labels: Readonly<Record<string, string>>;
}
const labelsOf = (row: object): Readonly<Record<string, string>> =>
  'labels' in row && typeof row.labels === 'object' && row.labels !== null ? { ...row.labels } : {};

/** The things of a cloud that a demanded label is asked of. */
const askedOf: Record<LabelledThing, (network: Network) => Labelled[]> = {
  instances: (network) =>
    [...network.all('device')]
      .filter(
        (device) => isInCloud(network, device) && network.findOne('gatewayByDevice', device.id) === null,
      )
      .map(({ id, extra }) => ({ kind: 'device', id, labels: extra })),
  gateways: (network) =>
    [...network.all('gateway')].flatMap(({ deviceId }) => {
      const device = network.get('device', deviceId);
      return device === null ? [] : [{ kind: 'device' as const, id: device.id, labels: device.extra }];
    }),
  'virtual networks': (network) =>
    [...network.all('virtualNetwork')].map((row) => ({ kind: 'place', id: row.placeId, labels: row.labels })),
  'cloud subnets': (network) =>
    [...network.all('cloudSubnet')].map((row) => ({
      kind: 'cloudSubnet',
      id: row.id,
      labels: labelsOf(row),
    })),
  'rule sets': (network) =>
    [...network.all('ruleSet')].map((row) => ({ kind: 'ruleSet', id: row.id, labels: labelsOf(row) })),
  'public addresses': (network) =>
    [...network.all('publicAddress')].map((row) => ({
      kind: 'publicAddress',
      id: row.id,
      labels: labelsOf(row),
    })),
};

const lacksLabel = (network: Network, { key, on }: DemandedLabel): Labelled[] =>
  askedOf[on](network).filter(({ labels }) => (labels[key] ?? '').trim() === '');

const labelMissing = defineRule({
  key: 'cloud-label-missing',
  title: 'Things of clouds without a label that is demanded',
  why: 'What does not say whom it belongs to is paid for by nobody and cleared up by nobody.',
  reads: {
    demandedLabel: 'all',
    device: ['extra', 'placeId', 'rackId', 'status'],
    place: ['kind', 'parentId'],
    gateway: ['deviceId'],
    virtualNetwork: ['labels', 'placeId'],
    cloudSubnet: ['labels'],
    ruleSet: ['labels'],
    publicAddress: ['labels'],
  },
  find: (network) =>
    [...network.all('demandedLabel')].flatMap((demanded) =>
      lacksLabel(network, demanded).map(({ kind, id }) => ({
        severity: 'warn' as const,
        subjects: [{ kind, id }],
        facts: { key: demanded.key },
      })),
    ),
  says: ({ key }, network, [subject]) =>
    `${subject === undefined ? '' : nameOf(network, subject.kind, subject.id)} has no label ${key}, which is demanded. Give it one.`,
});

const keptUnused = defineRule({
  key: 'cloud-public-address-unused',
  title: 'Public addresses that are kept and not used',
  why: 'It is charged for every hour, and nobody comes to it.',
  reads: { publicAddress: ['portId', 'hold'] },
  find: rowParts('publicAddress', (_network, { id, portId, hold }) =>
    portId === null ? { severity: 'warn', subjects: [{ kind: 'publicAddress', id }], facts: { hold } } : null,
  ),
  says: ({ hold }, network, [address]) =>
    hold === 'lent'
      ? `${nameOf(network, 'publicAddress', address?.id ?? null)} was lent to an interface that is gone: somebody else may have it by now. Take it out.`
      : `${nameOf(network, 'publicAddress', address?.id ?? null)} is kept and stands for no interface. Give it to one, or give it back.`,
  mends: (_facts, network, [subject]) => {
    const row = network.get('publicAddress', subject?.id ?? null);
    return row === null
      ? []
      : [
          {
            wish: `Give ${row.address} back`,
            way: 'Give such addresses back',
            attempt: judged(network, [remove('publicAddress', row)], `Gave ${row.address} back`),
          },
        ];
  },
});

const isLimited = (text: string): text is Limited => text in limited;
const limitExceeded = defineRule({
  key: 'cloud-limit-exceeded',
  title: 'More than the provider allows',
  why: 'The provider refuses what is above its limit, or it has to be raised before.',
  reads: {
    providerProfile: ['limits'],
    cloudAccount: ['placeId', 'profileId'],
    place: ['kind', 'parentId'],
    prefix: ['role', 'placeId', 'prefix', 'status'],
    cloudSubnet: ['placeId', 'zoneId', 'prefixId', 'v6PrefixId'],
    peering: ['aNetworkId', 'bNetworkId'],
    cloudRoute: ['tableId'],
    routeTable: ['placeId'],
    trafficRule: ['setId'],
    ruleSet: ['placeId'],
    ruleSetUse: 'all',
    publicAddress: ['placeId'],
    hubAttachment: ['hubId'],
    device: ['placeId', 'status'],
    port: ['deviceId'],
  },
  find: (network) =>
    network.count('cloudAccount') === 0
      ? []
      : limitUses(network)
          .filter(({ used, most }) => used > most)
          .map(({ of, kind, id, used, most }) => ({
            severity: 'bad' as const,
            subjects: [{ kind, id }],
            facts: { of, used, most },
          })),
  says: ({ of, used, most }, network, [subject]) =>
    `${subject === undefined ? '' : subjectText(network, subject)} has ${used} ${isLimited(of) ? limited[of] : of}, the provider allows ${most}. Have the limit raised, or do with fewer.`,
});

const notOffered = defineRule({
  key: 'cloud-not-offered',
  title: 'What the provider does not offer',
  why: 'It cannot be made as it is drawn.',
  reads: allOf(routeReads, {
    providerProfile: 'all',
    cloudAccount: ['placeId', 'profileId'],
    ruleSet: ['placeId', 'sort', 'remembers', 'ordered', 'ties'],
    gateway: 'all',
  }),
  find: (network) => [
    ...[...network.all('cloudSubnet')].flatMap((subnet) => {
      const profile = profileAround(network, subnet.placeId);
      if (profile === null) return [];
      const at = (why: string) => [
        {
          severity: 'bad' as const,
          subjects: [{ kind: 'cloudSubnet' as const, id: subnet.id }],
          facts: { why },
        },
      ];
      const [first] = prefixesOf(network, subnet);
      const length = first?.prefix.family === 4 ? first.prefix.length : null;
      if (length !== null && length > profile.longestBlock)
        return at(`is a /${length}, and the smallest subnet of the provider is a /${profile.longestBlock}`);
      if (profile.subnets === 'zonal' && subnet.zoneId === null)
        return at('stands in no zone, and subnets of the provider do');
      if (profile.subnets === 'regional' && subnet.zoneId !== null)
        return at('stands in one zone, and subnets of the provider reach over the region');
      return [];
    }),
    ...[...network.all('gateway')].flatMap((gateway) => {
      const device = network.get('device', gateway.deviceId);
      const profile = profileAround(network, device?.placeId ?? null);
      const sort = profile?.gateways.find((one) => one.sort === gateway.sort);
      const at = (why: string) => [
        {
          severity: 'warn' as const,
          subjects: [{ kind: 'device' as const, id: gateway.deviceId }],
          facts: { why },
        },
      ];
      if (profile === null || gateway.sort === null) return [];
      if (sort === undefined) return at(`is a ${gateway.sort}, which ${profile.name} does not have`);
      return sort.direction === gateway.direction &&
        sort.translates === gateway.translates &&
        sort.reach === gateway.reach
        ? []
        : at(`is not set as a ${sort.sort} of ${profile.name} is`);
    }),
    ...[...network.all('ruleSet')].flatMap((set) => {
      const profile = profileAround(network, set.placeId);
      const sort = profile?.ruleSets.find((one) => one.sort === set.sort);
      const at = (why: string) => [
        { severity: 'warn' as const, subjects: [{ kind: 'ruleSet' as const, id: set.id }], facts: { why } },
      ];
      if (profile === null || set.sort === null) return [];
      if (sort === undefined) return at(`is of the sort ${set.sort}, which ${profile.name} does not have`);
      return sort.ties === set.ties && sort.remembers === set.remembers && sort.ordered === set.ordered
        ? []
        : at(`is not set as ${sort.sort} of ${profile.name} are`);
    }),
  ],
  says: ({ why }, network, [subject]) =>
    `${subject === undefined ? '' : nameOf(network, subject.kind, subject.id)} ${why}. Set it as the provider has it, or correct the profile.`,
});

const addressHolders = (network: Network, text: string): 'fixed' | 'lent' | null => {
  const given = network.findOne('publicAddressByText', text);
  if (given !== null) return given.hold === 'lent' ? 'lent' : 'fixed';
  return network.countOf('addressesByHost', text) > 0 ? 'fixed' : null;
};

const recordNobody = defineRule({
  key: 'cloud-dns-record-nobody',
  title: 'DNS records to an address that nobody has',
  why: 'The name answers, and nobody is there; or somebody else gets the address later, and the name with it.',
  reads: {
    dnsRecord: 'all',
    dnsZone: ['name'],
    address: ['address', 'portId'],
    publicAddress: ['address', 'hold'],
    virtualNetwork: ['placeId'],
  },
  find: (network) =>
    [...network.all('dnsRecord')].flatMap((record) => {
      if ((record.type !== 'A' && record.type !== 'AAAA') || parseIp(record.value) === null) return [];
      const has = addressHolders(network, record.value);
      return has === 'fixed'
        ? []
        : [
            {
              severity: 'warn' as const,
              subjects: [{ kind: 'dnsRecord' as const, id: record.id }],
              facts: { address: record.value, lent: has === 'lent' },
            },
          ];
    }),
  says: ({ address, lent }, network, [subject]) => {
    const record = network.get('dnsRecord', subject?.id ?? null);
    const zone = network.get('dnsZone', record?.zoneId ?? null)?.name ?? '';
    const name = record?.name === '@' ? zone : `${record?.name ?? ''}.${zone}`;
    return lent
      ? `${name} leads to ${address}, which is lent: it is lost when the instance stops. Keep an address for it.`
      : `${name} leads to ${address}, which nobody has. Correct the record, or take it out.`;
  },
  mends: ({ lent, address }, network, [subject]) => {
    const record = network.get('dnsRecord', subject?.id ?? null);
    const given = network.findOne('publicAddressByText', address);
    if (record === null) return [];
    if (lent && given !== null)
      return [
        {
          wish: `Keep ${address}`,
          attempt: judged(network, [update('publicAddress', given, { hold: 'kept' })], `Kept ${address}`),
        },
      ];
    return [
      {
        wish: 'Take the record out',
        way: 'Take such records out',
        attempt: judged(network, [remove('dnsRecord', record)], `Took out ${record.name} ${record.type}`),
      },
    ];
  },
});

const listEmpty = defineRule({
  key: 'cloud-list-empty',
  title: 'Named lists without a prefix',
  why: 'A rule for an empty list lets nobody pass, a route for it leads nowhere.',
  reads: { prefixList: ['prefixes'], trafficRule: ['listId'], cloudRoute: ['listId'] },
  find: rowParts('prefixList', (network, { id, prefixes }) =>
    prefixes.flatMap((text) => parsePrefix(text) ?? []).length > 0 ||
    network.countOf('rulesByList', id) + network.countOf('cloudRoutesByList', id) === 0
      ? null
      : { severity: 'warn', subjects: [{ kind: 'prefixList', id }], facts: {} },
  ),
  says: (_facts, network, [list]) =>
    `The list ${nameOf(network, 'prefixList', list?.id ?? null)} is used and holds no prefix. Enter those that are meant.`,
});

export const cloudThingRules: readonly Rule[] = [
  standbyBeside,
  labelMissing,
  keptUnused,
  limitExceeded,
  notOffered,
  recordNobody,
  listEmpty,
];
