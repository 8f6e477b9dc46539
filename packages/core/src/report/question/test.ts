import { daysFrom } from '../../model/values/day.ts';
import type { AskedFilter } from '../../model/kinds/reports/schedule.ts';
import { takesValue } from '../../model/kinds/reports/schedule.ts';
import { compareNames } from '../../model/values/order.ts';
import type { Cell, Column } from '../table.ts';

type Test = (value: Cell) => boolean;

const day = /^\d{4}-\d{2}-\d{2}$/;
const relative = /^today(?:\s*([+-])\s*(\d{1,5}))?$/i;

/** `today + 30` as a date: year-month-day, UTC. Any other text is itself. */
export function meantDay(text: string, today: string): string {
  const [found, sign, count] = relative.exec(text.trim()) ?? [];
  if (found === undefined) return text;
  return daysFrom(today, (sign === '-' ? -1 : 1) * Number(count ?? 0));
}

/** A number as a person writes it: with a comma or a point, thousands parted or not. */
export function readNumber(text: string): number | null {
  const tidy = text.replaceAll(/[\s\u202f\u00a0]/g, '').replace(',', '.');
  return /^[+-]?\d+(\.\d+)?$/.test(tidy) ? Number(tidy) : null;
}

/** How a value of a row stands to the one that is asked for: below 0, alike, or above; null: it cannot be said. */
function comparison(numeric: boolean, wanted: string): (value: Cell) => number | null {
  const figure = numeric ? readNumber(wanted) : null;
  const asDay = day.test(wanted);
  return (value) => {
    if (value === null || value === '') return null;
    if (figure !== null) {
      const own = typeof value === 'number' ? value : readNumber(value);
      return own === null ? null : own - figure;
    }
    const own = String(value);
    if (asDay) return own < wanted ? -1 : own > wanted ? 1 : 0;
    return compareNames(own, wanted);
  };
}

/**
 * The test that a filter means for values of a column: texts without regard to case, figures as figures, dates as days.
 *
 * @returns why not, where the value that it asks for is none for this column
 */
export function testFor(column: Column, { test, value }: AskedFilter, today: string): Test | string {
  if (!takesValue(test)) {
    const wanted = test === 'is empty';
    return (own) => (own === null || own === '') === wanted;
  }
  const wanted = meantDay(value, today).trim();
  if (wanted === '')
    return `The filter ${column.label} ${test} … asks for nothing. Give a value, or take it out.`;
  if (test === 'contains' || test === 'does not contain') {
    const part = wanted.toLowerCase();
    return (own) =>
      String(own ?? '')
        .toLowerCase()
        .includes(part) ===
      (test === 'contains');
  }
  if (column.numeric === true && readNumber(wanted) === null)
    return `${column.label} is a figure: “${value}” is none. Give a number in the filter, such as 10.`;
  const compared = comparison(column.numeric === true, wanted);
  const alike: Test = (own) =>
    column.numeric === true ? compared(own) === 0 : String(own ?? '').toLowerCase() === wanted.toLowerCase();
  if (test === 'is') return alike;
  if (test === 'is not') return (own) => !alike(own);
  return (own) => {
    const stands = compared(own);
    return stands !== null && (test === 'at least' ? stands >= 0 : stands <= 0);
  };
}
