import { anyKind, isKind, type Kind, type Row } from '../kinds.ts';
import type { Network } from '../network/network.ts';

/** What a row is called in one line, with what it is part of where its own name does not tell it: "kq-core-1 te1/1". */
export function titleOf(network: Network, kind: Kind, id: string | null): string {
  const row = network.get(kind, id);
  return row === null ? '' : rowTitle(network, kind, row);
}

export function rowTitle(network: Network, kind: Kind, row: Row): string {
  const { titled, nameOf } = anyKind(kind);
  if (titled === undefined) return nameOf(row);
  return titled(row, (of, id) => (isKind(of) ? titleOf(network, of, id) : ''));
}
