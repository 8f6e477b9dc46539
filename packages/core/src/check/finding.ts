import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Subject } from '../change/removal.ts';
import type { Day } from '../model/values/day.ts';
import { possible, type Mend, type Offer } from './mend.ts';
import { inForce } from '../lens/inForce.ts';
import { derived } from '../model/network/derived.ts';
import type { Network, Touched } from '../model/network/network.ts';
import { concerns, type Reads } from '../model/network/reads.ts';

export type Severity = 'bad' | 'warn';

export type Fact = string | number | boolean | null | readonly Fact[] | { readonly [name: string]: Fact };
/** What was found, as values: figures, ids of things, what one of a few cases it is. Never text for people. */
export type Facts = { readonly [name: string]: Fact };

/** What a rule found. The text is made at the edge by the rule; logic reads the facts. */
export interface Finding<F extends Facts = Facts> {
  rule: string;
  severity: Severity;
  /** The things concerned, the first of them the one it is shown at. */
  subjects: readonly Subject[];
  facts: F;
  /** Where it comes with the calendar: from which day on it is how bad, the earliest first. `severity` is the worst. */
  days?: readonly { from: Day; severity: Severity }[];
}
export type Evidence<F extends Facts> = Omit<Finding<F>, 'rule'>;

const isList = (fact: Fact): fact is readonly Fact[] => Array.isArray(fact);
const written = (fact: Fact | undefined): string => {
  if (fact === undefined || fact === null || typeof fact !== 'object') return JSON.stringify(fact ?? null);
  if (isList(fact)) return `[${fact.map(written).join()}]`;
  const entries = Object.entries(fact);
  return `{${entries
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, value]) => `${JSON.stringify(name)}:${written(value)}`)
    .join()}}`;
};

/** How bad it is on a day; null: it is not one yet. */
export const severityOn = ({ severity, days }: Finding, day: Day): Severity | null =>
  days === undefined ? severity : (days.findLast(({ from }) => from <= day)?.severity ?? null);

/** What findings are about, as one text in which the order does not count. */
export const aboutKey = (subjects: readonly { kind: string; id: string }[]): string =>
  subjects
    .map(({ kind, id }) => `${kind}:${id}`)
    .sort()
    .join(' ');

/** The same text for the same finding, whatever things are called: its rule, what it is about, and its facts. */
export const findingKey = ({ rule, subjects, facts }: Finding): string =>
  `${rule} ${aboutKey(subjects)} ${written(facts)}`;

/**
 * A short mark of facts: the first half of SHA-256 (FIPS 180-4) of their text, in hexadecimal. It tells nothing of
 * them to an audience that may not read them. `named` puts names in place of ids, for what goes into a file.
 */
export const factMark = (facts: Facts, named: (text: string) => string = (text) => text): string =>
  bytesToHex(sha256(utf8ToBytes(named(written(facts))))).slice(0, 32);

/** How a rule looks: in parts that can be judged by themselves, so that after an edit only some are judged again. */
export interface Parts<F extends Facts> {
  /** All that is found, part by part. */
  each: (network: Network) => Iterable<readonly [key: string, found: readonly Evidence<F>[]]>;
  /** What is found at a part; nothing where there is no such part. */
  judge: (network: Network, key: string) => readonly Evidence<F>[];
  /** The parts that a touched row can concern, `base` being the network before; null: it may be any of them. */
  concerned: (network: Network, touched: Touched, base: Network) => Iterable<string> | null;
}

interface RuleDefinition<F extends Facts> {
  /** What its findings are called in files and on the command line. */
  key: string;
  title: string;
  /** Why it matters, in a sentence or two. */
  why: string;
  /** What it stands on, where that is written down for all: a standard and its clause. */
  standard?: string;
  /** What it looks at: what is in force, or all there is, retired things as well. */
  looksAt?: 'in force' | 'all';
  reads: Reads;
  find: ((network: Network) => readonly Evidence<F>[]) | Parts<F>;
  /** What it says of what it found: what is wrong, and the remedy. */
  says: (facts: F, network: Network, subjects: readonly Subject[]) => string;
  /** What it is about where that is no row: "cable AH-00017" that is missing. */
  about?: (facts: F, network: Network, subjects: readonly Subject[]) => string[];
  /** What would set it right, each a step of its own; the first is the one that is usually meant. */
  mends?: (facts: F, network: Network, subjects: readonly Subject[]) => readonly Offer[];
}

