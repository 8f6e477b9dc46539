import { held, kindNames, type Kind } from '../kinds.ts';
import type { Network, Touched } from './network.ts';

/** What a computation reads of a network: of each kind named here some fields, or all of a row. */
export type Reads = { readonly [K in Kind]?: readonly string[] | 'all' };

/** Whether two values of a field are the same; lists and objects are compared by what is in them. */
const same = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === 'object' && typeof b === 'object' && JSON.stringify(a) === JSON.stringify(b));

/** Whether what was touched can change what is computed from these reads. A row that came or went always can. */
export function concerns(reads: Reads, { kind, before, after }: Touched): boolean {
  const fields = reads[kind];
  if (fields === undefined) return false;
  if (fields === 'all' || before === null || after === null) return true;
  return fields.some((field) => !same(held(before)[field], held(after)[field]));
}

/** Several reads together. */
export function allOf(...parts: readonly Reads[]): Reads {
  const all = new Map<Kind, readonly string[] | 'all'>();
  for (const part of parts)
    for (const kind of kindNames) {
      const fields = part[kind];
      if (fields === undefined) continue;
      const known = all.get(kind) ?? [];
      all.set(kind, known === 'all' || fields === 'all' ? 'all' : [...new Set([...known, ...fields])]);
    }
  return Object.fromEntries(all);
}

/** Keeps what was worked out while nothing that it reads was touched. */
export const keptWhile =
  (reads: Reads) =>
  <T>(before: T, _network: Network, touched: readonly Touched[]): T | null =>
    touched.some((one) => concerns(reads, one)) ? null : before;
