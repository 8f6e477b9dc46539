import { compareNames } from '../../model/values/order.ts';
import type { Cell } from '../table.ts';

/**
 * Where the value of each row stands among all values, from 0; equal ones alike; −1 for one that is empty. Distinct
 * values are compared once each, however many rows have them.
 */
export function ranked(rows: readonly number[], valueOf: (at: number) => Cell, numeric: boolean): Int32Array {
  const values = rows.map(valueOf);
  const distinct = [...new Set(values)].filter((value) => value !== null && value !== '');
  const numbers = distinct.filter((value) => typeof value === 'number');
  const texts = distinct.filter((value) => typeof value === 'string');
  numbers.sort((a, b) => a - b);
  // Numbers that are written as text in a column of figures stand among the figures.
  texts.sort(
    (a, b) => (numeric && Number(a) !== Number(b) ? Number(a) - Number(b) : 0) || compareNames(a, b),
  );
  const rank = new Map<Cell, number>([...numbers, ...texts].map((value, at) => [value, at]));
  return Int32Array.from(values, (value) => rank.get(value) ?? -1);
}
