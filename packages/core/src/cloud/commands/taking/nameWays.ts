import { create, remove, update, type Change } from '../../../change/change.ts';
import { blankDnsRecord, recordTypes, type DnsZone } from '../../../model/kinds/cloud/dns.ts';
import { transportProtocols } from '../../../model/kinds/cloud/ports.ts';
import {
  addressStays,
  blankPublicAddress,
  type PublicAddress,
} from '../../../model/kinds/cloud/publicAddress.ts';
import { blankPort } from '../../../model/kinds/lines/port.ts';
import { newId } from '../../../model/values/ids.ts';
import { byName } from '../../../model/values/order.ts';
import { labelMark, zoneKey } from '../../observed/differences.ts';
import { missing, oneOf, Refused, texts, type Facts, type Taking, type Ways } from './taking.ts';

function addressRow(taking: Taking, text: string): PublicAddress {
  return taking.network.findOne('publicAddressByText', text) ?? missing('The public address', text);
}

/** The interface that an address stands for; a gateway without any gets one for its outer side. */
function heldBy(taking: Taking, text: string): { portId: string | null; changes: Change[] } {
  if (text === '') return { portId: null, changes: [] };
  if (!text.startsWith('gateway ')) return { portId: taking.nic(text).port.id, changes: [] };
  const device = taking.device(text.slice('gateway '.length));
  const ports = taking.network.find('everyPortByDevice', device.id).sort(byName);
  const known = ports.find(({ form }) => form === 'virtual') ?? ports[0];
  if (known !== undefined) return { portId: known.id, changes: [] };
  const port = {
    ...blankPort,
    ...{ id: newId(), deviceId: device.id, name: 'outer1', form: 'virtual' as const },
  };
  return { portId: port.id, changes: [create('port', port)] };
}

function addressFields(taking: Taking, facts: Facts) {
  const region = facts['region'] ?? '';
  const { portId, changes } = heldBy(taking, facts['stands for'] ?? '');
  return {
    changes,
    fields: {
      ...{ placeId: region === '' ? taking.accountId : taking.region(region).id, portId },
      hold: oneOf(addressStays, facts['stays'] ?? '', 'way for an address to stay'),
    },
  };
}

function targetParts(taking: Taking, key: string) {
  const read = /^(.+) (\S+) (\d+) to (.+)$/.exec(key);
  if (read === null) throw new Refused(`“${key}” is no target of a load balancer.`);
  const [, balancer = '', protocol = '', listens = '', target = ''] = read;
  return {
    balancerId: taking.device(balancer).id,
    deviceId: taking.device(target).id,
    protocol: oneOf(transportProtocols, protocol, 'protocol'),
    listens: Number(listens),
  };
}

function targetRow(taking: Taking, key: string) {
  const wanted = targetParts(taking, key);
  return (
    taking.network
      .find('targetsByBalancer', wanted.balancerId)
      .find(
        (row) =>
          row.deviceId === wanted.deviceId &&
          row.protocol === wanted.protocol &&
          row.listens === wanted.listens,
      ) ?? missing('The target', key)
  );
}

const zoneNamed = (taking: Taking, key: string): DnsZone =>
  [...taking.network.all('dnsZone')].find((zone) => zoneKey(zone) === key) ?? missing('The zone', key);

/** Ties a zone to these networks of the account and to no others of it; those of other accounts stay. */
function useChanges(taking: Taking, zoneId: string, names: readonly string[]): Change[] {
  const wanted = new Set(names.map((name) => taking.networkNamed(name).id));
  const uses = taking.network.find('zoneUsesByZone', zoneId);
  return [
    ...uses
      .filter(({ networkId }) => taking.isOwn(networkId) && !wanted.has(networkId))
      .map((use) => remove('dnsZoneUse', use)),
    ...[...wanted]
      .filter((networkId) => !uses.some((use) => use.networkId === networkId))
      .map((networkId) => create('dnsZoneUse', { id: newId(), zoneId, networkId })),
  ];
}

function recordParts(taking: Taking, key: string) {
  const zone = [...taking.network.all('dnsZone')]
    .filter((one) => key.startsWith(`${zoneKey(one)} `))
    .sort((a, b) => zoneKey(b).length - zoneKey(a).length)[0];
  if (zone === undefined) return missing('The zone', key.split(' ')[0] ?? '');
  const [name = '', type = '', ...value] = key.slice(zoneKey(zone).length + 1).split(' ');
  return {
    zoneId: zone.id,
    ...{ name, type: oneOf(recordTypes, type, 'type of record'), value: value.join(' ') },
  };
}

