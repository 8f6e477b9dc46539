import { applyChanges } from '../../change/apply.ts';
import { diffOf } from '../../change/diff.ts';
import type { Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { Network } from '../../model/network/network.ts';
import { aboutKey, findingKey, type Finding } from '../finding.ts';
import { mendsOf, ruleOf } from '../registry.ts';

/** What mending several findings in one way comes to. */
export interface MendedAll {
  attempt: Attempt;
  mended: Finding[];
  /** Those that are still there and cannot be mended in this way, or not any more after those before them. */
  left: Finding[];
}

/** The ways that several findings can be mended alike, each with those that it is offered for. */
export function waysOf(network: Network, findings: readonly Finding[]): Map<string, Finding[]> {
  const ways = new Map<string, Finding[]>();
  for (const finding of findings)
    for (const way of new Set(mendsOf(network, finding).flatMap(({ way: one }) => one ?? []))) {
      const offered = ways.get(way) ?? [];
      offered.push(finding);
      ways.set(way, offered);
    }
  return ways;
}

/** The finding as it stands after others were mended; null: it went along with one of them. */
function still(network: Network, finding: Finding): Finding | null {
  const now = ruleOf(finding).findings(network);
  const key = findingKey(finding);
  const about = aboutKey(finding.subjects);
  return (
    now.find((one) => findingKey(one) === key) ?? now.find((one) => aboutKey(one.subjects) === about) ?? null
  );
}

/**
 * Mends findings one after the other in the same way, each on what those before it left, in the order in which they
 * are given; one step in the history.
 */
export function mendAll(network: Network, findings: readonly Finding[], way: string): MendedAll {
  let staged = network;
  const touched: Change[] = [];
  const done: MendedAll = {
    attempt: refuse('None of them can be mended like this any more.'),
    mended: [],
    left: [],
  };
  for (const finding of findings) {
    const now = still(staged, finding);
    if (now === null) {
      done.mended.push(finding);
      continue;
    }
    const mend = mendsOf(staged, now).find((one) => one.way === way);
    const applied = mend === undefined ? null : applyChanges(staged, mend.set.changes);
    if (mend === undefined || applied?.ok !== true) {
      done.left.push(finding);
      continue;
    }
    staged = applied.network;
    touched.push(...mend.set.changes);
    done.mended.push(finding);
  }
  if (touched.length === 0) return done;
  const many = `${done.mended.length} finding${done.mended.length === 1 ? '' : 's'}`;
  return {
    ...done,
    attempt: judged(network, diffOf(network, staged, touched), `Mended ${many}: ${way.toLowerCase()}`),
  };
}
