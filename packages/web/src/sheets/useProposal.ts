import { applyChanges, type ChangeSet } from '@visograph/core/change';
import type { Network } from '@visograph/core/model';
import type { Scene } from '@visograph/core/sheets';
import { useMemo, useState } from 'react';

/** An arrangement that is looked at before it is taken over. */
export interface Proposal {
  set: ChangeSet;
  /** What it is: "Laid out afresh". */
  told: string;
  /** The drawing as it is without it. */
  before: Scene;
}

export interface Proposing {
  proposal: Proposal | null;
  /** The network as it would be; null where nothing is proposed, or it no longer goes with what others did. */
  network: Network | null;
  propose: (proposal: Proposal | null) => void;
}

/** What is proposed for a sheet, over the network as it is now. */
export function useProposal(network: Network): Proposing {
  const [proposal, propose] = useState<Proposal | null>(null);
  const made = useMemo(
    () => (proposal === null ? null : applyChanges(network, proposal.set.changes)),
    [network, proposal],
  );
  const would = made?.ok === true ? made.network : null;
  return { proposal: would === null ? null : proposal, network: would, propose };
}
