import { update } from '../../change/change.ts';
import { defineRule, type Evidence, type Rule } from '../../check/finding.ts';
import { idsOf, nameOf } from '../../check/names.ts';
import { rowParts } from '../../check/rowParts.ts';
import { devicesTouched, pluggedReads } from './pluggedIn.ts';
import { judged } from '../../commands/attempt.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import type { Network } from '../../model/network/network.ts';
import { isInCloud } from '../../model/network/cloudPlaces.ts';
import { allOf } from '../../model/network/reads.ts';
import { isFree } from '../../model/network/ports.ts';
import { compareIp, formatIp, parseInterface, parseIp, parsePrefix } from '../../model/values/ip.ts';
import { hasCase } from '../../model/values/roles.ts';
import { compareNames } from '../../model/values/order.ts';
import { ownerText } from '../owner.ts';
import { addressesIn } from '../plan.ts';

const saysWhat = ({ name, notes, placeId }: Prefix): boolean =>
  name !== null || notes !== null || placeId !== null;

/** A pool says what it is kept for. Says nothing before the first one does: then that is how this house does it. */
const withoutPurpose = defineRule({
  key: 'prefix-without-purpose',
  title: 'Prefixes of which nobody says what they are for',
  why: 'What has no name is given away a second time, or kept for ever because nobody dares.',
  reads: { prefix: ['name', 'notes', 'role', 'status', 'placeId'] },
  find: (network) => {
    // A link or a loopback is told by who has it; a subnet without a VLAN is a finding already.
    const pools = [...network.all('prefix')].filter(({ role }) => role === 'pool');
    if (!pools.some(saysWhat)) return [];
    return pools
      .filter((row) => !saysWhat(row))
      .map(({ id }) => ({
        severity: 'warn' as const,
        subjects: [{ kind: 'prefix' as const, id }],
        facts: {},
      }));
  },
  says: (_facts, network, [row]) =>
    `${nameOf(network, 'prefix', row?.id ?? null)} is a pool without a name, a place or a note. Say what it is kept for.`,
});

/** Fixed addresses inside a range, by address. */
function fixedIn(network: Network, row: Prefix, from: string, to: string) {
  const [prefix, first, last] = [parsePrefix(row.prefix), parseIp(from), parseIp(to)];
  if (prefix === null || first === null || last === null) return [];
  return addressesIn(network, row.vrfId, prefix).filter((address) => {
    const at = parseInterface(address.address)?.address;
    return at !== undefined && compareIp(first, at) <= 0 && compareIp(at, last) <= 0;
  });
}

type Overlap = { ranges: readonly { from: string; to: string }[] };

/** What a server hands out is nobody’s own. */
const rangeOverFixed = defineRule<Overlap>({
  key: 'dhcp-over-fixed',
  title: 'DHCP ranges over fixed addresses',
  why: 'The server hands out an address that a host has already: one of the two goes off the air, now and then.',
  standard: 'RFC 2131, 2.2',
  reads: { prefix: ['prefix', 'vrfId', 'ranges', 'status'], address: ['address', 'vrfId', 'portId'] },
  find: rowParts(
    'prefix',
    (network, row): Evidence<Overlap> | null => {
      const hit = row.ranges
        .filter(({ use }) => use === 'DHCP')
        .map(({ from, to }) => ({ from, to, fixed: fixedIn(network, row, from, to) }))
        .filter(({ fixed }) => fixed.length > 0);
      if (hit.length === 0) return null;
      return {
        severity: 'bad',
        subjects: [
          { kind: 'prefix', id: row.id },
          ...hit.flatMap(({ fixed }) => fixed.map(({ id }) => ({ kind: 'address' as const, id }))),
        ],
        facts: { ranges: hit.map(({ from, to }) => ({ from, to })) },
      };
    },
    undefined,
    (network) => [...network.all('prefix')].filter(({ ranges }) => ranges.length > 0),
  ),
  says: ({ ranges }, network, subjects) => {
    const rows = idsOf(subjects, 'address').flatMap((id) => network.get('address', id) ?? []);
    const named = rows
      .sort((a, b) => compareNames(a.address, b.address))
      .map(
        (row) =>
          `${row.address.split('/')[0] ?? ''}${row.portId === null ? ' (reserved)' : ` ${ownerText(network, row)}`}`,
      );
    const shown = named.slice(0, 3).join(', ');
    const more = named.length > 3 ? ` and ${named.length - 3} more` : '';
    return `DHCP hands out ${ranges.map(({ from, to }) => `${from} to ${to}`).join(', ')} in ${nameOf(network, 'prefix', subjects[0]?.id ?? null)}; ${shown}${more} ${named.length === 1 ? 'is' : 'are'} fixed there. Move them out, or cut the range around them.`;
  },
  mends: (_facts, network, [subject]) => {
    const row = network.get('prefix', subject?.id ?? null);
    if (row === null) return [];
    const ranges = row.ranges.flatMap((range) =>
      range.use === 'DHCP' ? cutAround(network, row, range) : [range],
    );
    const attempt = judged(
      network,
      [update('prefix', row, { ranges })],
      `Cut the DHCP ranges of ${row.prefix} around its fixed addresses`,
    );
    return [{ wish: 'Cut the range around them', way: 'Cut the ranges around the fixed addresses', attempt }];
  },
});

