import {
  anyKind,
  held,
  isKind,
  kinds,
  leads,
  notesOf,
  refsOf,
  type Held,
  type Kind,
  type Row,
  type Rows,
} from '../model/kinds.ts';
import { referrers, type Network, type NetworkDraft } from '../model/network/network.ts';
import type { Problem, ProblemCode } from '../model/fields/problem.ts';
import { unwritableIn, unwritableInside } from '../model/values/writable.ts';
import { create, remove, sameValue, update, type Change, type WireChange } from './change.ts';
import { freeValue } from './freeValue.ts';
import { constraints } from './constraints/index.ts';

export type Applied =
  /** The network after the changes, and the changes as they really were: whole rows, true old values. */
  { ok: true; network: Network; changes: Change[] } | { ok: false; problems: Problem[] };

/** Problems beyond this number are not worth telling. */
const enough = 200;

const titled = (kind: Kind, row: Held): string => {
  const { name, label } = row;
  return `${kinds[kind].one} ${String(name ?? label ?? '')}`.trim();
};

const problem = (
  code: ProblemCode,
  kind: Kind,
  row: Held & { id: string },
  field: string | null,
  message: string,
  values: { mine?: unknown; theirs?: unknown } = {},
): Problem => ({ code, kind, id: row.id, about: titled(kind, row), field, message, ...values });

/** A title without the characters that are told to be wrong. */
const cleanTitle = (kind: Kind, row: Held): string =>
  [...titled(kind, row)].filter((letter) => unwritableIn(letter) === null).join('');

const labelOf = (kind: Kind, field: string): string => notesOf(kind, field)?.label ?? field;

function parseRow<K extends Kind>(
  kind: K,
  value: Record<string, unknown>,
  problems: Problem[],
  /** What is new in it: the rest was judged before. */
  fresh = Object.keys(value),
): Rows[K] | null {
  const result = kinds[kind].schema.safeParse(value);
  const field = result.success ? fresh.find((one) => unwritableInside(value[one]) !== null) : undefined;
  if (result.success && field === undefined) return result.data;
  const row = { ...value, id: String(value['id'] ?? '') };
  if (field !== undefined) {
    const what = `holds the character ${unwritableInside(value[field]) ?? ''}, which cannot be written. Take it out`;
    problems.push(
      problem('schema', kind, row, field, `${cleanTitle(kind, row)}: ${labelOf(kind, field)} ${what}.`),
    );
    return null;
  }
  for (const issue of result.error?.issues ?? []) {
    const at = String(issue.path[0] ?? '');
    const label = at === '' ? titled(kind, row) : labelOf(kind, at);
    problems.push(
      problem('schema', kind, row, at || null, `${titled(kind, row)}: ${label} ${issue.message}.`),
    );
  }
  return null;
}

function applyUpdate<K extends Kind>(
  draft: NetworkDraft,
  kind: K,
  change: WireChange,
  problems: Problem[],
): Change | null {
  if (change.op !== 'update') return null;
  const row = draft.get(kind, change.id);
  if (row === null) {
    problems.push(
      problem(
        'absent',
        kind,
        { id: change.id },
        null,
        `The ${kinds[kind].one} you changed is no longer there: somebody removed it.`,
      ),
    );
    return null;
  }
  // What else refers to the row does so by its id: another one would leave it behind as a ghost.
  if ('id' in change.after && change.after['id'] !== change.id) {
    const message = `${titled(kind, row)}: the id of a row cannot be changed. Leave it out, or make a new ${kinds[kind].one}.`;
    problems.push(problem('schema', kind, row, 'id', message));
    return null;
  }
  const current: Record<string, unknown> = { ...row };
  const fresh = Object.keys(change.after);
  for (const field of fresh) {
    const theirs = current[field];
    if (sameValue(theirs, change.before[field]) || sameValue(theirs, change.after[field])) continue;
    const message = `${titled(kind, row)}: ${labelOf(kind, field)} was changed by somebody else meanwhile. Look at the new value and decide again.`;
    problems.push(problem('conflict', kind, row, field, message, { mine: change.after[field], theirs }));
  }
  const { frozen, nameOf: called } = kinds[kind];
  if (frozen?.when(row) === true) {
    const moved = fresh.find(
      (field) =>
        !frozen.except.some((one) => one === field) && !sameValue(current[field], change.after[field]),
    );
    if (moved !== undefined) {
      const message = `The ${kinds[kind].one} ${called(row)} ${frozen.why}: its ${labelOf(kind, moved).toLowerCase()} cannot be changed.`;
      problems.push(problem('impossible', kind, row, moved, message));
      return null;
    }
  }
  const after = parseRow(kind, Object.assign(current, change.after), problems, fresh);
  if (after === null) return null;
  draft.put(kind, after);
  return update(kind, row, after);
}

/** Names a row of a kind within one set of changes. */
const nameOf = ({ kind, id }: WireChange): string => `${kind} ${id}`;

