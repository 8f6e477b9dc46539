import type { Network } from '../../model/network/network.ts';

/** "Parts list", "Parts list 2" …: the first that no row of the kind has. */
export function freeName(network: Network, kind: 'partsList' | 'priceList', word: string): string {
  const taken = new Set([...network.all(kind)].map(({ name }) => name.toLowerCase()));
  for (let at = 1; ; at++) {
    const name = at === 1 ? word : `${word} ${at}`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}
