import { writeFileSync } from 'node:fs';

export interface Figure {
  /** What was done; what belongs to another figure names it before: `open a sheet › zoom in`. */
  work: string;
  value: number;
  unit: string;
  budget: number | null;
  /** How many times as long as the yardstick that was run right after it; null where it is no time. */
  ratio: number | null;
  /** What that is. */
  against: string | null;
}

const sorted = (values: readonly number[]): number[] => [...values].sort((a, b) => a - b);
/** The value below which a share of all lie. */
export const at = (values: readonly number[], share: number): number =>
  sorted(values)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0;
export const median = (values: readonly number[]): number => at(values, 0.5);
export const percentile = at;

/** A piece of work that takes as long as the machine is slow; milliseconds. */
export interface Yardstick {
  what: string;
  ms: () => number;
}

/** 100,000 texts in no order, the same each time (multiplicative hashing, Knuth, TAOCP 3, 6.4). */
const texts = Array.from({ length: 100_000 }, (_, n) => `n${(Math.imul(n, 2654435761) >>> 0).toString(36)}`);
const timed = (work: () => unknown): number => {
  const started = performance.now();
  work();
  return performance.now() - started;
};
export const sorting: Yardstick = { what: 'sort of 100,000 texts', ms: () => timed(() => [...texts].sort()) };
const table = new Map(texts.map((text, at) => [text, at]));
export const lookingUp: Yardstick = {
  what: '1,000,000 look-ups in a Map',
  ms: () =>
    timed(() => {
      let sum = 0;
      for (let round = 0; round < 10; round++) for (const text of texts) sum += table.get(text) ?? 0;
      return sum;
    }),
};
/** A yardstick that was measured where it stands, such as a COPY or the frame of an empty page. */
export const measured = (what: string, ms: number): Yardstick => ({ what, ms: () => ms });

const milliseconds: Readonly<Record<string, number>> = { ms: 1, s: 1000 };

/**
 * Figures as they are measured, each with its ratio to a yardstick run right after it: the machine's own speed varies
 * by a factor of three. Told line by line, or as one JSON document with --json; kept where BENCH_FIGURES says.
 */
export class Report {
  private readonly figures: Figure[] = [];
  private readonly quiet = process.argv.includes('--json');
  private above = '';

  constructor(private readonly usual: Yardstick = sorting) {}

  /** @param work what was done; with spaces before it belongs to what was told before */
  note(
    work: string,
    value: number,
    unit: string,
    budget: number | null,
    yardstick: Yardstick = this.usual,
  ): void {
    if (!work.startsWith(' ')) this.above = work;
    const whole = work.startsWith(' ') ? `${this.above} › ${work.trim()}` : work;
    const factor = milliseconds[unit];
    const ms = factor === undefined ? null : yardstick.ms();
    const ratio = ms === null || factor === undefined ? null : Number(((value * factor) / ms).toPrecision(3));
    const against = ratio === null ? null : yardstick.what;
    this.figures.push({ work: whole, value: Math.round(value * 1000) / 1000, unit, budget, ratio, against });
    if (this.quiet) return;
    const over = budget !== null && value > budget ? '! ' : '  ';
    const limit = budget === null ? '' : `  (budget ${budget})`;
    const times = ratio === null ? '' : `  ${ratio} x`;
    console.log(
      `${over}${work.padEnd(74)} ${value.toFixed(value < 10 ? 3 : 0).padStart(9)} ${unit}${limit}${times}`,
    );
  }

  finish(): void {
    if (this.quiet) console.log(JSON.stringify({ figures: this.figures }, null, 2));
    const path = process.env['BENCH_FIGURES'];
    if (path !== undefined) writeFileSync(path, JSON.stringify(this.figures));
  }
}

export const time = async <T>(work: () => T | Promise<T>): Promise<[T, number]> => {
  const started = performance.now();
  const result = await work();
  return [result, performance.now() - started];
};
