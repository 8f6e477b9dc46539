import { update } from '../../change/change.ts';
import type { Subject } from '../../change/removal.ts';
import { judged } from '../../commands/attempt.ts';
import { childrenOf, parentOf, prefixesAround, prefixTree, useOf } from '../plan.ts';
import { renumber } from '../commands/renumber.ts';
import { formatPrefix, parsePrefix } from '../../model/values/ip.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import { isOfCloudSubnet } from '../../model/network/cloudPlaces.ts';
import type { Network, Touched } from '../../model/network/network.ts';
import { placesWithin } from '../../model/network/places.ts';
import { defineRule, type Rule } from '../../check/finding.ts';
import { idsOf, nameOf } from '../../check/names.ts';
import { bothOf, rowParts } from '../../check/rowParts.ts';
import { prefixesOfSubnet } from './cloudPrefixes.ts';

const about = (...rows: readonly Prefix[]): Subject[] => rows.map(({ id }) => ({ kind: 'prefix', id }));

function titled(network: Network, subject: Subject | undefined): string {
  const row = network.get('prefix', subject?.id ?? null);
  if (row === null) return '';
  return row.name === null ? row.prefix : `${row.prefix} (${row.name})`;
}

/** What a prefix that was touched lies in, and what lies right in it: there something else may be found now. */
function beside(network: Network, touched: Touched, base: Network): string[] | null {
  if (touched.kind !== 'prefix') return null;
  return bothOf(touched, 'prefix').flatMap((row) => {
    const prefix = parsePrefix(row.prefix);
    const around = [network, base].flatMap((one) => [
      ...(prefix === null ? [] : prefixesAround(one, row.vrfId, prefix)),
      ...childrenOf(one, row),
    ]);
    return [row.id, ...around.map(({ id }) => id)];
  });
}

/** The innermost pool around a prefix that is of its place, or of no place. */
function poolOfPlace(network: Network, row: Prefix): Prefix | null {
  for (let outer = parentOf(network, row); outer !== null; outer = parentOf(network, outer)) {
    if (outer.role !== 'pool') continue;
    if (outer.placeId === null || row.placeId === null) return outer;
    if (placesWithin(network, outer.placeId).has(row.placeId)) return outer;
  }
  return null;
}

/** Only pools hold other prefixes. */
export const prefixOverlap = defineRule({
  key: 'prefix-overlap',
  title: 'Prefixes that overlap',
  why: 'Where two prefixes overlap the longer one takes traffic from the other, and an address may be given twice.',
  standard: 'RFC 4632',
  reads: { prefix: ['vrfId', 'prefix', 'role'] },
  find: {
    ...rowParts('prefix', (network, row) => {
      const outer = parentOf(network, row);
      if (outer === null || outer.role === 'pool') return null;
      return { severity: 'bad', subjects: about(row, outer), facts: { role: outer.role } };
    }),
    concerned: beside,
  },
  says: ({ role }, network, [row, outer]) =>
    `${titled(network, row)} lies inside ${titled(network, outer)}, which is a ${role} and no pool: both claim the same addresses. Move one of them to free space.`,
  mends: (_facts, network, [subject]) => {
    const row = network.get('prefix', subject?.id ?? null);
    const pool = row === null ? null : poolOfPlace(network, row);
    const [own, outer] = [parsePrefix(row?.prefix ?? ''), parsePrefix(pool?.prefix ?? '')];
    if (row === null || own === null || outer === null) return [];
    const free = prefixTree(network, row.vrfId).nextFree(outer, own.length);
    if (free === null) return [];
    const moved = renumber(network, row, formatPrefix(free));
    return [
      {
        wish: `Move ${row.prefix} with all in it to ${formatPrefix(free)}`,
        way: 'Move the inner prefix to the next free space of its pool',
        attempt: moved.ok ? moved.attempt : moved,
      },
    ];
  },
});

const almostFull = 0.8;

export const poolFull = defineRule({
  key: 'pool-full',
  title: 'Pools that run full',
  why: 'Who needs the next subnet or address does not find one.',
  reads: { prefix: ['vrfId', 'prefix', 'role'] },
  find: {
    ...rowParts('prefix', (network, row) => {
      const inside = row.role === 'pool' ? childrenOf(network, row) : [];
      // A pool that other pools share out is full by design.
      if (inside.length === 0 || inside.some((child) => child.role === 'pool')) return null;
      const { share } = useOf(network, row);
      return share <= almostFull ? null : { severity: 'warn', subjects: about(row), facts: { share } };
    }),
    concerned: beside,
  },
  says: ({ share }, network, [row]) =>
    `${titled(network, row)} is ${Math.round(share * 100)} % given away. Plan the next pool before it is full.`,
});

