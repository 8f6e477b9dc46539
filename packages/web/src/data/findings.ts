import { checkNetwork, derived, type Finding, type Network } from '@visograph/core';
import { useDeferredValue, useMemo } from 'react';
import { useShown } from './shown.ts';

/** The findings of a network are worked out once, whoever asks. */
const findingsOf = derived(checkNetwork);

/** What the checks find; follows an edit a moment later, so that the edit itself never waits for it. */
export function useFindings(): { findings: Finding[]; network: Network } {
  const network = useDeferredValue(useShown());
  return useMemo(() => ({ findings: findingsOf(network), network }), [network]);
}
