import { isOneOf, keysOf } from '@visograph/core/model';
import { partGroupings, type PartGrouping } from '@visograph/core/purchase';
import { useCallback, useMemo } from 'react';
import { useSearchSet } from '../data/useSearchSet.ts';

export const purchaseViews = {
  lists: 'Parts lists',
  stock: 'Stock',
  licences: 'Licences',
  prices: 'Prices',
  quotations: 'Quotations',
} as const;
export type PurchaseView = keyof typeof purchaseViews;

export interface PurchaseAddress {
  view: PurchaseView;
  /** The parts list, price list or quotation that is open. */
  open: string | null;
  by: PartGrouping;
  set: (to: { view?: PurchaseView; open?: string | null; by?: PartGrouping; sel?: string | null }) => void;
}

/** Where one is among what is bought, all of it in the address. */
export function usePurchaseAddress(): PurchaseAddress {
  const [search, setSearch] = useSearchSet();
  const [view, by] = [search.get('show') ?? 'lists', search.get('by') ?? 'section'];
  const set = useCallback<PurchaseAddress['set']>(
    ({ view: show, ...to }) => setSearch({ show, ...to }),
    [setSearch],
  );
  return useMemo(
    () => ({
      view: isOneOf(keysOf<PurchaseView>(purchaseViews), view) ? view : 'lists',
      by: isOneOf<PartGrouping>(partGroupings, by) ? by : 'section',
      open: search.get('open'),
      set,
    }),
    [view, by, search, set],
  );
}