function recordRow(taking: Taking, key: string) {
  const { zoneId, name, type, value } = recordParts(taking, key);
  return (
    taking.network
      .find('recordsByZone', zoneId)
      .find((row) => row.name === name && row.type === type && row.value === value) ??
    missing('The record', key)
  );
}
const ttlOf = (facts: Facts): { ttlS: number | null } => {
  const text = facts['time to live'] ?? '';
  return { ttlS: text === '' ? null : Number(text) };
};

/** Sets or takes off one label of whatever carries it. */
function labelChanges(taking: Taking, key: string, value: string | null): (Change | null)[] {
  const at = key.lastIndexOf(labelMark);
  const [on, label] = [key.slice(0, at), key.slice(at + labelMark.length)];
  const with_ = (labels: Readonly<Record<string, string>>): Record<string, string> => {
    const { [label]: _old, ...rest } = labels;
    return value === null ? rest : { ...rest, [label]: value };
  };
  const after = (word: string): string | null =>
    on.startsWith(`${word} `) ? on.slice(word.length + 1) : null;
  const { network } = taking;
  const [netName, subnet, set, address] = ['network', 'subnet', 'rule set', 'public address'].map(after);
  if (netName != null) {
    const row = network.findOne('virtualNetworkByPlace', taking.networkNamed(netName).id);
    return row === null
      ? missing('The network', netName)
      : [update('virtualNetwork', row, { labels: with_(row.labels) })];
  }
  if (subnet != null) {
    const row = taking.subnet(subnet);
    return [update('cloudSubnet', row, { labels: with_(row.labels) })];
  }
  if (set != null) {
    const { place, rest } = taking.inNetwork(set);
    const row = taking.set(place, rest);
    return [update('ruleSet', row, { labels: with_(row.labels) })];
  }
  if (address != null) {
    const row = addressRow(taking, address);
    return [update('publicAddress', row, { labels: with_(row.labels) })];
  }
  const device = taking.device(after('instance') ?? after('gateway') ?? on);
  return [update('device', device, { extra: with_(device.extra) })];
}

/** Public addresses, targets, names, and labels. */
export const nameWays = {
  'public address': {
    added: (taking, key, facts) => {
      const { fields, changes } = addressFields(taking, facts);
      return [
        ...changes,
        create('publicAddress', { ...blankPublicAddress, ...fields, id: newId(), address: key }),
      ];
    },
    changed: (taking, key, facts) => {
      const { fields, changes } = addressFields(taking, facts);
      return [...changes, update('publicAddress', addressRow(taking, key), fields)];
    },
    gone: (taking, key) => [remove('publicAddress', addressRow(taking, key))],
  },
  target: {
    added: (taking, key, facts) => [
      create('balancerTarget', {
        ...{ ...targetParts(taking, key), id: newId(), port: Number(facts['port'] ?? 0) },
      }),
    ],
    changed: (taking, key, facts) => [
      update('balancerTarget', targetRow(taking, key), { port: Number(facts['port'] ?? 0) }),
    ],
    gone: (taking, key) => [remove('balancerTarget', targetRow(taking, key))],
  },
  zone: {
    added: (taking, key, facts) => {
      const isPrivate = key.endsWith(' (private)');
      const zone: DnsZone = {
        ...{ id: newId(), name: key.replace(/ \(private\)$/, ''), isPrivate },
        ...{ ttlS: 3600, labels: {}, notes: null },
      };
      return [create('dnsZone', zone), ...useChanges(taking, zone.id, texts(facts['seen in'] ?? ''))];
    },
    changed: (taking, key, facts) =>
      useChanges(taking, zoneNamed(taking, key).id, texts(facts['seen in'] ?? '')),
    gone: (taking, key) => taking.without('dnsZone', zoneNamed(taking, key).id),
  },
  record: {
    added: (taking, key, facts) => [
      create('dnsRecord', { ...blankDnsRecord, ...recordParts(taking, key), ...ttlOf(facts), id: newId() }),
    ],
    changed: (taking, key, facts) => [update('dnsRecord', recordRow(taking, key), ttlOf(facts))],
    gone: (taking, key) => [remove('dnsRecord', recordRow(taking, key))],
  },
  label: {
    added: (taking, key, facts) => labelChanges(taking, key, facts['value'] ?? ''),
    changed: (taking, key, facts) => labelChanges(taking, key, facts['value'] ?? ''),
    gone: (taking, key) => labelChanges(taking, key, null),
  },
} satisfies Record<string, Ways>;
