import { isOneOf, keysOf } from '@visograph/core/model';
import { useCallback, useMemo } from 'react';
import { useSearchSet } from '../data/useSearchSet.ts';

export const cloudViews = {
  picture: 'Picture',
  subnets: 'Subnets',
  routes: 'Routes',
  rules: 'Rules',
  instances: 'Instances',
  gateways: 'Gateways',
  addresses: 'Addresses',
  reach: 'Reach',
  names: 'Names',
  cost: 'Cost',
} as const;
export type CloudView = keyof typeof cloudViews;

export interface CloudAddress {
  view: CloudView;
  /** The virtual network that is open. */
  open: string | null;
  set: (to: { view?: CloudView; open?: string | null; sel?: string | null }) => void;
}

/** Where one is in the cloud, all of it in the address. */
export function useCloudAddress(): CloudAddress {
  const [search, setSearch] = useSearchSet();
  const view = search.get('show') ?? 'picture';
  const set = useCallback<CloudAddress['set']>(
    ({ view: show, ...to }) => setSearch({ show, ...to }),
    [setSearch],
  );
  return useMemo(
    () => ({
      view: isOneOf(keysOf<CloudView>(cloudViews), view) ? view : 'picture',
      open: search.get('open'),
      set,
    }),
    [view, search, set],
  );
}
