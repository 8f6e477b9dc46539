import { useEffect, useMemo, useState } from 'react';

/**
 * Of a list the part that is mounted: what was there stays, and at each frame some more come in, so that no frame has
 * to mount hundreds at once. With `each` null all of it at once.
 */
export function useGradually<T extends { id: string }>(
  wanted: readonly T[],
  each: number | null,
): readonly T[] {
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    if (each === null) return;
    const missing = wanted.filter(({ id }) => !ids.has(id));
    if (missing.length === 0) {
      if (ids.size > 2 * wanted.length + each) setIds(new Set(wanted.map(({ id }) => id)));
      return;
    }
    const frame = requestAnimationFrame(() =>
      setIds((before) => new Set([...before, ...missing.slice(0, each).map(({ id }) => id)])),
    );
    return () => cancelAnimationFrame(frame);
  }, [wanted, ids, each]);
  return useMemo(
    () => (each === null ? wanted : wanted.filter(({ id }) => ids.has(id))),
    [wanted, ids, each],
  );
}
