import { type JournalEntry } from '@visograph/core/change';
import { newId } from '@visograph/core/model';
import type { RequestHandler, Request, Response } from 'express';
import type { IncomingMessage, Server } from 'node:http';
import { ServerResponse } from 'node:http';
import type { Knex } from 'knex';
import { WebSocketServer, type WebSocket } from 'ws';
import { z } from 'zod';
import type { AccessNote } from '../people/accessNews.ts';
import type { JobNote } from '../jobs/messages.ts';
import { LineRow, Membership, ProjectRow } from '../database/rows.ts';

/** Entries with more changes than this are not sent along: clients load the network anew. */
const mostChanges = 5000;
const path = /^\/api\/v1\/projects\/([0-9a-f-]{36})\/live$/i;
/** Windows of one person at one server; more are refused. */
const mostOfOne = 30;
/** Bytes that wait for a window that does not read them; beyond, it is dropped and loads anew. */
const mostWaiting = 16 * 1024 * 1024;

export type LiveMessage =
  | { type: 'entry'; entry: JournalEntry }
  | { type: 'reload'; revision: number }
  /** For those in a plan: what it stands on has moved. */
  | { type: 'moved'; base: number }
  | ({ type: 'peer'; peer: string; name: string } & Here)
  | { type: 'gone'; peer: string };

/** How far a job of the person has come: to all their windows. */
export type JobMessage = { type: 'job' } & Pick<JobNote, 'job' | 'state' | 'done' | 'of'>;

/** Where somebody is on a sheet: sent by each window, passed on to the others, never kept. */
const hereSchema = z.strictObject({
  type: z.literal('here'),
  sheetId: z.uuid().nullable(),
  at: z.strictObject({ x: z.number(), y: z.number() }).nullable(),
  selection: z.array(z.string().max(120)).max(6),
});
type Here = Omit<z.infer<typeof hereSchema>, 'type'>;
/** More messages a second from one window than this are passed over. */
const mostHere = 40;

interface Client {
  projectId: string;
  /** The plan that is looked at; null: as built. */
  line: string | null;
  accountId: string;
  sessionId: string;
  /** When the session ends by itself. */
  until: number;
  name: string;
  /** Names the window to the others. */
  peer: string;
  alive: boolean;
  second: number;
  sent: number;
}

/** Pushes every journal entry to all signed-in members who have the project open. */
export class Live {
  private readonly sockets = new Map<WebSocket, Client>();
  private readonly server = new WebSocketServer({ noServer: true, maxPayload: 1024 });
  private readonly pulse: NodeJS.Timeout;

  constructor() {
    this.pulse = setInterval(() => this.dropDead(), 30_000);
    this.pulse.unref();
  }

  attach(http: Server, session: RequestHandler, knex: Knex): void {
    http.on('upgrade', (request, socket, head) => {
      const url = URL.canParse(request.url ?? '', 'http://host')
        ? new URL(request.url ?? '', 'http://host')
        : null;
      const projectId = path.exec(url?.pathname ?? '')?.[1]?.toLowerCase();
      const plan = url?.searchParams.get('plan')?.toLowerCase() ?? null;
      const refuse = (line: string): void => void socket.end(`HTTP/1.1 ${line}\r\nConnection: close\r\n\r\n`);
      if (projectId === undefined || !sameOrigin(request)) return refuse('404 Not Found');
      session(request as Request, new ServerResponse(request) as Response, () => {
        const { session: its, sessionID: sessionId } = request as Request;
        const { accountId } = its;
        if (accountId === undefined) return refuse('401 Unauthorized');
        // Before the database is asked: whoever opens very many makes nobody else wait.
        if (this.countOf(accountId) >= mostOfOne) return refuse('429 Too Many Requests');
        const until = its.cookie.expires?.getTime() ?? Infinity;
        seenBy(knex, projectId, accountId, plan)
          .then((name) => {
            if (name === null) return refuse('404 Not Found');
            if (this.countOf(accountId) >= mostOfOne) return refuse('429 Too Many Requests');
            this.server.handleUpgrade(request, socket, head, (client) =>
              this.welcome(client, { projectId, line: plan, accountId, sessionId, until, name }),
            );
          })
          .catch(() => refuse('503 Service Unavailable'));
      });
    });
  }

  /** Open windows. */
  get size(): number {
    return this.sockets.size;
  }

  private countOf(accountId: string): number {
    let count = 0;
    for (const its of this.sockets.values()) if (its.accountId === accountId) count++;
    return count;
  }

