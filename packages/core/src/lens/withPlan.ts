import { applyChanges } from '../change/apply.ts';
import type { Change, JournalEntry, WireChange } from '../change/change.ts';
import { freeValue } from '../change/freeValue.ts';
import {
  kinds,
  keyRulesOf,
  leads,
  notesOf,
  refsOf,
  type Kind,
  type Row,
  anyKind,
  held,
  withFields,
} from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import type { Problem } from '../model/fields/problem.ts';

/** A step of a plan's line of history: what the journal holds of it. */
export type PlanEntry = Pick<JournalEntry, 'revision' | 'sentence' | 'changes' | 'undoes' | 'redoes'>;

/** A change of a plan that does not fit what the plan stands on any longer. */
export interface PlanConflict extends Problem {
  /** The entry of the plan that the change is of. */
  revision: number;
  sentence: string;
  /** `kept`: the plan's value holds all the same; `left out`: it cannot be made as things are. */
  outcome: 'kept' | 'left out';
}

export interface Planned {
  network: Network;
  /** In the order of the plan's entries. */
  conflicts: readonly PlanConflict[];
}

/** The entries that count: without those taken back, and without the undos and redos themselves. */
export function standing<E extends PlanEntry>(entries: readonly E[]): E[] {
  const gone = new Set<number>();
  for (const { undoes, redoes } of entries) {
    if (undoes !== null) gone.add(undoes);
    if (redoes !== null) gone.delete(redoes);
  }
  return entries.filter(
    ({ revision, undoes, redoes }) => undoes === null && redoes === null && !gone.has(revision),
  );
}

const shown = (value: unknown): string =>
  value === null || value === undefined || value === ''
    ? 'nothing'
    : typeof value === 'object'
      ? JSON.stringify(value)
      : String(value);

/** What a value is called: the name of the row where the field refers to one. */
function named(network: Network, kind: Kind, field: string, value: unknown): string {
  if (typeof value !== 'string') return shown(value);
  for (const [one, { to }] of refsOf(kind)) {
    const row: Row | null = one === field ? network.get(to, value) : null;
    if (row !== null) return anyKind(to).nameOf(row);
  }
  return shown(value);
}

/** Both sides of a field that as built changed after the plan did. */
function moved(network: Network, change: WireChange & { op: 'update' }, problem: Problem): string {
  const field = problem.field ?? '';
  const word = (value: unknown): string => named(network, change.kind, field, value);
  const label = notesOf(change.kind, field)?.label ?? field;
  return `${problem.about}: ${label} was ${word(change.before[field])} when this was planned and is ${word(problem.theirs)} as built. The plan says ${word(problem.mine)}.`;
}

/** What as built has done already as the plan wants it: nothing is left to do there, and nothing to decide. */
function isDone(network: Network, change: WireChange): boolean {
  const row = network.get(change.kind, change.id);
  if (change.op === 'delete') return row === null;
  return change.op === 'create' && row !== null;
}

/** One entry over a network that it may not fit: what can be made is made, the rest is told. */
function over(network: Network, entry: PlanEntry): Planned {
  const conflicts: PlanConflict[] = [];
  const tell = (problem: Problem, outcome: PlanConflict['outcome']): void =>
    void conflicts.push({ ...problem, revision: entry.revision, sentence: entry.sentence, outcome });
  const end = (made: Network): Planned => ({ network: made, conflicts });
  let left: WireChange[] = entry.changes.filter((change) => !isDone(network, change));
  while (left.length > 0) {
    const applied = applyChanges(network, left);
    if (applied.ok) return end(applied.network);
    const out = new Set<string>();
    let whole = false;
    for (const problem of applied.problems) {
      const change = left.find(({ id }) => id === problem.id);
      if (change?.op === 'update' && problem.code === 'conflict' && 'theirs' in problem) {
        const field = problem.field ?? '';
        tell({ ...problem, message: moved(network, change, problem) }, 'kept');
        left = left.map((one) =>
          one === change ? { ...change, before: { ...change.before, [field]: problem.theirs } } : one,
        );
        continue;
      }
      tell(problem, 'left out');
      // Taking out is one intent, made whole or not at all; so is what cannot be told from the rest.
      if (change === undefined || change.op === 'delete') whole = true;
      out.add(problem.id);
    }
    if (whole) return end(network);
    left = left.filter(({ id }) => !out.has(id));
  }
  return end(network);
}

/**
 * The network as it will be with a plan carried out: its entries replayed over a network, which may have moved on
 * since they were made. Where one does not fit any more that is told, change by change: a field that somebody changed
 * meanwhile keeps the plan's value; what cannot be (its port is taken, the row it builds on is gone) is left out with
 * all that needs it. Nothing is dropped without being told, except what as built has done already.
 */
