/** Plates that hang on each other one after the other: a chain, or a ring where the last leads back to the first. */
export interface PlateString {
  ids: string[];
  ring: boolean;
}

/** A ring of fewer is drawn in one row: three plates are a triangle however they stand. */
export const smallestRing = 4;

/**
 * Chains and rings among the plates of one row: every plate has at most two others of the row beside it. Plates that
 * lead to more than two others of their row are in no string; neither are single ones.
 */
export function stringsOf(
  row: readonly string[],
  near: ReadonlyMap<string, readonly string[]>,
): PlateString[] {
  const there = new Set(row);
  const beside = new Map(
    row.map((id) => [
      id,
      [...new Set(near.get(id) ?? [])].filter((other) => other !== id && there.has(other)),
    ]),
  );
  const seen = new Set<string>();
  const strings: PlateString[] = [];
  for (const id of row) {
    if (seen.has(id)) continue;
    const members = [id];
    seen.add(id);
    for (const member of members)
      for (const other of beside.get(member) ?? [])
        if (!seen.has(other)) {
          seen.add(other);
          members.push(other);
        }
    const counts = members.map((member) => beside.get(member)?.length ?? 0);
    if (members.length < 2 || counts.some((count) => count > 2)) continue;
    const ring = counts.every((count) => count === 2);
    const ids = [members.find((_, at) => ring || counts[at] === 1) ?? id];
    for (let at = ids[0]; at !== undefined;) {
      at = (beside.get(at) ?? []).find((other) => !ids.includes(other));
      if (at !== undefined) ids.push(at);
    }
    strings.push({ ids, ring });
  }
  return strings;
}

/** A ring as two rows of equal length, the lower one back along the upper: drawn, it is a loop. */
export function loopRows(ring: readonly string[]): [upper: string[], lower: string[]] {
  const half = Math.ceil(ring.length / 2);
  return [ring.slice(0, half), ring.slice(half).reverse()];
}