/** A subnet is somewhere: on a VLAN, or in a cloud. */
export const prefixWithoutVlan = defineRule({
  key: 'prefix-without-vlan',
  title: 'Subnets on no VLAN',
  why: 'A subnet that is on no VLAN cannot be plugged into: its hosts are recorded nowhere in layer 2.',
  reads: { prefix: ['role', 'vlanId'], cloudSubnet: ['prefixId', 'v6PrefixId'] },
  find: rowParts(
    'prefix',
    (network, row) =>
      row.role === 'subnet' && row.vlanId === null && !isOfCloudSubnet(network, row.id)
        ? { severity: 'warn', subjects: about(row), facts: {} }
        : null,
    prefixesOfSubnet,
  ),
  says: (_facts, network, [row]) =>
    `${titled(network, row)} is a subnet on no VLAN. Give it its VLAN, or make it a transit prefix if it is one link.`,
});

/** Two addresses are two ends of a link, not room for hosts (RFC 3021, RFC 6164). */
export const pointToPointMisuse = defineRule({
  key: 'point-to-point-misuse',
  title: 'Two-address prefixes used for hosts',
  why: 'A /31 or /127 has two addresses and no broadcast: it is for the two ends of a link.',
  standard: 'RFC 3021; RFC 6164',
  reads: { prefix: ['prefix', 'role', 'ranges'] },
  find: rowParts('prefix', (_network, row) => {
    const prefix = parsePrefix(row.prefix);
    if (prefix === null || prefix.length !== (prefix.family === 4 ? 31 : 127)) return null;
    if (row.role !== 'subnet' && row.ranges.length === 0) return null;
    return { severity: 'warn', subjects: about(row), facts: { subnet: row.role === 'subnet' } };
  }),
  says: ({ subnet }, network, [row]) =>
    `${titled(network, row)} has two addresses, which are the ends of one link, but ${subnet ? 'is a subnet for hosts' : 'has ranges to hand out'}. Make it a transit prefix, or take a larger one.`,
  mends: (_facts, network, subjects) =>
    idsOf(subjects, 'prefix').flatMap((id) => {
      const row = network.get('prefix', id);
      if (row === null) return [];
      const changes = [update('prefix', row, { role: 'transit', ranges: [], gateway: null, vlanId: null })];
      return [
        {
          wish: `Make it a transit prefix`,
          way: 'Make it a transit prefix',
          attempt: judged(network, changes, `Made ${row.prefix} a transit prefix`),
        },
      ];
    }),
});

/** A site's pool is announced as one route: what lies in it stands at that site. */
export const summaryLeak = defineRule({
  key: 'summary-leak',
  title: 'Prefixes outside the place that their summary leads to',
  why: 'A summary draws traffic to a place for prefixes that are not there: it is lost or goes round in a loop.',
  standard: 'RFC 4632, 5.1',
  reads: { prefix: ['vrfId', 'prefix', 'role', 'placeId'], place: ['parentId'] },
  find: {
    ...rowParts('prefix', (network, row) => {
      const prefix = parsePrefix(row.prefix);
      if (prefix === null || row.placeId === null || parentOf(network, row)?.role !== 'pool') return null;
      const pool = prefixTree(network, row.vrfId)
        .around(prefix)
        .flatMap((entry) => entry.ids.flatMap((id) => network.get('prefix', id) ?? []))
        .filter((one) => one.role === 'pool' && one.placeId !== null && one.id !== row.id)
        .at(-1);
      if (pool === undefined || placesWithin(network, pool.placeId).has(row.placeId)) return null;
      return {
        severity: 'warn',
        subjects: about(row, pool),
        facts: { placeId: row.placeId, poolPlaceId: pool.placeId },
      };
    }),
    // What is a pool, or was one, counts for all that lies in it however deep.
    concerned: (network, touched, base) =>
      bothOf(touched, 'prefix').some(({ role }) => role === 'pool') ? null : beside(network, touched, base),
  },
  says: ({ placeId, poolPlaceId }, network, [row, pool]) => {
    const [here, there] = [nameOf(network, 'place', placeId), nameOf(network, 'place', poolPlaceId)];
    return `${titled(network, row)} is at ${here}, inside ${nameOf(network, 'prefix', pool?.id ?? null)}, the pool of ${there}: announced as one route, that pool draws its packets to ${there}. Take it from a pool of ${here}.`;
  },
});

export const prefixRules: readonly Rule[] = [
  prefixOverlap,
  poolFull,
  prefixWithoutVlan,
  pointToPointMisuse,
  summaryLeak,
];