export function withPlan(base: Network, entries: readonly PlanEntry[]): Planned {
  const plan = standing(entries);
  const all: Change[] = plan.flatMap(({ changes }) => changes);
  if (all.length === 0) return { network: base, conflicts: [] };
  const whole = applyChanges(base, all);
  if (whole.ok) return { network: whole.network, conflicts: [] };
  let network = base;
  const conflicts: PlanConflict[] = [];
  for (const entry of plan) {
    const applied = applyChanges(network, entry.changes);
    if (applied.ok) {
      network = applied.network;
      continue;
    }
    const made = over(network, entry);
    network = made.network;
    conflicts.push(...made.conflicts);
  }
  return {
    network,
    conflicts: conflicts.some(({ code }) => code === 'duplicate')
      ? offered(base, entries, network, conflicts)
      : conflicts,
  };
}

/** A value that is taken comes with one that neither as built nor any step of the plan has. */
function offered(
  base: Network,
  entries: readonly PlanEntry[],
  network: Network,
  conflicts: readonly PlanConflict[],
): PlanConflict[] {
  const rows = wanted(base, entries);
  const kept = new Map<string, Set<string>>();
  for (const { kind, what, key } of reservations(base, entries)) {
    const name = `${kind} ${what}`;
    kept.set(name, (kept.get(name) ?? new Set()).add(key));
  }
  return conflicts.map((conflict) => {
    const { kind, field, code, free: _free, ...rest } = conflict;
    const row = rows.get(conflict.id)?.row ?? null;
    if (code !== 'duplicate' || row === null) return conflict;
    const at = keyRulesOf(kind).findIndex(({ what }) => what === field);
    const free = freeValue(network, kind, row, at, kept.get(`${kind} ${field ?? ''}`));
    return { ...rest, kind, field, code, ...(free === null ? {} : { free }) };
  });
}

/** A name, label, number or address that a plan keeps for itself until it is carried out or thrown away. */
export interface Reservation {
  kind: Kind;
  /** The field that makes the key. */
  what: string;
  /** In lower case, as it is compared. */
  key: string;
  id: string;
  /** The value as it is written, to be told. */
  value: string;
}

/** The rows as a plan wants them, whether or not they can be so at the moment. */
function wanted(base: Network, entries: readonly PlanEntry[]): Map<string, { kind: Kind; row: Row | null }> {
  const rows = new Map<string, { kind: Kind; row: Row | null }>();
  for (const { changes } of standing(entries))
    for (const change of changes) {
      const { kind, id } = change;
      if (change.op === 'create') rows.set(id, { kind, row: change.after });
      else if (change.op === 'delete') rows.set(id, { kind, row: null });
      else {
        const known = rows.get(id)?.row ?? base.get(kind, id);
        if (known !== null) rows.set(id, { kind, row: withFields(known, change.after) });
      }
    }
  return rows;
}

/**
 * What a plan keeps for itself: the names, labels, numbers and addresses that its rows have and that as built does not
 * give them. What is named inside a thing that the plan makes, such as its ports, is nobody else's anyway. In the
 * order of their keys, each key once.
 */
export function reservations(base: Network, entries: readonly PlanEntry[]): Reservation[] {
  const kept: Reservation[] = [];
  for (const [id, { kind, row }] of wanted(base, entries)) {
    if (row === null || kinds[kind].uncounted === true) continue;
    const before: Row | null = base.get(kind, id);
    const made = refsOf(kind).flatMap(([field, lead]) => {
      const target = held(row)[field];
      const led = typeof target === 'string' && leads(row, lead);
      return led && base.get(lead.to, target) === null ? [target] : [];
    });
    for (const rule of keyRulesOf(kind)) {
      if (rule.meanwhile !== undefined) continue;
      const key = rule.key(row).toLowerCase();
      if (key === '' || made.some((target) => key.includes(target))) continue;
      if (before !== null && rule.key(before).toLowerCase() === key) continue;
      const value = shown(held(row)[rule.what]);
      kept.push({ kind, what: rule.what, key, id, value });
    }
  }
  const name = ({ kind, what, key }: Reservation): string => `${kind} ${what} ${key}`;
  kept.sort((a, b) => (name(a) < name(b) ? -1 : name(a) > name(b) ? 1 : a.id < b.id ? -1 : 1));
  return kept.filter((one, at) => at === 0 || name(one) !== name(kept[at - 1] ?? one));
}
