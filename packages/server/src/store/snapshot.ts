import type { Network } from '@visograph/core/model';

/** A network with the revision of the journal that it is of. */
export interface Snapshot {
  network: Network;
  revision: number;
}
