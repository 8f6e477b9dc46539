import { observedLists, type ObservedAccount, type ObservedList } from '@visograph/core/cloud';
import { randomBytes, timingSafeEqual } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { z } from 'zod';
import { drifted } from './drift.ts';
import { accountOpenApi } from './openapi.ts';

/** How an account behaves: well, unless it is told otherwise. */
export const mannersSchema = z.strictObject({
  /** Items of a page at most. */
  pageSize: z.int().min(1).max(1000),
  /** Milliseconds before each answer. */
  slowMs: z.int().min(0).max(600_000),
  /** Every so many answers is 503 instead; 0: none is. */
  failEvery: z.int().min(0),
  /** A token is good for so many calls; 0: for all. */
  tokenCalls: z.int().min(0),
  /** Pages of this list are not what they should be. */
  nonsense: z.enum(observedLists).nullable(),
  /** Answers for this list end in the middle. */
  half: z.enum(observedLists).nullable(),
});
export type Manners = z.infer<typeof mannersSchema>;
export const goodManners: Manners = {
  pageSize: 200,
  slowMs: 0,
  failEvery: 0,
  tokenCalls: 0,
  nonsense: null,
  half: null,
};

export interface SimulatedAccount {
  url: string;
  manners: Manners;
  /** What is in it now. */
  account: () => ObservedAccount;
  /** Calls that it has answered, well or badly. */
  calls: () => number;
  stop: () => Promise<void>;
}

const tokenSeconds = 600;
const mostBody = 64 * 1024;

async function bodyOf(request: IncomingMessage): Promise<unknown> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request) {
    const piece = Buffer.isBuffer(part) ? part : Buffer.from(String(part));
    size += piece.length;
    if (size > mostBody) return null;
    parts.push(piece);
  }
  try {
    return JSON.parse(Buffer.concat(parts).toString('utf8'));
  } catch {
    return null;
  }
}

const same = (a: string, b: string): boolean => {
  const [x, y] = [Buffer.from(a), Buffer.from(b)];
  return x.length === y.length && timingSafeEqual(x, y);
};
const signInSchema = z.object({ client: z.string(), secret: z.string() });
const driftSchema = z.object({ count: z.int().min(1).max(1000) });

/** Starts an account that tells what it is given, on loopback. */
export async function simulateAccount(options: {
  account: ObservedAccount;
  client: string;
  secret: string;
  port?: number;
  manners?: Partial<Manners>;
}): Promise<SimulatedAccount> {
  let { account } = options;
  const manners: Manners = { ...goodManners, ...options.manners };
  /** Calls that each token has been used for. */
  const tokens = new Map<string, number>();
  let answered = 0;
  const say = (response: ServerResponse, status: number, body: unknown): void => {
    response.writeHead(status, { 'Content-Type': 'application/json' }).end(JSON.stringify(body));
  };
  const refuse = (response: ServerResponse, status: number, title: string, detail: string): void =>
    say(response, status, { title, detail });

  function admitted(request: IncomingMessage): boolean {
    const token = /^Bearer (\S+)$/.exec(request.headers.authorization ?? '')?.[1] ?? '';
    const used = tokens.get(token);
    if (used === undefined) return false;
    if (manners.tokenCalls > 0 && used >= manners.tokenCalls) {
      tokens.delete(token);
      return false;
    }
    tokens.set(token, used + 1);
    return true;
  }

  function page(response: ServerResponse, list: ObservedList, query: URLSearchParams): void {
    const from = Number(query.get('after') ?? 0);
    const limit = Math.min(manners.pageSize, Number(query.get('limit') ?? manners.pageSize));
    if (!Number.isInteger(from) || from < 0 || !(limit >= 1))
      return refuse(response, 400, 'Not understood', 'after and limit are numbers.');
    const all: readonly unknown[] = account[list];
    const items = all.slice(from, from + limit);
    const next = from + limit < all.length ? String(from + limit) : null;
    const told = manners.nonsense === list ? { items: [{ id: 7 }], next: 'again' } : { items, next };
    if (manners.half !== list) return say(response, 200, told);
    const text = JSON.stringify(told);
    response.writeHead(200, { 'Content-Type': 'application/json', 'Content-Length': text.length });
    response.write(text.slice(0, Math.max(1, text.length >> 1)), () => response.destroy());
  }

  async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://account');
    answered++;
    if (manners.slowMs > 0) await new Promise((done) => setTimeout(done, manners.slowMs));
    if (pathname === '/openapi.json') return say(response, 200, accountOpenApi());
    if (pathname === '/token' && request.method === 'POST') {
      const read = signInSchema.safeParse(await bodyOf(request));
      if (!read.success || !same(read.data.client, options.client) || !same(read.data.secret, options.secret))
        return refuse(response, 401, 'Not signed in', 'There is no such client, or its secret is another.');
      const token = randomBytes(24).toString('base64url');
      tokens.set(token, 0);
      return say(response, 200, { token, seconds: tokenSeconds });
    }
    if (!admitted(request))
      return refuse(response, 401, 'Not signed in', 'The token is missing, or it has expired.');
    if (pathname === '/manners' && request.method === 'PUT') {
      const read = mannersSchema.partial().safeParse(await bodyOf(request));
      if (!read.success) return refuse(response, 400, 'Not understood', 'There are no such manners.');
      Object.assign(manners, read.data);
      return void response.writeHead(204).end();
    }
    if (pathname === '/drift' && request.method === 'POST') {
      const read = driftSchema.safeParse(await bodyOf(request));
      if (!read.success) return refuse(response, 400, 'Not understood', 'count is a number from 1 to 1000.');
      const after = drifted(account, read.data.count);
      ({ account } = after);
      return say(response, 200, { done: after.done });
    }
    if (manners.failEvery > 0 && answered % manners.failEvery === 0)
      return refuse(response, 503, 'Not now', 'The account is busy. Ask again.');
    if (pathname === '/counts')
      return say(
        response,
        200,
        Object.fromEntries(observedLists.map((list) => [list, account[list].length])),
      );
    const list = observedLists.find((one) => pathname === `/${one}`);
    if (list === undefined || request.method !== 'GET')
      return refuse(response, 404, 'Not found', `There is no ${pathname} here.`);
    page(response, list, searchParams);
  }

  const server = createServer((request, response) => {
    answer(request, response).catch(() => response.destroy());
  });
  await new Promise<void>((done, fail) => {
    server.once('error', fail);
    server.listen(options.port ?? 0, '127.0.0.1', done);
  });
  const at = server.address();
  if (at === null || typeof at === 'string') throw new Error('The account listens nowhere.');
  return {
    ...{ url: `http://127.0.0.1:${at.port}`, manners },
    account: () => account,
    calls: () => answered,
    stop: async () => {
      const closed = new Promise<void>((done) => server.close(() => done()));
      server.closeAllConnections();
      await closed;
    },
  };
}
