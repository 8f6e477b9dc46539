import { z } from 'zod';

/** A day as the calendar writes it: 2027-03-01 (ISO 8601). Days are compared as texts. */
export type Day = string;

export const isDay = (text: string): boolean => z.iso.date().safeParse(text).success;

/** The day of a moment where one is. */
export const dayOf = (moment: Date): Day =>
  [moment.getFullYear(), moment.getMonth() + 1, moment.getDate()]
    .map((part, at) => String(part).padStart(at === 0 ? 4 : 2, '0'))
    .join('-');

/** The same day so many years earlier or later; 29 February becomes 28 February where there is none. */
export function yearsFrom(day: Day, years: number): Day {
  const [year = '', month = '', date = ''] = day.split('-');
  const moved = `${String(Number(year) + years).padStart(4, '0')}-${month}-${date}`;
  return isDay(moved) ? moved : `${moved.slice(0, 8)}28`;
}

/** The day so many days later, or earlier where negative. */
export function daysFrom(day: Day, days: number): Day {
  const at = new Date(`${day}T00:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}
