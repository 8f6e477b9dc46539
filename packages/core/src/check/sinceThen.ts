import type { Network } from '../model/network/network.ts';
import type { Day } from '../model/values/day.ts';
import { aboutKey, type Severity } from './finding.ts';
import type { Review, Reviewed } from './review.ts';
import { checkNetwork, type ToldFinding } from './told.ts';

/** The findings of a network beside those of an earlier one: worst first, as both tell them. */
export interface SinceThen {
  /** What was not there, or was less bad. */
  fresh: ToldFinding[];
  stayed: ToldFinding[];
  /** What is there no more. */
  gone: ToldFinding[];
}

/**
 * By what a finding is known again in another document: its rule and what it is about, by name. Ids differ between
 * documents, and the figures that a finding says may change while it stays the same one.
 */
const mark = ({ rule, about }: ToldFinding): string => JSON.stringify([rule, ...about]);

function counted(findings: readonly ToldFinding[]): Map<string, ToldFinding[]> {
  const byMark = new Map<string, ToldFinding[]>();
  for (const finding of findings) {
    const alike = byMark.get(mark(finding));
    if (alike === undefined) byMark.set(mark(finding), [finding]);
    else alike.push(finding);
  }
  return byMark;
}

/** Takes out the first of the findings that are alike for which that holds. */
function takeOut(
  alike: ToldFinding[] | undefined,
  fits: (finding: ToldFinding) => boolean,
): ToldFinding | undefined {
  const at = alike?.findIndex(fits) ?? -1;
  return at < 0 ? undefined : alike?.splice(at, 1)[0];
}

/** What is to be mended now and was not then, or was less bad: of two moments of one network, whose things share ids. */
export function freshIn(then: Review, now: Review): Reviewed[] {
  const known = new Map<string, Severity>();
  for (const { finding, severity } of then.open) {
    const key = `${finding.rule} ${aboutKey(finding.subjects)}`;
    if (known.get(key) !== 'bad') known.set(key, severity);
  }
  return now.open.filter(({ finding, severity }) => {
    const before = known.get(`${finding.rule} ${aboutKey(finding.subjects)}`);
    return before === undefined || (before === 'warn' && severity === 'bad');
  });
}

/** What a network's findings are on a day against those of an earlier one, which need not share any ids with it. */
export function sinceThen(before: Network, now: Network, day: Day): SinceThen {
  const found = checkNetwork(now, day);
  const left = counted(checkNetwork(before, day));
  const stayed = new Set<ToldFinding>();
  // Those that say the same first, so that of two about one thing the right one is known again.
  for (const finding of found)
    if (takeOut(left.get(mark(finding)), ({ message }) => message === finding.message) !== undefined)
      stayed.add(finding);
  for (const finding of found) {
    if (stayed.has(finding)) continue;
    const known = takeOut(left.get(mark(finding)), () => true);
    if (known !== undefined && !(known.severity === 'warn' && finding.severity === 'bad'))
      stayed.add(finding);
  }
  return {
    fresh: found.filter((finding) => !stayed.has(finding)),
    stayed: found.filter((finding) => stayed.has(finding)),
    gone: [...left.values()].flat(),
  };
}
