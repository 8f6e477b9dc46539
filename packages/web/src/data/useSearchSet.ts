import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

/** What is to stand in the address under a name: null takes it out, undefined leaves it as it is. */
export type SearchWish = Readonly<Record<string, string | null | undefined>>;

/** What the address asks, and a way to ask otherwise in one go, in place of the entry of the history. */
export function useSearchSet(): [URLSearchParams, (to: SearchWish) => void] {
  const [search, setSearch] = useSearchParams();
  const set = useCallback(
    (to: SearchWish) => {
      setSearch(
        (before) => {
          const next = new URLSearchParams(before);
          for (const [name, value] of Object.entries(to)) {
            if (value === undefined) continue;
            if (value === null) next.delete(name);
            else next.set(name, value);
          }
          return next;
        },
        { replace: true },
      );
    },
    [setSearch],
  );
  return [search, set];
}
