import { rewound } from '@visograph/core/change';
import { type Network } from '@visograph/core/model';
import type { Snapshot } from './snapshot.ts';
import { asBuilt, type Journal } from './journal.ts';

/** So many entries are taken back at once; the moment there is kept, so that the next question starts from it. */
const stride = 20_000;
/** Moments kept in memory for a project: they share with each other all that did not change. */
const mostKept = 40;

/** Networks of earlier moments, got from the journal by going back from the nearest later one that is known. */
export class Moments {
  private readonly kept = new Map<string, Map<number, Network>>();

  constructor(private readonly journal: Journal) {}

  /** The network at a revision from 1 to that of `newest`. */
  async at(projectId: string, newest: Snapshot, revision: number): Promise<Network> {
    const moments = this.kept.get(projectId) ?? new Map<number, Network>();
    this.kept.set(projectId, moments);
    let at = newest.revision;
    let { network } = newest;
    for (const [known, of] of moments) if (known >= revision && known < at) [at, network] = [known, of];
    while (at > revision) {
      const from = Math.max(revision, at - stride);
      network = rewound(network, await this.journal.changes({ projectId, line: asBuilt }, from, at));
      at = from;
      moments.delete(at);
      moments.set(at, network);
    }
    for (const oldest of moments.keys()) {
      if (moments.size <= mostKept) break;
      moments.delete(oldest);
    }
    return network;
  }

  forget(projectId: string): void {
    this.kept.delete(projectId);
  }
}
