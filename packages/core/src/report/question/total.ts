import type { Total } from '../../model/kinds/reports/schedule.ts';
import type { Cell } from '../table.ts';

const decimals = 1e6;
/** Sums of decimals come out as they are added by hand: 0.1 and 0.2 are 0.3. */
const tidy = (value: number): number => Math.round(value * decimals) / decimals;

/**
 * What is worked out of the values of rows: their sum, mean, least, most, or how many there are. What is empty does not
 * count; null where no value is there that could be worked with.
 */
export function totalOf(total: Total, rows: readonly number[], valueOf: (at: number) => Cell): Cell {
  let count = 0;
  let sum = 0;
  let numbers = 0;
  let least = Infinity;
  let most = -Infinity;
  for (const at of rows) {
    const value = valueOf(at);
    if (value === null || value === '') continue;
    count++;
    if (typeof value !== 'number') continue;
    numbers++;
    sum += value;
    if (value < least) least = value;
    if (value > most) most = value;
  }
  if (total === 'count') return count;
  if (numbers === 0) return null;
  if (total === 'sum') return tidy(sum);
  if (total === 'mean') return tidy(sum / numbers);
  return total === 'least' ? least : most;
}
