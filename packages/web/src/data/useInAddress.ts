import { recordOf } from '@visograph/core/model';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';

type Said<N extends string> = Readonly<Record<N, string | null>>;

/**
 * What the address says under these names, and a way to say otherwise, in place of the entry of the history. A change
 * counts at once, also while the address has not followed yet: what is typed letter by letter is not taken back by an
 * address that is a letter behind.
 *
 * @param names always the same array
 * @param also what else changes in the address with it
 */
export function useInAddress<N extends string>(
  names: readonly N[],
  also?: (next: URLSearchParams, to: Said<N>, before: URLSearchParams) => void,
): [Said<N>, (to: Said<N>) => void] {
  const [search, setSearch] = useSearchParams();
  const read = (params: URLSearchParams): Said<N> => recordOf(names, (name) => params.get(name));
  const keyOf = (said: Said<N>): string => JSON.stringify(names.map((name) => said[name]));
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const inAddress = useMemo(() => read(search), [search]);
  const [at, setAt] = useState(inAddress);
  const underWay = useRef<string[]>([]);
  const key = keyOf(inAddress);
  useEffect(() => {
    const own = underWay.current.indexOf(key);
    if (own >= 0) underWay.current.splice(0, own + 1);
    else setAt(inAddress);
    // Only where the address says something else.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const put = useCallback(
    (to: Said<N>) => {
      setAt(to);
      if (keyOf(to) !== key) underWay.current.push(keyOf(to));
      setSearch(
        (before) => {
          const next = new URLSearchParams(before);
          also?.(next, to, before);
          for (const name of names) {
            const value = to[name];
            if (value === null) next.delete(name);
            else next.set(name, value);
          }
          return next;
        },
        { replace: true },
      );
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [setSearch, key],
  );
  return [at, put];
}
