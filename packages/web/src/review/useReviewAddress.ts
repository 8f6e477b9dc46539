import { groupings, type Grouping } from '@visograph/core/check';
import { isOneOf, keysOf, type Kind } from '@visograph/core/model';
import { useCallback, useMemo } from 'react';
import { useSearchSet } from '../data/useSearchSet.ts';

export const reviewViews = { open: 'To mend', meant: 'Meant', complete: 'Complete', rules: 'Rules' } as const;
export type ReviewView = keyof typeof reviewViews;

/** A finding as the address names it: its rule, and the first thing it is about. */
export interface NamedFinding {
  rule: string;
  kind: Kind | string;
  id: string;
}

export interface ReviewAddress {
  view: ReviewView;
  by: Grouping;
  /** Only what is new since this revision. */
  since: string | null;
  finding: string | null;
  set: (to: {
    view?: ReviewView;
    by?: Grouping;
    since?: string | null;
    finding?: string | null;
    sel?: string | null;
  }) => void;
}

/** Where one is in the review, all of it in the address. */
export function useReviewAddress(): ReviewAddress {
  const [search, setSearch] = useSearchSet();
  const [view, by] = [search.get('show') ?? 'open', search.get('by') ?? 'rule'];
  const set = useCallback<ReviewAddress['set']>(
    ({ view: show, ...to }) => setSearch({ show, ...to }),
    [setSearch],
  );
  return useMemo(
    () => ({
      view: isOneOf(keysOf<ReviewView>(reviewViews), view) ? view : 'open',
      by: isOneOf(keysOf<Grouping>(groupings), by) ? by : 'rule',
      since: search.get('since'),
      finding: search.get('finding'),
      set,
    }),
    [view, by, search, set],
  );
}
