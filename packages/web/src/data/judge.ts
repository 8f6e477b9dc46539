import { findingsOf, rules, type Finding } from '@visograph/core/check';
import { type Network } from '@visograph/core/model';

const idle = (): Promise<void> =>
  new Promise((resolve) => void requestIdleCallback(() => resolve(), { timeout: 200 }));

/**
 * What all rules find in a network: rule by rule while nothing else is to be done, so that a large network does not
 * hold up the screen. Null when it is no longer wanted.
 */
export async function judged(network: Network, wanted: () => boolean): Promise<readonly Finding[] | null> {
  for (const rule of rules) {
    const started = performance.now();
    rule.findings(network);
    if (performance.now() - started > patienceMs) await idle();
    if (!wanted()) return null;
  }
  return findingsOf(network);
}
/** A rule that took longer than this lets the screen have its turn. */
const patienceMs = 4;
