import { derived } from '../model/network/derived.ts';
import type { Network } from '../model/network/network.ts';

/** A label that ends in a number. */
interface Numbered {
  prefix: string;
  number: number;
  /** Digits the number is written with, zeros in front included. */
  width: number;
}

/** Labels of one prefix, read without regard to case; written as the one with the highest number is. */
interface Series {
  low: number;
  high: Numbered;
  /** Numbers between the lowest and the highest that no label has, in order; the first `mostMissing` of them. */
  missing: readonly number[];
}

/** More gaps than these in one series are not listed: then numbers were never given one after the other. */
const mostMissing = 1000;

function numbered(label: string): Numbered | null {
  let end = label.length;
  while (end > 0 && label.charCodeAt(end - 1) >= 48 && label.charCodeAt(end - 1) <= 57) end--;
  const width = label.length - end;
  return width === 0 ? null : { prefix: label.slice(0, end), number: Number(label.slice(end)), width };
}

/** The prefix of a numbered label; null where it ends in no number. */
export const labelPrefix = (label: string): string | null => numbered(label)?.prefix ?? null;

const isHigher = (one: Numbered, other: Numbered): boolean =>
  one.number !== other.number
    ? one.number > other.number
    : one.width !== other.width
      ? one.width > other.width
      : one.prefix > other.prefix;

function seriesFrom(labels: readonly Numbered[]): Series | null {
  const [first] = labels;
  if (first === undefined) return null;
  const high = labels.reduce((highest, one) => (isHigher(one, highest) ? one : highest), first);
  const numbers = Float64Array.from(labels, ({ number }) => number).sort();
  const missing: number[] = [];
  for (let at = 1; at < numbers.length; at++)
    for (let number = (numbers[at - 1] ?? 0) + 1; number < (numbers[at] ?? 0); number++)
      if (missing.push(number) >= mostMissing) return { low: numbers[0] ?? 0, high, missing };
  return { low: numbers[0] ?? 0, high, missing };
}

/** Labels by their prefix in lower case. */
function byPrefix(labels: Iterable<string>): Map<string, Numbered[]> {
  const found = new Map<string, Numbered[]>();
  for (const label of labels) {
    const one = numbered(label);
    if (one === null) continue;
    const key = one.prefix.toLowerCase();
    const list = found.get(key);
    if (list === undefined) found.set(key, [one]);
    else list.push(one);
  }
  return found;
}

const written = ({ high, missing }: Series): string[] =>
  missing.map((number) => `${high.prefix}${String(number).padStart(high.width, '0')}`);

/** Labels missing from the sequences of these, sequence by sequence, each in order. */
export const missingLabels = (labels: Iterable<string>): string[] =>
  [...byPrefix(labels).values()].flatMap((list) => {
    const series = seriesFrom(list);
    return series === null ? [] : written(series);
  });

/** A series with one label more; null where it is to be read anew. */
function withLabel({ low, high, missing }: Series, label: Numbered): Series | null {
  if (missing.length >= mostMissing) return null;
  const { number } = label;
  const above = Math.max(high.number, number);
  const gaps = (from: number, to: number): number[] =>
    Array.from({ length: Math.max(0, to - from) }, (_, step) => from + step);
  if (above - high.number + Math.max(0, low - number) > mostMissing) return null;
  return {
    low: Math.min(low, number),
    high: isHigher(label, high) ? label : high,
    missing: [
      ...gaps(number + 1, low),
      ...missing.filter((one) => one !== number),
      ...gaps(high.number + 1, number),
    ],
  };
}

/** A series with one label less, which may be there in another spelling; null where it is to be read anew. */
function withoutLabel(network: Network, series: Series, label: Numbered): Series | null {
  const { low, high, missing } = series;
  if (label.number === low || label.number === high.number || missing.length >= mostMissing) return null;
  const prefix = label.prefix.toLowerCase();
  for (let width = String(label.number).length; width <= 16; width++)
    if (network.findOne('cableByLabel', `${prefix}${String(label.number).padStart(width, '0')}`) !== null)
      return series;
  const at = missing.findIndex((number) => number > label.number);
  const before = at < 0 ? missing : missing.slice(0, at);
  return { low, high, missing: [...before, label.number, ...(at < 0 ? [] : missing.slice(at))] };
}

const labelsOf = function* (network: Network): Generator<string> {
  for (const { label } of network.all('cable')) yield label;
};

type AllSeries = ReadonlyMap<string, Series>;

/** The label series of all cables, by prefix in lower case; carried over edits label by label. */
const seriesOf: (network: Network) => AllSeries = derived<AllSeries>(
  (network) =>
    new Map(
      [...byPrefix(labelsOf(network))].flatMap(([prefix, list]) => {
        const series = seriesFrom(list);
        return series === null ? [] : [[prefix, series] as const];
      }),
    ),
  (before, network, touched) => {
    const after = new Map(before);
    for (const row of touched) {
      if (row.kind !== 'cable') continue;
      const [was, is] = [row.before, row.after].map((cable) => cable?.label ?? null);
      if (was === is) continue;
      for (const [label, gone] of [
        [was, true],
        [is, false],
      ] as const) {
        const one = label == null ? null : numbered(label);
        if (one === null) continue;
        const key = one.prefix.toLowerCase();
        const series = after.get(key);
        if (series === undefined) {
          if (gone) return null;
          after.set(key, { low: one.number, high: one, missing: [] });
          continue;
        }
        const changed = gone ? withoutLabel(network, series, one) : withLabel(series, one);
        if (changed === null) return null;
        after.set(key, changed);
      }
    }
    return after;
  },
);

/** The highest label of the sequence that a label belongs to; null where there is none. */
export function lastOfSeries(network: Network, label: string): string | null {
  const one = numbered(label);
  const high = one === null ? undefined : seriesOf(network).get(one.prefix.toLowerCase())?.high;
  return high === undefined ? null : `${high.prefix}${String(high.number).padStart(high.width, '0')}`;
}

/** Labels missing from the sequences of all cables of a network. */
export const missingCableLabels = (network: Network): string[] =>
  [...seriesOf(network).values()].flatMap(written);
