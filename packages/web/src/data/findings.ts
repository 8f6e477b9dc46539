import { dayOf, reviewed, type Day, type Review } from '@visograph/core/check';
import type { Network } from '@visograph/core/model';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import type { Finding } from '@visograph/core/check';
import { useShown } from './shown.ts';

/** What was found, and in which network; null until all rules have been asked for the first time. */
export type Judged = { review: Review; network: Network; day: Day } | null;

/** What the rules find; follows an edit a moment later, so that the edit itself never waits for it. */
export function useFindings(): Judged {
  const network = useDeferredValue(useShown());
  const [found, setFound] = useState<{ findings: readonly Finding[]; network: Network } | null>(null);
  useEffect(() => {
    // Before the project is read there is nothing, which says nothing about it.
    if (network.count('project') === 0) return undefined;
    let wanted = true;
    const ask = async (): Promise<void> => {
      const { judged: judge } = await import('./judge.ts');
      const findings = wanted ? await judge(network, () => wanted) : null;
      if (findings !== null && wanted) setFound({ findings, network });
    };
    void ask();
    return () => {
      wanted = false;
    };
  }, [network]);
  const day = dayOf(new Date());
  return useMemo(
    () =>
      found === null
        ? null
        : { review: reviewed(found.network, found.findings, day), network: found.network, day },
    [found, day],
  );
}