/** One rule of the trade: what it looks for, how, and what it says. */
export interface Rule {
  readonly key: string;
  readonly title: string;
  readonly why: string;
  readonly standard: string | null;
  readonly reads: Reads;
  readonly looksAt: 'in force' | 'all';
  /** What is found in a network: kept, and after an edit made right for what was touched. In no particular order. */
  findings: (whole: Network) => readonly Finding[];
  says: (finding: Finding, network: Network) => string;
  about: ((finding: Finding, network: Network) => string[]) | null;
  /** Whether it knows of any way to set right what it finds. */
  readonly mendable: boolean;
  /** The steps that would set a finding right in a network that it was found in; those that cannot be made are left out. */
  mends: (finding: Finding, network: Network) => Mend[];
}

/** What was found, by part. */
type Book = ReadonlyMap<string, readonly Finding[]>;

const wholly = <F extends Facts>(find: (network: Network) => readonly Evidence<F>[]): Parts<F> => ({
  each: (network) => [['', find(network)]],
  judge: (network) => find(network),
  concerned: () => null,
});

function partsTouched<F extends Facts>(
  { concerned }: Parts<F>,
  network: Network,
  touched: readonly Touched[],
  base: Network,
): Set<string> | null {
  const keys = new Set<string>();
  for (const one of touched) {
    const found = concerned(network, one, base);
    if (found === null) return null;
    for (const key of found) keys.add(key);
  }
  return keys;
}

/** A rule whose findings are carried over edits by what it says it reads. */
export function defineRule<F extends Facts>(definition: RuleDefinition<F>): Rule {
  const { key, title, why, standard, reads, says, about, mends, looksAt = 'in force' } = definition;
  const parts = typeof definition.find === 'function' ? wholly(definition.find) : definition.find;
  const ours = (found: Evidence<F>): Finding => ({ rule: key, ...found });
  const judged = (network: Network, part: string): Finding[] => parts.judge(network, part).map(ours);
  const book = derived<Book>(
    (network) => {
      const made = new Map<string, readonly Finding[]>();
      for (const [part, found] of parts.each(network)) if (found.length > 0) made.set(part, found.map(ours));
      return made;
    },
    (before, network, touched, base) => {
      const relevant = touched.filter((one) => concerns(reads, one));
      if (relevant.length === 0) return before;
      const again = partsTouched(parts, network, relevant, base);
      if (again === null) return null;
      const after = new Map(before);
      for (const part of again) {
        const found = judged(network, part);
        if (found.length > 0) after.set(part, found);
        else after.delete(part);
      }
      return after;
    },
  );
  const flat = new WeakMap<Book, readonly Finding[]>();
  const listed = (of: Book): readonly Finding[] => {
    const known = flat.get(of) ?? [...of.values()].flat();
    flat.set(of, known);
    return known;
  };
  // Findings carry the facts of their own rule: the one place where that is taken for granted.
  const factsOf = (finding: Finding): F => finding.facts as F;
  return {
    key,
    title,
    why,
    standard: standard ?? null,
    reads,
    looksAt,
    findings: (whole) => listed(book(looksAt === 'all' ? whole : inForce(whole))),
    says: (finding, network) => says(factsOf(finding), network, finding.subjects),
    about:
      about === undefined ? null : (finding, network) => about(factsOf(finding), network, finding.subjects),
    mendable: mends !== undefined,
    mends: (finding, network) => possible(mends?.(factsOf(finding), network, finding.subjects) ?? []),
  };
}
