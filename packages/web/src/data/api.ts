import type { FileProblem, Problem } from '@visograph/core';

/** A refusal by the server: what happened, to which thing, and what to do. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly detail: string,
    readonly problems: (Problem | FileProblem)[],
  ) {
    super(detail);
  }
  /** The request did not arrive, or the server could not work: worth sending again. */
  get transient(): boolean {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504;
  }
}

interface ProblemDocument {
  detail?: string;
  problems?: (Problem | FileProblem)[];
}

/** Calls the API with JSON; texts and bytes go as they are. */
export async function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: unknown,
): Promise<T> {
  const bytes = body instanceof Uint8Array;
  const type = bytes
    ? 'application/octet-stream'
    : typeof body === 'string'
      ? 'text/plain'
      : 'application/json';
  const plain = typeof body === 'string' || bytes;
  let response: Response;
  try {
    response = await fetch(`/api/v1${path}`, {
      method,
      headers: body === undefined ? {} : { 'Content-Type': type },
      body: body === undefined ? undefined : plain ? (body as BodyInit) : JSON.stringify(body),
    });
  } catch {
    throw new ApiError(0, 'The server cannot be reached. Check that it runs, then try again.', []);
  }
  if (response.status === 204) return undefined as T;
  if (response.ok) return (await response.json()) as T;
  const document = (await response.json().catch(() => ({}))) as ProblemDocument;
  throw new ApiError(
    response.status,
    document.detail ?? `The server answered ${response.status}.`,
    document.problems ?? [],
  );
}
