import type { Change, WireChange } from '@visograph/core/change';
import type { MemberRole } from '../database/rows.ts';
import { Refusal } from '../http/problem.ts';

/** Whether a change accepts a model for the whole organisation, or takes that back. */
function sharesModel(change: Change | WireChange): boolean {
  if (change.kind !== 'model' || change.op === 'delete') return false;
  const sharing = ({ sharing }: { sharing?: unknown }): unknown => sharing;
  const [before, after] = [
    change.op === 'update' ? sharing(change.before) : undefined,
    sharing(change.after),
  ];
  return after === 'accepted' || (before === 'accepted' && after !== undefined);
}

/**
 * An owner alone decides which models the whole organisation sees, how bad the project takes what rules find,
 * and what must be documented.
 */
export function refuseUnlessOwner(role: MemberRole, changes: readonly (Change | WireChange)[]): void {
  if (role === 'owner') return;
  const refuse = (what: string): Refusal =>
    new Refusal(403, 'Not allowed', `You are ${role} of this project; only an owner ${what}`);
  if (changes.some(sharesModel))
    throw refuse('accepts a model for the organisation or takes it back. Offer it instead.');
  if (changes.some(({ kind }) => kind === 'ruleGrade'))
    throw refuse('grades rules or switches them off. Waive single findings instead.');
  if (changes.some(({ kind }) => kind === 'requirement')) throw refuse('decides what must be documented.');
}
