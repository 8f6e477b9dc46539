import { bothOf } from '../../check/rowParts.ts';
import type { Network, Touched } from '../../model/network/network.ts';

/** The prefixes of a cloud subnet that was touched. */
export const prefixesOfSubnet = (_network: Network, touched: Touched): string[] =>
  bothOf(touched, 'cloudSubnet').flatMap(({ prefixId, v6PrefixId }) =>
    [prefixId ?? [], v6PrefixId ?? []].flat(),
  );
