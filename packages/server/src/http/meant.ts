import { inForce, type Network } from '@visograph/core';
import type { ProjectStore } from '../store/projectStore.ts';
import { Refusal } from './problem.ts';

/** The network that a call is about, and of which moment it is. */
export interface Meant {
  network: Network;
  revision: number;
}

/**
 * Which network is meant, decided in this one place: the newest or that of the revision `at`, all of it or, with
 * `built=1`, what is built today alone.
 */
export async function meantBy(
  store: ProjectStore,
  projectId: string,
  query: (name: string) => string | null,
): Promise<Meant> {
  const asked = query('at');
  const newest = await store.read(projectId);
  let { network, revision } = newest;
  if (asked !== null) {
    const wanted = /^\d{1,9}$/.test(asked) ? Number(asked) : null;
    if (wanted === null || wanted < 1 || wanted > newest.revision)
      throw new Refusal(
        404,
        'No such revision',
        `There is no revision ${asked.slice(0, 20)}: the history goes from 1 to ${newest.revision}.`,
      );
    network = await store.at(projectId, wanted);
    revision = wanted;
  }
  return { network: query('built') === '1' ? inForce(network, { planned: false }) : network, revision };
}
