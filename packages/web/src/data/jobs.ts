import type { Answer, CallWish, DoneByJob, Job } from '@visograph/api';
import { ApiError, call, send } from './api.ts';

/** What the server tells of a job of this person while it runs. */
export type JobNote = Pick<Job, 'state' | 'done' | 'of'> & { job: string };
export interface JobProgress {
  done: number;
  of: number;
  /** Others are taken first. */
  ahead: number;
  /** It can no longer be stopped. */
  writing: boolean;
}
export interface JobWatch {
  signal?: AbortSignal;
  onProgress?: (progress: JobProgress) => void;
}

const heard = new Set<(note: JobNote) => void>();
/** Told by the socket of a project: the server says how far a job is. */
export const hearOfJob = (note: JobNote): void => heard.forEach((listener) => listener(note));

/** Asked as often where no socket tells, in milliseconds. */
const askEvery = 1500;

/** Resolves with the next word of a job, asking for it where none comes. */
function nextWord(id: string, signal: AbortSignal | undefined): Promise<void> {
  return new Promise((resolve) => {
    const wake = (): void => {
      clearTimeout(timer);
      heard.delete(listen);
      signal?.removeEventListener('abort', wake);
      resolve();
    };
    const listen = (note: JobNote): void => {
      if (note.job === id) wake();
    };
    const timer = setTimeout(wake, askEvery);
    heard.add(listen);
    signal?.addEventListener('abort', wake);
  });
}

const isOver = ({ state }: Job): boolean => state === 'done' || state === 'failed' || state === 'cancelled';

async function follow(begun: Job, { signal, onProgress }: JobWatch): Promise<void> {
  const params = { job: begun.id };
  for (let job = begun; !isOver(job);) {
    onProgress?.({ done: job.done, of: job.of, ahead: job.ahead, writing: job.state === 'writing' });
    await nextWord(job.id, signal);
    if (signal?.aborted === true) {
      await call('DELETE /jobs/:job', { params });
      throw new DOMException('Stopped', 'AbortError');
    }
    try {
      job = await call('GET /jobs/:job', { params });
    } catch (error) {
      // The job goes on while the server cannot be reached.
      if (!(error instanceof ApiError && error.transient)) throw error;
    }
  }
}

/** What came of a job, once it is over. @throws ApiError its refusal; AbortError where it was stopped */
async function resultOf<K extends DoneByJob>(name: K, wish: CallWish<K>, watch: JobWatch): Promise<Response> {
  const response = await send(name, wish, { headers: { Prefer: 'wait=1' } });
  if (response.status !== 202) return response;
  const begun = (await response.json()) as Job;
  await follow(begun, watch);
  const result = await send('GET /jobs/:job/result', { params: { job: begun.id } });
  return result;
}

/**
 * Has work done outside the web process, or at once where it is little; tells how far it is, and stops it when that is
 * wished.
 *
 * @throws ApiError
 */
export async function callJob<K extends DoneByJob>(
  name: K,
  wish: CallWish<K>,
  watch: JobWatch = {},
): Promise<Answer<K>> {
  return (await (await resultOf(name, wish, watch)).json()) as Answer<K>;
}

/** The same for work that makes a file. @throws ApiError */
export async function callJobFile<K extends DoneByJob>(
  name: K,
  wish: CallWish<K>,
  watch: JobWatch = {},
): Promise<Uint8Array> {
  return new Uint8Array(await (await resultOf(name, wish, watch)).arrayBuffer());
}
