import { create, remove, update, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { Grade } from '../../model/kinds/review/ruleGrade.ts';
import type { Waiver } from '../../model/kinds/review/waiver.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import type { Day } from '../../model/values/day.ts';
import { factMark, type Finding } from '../finding.ts';
import { rulesByKey } from '../registry.ts';
import { waiversOf } from '../review.ts';

export interface WaiverWish {
  /** Why it is meant to be so. */
  reason: string;
  /** The last day on which that holds; null: as long as the facts stay as they are. */
  until: Day | null;
  /** Who says so, and on which day. */
  by: string;
  on: Day;
}

const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

/** Says that findings are meant to be so. What was said of one before is replaced. */
export function waive(network: Network, findings: readonly Finding[], wish: WaiverWish): Attempt {
  const reason = wish.reason.trim();
  if (reason === '') return refuse('Say why it is meant to be so: the reason is empty.');
  if (wish.until !== null && wish.until < wish.on)
    return refuse(`The waiver would end on ${wish.until}, before it begins. Give a later day, or none.`);
  const said = { reason, until: wish.until, by: wish.by, madeOn: wish.on };
  const changes = findings.map((finding): Change | null => {
    const [known] = waiversOf(network, finding);
    if (known !== undefined) return update('waiver', known, said);
    const about = finding.subjects.map(({ kind, id }) => ({ kind, id }));
    return create('waiver', {
      ...said,
      id: newId(),
      rule: finding.rule,
      about,
      facts: factMark(finding.facts),
    });
  });
  return judged(network, changes, `Waived ${counted(findings.length, 'finding')}: ${reason}`);
}

/** Takes waivers back: what they held is to be mended again, where it is still there. */
export const endWaivers = (network: Network, waivers: readonly Waiver[]): Attempt =>
  judged(
    network,
    waivers.map((waiver) => remove('waiver', waiver)),
    `Ended ${counted(waivers.length, 'waiver')}`,
  );

const gradeWords: Readonly<Record<Grade, string>> = { bad: 'a fault', warn: 'a warning', off: 'off' };

/** Takes what a rule finds as a fault, a warning or not at all in this project; null: as the rule itself says. */
export function gradeRule(
  network: Network,
  key: string,
  grade: Grade | null,
  reason: string | null = null,
): Attempt {
  const rule = rulesByKey.get(key);
  if (rule === undefined) return refuse(`There is no rule ${key}.`);
  const known = [...network.all('ruleGrade')].find((row) => row.rule === key) ?? null;
  if (grade === null)
    return judged(
      network,
      [known === null ? null : remove('ruleGrade', known)],
      `Took the rule “${rule.title}” as it is`,
    );
  const row = { rule: key, grade, reason: reason?.trim() || null };
  return judged(
    network,
    [known === null ? create('ruleGrade', { id: newId(), ...row }) : update('ruleGrade', known, row)],
    `Set the rule “${rule.title}” to ${gradeWords[grade]}`,
  );
}
