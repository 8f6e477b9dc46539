import { contract, type DoneByJob } from '@visograph/api';
import type { JobRow } from '../database/rows.ts';
import { authorise } from '../http/authorise.ts';
import { readBody } from '../http/bodies.ts';
import { caller } from '../http/caller.ts';
import { isDoneByJob } from './jobNames.ts';
import { lineOf } from '../http/meant.ts';
import { FileAnswer, type Base, type JobCall, type JobHandlers } from '../http/route.ts';

/** What came of a job: a file, or an answer as JSON. */
export interface Outcome {
  bytes: Uint8Array;
  type: string;
  name: string | null;
}

/**
 * Does what a job asks, as the person who asked for it and may still do so.
 *
 * @throws Refusal why it cannot be done
 */
export async function perform(
  services: Base,
  handlers: JobHandlers,
  row: Pick<JobRow, 'id' | 'accountId' | 'projectId' | 'call' | 'asked' | 'input'>,
  { tell, beginWriting }: Pick<JobCall<DoneByJob>, 'tell' | 'beginWriting'>,
): Promise<Outcome> {
  if (!isDoneByJob(row.call)) throw new Error(`${row.call} is no job.`);
  const name = row.call;
  const { accountId, projectId, asked } = row;
  const who = await authorise(contract[name], { accountId, projectId: projectId ?? '' }, services.knex);
  const query = (wanted: string): string | null => asked.query[wanted] ?? null;
  // Others may have written since this process last heard of it: the caller saw it, so must the job.
  if (projectId !== null) await services.store.refresh(projectId, lineOf(query('plan')));
  const call = {
    ...who,
    ...caller(services.store, name, who, query),
    services,
    jobId: row.id,
    body: readBody(contract[name], row.input ?? new Uint8Array()),
    param: (wanted: string) => asked.params[wanted] ?? '',
    query,
    ...{ tell, beginWriting },
  };
  const handle = handlers[name] as (call: unknown) => Promise<unknown>;
  const answer = await handle(call);
  if (answer instanceof FileAnswer) return { bytes: answer.bytes, type: answer.type, name: answer.name };
  return { bytes: Buffer.from(JSON.stringify(answer)), type: 'application/json', name: null };
}
