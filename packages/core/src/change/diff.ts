import { kindNames, type Kind } from '../model/kinds.ts';
import type { Network } from '../model/network.ts';
import { create, remove, update, type Change } from './change.ts';

function diffKind<K extends Kind>(kind: K, from: Network, to: Network, changes: Change[]): void {
  for (const row of to.all(kind)) {
    const before = from.get(kind, row.id);
    if (before === row) continue;
    const change = before === null ? create(kind, row) : update(kind, before, row);
    if (change !== null) changes.push(change);
  }
  for (const row of from.all(kind)) if (to.get(kind, row.id) === null) changes.push(remove(kind, row));
}

/** The changes that lead from one network to another, rows that others refer to first. */
export function diff(from: Network, to: Network): Change[] {
  const changes: Change[] = [];
  for (const kind of kindNames) diffKind(kind, from, to, changes);
  return changes;
}
