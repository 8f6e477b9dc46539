/** A day from a cell as year-month-day, or why it is none. */
export type DayRead = { ok: true; day: string } | { ok: false; why: string };

const numbers = /^(\d{1,2})([./-])(\d{1,2})\2(\d{4})$/;
const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ].*)?$/;

function dayOf(year: number, month: number, day: number, text: string): DayRead {
  const date = new Date(Date.UTC(year, month - 1, day));
  const isOne = date.getUTCMonth() === month - 1 && date.getUTCDate() === day && year >= 1900 && year <= 2200;
  return isOne
    ? { ok: true, day: date.toISOString().slice(0, 10) }
    : { ok: false, why: `“${text}” is not a day that exists: write 2031-06-30` };
}

/**
 * How the days of a column are read. Year first is plain (ISO 8601), points are day first; of other spellings the whole
 * column tells which of the two figures is the month: where none does, a day is not guessed.
 */
export function dayReader(cells: Iterable<string>): (text: string) => DayRead {
  let dayFirst = false;
  let monthFirst = false;
  for (const cell of cells) {
    const [, a, sign, b] = numbers.exec(cell.trim()) ?? [];
    if (sign === '.' || a === undefined) continue;
    if (Number(a) > 12) dayFirst = true;
    if (Number(b) > 12) monthFirst = true;
  }
  return (text) => {
    const word = text.trim();
    const [, year, month, day] = iso.exec(word) ?? [];
    if (year !== undefined) return dayOf(Number(year), Number(month), Number(day), word);
    const [, a, sign, b, last] = numbers.exec(word) ?? [];
    if (a === undefined || b === undefined)
      return { ok: false, why: `“${word}” is not a day: write 2031-06-30` };
    const [x, y, z] = [Number(a), Number(b), Number(last)];
    if (sign === '.' || x === y || x > 12) return dayOf(z, y, x, word);
    if (y > 12) return dayOf(z, x, y, word);
    if (dayFirst !== monthFirst) return dayFirst ? dayOf(z, y, x, word) : dayOf(z, x, y, word);
    return {
      ok: false,
      why: `“${word}” can be two days, and nothing in its column tells which figure is the month: write 2031-06-30`,
    };
  };
}
