import { grouped, type Kind, type Network } from '@visograph/core/model';

/** A kind, and what one and several of it are called here. */
export type Counted = readonly [kind: Kind, one: string, many: string];

export const count = (network: Network, [kind, one, many]: Counted): string => {
  const rows = network.count(kind);
  return `${grouped(rows)} ${rows === 1 ? one : many}`;
};
