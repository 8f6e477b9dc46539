import { applyChanges } from '../../change/apply.ts';
import type { Change } from '../../change/change.ts';
import type { Network } from '../../model/network/network.ts';
import { isOneOf, keysOf } from '../../model/values/words.ts';
import type { RowResult, RowsRead } from '../../places/exchange/placeRows.ts';
import { Wrong } from '../../exchange/listRows.ts';

/** Headings that are understood, by what they are about; compared without regard to case. */
export type Headings = Readonly<Record<string, readonly string[]>>;
export type Text<H extends Headings> = (heading: keyof H & string) => string;

function columnsOf<H extends Headings>(row: readonly string[], headings: H): Map<keyof H & string, number> {
  const found = new Map<keyof H & string, number>();
  row.forEach((cell, column) => {
    const text = cell.trim().toLowerCase();
    const heading = keysOf<keyof H & string>(headings).find((name) => isOneOf(headings[name] ?? [], text));
    if (heading !== undefined && !found.has(heading)) found.set(heading, column);
  });
  return found;
}

export interface RowDone {
  what: string;
  changes: (Change | null)[];
}

/** Reads rows one by one onto a network: a row that fails leaves no trace, the others are made together. */
export function readRows<H extends Headings>(
  base: Network,
  rows: readonly (readonly string[])[],
  headings: H,
  needed: readonly (keyof H & string)[],
  read: (network: Network, text: Text<H>) => RowDone,
  sentence: (added: number, changed: number) => string,
): RowsRead {
  const [first = [], ...rest] = rows;
  const columns = columnsOf(first, headings);
  const missing = needed.filter((name) => !columns.has(name));
  if (missing.length > 0)
    return {
      ...{ results: [], changes: [], sentence: '' },
      problem: `The first row must hold headings, among them ${needed.map((name) => `“${headings[name]?.[0] ?? name}”`).join(' and ')}. It lacks ${missing.map((name) => `“${headings[name]?.[0] ?? name}”`).join(' and ')}.`,
    };
  let network = base;
  const changes: Change[] = [];
  const results: RowResult[] = [];
  rest.forEach((cells, at) => {
    if (cells.every((cell) => cell.trim() === '')) return;
    const text: Text<H> = (heading) => cells[columns.get(heading) ?? -1]?.trim() ?? '';
    const row = at + 2;
    try {
      const done = read(network, text);
      const made = done.changes.filter((change) => change !== null);
      const applied = applyChanges(network, made);
      if (!applied.ok)
        throw new Wrong(applied.problems[0]?.message.replace(/\.$/, '') ?? 'It cannot be taken');
      ({ network } = applied);
      changes.push(...made);
      const adds = made.some(({ op }) => op === 'create');
      results.push({
        ...{ row, what: done.what, problem: null },
        does: adds ? 'adds' : made.length > 0 ? 'changes' : 'nothing',
      });
    } catch (error) {
      if (!(error instanceof Wrong)) throw error;
      const what =
        needed
          .map((name) => text(name))
          .join(' ')
          .trim() || 'row';
      results.push({ row, what, does: 'wrong', problem: error.message });
    }
  });
  const count = (does: RowResult['does']): number => results.filter((one) => one.does === does).length;
  return {
    results,
    changes,
    sentence: sentence(count('adds'), count('changes')),
    problem: results.length === 0 ? 'There are no rows below the headings.' : null,
  };
}
