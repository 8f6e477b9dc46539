/** Edits: changes made together, and the person's own latest step taken back or made again. */
import type { LargeName } from '@visograph/api';
import type { JournalEntry } from '@visograph/core/change';
import { refuseUnlessOwner } from '../catalogue/ownersOnly.ts';
import { lineOf } from '../http/meant.ts';
import { Refusal, refuseProblems } from '../http/problem.ts';
import type { Handlers, JobHandlers } from '../http/route.ts';
import type { ProjectStore, UndoResult, Written } from '../store/projectStore.ts';

export function written(result: Written | UndoResult): JournalEntry {
  if (result.ok) return result.entry;
  if ('nothing' in result)
    throw new Refusal(409, 'Nothing to do', 'There is no step of yours left to take back or make again.');
  throw refuseProblems(result.problems);
}

/** Changes of more bytes than this are judged outside the web process: about a thousand new rows. */
const largeBody = 500_000;

/** Whose edit it is, and in which line. */
interface Whose {
  store: ProjectStore;
  accountId: string;
  projectId: string;
  plan: string | null;
}

/** Whether an edit is so large that others would wait for it. */
export async function isLargeEdit(
  name: LargeName,
  body: Uint8Array,
  { store, accountId, projectId, plan }: Whose,
): Promise<boolean> {
  if (name === 'POST /projects/:project/changes') return body.byteLength > largeBody;
  return store.isNextStepLarge(
    projectId,
    lineOf(plan),
    accountId,
    name === 'POST /projects/:project/undo' ? 'undo' : 'redo',
  );
}

export const editHandlers = {
  'POST /projects/:project/changes': async ({ body, role, pen }) => {
    refuseUnlessOwner(role, body.changes);
    return written(await pen().write(body));
  },
  'POST /projects/:project/undo': async ({ body, pen }) => written(await pen().step('undo', body.id)),
  'POST /projects/:project/redo': async ({ body, pen }) => written(await pen().step('redo', body.id)),
} satisfies Partial<Handlers>;

/** The same, by a process that does jobs; one that is done again after its process ended writes once, by its id. */
export const largeEditHandlers = {
  'POST /projects/:project/changes': async ({ body, role, pen, beginWriting }) => {
    refuseUnlessOwner(role, body.changes);
    await beginWriting();
    return written(await pen().write(body));
  },
  'POST /projects/:project/undo': async ({ body, pen, jobId, beginWriting }) => {
    await beginWriting();
    return written(await pen().step('undo', body.id ?? jobId));
  },
  'POST /projects/:project/redo': async ({ body, pen, jobId, beginWriting }) => {
    await beginWriting();
    return written(await pen().step('redo', body.id ?? jobId));
  },
} satisfies Pick<JobHandlers, LargeName>;
