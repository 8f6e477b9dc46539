import { kinds, type Kind, type Row, anyKind } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { portTitle } from '../model/network/ports.ts';
import type { Subject } from '../change/removal.ts';

/** What a row is called; empty where there is no such row. */
export function nameOf(network: Network, kind: Kind, id: string | null): string {
  const row: Row | null = network.get(kind, id);
  return row === null ? '' : anyKind(kind).nameOf(row);
}

/** "kq-acc-1 gi1/4": a port as a sentence names it. */
export const portText = (network: Network, id: string | null): string =>
  portTitle(network, id).replace(':', ' ');

/** "cable AH-00017": a subject as people and files call it. */
export const subjectText = (network: Network, { kind, id }: Subject): string =>
  kind === 'port' ? `port ${portTitle(network, id)}` : `${kinds[kind].one} ${nameOf(network, kind, id)}`;

/** The ids of the subjects of a kind. */
export const idsOf = (subjects: readonly Subject[], kind: Kind): string[] =>
  subjects.flatMap((subject) => (subject.kind === kind ? [subject.id] : []));
