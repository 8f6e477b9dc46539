import { derivedBy } from '../model/network/derived.ts';
import type { Grade } from '../model/kinds/review/ruleGrade.ts';
import type { Waiver } from '../model/kinds/review/waiver.ts';
import type { Network } from '../model/network/network.ts';
import type { Day } from '../model/values/day.ts';
import { aboutKey, factMark, severityOn, type Finding, type Severity } from './finding.ts';
import { findingsOf } from './registry.ts';

/** A finding as the project takes it on a day: graded, and held back where somebody said that it is meant. */
export interface Reviewed {
  finding: Finding;
  severity: Severity;
  waiver: Waiver | null;
}
/** Why a waiver holds nothing back any more. */
export type WaiverEnd = 'its day has come' | 'the fact has changed' | 'the rule is off';

export interface Review {
  /** What is to be mended. In no particular order. */
  open: readonly Reviewed[];
  /** What is meant: each with the waiver that says why. */
  meant: readonly (Reviewed & { waiver: Waiver })[];
  /** Waivers that hold nothing back. */
  ended: readonly { waiver: Waiver; why: WaiverEnd }[];
}

/** What the project makes of rules that it takes otherwise than they are. */
const gradesOf = (network: Network): Map<string, Grade> =>
  new Map([...network.all('ruleGrade')].map(({ rule, grade }) => [rule, grade]));

const holds = (waiver: Pick<Waiver, 'until'>, day: Day): boolean =>
  waiver.until === null || day <= waiver.until;

/** By what waivers and findings of one rule find each other. */
const waiverKey = ({ about, facts }: Pick<Waiver, 'about' | 'facts'>): string =>
  `${aboutKey(about)} ${facts}`;

/** The waivers of a finding, whether they still hold or not. */
export const waiversOf = (network: Network, { rule, subjects, facts }: Finding): Waiver[] => {
  const ofRule = network.find('waiversByRule', rule);
  if (ofRule.length === 0) return [];
  const key = waiverKey({ about: [...subjects], facts: factMark(facts) });
  return ofRule.filter((waiver) => waiverKey(waiver) === key);
};

function endOf(waiver: Waiver, day: Day, matched: ReadonlySet<string>, grade: Grade | undefined): WaiverEnd {
  if (grade === 'off') return 'the rule is off';
  return matched.has(waiver.id) && !holds(waiver, day) ? 'its day has come' : 'the fact has changed';
}

/** The one that is shown where several hold: the one that holds the longest. */
const longest = (waivers: readonly Waiver[]): Waiver | null =>
  waivers.reduce<Waiver | null>(
    (best, one) =>
      best === null || (best.until !== null && (one.until === null || one.until > best.until)) ? one : best,
    null,
  );

/**
 * What a project makes of what its rules found on a day: rules that are off are left out, others graded as it says,
 * and what is meant stands apart as long as its facts and its day are what they were.
 */
export function reviewed(network: Network, findings: readonly Finding[], day: Day): Review {
  const grades = gradesOf(network);
  const open: Reviewed[] = [];
  const meant: (Reviewed & { waiver: Waiver })[] = [];
  const matched = new Set<string>();
  const holding = new Set<string>();
  for (const finding of findings) {
    const grade = grades.get(finding.rule);
    const own = severityOn(finding, day);
    if (own === null || grade === 'off') continue;
    const severity = grade ?? own;
    const waivers = waiversOf(network, finding);
    const inForce = waivers.filter((waiver) => holds(waiver, day));
    for (const { id } of waivers) matched.add(id);
    for (const { id } of inForce) holding.add(id);
    const waiver = longest(inForce);
    if (waiver === null) open.push({ finding, severity, waiver });
    else meant.push({ finding, severity, waiver });
  }
  const ended = [...network.all('waiver')]
    .filter(({ id }) => !holding.has(id))
    .map((waiver) => ({ waiver, why: endOf(waiver, day, matched, grades.get(waiver.rule)) }));
  return { open, meant, ended };
}

/** The same of all rules; kept for the network and the day. */
export const reviewOf: (network: Network, day: Day) => Review = derivedBy((network, day: Day) =>
  reviewed(network, findingsOf(network), day),
);
