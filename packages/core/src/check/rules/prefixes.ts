import { childrenOf, parentOf, prefixTree, useOf } from '../../address/plan.ts';
import type { Prefix } from '../../model/kinds/prefix.ts';
import { parsePrefix } from '../../model/ip.ts';
import type { Network } from '../../model/network.ts';
import { placesWithin } from '../../model/places.ts';
import type { Finding, Rule } from '../finding.ts';
import { tell } from '../tell.ts';

const live = (network: Network): Prefix[] =>
  [...network.all('prefix')].filter((row) => row.status !== 'retired');
const titled = (row: Prefix): string => (row.name === null ? row.prefix : `${row.prefix} (${row.name})`);

/** Only pools hold other prefixes. */
export const prefixOverlap: Rule = {
  key: 'prefix-overlap',
  title: 'Prefixes that overlap',
  find: (network) =>
    live(network).flatMap((row): Finding[] => {
      const outer = parentOf(network, row);
      if (outer === null || outer.role === 'pool') return [];
      return [
        tell(
          network,
          'prefix-overlap',
          'bad',
          [
            { kind: 'prefix', row },
            { kind: 'prefix', row: outer },
          ],
          `${titled(row)} lies inside ${titled(outer)}, which is a ${outer.role} and no pool: both claim the same addresses. Move one of them to free space.`,
        ),
      ];
    }),
};

const almostFull = 0.8;

export const poolFull: Rule = {
  key: 'pool-full',
  title: 'Pools that run full',
  find: (network) =>
    live(network).flatMap((row): Finding[] => {
      const inside = row.role === 'pool' ? childrenOf(network, row) : [];
      // A pool that other pools share out is full by design.
      if (inside.length === 0 || inside.some((child) => child.role === 'pool')) return [];
      const { share } = useOf(network, row);
      if (share <= almostFull) return [];
      return [
        tell(
          network,
          'pool-full',
          'warn',
          [{ kind: 'prefix', row }],
          `${titled(row)} is ${Math.round(share * 100)} % given away. Plan the next pool before it is full.`,
        ),
      ];
    }),
};

/** A subnet is somewhere: on a VLAN. */
export const prefixWithoutVlan: Rule = {
  key: 'prefix-without-vlan',
  title: 'Subnets on no VLAN',
  find: (network) =>
    live(network)
      .filter((row) => row.role === 'subnet' && row.vlanId === null)
      .map((row) =>
        tell(
          network,
          'prefix-without-vlan',
          'warn',
          [{ kind: 'prefix', row }],
          `${titled(row)} is a subnet on no VLAN. Give it its VLAN, or make it a transit prefix if it is one link.`,
        ),
      ),
};

/** Two addresses are two ends of a link, not room for hosts (RFC 3021, RFC 6164). */
export const pointToPointMisuse: Rule = {
  key: 'point-to-point-misuse',
  title: 'Two-address prefixes used for hosts',
  find: (network) =>
    live(network).flatMap((row): Finding[] => {
      const prefix = parsePrefix(row.prefix);
      if (prefix === null || prefix.length !== (prefix.family === 4 ? 31 : 127)) return [];
      const why =
        row.role === 'subnet'
          ? 'is a subnet for hosts'
          : row.ranges.length > 0
            ? 'has ranges to hand out'
            : null;
      if (why === null) return [];
      return [
        tell(
          network,
          'point-to-point-misuse',
          'warn',
          [{ kind: 'prefix', row }],
          `${titled(row)} has two addresses, which are the ends of one link, but ${why}. Make it a transit prefix, or take a larger one.`,
        ),
      ];
    }),
};

/** A site's pool is announced as one route: what lies in it stands at that site. */
export const summaryLeak: Rule = {
  key: 'summary-leak',
  title: 'Prefixes outside the place that their summary leads to',
  find: (network) =>
    live(network).flatMap((row): Finding[] => {
      if (row.placeId === null || parentOf(network, row)?.role !== 'pool') return [];
      const prefix = parsePrefix(row.prefix);
      if (prefix === null) return [];
      const pools = prefixTree(network, row.vrfId)
        .around(prefix)
        .flatMap((entry) => entry.ids.flatMap((id) => network.get('prefix', id) ?? []));
      const pool = pools
        .filter((one) => one.role === 'pool' && one.placeId !== null && one.id !== row.id)
        .at(-1);
      if (pool === undefined || placesWithin(network, pool.placeId).has(row.placeId)) return [];
      const there = network.get('place', pool.placeId)?.name ?? '';
      const here = network.get('place', row.placeId)?.name ?? '';
      return [
        tell(
          network,
          'summary-leak',
          'warn',
          [
            { kind: 'prefix', row },
            { kind: 'prefix', row: pool },
          ],
          `${titled(row)} is at ${here}, inside ${pool.prefix}, the pool of ${there}: announced as one route, that pool draws its packets to ${there}. Take it from a pool of ${here}.`,
        ),
      ];
    }),
};

export const prefixRules: readonly Rule[] = [
  prefixOverlap,
  poolFull,
  prefixWithoutVlan,
  pointToPointMisuse,
  summaryLeak,
];
