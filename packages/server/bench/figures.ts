export interface Figure {
  work: string;
  value: number;
  unit: string;
  budget: number | null;
}

const sorted = (values: readonly number[]): number[] => [...values].sort((a, b) => a - b);
/** The value below which a share of all lie. */
export const at = (values: readonly number[], share: number): number =>
  sorted(values)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0;
export const median = (values: readonly number[]): number => at(values, 0.5);
export const percentile = at;

/** Figures as they are measured: told line by line, or as one JSON document at the end with --json. */
export class Report {
  private readonly figures: Figure[] = [];
  private readonly quiet = process.argv.includes('--json');

  note(work: string, value: number, unit: string, budget: number | null): void {
    this.figures.push({ work, value: Math.round(value * 1000) / 1000, unit, budget });
    if (this.quiet) return;
    const over = budget !== null && value > budget ? '! ' : '  ';
    const limit = budget === null ? '' : `  (budget ${budget})`;
    console.log(`${over}${work.padEnd(74)} ${value.toFixed(value < 10 ? 3 : 0).padStart(9)} ${unit}${limit}`);
  }

  finish(): void {
    if (this.quiet) console.log(JSON.stringify({ figures: this.figures }, null, 2));
  }
}

export const time = async <T>(work: () => T | Promise<T>): Promise<[T, number]> => {
  const started = performance.now();
  const result = await work();
  return [result, performance.now() - started];
};
