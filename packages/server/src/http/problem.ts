import type { schemas } from '@visograph/api';
import type { FileProblem } from '@visograph/core/exchange';
import type { Problem } from '@visograph/core/model';
import type { Response } from 'express';
import type { z } from 'zod';

/** A refusal, as a problem document (RFC 9457): what happened, to which thing and field, and what to do. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly problems: readonly (Problem | FileProblem)[] = [],
  ) {
    super(detail);
  }
}

export const notFound = (what: string): Refusal =>
  new Refusal(404, 'Not found', `${what} is not there, or you may not see it.`);

/** 409 when somebody else's change is in the way, otherwise 422. */
export function refuseProblems(problems: readonly Problem[]): Refusal {
  const conflict = problems.some((problem) => problem.code === 'conflict');
  const [first] = problems;
  const detail = `${first?.message ?? 'The change cannot be made.'}${problems.length > 1 ? ` (and ${problems.length - 1} more)` : ''}`;
  return new Refusal(
    conflict ? 409 : 422,
    conflict ? 'Changed by somebody else' : 'The change cannot be made',
    detail,
    problems,
  );
}

export function refuseFile(problems: readonly FileProblem[]): Refusal {
  const [first] = problems;
  const detail = `${first?.message ?? ''} At ${first?.path ?? '$'}${problems.length > 1 ? `, and ${problems.length - 1} more problems` : ''}. Nothing was written.`;
  return new Refusal(422, 'The file cannot be read', detail, problems);
}

/** A refusal as it is told (RFC 9457). */
export const problemDocument = (
  refusal: Refusal,
  instance: string,
): z.infer<typeof schemas.problemDocument> => ({
  type: 'about:blank',
  title: refusal.title,
  status: refusal.status,
  detail: refusal.detail,
  instance,
  problems: [...refusal.problems],
});

export function sendRefusal(response: Response, refusal: Refusal, requestId: string): void {
  // The same may work in a moment (RFC 9110, 10.2.3).
  if (refusal.status === 503) response.set('Retry-After', '2');
  response
    .status(refusal.status)
    .type('application/problem+json')
    .send(JSON.stringify(problemDocument(refusal, requestId)));
}
