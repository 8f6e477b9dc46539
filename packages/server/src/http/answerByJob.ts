/** Calls that are done outside the web process, and what they answer meanwhile. */
import type { DoneByJob, LargeName } from '@visograph/api';
import type { Request, RequestHandler } from 'express';
import { sendResult } from '../jobs/jobRoutes.ts';
import { isLargeEdit } from '../project/editRoutes.ts';
import type { Who } from './authorise.ts';
import { Refusal } from './problem.ts';
import type { Services } from './route.ts';

export const bodyOf = (request: Request): Uint8Array => {
  const { body }: { body?: unknown } = request;
  return Buffer.isBuffer(body) ? body : Buffer.alloc(0);
};

/** A GET waits for its job as long as a browser does. */
const patience = 115_000;
/** How long a caller is ready to wait for a job, in milliseconds (RFC 7240). */
function waits(request: Request): number {
  if (request.method === 'GET') return patience;
  const wish = /(?:^|[,;\s])wait=(\d{1,4})/.exec(request.get('prefer') ?? '');
  return Math.min(Number(wish?.[1] ?? 0) * 1000, patience);
}

/** Begins a job; answers with what came of it where the caller waits for it, else with the job. */
export function answerByJob(name: DoneByJob, services: Services): RequestHandler {
  return async (request, response) => {
    const { account, projectId } = response.locals['who'] as Who;
    const query = Object.entries(request.query).flatMap(([key, value]) =>
      typeof value === 'string' ? [[key, value]] : [],
    );
    const id = await services.jobs.begin({
      call: name,
      accountId: account.id,
      projectId: projectId === '' ? null : projectId,
      params: request.params as Record<string, string>,
      query: Object.fromEntries(query) as Record<string, string>,
      body: request.method === 'GET' ? null : bodyOf(request),
    });
    const wait = waits(request);
    const gone = new AbortController();
    response.on('close', () => gone.abort());
    const done = wait > 0 && (await services.jobs.finished(id, wait, gone.signal));
    if (gone.signal.aborted) return services.jobs.book.stop(account.id, id);
    if (done) {
      sendResult(response, await services.jobs.book.result(account.id, id));
      // It was answered: nobody asks for it again.
      return services.jobs.book.stop(account.id, id);
    }
    if (request.method === 'GET') {
      await services.jobs.book.stop(account.id, id);
      throw new Refusal(
        503,
        'It takes too long',
        'This takes longer than a request may. Ask for less of it at once.',
      );
    }
    response
      .status(202)
      .location(`/api/v1/jobs/${id}`)
      .json(await services.jobs.book.of(account.id, id));
  };
}

/** Answers at once, or by a job where there is so much to do that others would wait. */
export function byJobWhereLarge(name: LargeName, services: Services, atOnce: RequestHandler): RequestHandler {
  const byJob = answerByJob(name, services);
  return async (request, response, next) => {
    const { account, projectId } = response.locals['who'] as Who;
    const { plan } = request.query;
    const large = await isLargeEdit(name, bodyOf(request), {
      ...{ store: services.store, accountId: account.id, projectId },
      plan: typeof plan === 'string' ? plan : null,
    });
    await (large ? byJob : atOnce)(request, response, next);
  };
}
