import { compareNames } from '../../model/values/order.ts';
import { anyKind, type Row } from '../../model/kinds.ts';
import type { RequirementKind } from '../../model/kinds/review/requirement.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath, placesWithin } from '../../model/network/places.ts';
import type { Asking } from './completeness.ts';
import { askedFacts, type AskedFact } from './facts.ts';

/** What stands in a cell of a fact that is not asked for of a row. */
export const notAsked = '·';

export interface GapColumn {
  key: string;
  label: string;
  /** Whether it can be typed in. */
  editable: boolean;
}
export interface GapRow {
  id: string;
  name: string;
  place: string;
  /** By fact: what is there, empty where it is missing. */
  cells: Readonly<Record<string, string>>;
}

/**
 * Rows of a kind as a work list, by name: a column for each of these facts. One that is complete may be among them: it
 * stays where it was filled in.
 */
export function gapTable<K extends RequirementKind>(
  network: Network,
  kind: K,
  listed: readonly Asking[],
  wanted: ReadonlySet<string>,
): { columns: GapColumn[]; rows: GapRow[] } {
  const own = listed.filter((one) => one.kind === kind);
  const facts: AskedFact<K>[] = askedFacts[kind].filter(({ key }) => wanted.has(key));
  const rows = own.flatMap(({ id, placeId, asked: ofRow }): GapRow[] => {
    const row = network.get(kind, id);
    if (row === null) return [];
    const cells = facts.map((fact): [string, string] => [
      fact.key,
      ofRow.includes(fact.key) ? fact.text(network, row) : notAsked,
    ]);
    const named: Row = row;
    return [
      {
        id,
        name: anyKind(kind).nameOf(named),
        place: placeId === null ? '' : placePath(network, placeId),
        cells: Object.fromEntries(cells),
      },
    ];
  });
  return {
    columns: facts.map(({ key, label, field }) => ({ key, label, editable: field !== null })),
    rows: rows.sort((a, b) => compareNames(a.name, b.name)),
  };
}

/** Rows in a scope; all of them where that is the whole project. */
export function askingWithin(network: Network, rows: readonly Asking[], scopeId: string | null): Asking[] {
  if (scopeId === null) return [...rows];
  const within = placesWithin(network, scopeId);
  return rows.filter(({ placeId }) => within.has(placeId ?? ''));
}
