import type { ChangeSet } from '../change/change.ts';
import type { Attempt } from '../commands/attempt.ts';

/** A step that a rule knows to set right what it found: what it would do, as one says it beforehand, and whether it can. */
export interface Offer {
  wish: string;
  attempt: Attempt;
}
/** One that can be made. */
export interface Mend {
  wish: string;
  set: ChangeSet;
}

/** Those of the offers that can be made and change anything. */
export const possible = (offers: readonly Offer[]): Mend[] =>
  offers.flatMap(({ wish, attempt }) =>
    attempt.ok && attempt.set.changes.length > 0 ? [{ wish, set: attempt.set }] : [],
  );