/** The parts of a range that are left without the fixed addresses in it. */
function cutAround(network: Network, row: Prefix, range: Prefix['ranges'][number]): Prefix['ranges'] {
  const fixed = fixedIn(network, row, range.from, range.to).flatMap(
    ({ address }) => parseInterface(address)?.address ?? [],
  );
  const [first, last] = [parseIp(range.from), parseIp(range.to)];
  if (first === null || last === null) return [range];
  const parts: Prefix['ranges'] = [];
  let from = first.value;
  const upTo = (to: bigint): void => {
    if (from <= to)
      parts.push({
        ...range,
        from: formatIp({ ...first, value: from }),
        to: formatIp({ ...first, value: to }),
      });
  };
  for (const { value } of fixed.sort(compareIp)) {
    upTo(value - 1n);
    from = value + 1n;
  }
  upTo(last.value);
  return parts;
}

/** Gear with an address of its own is plugged in somewhere; what runs inside another device need not be. */
const addressNoLink = defineRule({
  key: 'address-no-link',
  title: 'Addresses of gear that is not plugged in',
  why: 'An address that nobody can reach is kept from others, or a cable is missing in the document.',
  reads: allOf(pluggedReads, { device: ['placeId', 'rackId'], place: ['kind'] }),
  find: rowParts(
    'device',
    (network, device) => {
      if (device.status !== 'active' || !hasCase(device.role) || isInCloud(network, device)) return null;
      // Before the first cable there is nothing but devices.
      if (network.count('cable') + network.count('circuit') === 0) return null;
      const ports = network.find('everyPortByDevice', device.id);
      const given = ports.reduce((sum, port) => sum + network.countOf('addressesByPort', port.id), 0);
      if (given === 0) return null;
      const outer = ports.filter(
        ({ form, role }) => form === 'physical' && role !== 'powerIn' && role !== 'powerOut',
      );
      if (outer.length === 0 || outer.some((port) => !isFree(network, port.id))) return null;
      return { severity: 'warn', subjects: [{ kind: 'device', id: device.id }], facts: { given } };
    },
    (network, touched, base) => {
      if (touched.kind === 'place') return null;
      const joined = (one: Network): number => one.count('cable') + one.count('circuit');
      if ((joined(network) === 0) !== (joined(base) === 0)) return null;
      return devicesTouched(network, touched, base);
    },
  ),
  says: ({ given }, network, [device]) =>
    `${nameOf(network, 'device', device?.id ?? null)} has ${given} ${given === 1 ? 'address' : 'addresses'} and no cable. Plug it in, or free ${given === 1 ? 'the address' : 'them'}.`,
});

export const addressUseRules: readonly Rule[] = [withoutPurpose, rangeOverFixed, addressNoLink];
