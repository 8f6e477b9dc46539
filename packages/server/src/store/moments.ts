import { rewound, type Change, type Network } from '@visograph/core';
import type { Knex } from 'knex';
import { ChangeSetRow } from '../database/rows.ts';
import type { Snapshot } from './projectStore.ts';

/** So many entries are taken back at once; the moment there is kept, so that the next question starts from it. */
const stride = 20_000;
/** Moments kept in memory for a project: they share with each other all that did not change. */
const mostKept = 40;

/** Networks of earlier moments, got from the journal by going back from the nearest later one that is known. */
export class Moments {
  private readonly kept = new Map<string, Map<number, Network>>();

  constructor(private readonly knex: Knex) {}

  /** The network at a revision from 1 to that of `newest`. */
  async at(projectId: string, newest: Snapshot, revision: number): Promise<Network> {
    const moments = this.kept.get(projectId) ?? new Map<number, Network>();
    this.kept.set(projectId, moments);
    let at = newest.revision;
    let { network } = newest;
    for (const [known, of] of moments) if (known >= revision && known < at) [at, network] = [known, of];
    while (at > revision) {
      const from = Math.max(revision, at - stride);
      const entries = await ChangeSetRow.query(this.knex)
        .select('changes')
        .where({ projectId })
        .where('revision', '>', from)
        .where('revision', '<=', at)
        .orderBy('revision');
      network = rewound(
        network,
        entries.map(({ changes }) => changes as Change[]),
      );
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
