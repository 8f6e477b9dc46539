import { inForce } from '@visograph/core/lens';
import { type Network } from '@visograph/core/model';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { useNetwork } from './project.tsx';

/** Whether what is only planned is left out; kept in the address, so that it holds wherever one goes. */
export function useBuiltToday(): [builtToday: boolean, set: (on: boolean) => void] {
  const [search, setSearch] = useSearchParams();
  const set = (on: boolean): void => {
    const next = new URLSearchParams(search);
    if (on) next.set('built', '1');
    else next.delete('built');
    setSearch(next, { replace: true });
  };
  return [search.get('built') === '1', set];
}

/** What says which network is meant: for every call that reads one. */
export interface MeantQuery {
  plan?: string;
  at?: string;
  built?: string;
}

export function useMeantQuery(): MeantQuery {
  const [search] = useSearchParams();
  const [plan, at, built] = [search.get('plan'), search.get('at'), search.get('built')];
  return useMemo(
    () => ({
      ...(plan === null ? {} : { plan }),
      ...(at === null ? {} : { at }),
      ...(built === null ? {} : { built }),
    }),
    [plan, at, built],
  );
}

/** A path of the application with what says which network is meant. */
export function useShownPath(): (path: string) => string {
  const meant = new URLSearchParams({ ...useMeantQuery() }).toString();
  return (path) => (meant === '' ? path : `${path}${path.includes('?') ? '&' : '?'}${meant}`);
}

/**
 * The network to draw, count and work out from: all of it, or what is built today alone where the person asked for
 * that. Edits are made on the whole network.
 */
export function useShown(): Network {
  const network = useNetwork();
  const [builtToday] = useBuiltToday();
  return builtToday ? inForce(network, { planned: false }) : network;
}