/** @param gone the rows that the set has deleted up to here */
function applyOne(
  draft: NetworkDraft,
  change: WireChange,
  gone: Set<string>,
  problems: Problem[],
): Change | null {
  const kind = change.kind;
  if (change.op === 'create') {
    const row = parseRow(kind, change.after, problems);
    if (row === null) return null;
    if (row.id !== change.id || draft.get(kind, row.id) !== null) {
      problems.push(
        problem('duplicate', kind, row, 'id', `${titled(kind, row)} exists already under this id.`),
      );
      return null;
    }
    // What refers to the old row would mean the new one: in the journal, on sheets, in what others have open.
    if (gone.has(nameOf(change))) {
      const message = `${titled(kind, row)} is deleted and made again under one id. Change it, or make it under a new id.`;
      problems.push(problem('duplicate', kind, row, 'id', message));
      return null;
    }
    draft.put(kind, row);
    return create(kind, row);
  }
  if (change.op === 'update') return applyUpdate(draft, kind, change, problems);
  const row = draft.get(kind, change.id);
  if (row === null) {
    problems.push(
      problem('absent', kind, { id: change.id }, null, `The ${kinds[kind].one} is gone already.`),
    );
    return null;
  }
  draft.drop(kind, change.id);
  gone.add(nameOf(change));
  return remove(kind, row);
}

/** Whether a change gives this field a value: all fields of a new row, those named in an update. */
type Touched = (field: string) => boolean;
const always: Touched = () => true;
const touchedBy = (change: Change): Touched =>
  change.op === 'update' ? (field) => field in change.after : always;

function checkReferences<K extends Kind>(
  network: Network,
  kind: K,
  row: Rows[K],
  touched: Touched,
  problems: Problem[],
): void {
  for (const [field, lead] of refsOf(kind)) {
    const target = lead.to;
    const id = held(row)[field];
    if (
      !leads(row, lead) ||
      !(touched(field) || touched(lead.by ?? field)) ||
      typeof id !== 'string' ||
      network.get(target, id) !== null
    )
      continue;
    const message = `${titled(kind, row)}: ${labelOf(kind, field)} refers to a ${kinds[target].one} that is not there.`;
    problems.push(problem('missing', kind, row, field, message));
  }
}

const withArticle = (word: string): string => `${/^[aeiou]/i.test(word) ? 'an' : 'a'} ${word}`;

function checkUnique<K extends Kind>(network: Network, kind: K, row: Rows[K], problems: Problem[]): void {
  kinds[kind].unique.forEach((rule, at) => {
    const other = network.get(kind, network.sameKey(kind, row, at));
    if (other === null) return;
    if (rule.meanwhile !== undefined) {
      const name = (of: string, id: string | null): string => {
        const found = isKind(of) ? { kind: of, row: network.get(of, id) } : null;
        return found?.row == null ? '' : anyKind(found.kind).nameOf(found.row);
      };
      return void problems.push(problem('conflict', kind, row, rule.what, rule.meanwhile(row, name)));
    }
    const label = labelOf(kind, rule.what).toLowerCase();
    const value = String(row[rule.what] ?? '');
    const message = `There is already ${withArticle(kinds[kind].one)} with the ${label} ${value}. Choose another ${label}.`;
    const free = freeValue(network, kind, row, at);
    problems.push({
      ...problem('duplicate', kind, row, rule.what, message),
      ...(free === null ? {} : { free }),
    });
  });
}

function checkRow<K extends Kind>(
  network: Network,
  kind: K,
  row: Rows[K],
  touched: Touched,
  problems: Problem[],
): void {
  const found = problems.length;
  checkReferences(network, kind, row, touched, problems);
  checkUnique(network, kind, row, problems);
  if (problems.length > found) return;
  const rules = constraints[kind] ?? [];
  for (const rule of rules) if (rule.fields.some(touched)) problems.push(...rule.check(network, row));
}

function checkRemoved(network: Network, kind: Kind, row: Row, problems: Problem[]): void {
  for (const referrer of referrers) {
    if (referrer.refersTo !== kind) continue;
    const count = network.countOf(referrer.index, row.id);
    if (count === 0) continue;
    const what = count === 1 ? kinds[referrer.kind].one : kinds[referrer.kind].many;
    const message = `${titled(kind, row)} cannot be deleted: ${count} ${what} still refer${count === 1 ? 's' : ''} to it.`;
    problems.push(problem('inUse', kind, row, null, message));
  }
}

/**
 * The network after these changes, made together, or the complete list of what forbids them. The order of the
 * changes does not matter for references and names: those are judged on the result. Pure: the same function runs
 * in the browser, on the server and in the command-line tool.
 */
export function applyChanges(network: Network, changes: readonly (Change | WireChange)[]): Applied {
  const problems: Problem[] = [];
  const draft = network.draft(new Set(changes.map((change) => change.kind)));
  const made: Change[] = [];
  const gone = new Set<string>();
  const hasProject = network.count('project') > 0;
  for (const change of changes) {
    if (change.kind === 'project' && (change.op === 'delete' || (change.op === 'create' && hasProject))) {
      const message = 'A project is neither made nor deleted by a change of its rows.';
      return { ok: false, problems: [problem('impossible', 'project', { id: change.id }, null, message)] };
    }
    const result = applyOne(draft, change, gone, problems);
    if (result !== null) made.push(result);
    if (problems.length >= enough) return { ok: false, problems };
  }
  if (problems.length > 0) return { ok: false, problems };
  const after = draft.finish();
  for (const change of made) {
    const row = after.get(change.kind, change.id);
    if (row !== null) checkRow(after, change.kind, row, touchedBy(change), problems);
    else if (change.op === 'delete') checkRemoved(after, change.kind, change.before, problems);
    if (problems.length >= enough) break;
  }
  return problems.length > 0 ? { ok: false, problems } : { ok: true, network: after, changes: made };
}
