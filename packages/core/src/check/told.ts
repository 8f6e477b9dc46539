import type { Subject } from '../change/removal.ts';
import type { Waiver } from '../model/kinds/review/waiver.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import type { Day } from '../model/values/day.ts';
import type { Severity } from './finding.ts';
import { subjectText } from './names.ts';
import { ruleOf } from './registry.ts';
import { reviewOf, type Reviewed } from './review.ts';

/** A finding in words. */
export interface ToldFinding {
  rule: string;
  severity: Severity;
  /** What it is about, as people and files call it: "cable AH-00017". */
  about: string[];
  /** The same things by id, the first of them the one it is shown at. */
  rows: Subject[];
  message: string;
  /** Why it is meant to be so, and who said it; null: it is to be mended. */
  waiver: Pick<Waiver, 'reason' | 'by' | 'madeOn' | 'until'> | null;
}

/** What a finding says in a network that it was found in. */
export function tellFinding(network: Network, { finding, severity, waiver }: Reviewed): ToldFinding {
  const rule = ruleOf(finding);
  return {
    rule: finding.rule,
    severity,
    about: rule.about?.(finding, network) ?? finding.subjects.map((subject) => subjectText(network, subject)),
    rows: [...finding.subjects],
    message: rule.says(finding, network),
    waiver:
      waiver === null
        ? null
        : { reason: waiver.reason, by: waiver.by, madeOn: waiver.madeOn, until: waiver.until },
  };
}

const weight = { bad: 0, warn: 1 };

const worstFirst = (a: ToldFinding, b: ToldFinding): number =>
  weight[a.severity] - weight[b.severity] ||
  (a.rule < b.rule ? -1 : a.rule > b.rule ? 1 : 0) ||
  compareNames(a.about[0] ?? '', b.about[0] ?? '') ||
  compareNames(a.message, b.message);

export interface InOrder extends Reviewed {
  told: ToldFinding;
  mendable: boolean;
}
/** Findings with what they say, the bad ones first. */
export const toldInOrder = (network: Network, all: readonly Reviewed[]): InOrder[] =>
  all
    .map((one) => ({
      ...one,
      told: tellFinding(network, one),
      mendable: ruleOf(one.finding).mendable,
    }))
    .sort((a, b) => worstFirst(a.told, b.told));

/** What is to be mended on a day, in words, the bad ones first, of what is in force. */
export const checkNetwork = (network: Network, day: Day): ToldFinding[] =>
  toldInOrder(network, reviewOf(network, day).open).map(({ told }) => told);

/** What is meant, in the same way. */
export const meantIn = (network: Network, day: Day): ToldFinding[] =>
  toldInOrder(network, reviewOf(network, day).meant).map(({ told }) => told);
