import { anyKind, held, kindNames, type Kind, type Row } from '../model/kinds.ts';
import { referrers, type Network } from '../model/network/network.ts';
import { grouped } from '../model/values/numbers.ts';
import { remove, updateHeld, type Change } from './change.ts';

/** A row by its kind and id. */
export interface Subject {
  kind: Kind;
  id: string;
}

export interface Removal {
  /** Fields that are cleared, then the rows, each before what it refers to: each row once. */
  changes: Change[];
  /** The rows that go because others do, not those that were named. */
  along: { kind: Kind; row: Row }[];
}

const referrersTo = new Map(
  kindNames.map((kind) => [kind, referrers.filter(({ refersTo }) => refersTo === kind)]),
);

/** All that goes with these rows, by what the kinds say of their references. */
function goingWith(network: Network, named: readonly Subject[]): Map<string, Subject & { row: Row }> {
  const going = new Map<string, Subject & { row: Row }>();
  const waiting = [...named];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    const { kind, id } = next;
    const row = network.get(kind, id);
    if (row === null || going.has(id)) continue;
    going.set(id, { kind, id, row });
    for (const { kind: other, index, onRemove } of referrersTo.get(kind) ?? [])
      if (onRemove === 'goes')
        for (const found of network.find(index, id)) waiting.push({ kind: other, id: found.id });
  }
  return going;
}

/**
 * Takes rows out with all that belongs to them: what each kind says of its references decides what goes along and
 * what merely points at nothing afterwards. Rows that hold one of them are left as they are, and `applyChanges` names
 * them.
 */
export function removal(network: Network, named: readonly Subject[]): Removal {
  const going = goingWith(network, named);
  const cleared = new Map<string, { kind: Kind; row: Row; fields: Record<string, null> }>();
  for (const { kind, id } of going.values())
    for (const { kind: other, index, fields, onRemove } of referrersTo.get(kind) ?? []) {
      if (onRemove !== 'cleared') continue;
      for (const row of network.find(index, id)) {
        if (going.has(row.id)) continue;
        const entry = cleared.get(row.id) ?? { kind: other, row, fields: {} };
        for (const field of fields) if (held(row)[field] === id) entry.fields[field] = null;
        cleared.set(row.id, entry);
      }
    }
  const rank = new Map(kindNames.map((kind, at) => [kind, at]));
  const order = [...going.values()].sort((a, b) => (rank.get(b.kind) ?? 0) - (rank.get(a.kind) ?? 0));
  const asked = new Set(named.map(({ id }) => id));
  return {
    changes: [
      ...[...cleared.values()].map(({ kind, row, fields }) => updateHeld(kind, row, fields)),
      ...order.map(({ kind, row }) => remove(kind, row)),
    ].filter((change) => change !== null),
    along: order.filter(({ id }) => !asked.has(id)).map(({ kind, row }) => ({ kind, row })),
  };
}

/** "48 ports, 6 cables and 2 addresses", or nothing: what goes, in numbers and in the order of the kinds. */
export function inNumbers(rows: readonly { kind: Kind; row: Row }[]): string {
  const parts: string[] = [];
  for (const kind of kindNames) {
    const { uncounted, one, many, wordsFor } = anyKind(kind);
    if (uncounted === true) continue;
    const counts = new Map<string, { count: number; many: string }>();
    for (const { row } of rows.filter((entry) => entry.kind === kind)) {
      const words = wordsFor?.(row) ?? { one, many };
      counts.set(words.one, { count: (counts.get(words.one)?.count ?? 0) + 1, many: words.many });
    }
    // The plain word first, whatever the order of the rows.
    const told = [...counts].sort(([a], [b]) => (a === one ? -1 : b === one ? 1 : a < b ? -1 : 1));
    for (const [word, { count, many: several }] of told)
      parts.push(`${grouped(count)} ${count === 1 ? word : several}`);
  }
  const last = parts.pop();
  return last === undefined ? '' : parts.length === 0 ? last : `${parts.join(', ')} and ${last}`;
}