  private welcome(client: WebSocket, who: Omit<Client, 'peer' | 'alive' | 'second' | 'sent'>): void {
    const state: Client = { ...who, peer: newId(), alive: true, second: 0, sent: 0 };
    this.sockets.set(client, state);
    client.on('pong', () => (state.alive = true));
    client.on('message', (data, binary) => {
      if (!binary) this.passOn(client, state, (data as Buffer).toString('utf8'));
    });
    client.on('close', () => {
      this.sockets.delete(client);
      this.toOthers(client, state, { type: 'gone', peer: state.peer });
    });
    client.on('error', () => client.terminate());
  }

  private passOn(client: WebSocket, state: Client, text: string): void {
    const second = Math.floor(Date.now() / 1000);
    state.sent = state.second === second ? state.sent + 1 : 1;
    state.second = second;
    if (state.sent > mostHere) return;
    let data: unknown;
    try {
      data = JSON.parse(text);
    } catch {
      return;
    }
    const here = hereSchema.safeParse(data);
    if (!here.success) return;
    const { sheetId, at, selection } = here.data;
    const { peer, name } = state;
    this.toOthers(client, state, { type: 'peer', peer, name, sheetId, at, selection });
  }

  private push(client: WebSocket, text: string): void {
    if (client.bufferedAmount > mostWaiting) client.terminate();
    else client.send(text);
  }

  /** To all others in the same line of the same project. */
  private toOthers(client: WebSocket, from: Client, message: LiveMessage): void {
    const text = JSON.stringify(message);
    for (const [other, { projectId, line }] of this.sockets)
      if (other !== client && projectId === from.projectId && line === from.line) this.push(other, text);
  }

  send(projectId: string, entry: JournalEntry): void {
    const message: LiveMessage =
      entry.changes.length > mostChanges
        ? { type: 'reload', revision: entry.revision }
        : { type: 'entry', entry };
    const text = JSON.stringify(message);
    const moved = JSON.stringify({ type: 'moved', base: entry.revision } satisfies LiveMessage);
    for (const [client, state] of this.sockets) {
      if (state.projectId !== projectId) continue;
      if (state.line === entry.line) this.push(client, text);
      else if (entry.line === null) this.push(client, moved);
    }
  }

  /** To the windows of the person whose job it is. */
  sendJob({ job, accountId, state, done, of }: JobNote): void {
    const text = JSON.stringify({ type: 'job', job, state, done, of } satisfies JobMessage);
    for (const [client, its] of this.sockets) if (its.accountId === accountId) this.push(client, text);
  }

  /** Another server wrote something that is not in memory here: whoever looks at it loads it anew. */
  sendReload(projectId: string, line: string | null): void {
    const text = JSON.stringify({ type: 'reload', revision: 0 } satisfies LiveMessage);
    for (const [client, its] of this.sockets)
      if (its.projectId === projectId && (its.line === line || line === null)) this.push(client, text);
  }

  /** Somebody may see less, or something else, than before: their lines are closed and have to be asked for anew. */
  dropAccess({ accountId, projectId, session }: AccessNote): void {
    for (const [client, its] of this.sockets)
      if (
        (accountId === null ? projectId !== null : its.accountId === accountId) &&
        (projectId === null || its.projectId === projectId) &&
        (session === null || its.sessionId === session)
      )
        client.close(4001, 'access changed');
  }

  private dropDead(): void {
    for (const [client, state] of this.sockets) {
      if (!state.alive || Date.now() > state.until) client.terminate();
      state.alive = false;
      client.ping();
    }
  }

  close(): void {
    clearInterval(this.pulse);
    for (const client of this.sockets.keys()) client.close(1001, 'the server stops');
    this.server.close();
  }
}

/** The name of a member who may look at this line of the project; null for anybody else. */
async function seenBy(
  knex: Knex,
  projectId: string,
  accountId: string,
  plan: string | null,
): Promise<string | null> {
  const member = await Membership.query(knex).findOne({ projectId, accountId }).withGraphFetched('account');
  if (member === undefined) return null;
  if ((await ProjectRow.query(knex).findById(projectId))?.deletedAt !== null) return null;
  if (plan === null) return member.account?.name ?? '';
  const known = z.uuid().safeParse(plan).success
    ? await LineRow.query(knex).findById(plan).where({ projectId, thrownAwayAt: null })
    : undefined;
  return known === undefined ? null : (member.account?.name ?? '');
}

function sameOrigin(request: IncomingMessage): boolean {
  const { origin, host } = request.headers;
  return origin === undefined || (URL.canParse(origin) && new URL(origin).host === host);
}
