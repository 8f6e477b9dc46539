import { kinds } from '../model/kinds.ts';
import { asChange, type Change } from './change.ts';

/** A change as it was written before its kind had all the fields of today: those are left blank. */
export const completed = (change: Change): Change =>
  change.op === 'create'
    ? asChange({ ...change, after: { ...kinds[change.kind].blank, ...change.after } })
    : change;

/**
 * A change as short as it can be kept: what is empty in a new row and in a blank one is left out. `completed` gives the
 * same change again.
 */
export function shortened(change: Change): Change {
  if (change.op !== 'create') return change;
  const blank = new Map<string, unknown>(Object.entries(kinds[change.kind].blank));
  const said = Object.entries(change.after).filter(
    ([field, value]) => value !== null || blank.get(field) !== null,
  );
  return asChange({ ...change, after: Object.fromEntries(said) });
}

const opposite = (change: Change): Change => {
  if (change.op === 'create')
    return asChange({ op: 'delete', kind: change.kind, id: change.id, before: change.after });
  if (change.op === 'delete')
    return completed(asChange({ op: 'create', kind: change.kind, id: change.id, after: change.before }));
  return asChange({ ...change, before: change.after, after: change.before });
};

/**
 * The changes that take these back: applied after them, they leave the network as it was. A row
 * that was deleted before its kind had all the fields of today comes back with those left blank.
 */
export const invert = (changes: readonly Change[]): Change[] => changes.map(opposite).reverse();
