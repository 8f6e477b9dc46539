import { kinds, type Kind, type Rows } from '../model/kinds.ts';
import type { Network } from '../model/network.ts';
import { portTitle } from '../model/ports.ts';
import type { Finding } from './finding.ts';

type Subject = { [K in Kind]: { kind: K; row: Rows[K] } }[Kind];

const named = (network: Network, { kind, row }: Subject): string =>
  kind === 'port'
    ? `port ${portTitle(network, row.id)}`
    : `${kinds[kind].one} ${(kinds[kind].nameOf as (of: typeof row) => string)(row)}`;

/** A finding about some rows, the first of them the one it is shown at. */
export const tell = (
  network: Network,
  rule: string,
  severity: Finding['severity'],
  subjects: readonly Subject[],
  message: string,
): Finding => ({
  rule,
  severity,
  about: subjects.map((subject) => named(network, subject)),
  rows: subjects.map(({ kind, row }) => ({ kind, id: row.id })),
  message,
});
