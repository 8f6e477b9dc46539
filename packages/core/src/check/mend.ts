import type { ChangeSet } from '../change/change.ts';
import type { Attempt } from '../commands/attempt.ts';

/** A step that a rule knows to set right what it found: what it would do, as one says it beforehand, and whether it can. */
export interface Offer {
  wish: string;
  /** The same without the names in it, for several findings that can be mended alike; left out: each by itself. */
  way?: string;
  attempt: Attempt;
}
/** One that can be made. */
export interface Mend {
  wish: string;
  way: string | null;
  set: ChangeSet;
}

/** Those of the offers that can be made and change anything. */
export const possible = (offers: readonly Offer[]): Mend[] =>
  offers.flatMap(({ wish, way = null, attempt }) =>
    attempt.ok && attempt.set.changes.length > 0 ? [{ wish, way, set: attempt.set }] : [],
  );
