import type { Answer, CallWish, DirectName, Name } from '@visograph/api';
import { pathTo, type PathWish } from '@visograph/api/path';
import type { FileProblem } from '@visograph/core/exchange';
import type { Problem } from '@visograph/core/model';

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
  /** So much of the same person waits already that this was not taken: worth sending again when some of it is done. */
  get busy(): boolean {
    return this.status === 429;
  }
}

interface ProblemDocument {
  detail?: string;
  problems?: (Problem | FileProblem)[];
}

type AddressWish<K extends Name> = Omit<CallWish<K>, 'body'>;

/** Where a call of the API goes to: for a file that the browser fetches by itself. */
export const addressOf = <K extends Name>(name: K, wish: AddressWish<K>): string =>
  `/api/v1${pathTo(name, wish as unknown as PathWish<K>)}`;

const typeOf = (body: unknown): string =>
  body instanceof Uint8Array
    ? 'application/octet-stream'
    : typeof body === 'string'
      ? 'text/plain'
      : 'application/json';

/** Sends a call, texts and bytes as they are and all else as JSON. @throws ApiError unless it was granted */
export async function send<K extends Name>(
  name: K,
  wish: CallWish<K>,
  { signal, headers = {} }: { signal?: AbortSignal; headers?: Readonly<Record<string, string>> } = {},
): Promise<Response> {
  const { body } = wish as { body?: unknown };
  const plain = typeof body === 'string' || body instanceof Uint8Array;
  let response: Response;
  try {
    response = await fetch(addressOf(name, wish), {
      method: name.slice(0, name.indexOf(' ')),
      headers: { ...headers, ...(body === undefined ? {} : { 'Content-Type': typeOf(body) }) },
      body: body === undefined ? undefined : plain ? (body as BodyInit) : JSON.stringify(body),
      ...(signal === undefined ? {} : { signal }),
    });
  } catch (error) {
    if (signal?.aborted === true) throw error;
    throw new ApiError(0, 'The server cannot be reached. Check that it runs, then try again.', []);
  }
  if (response.ok) return response;
  const document = (await response.json().catch(() => ({}))) as ProblemDocument;
  throw new ApiError(
    response.status,
    document.detail ?? `The server answered ${response.status}.`,
    document.problems ?? [],
  );
}

/** Calls the API; what it takes and answers is said by the contract, which the server is held to. @throws ApiError */
export async function call<K extends DirectName>(name: K, wish: CallWish<K>): Promise<Answer<K>> {
  const response = await send(name, wish);
  return (response.status === 204 ? undefined : await response.json()) as Answer<K>;
}
