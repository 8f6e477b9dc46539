import { allSeeing, inForce, seenBy, type Audience } from '@visograph/core/lens';
import { type Network } from '@visograph/core/model';
import { z } from 'zod';
import {
  asBuilt,
  type Author,
  type ProjectStore,
  type UndoResult,
  type Wish,
  type Written,
} from '../store/projectStore.ts';
import type { MemberRole } from '../database/rows.ts';
import { Refusal } from './problem.ts';

/** The network that a call is about, and of which moment it is. */
export interface Meant {
  network: Network;
  revision: number;
  /** The plan; null: as built. */
  line: string | null;
  /** The revision of as built that a plan stands on; null for as built itself. */
  base: number | null;
}

/** What a caller says of the network that is meant. */
export interface Asked {
  plan: string | null;
  at: string | null;
  built: string | null;
}

/** What the members of a project may see of it, by their role: at present all of them see all. */
export const audienceOf = (_role: MemberRole): Audience => allSeeing;

/** The id of a plan in its one spelling. */
export function planId(text: string): string {
  if (z.uuid().safeParse(text).success) return text.toLowerCase();
  throw new Refusal(404, 'Not found', 'This plan is not there, or you may not see it.');
}
/** The line that a plan's id names. @throws Refusal 404 where it is no id */
export const lineOf = (plan: string | null): string | null => (plan === null ? asBuilt : planId(plan));

/** Which of the revisions there are is asked for; null: the newest. */
function revisionOf(at: string | null, newest: number): number | null {
  if (at === null) return null;
  const wanted = /^\d{1,9}$/.test(at) ? Number(at) : 0;
  if (wanted >= 1 && wanted <= newest) return wanted;
  throw new Refusal(
    404,
    'No such revision',
    `There is no revision ${at.slice(0, 20)}: the history goes from 1 to ${newest}.`,
  );
}

/**
 * Which network is meant, decided in this one place: as built or with a plan, the newest or that of the revision `at`,
 * all of it or, with `built=1`,
 * what is built today alone; and always through the lens of who asks.
 */
export async function meantBy(
  store: ProjectStore,
  { projectId, accountId }: { projectId: string; accountId: string },
  audience: Audience,
  asked: Asked,
): Promise<Meant> {
  const line = lineOf(asked.plan);
  const newest = await store.readFor(accountId, projectId, line);
  const at = revisionOf(asked.at, newest.revision);
  const { network, base } =
    at === null
      ? { network: newest.network, base: newest.base?.revision ?? null }
      : await store.at(projectId, line, at);
  const seen = seenBy(network, audience);
  return {
    network: asked.built === '1' ? inForce(seen, { planned: false }) : seen,
    revision: at ?? newest.revision,
    line,
    base,
  };
}

/** The way to write into the line that is meant. */
export interface Pen {
  write: (wish: Wish) => Promise<Written>;
  step: (direction: 'undo' | 'redo', id?: string) => Promise<UndoResult>;
}

export function penFor(
  store: ProjectStore,
  projectId: string,
  author: Author & { id: string },
  plan: string | null,
): Pen {
  const line = lineOf(plan);
  return {
    write: (wish) => store.write(projectId, line, author, wish),
    step: (direction, id) => store.step(projectId, line, author, direction, id),
  };
}
