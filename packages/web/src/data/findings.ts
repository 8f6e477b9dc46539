import type { Finding } from '@visograph/core/check';
import type { Network } from '@visograph/core/model';
import { useDeferredValue, useEffect, useState } from 'react';
import { useShown } from './shown.ts';

/** What was found, and in which network; null until all rules have been asked for the first time. */
export type Judged = { findings: readonly Finding[]; network: Network } | null;

/** What the checks find; follows an edit a moment later, so that the edit itself never waits for it. */
export function useFindings(): Judged {
  const network = useDeferredValue(useShown());
  const [judged, setJudged] = useState<Judged>(null);
  useEffect(() => {
    // Before the project is read there is nothing, which says nothing about it.
    if (network.count('project') === 0) return undefined;
    let wanted = true;
    const ask = async (): Promise<void> => {
      const { judged: judge } = await import('./judge.ts');
      const findings = wanted ? await judge(network, () => wanted) : null;
      if (findings !== null && wanted) setJudged({ findings, network });
    };
    void ask();
    return () => {
      wanted = false;
    };
  }, [network]);
  return judged;
}
