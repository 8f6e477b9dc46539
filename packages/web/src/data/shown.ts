import { inForce, type Network } from '@visograph/core';
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

/** A path of the API with what says which network is meant: the moment, and whether what is only planned is left out. */
export function useShownPath(): (path: string) => string {
  const [search] = useSearchParams();
  const meant = ['at', 'built'].flatMap((name) => {
    const value = search.get(name);
    return value === null ? [] : [`${name}=${encodeURIComponent(value)}`];
  });
  return (path) => (meant.length === 0 ? path : `${path}${path.includes('?') ? '&' : '?'}${meant.join('&')}`);
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
