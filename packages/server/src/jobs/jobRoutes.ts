import type { Response } from 'express';
import { attach } from '../http/attach.ts';
import type { JobResult } from './jobBook.ts';
import { sent, type Handlers } from '../http/route.ts';

/** Answers as the call of the job would have. */
export function sendResult(response: Response, { name, type, bytes }: JobResult): void {
  if (name === null) response.type(type).send(bytes);
  else attach(response, name, type, bytes);
}

export const jobRoutes = {
  'GET /jobs': async ({ account, services }) => services.jobs.book.list(account.id),
  'GET /jobs/:job': async ({ account, param, services }) => services.jobs.book.of(account.id, param('job')),
  'DELETE /jobs/:job': async ({ account, param, services }) =>
    services.jobs.book.stop(account.id, param('job')),
  'GET /jobs/:job/result': async ({ account, param, response, services }) => {
    sendResult(response, await services.jobs.book.result(account.id, param('job')));
    return sent;
  },
} satisfies Partial<Handlers>;
