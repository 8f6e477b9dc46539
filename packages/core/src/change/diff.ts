import { kindNames, type Kind } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
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

function diffRow<K extends Kind>(kind: K, id: string, from: Network, to: Network): Change | null {
  const before = from.get(kind, id);
  const after = to.get(kind, id);
  if (before === after) return null;
  if (after === null) return before === null ? null : remove(kind, before);
  return before === null ? create(kind, after) : update(kind, before, after);
}

/** The same where only these rows can differ: what is made before it is referred to, what is removed after that. */
export function diffOf(from: Network, to: Network, rows: Iterable<{ kind: Kind; id: string }>): Change[] {
  const byKind = new Map<Kind, Set<string>>();
  for (const { kind, id } of rows) byKind.set(kind, (byKind.get(kind) ?? new Set()).add(id));
  const found = kindNames.flatMap((kind) =>
    [...(byKind.get(kind) ?? [])].flatMap((id) => diffRow(kind, id, from, to) ?? []),
  );
  const removed = found.filter(({ op }) => op === 'delete').reverse();
  return [...found.filter(({ op }) => op !== 'delete'), ...removed];
}
