import type { JournalEntry } from '@visograph/core';
import type { RequestHandler, Request, Response } from 'express';
import type { IncomingMessage, Server } from 'node:http';
import { ServerResponse } from 'node:http';
import type { Knex } from 'knex';
import { WebSocketServer, type WebSocket } from 'ws';
import { Membership } from '../database/rows.ts';

/** Entries with more changes than this are not sent along: clients load the network anew. */
const mostChanges = 5000;
const path = /^\/api\/v1\/projects\/([0-9a-f-]{36})\/live$/;

export type LiveMessage = { type: 'entry'; entry: JournalEntry } | { type: 'reload'; revision: number };

/** Pushes every journal entry to all signed-in members who have the project open. */
export class Live {
  private readonly sockets = new Map<WebSocket, { projectId: string; accountId: string; alive: boolean }>();
  private readonly server = new WebSocketServer({ noServer: true, maxPayload: 1024 });
  private readonly pulse: NodeJS.Timeout;

  constructor() {
    this.pulse = setInterval(() => this.dropDead(), 30_000);
    this.pulse.unref();
  }

  attach(http: Server, session: RequestHandler, knex: Knex): void {
    http.on('upgrade', (request, socket, head) => {
      const projectId = path.exec(
        URL.canParse(request.url ?? '', 'http://host')
          ? new URL(request.url ?? '', 'http://host').pathname
          : '',
      )?.[1];
      const refuse = (line: string): void => void socket.end(`HTTP/1.1 ${line}\r\nConnection: close\r\n\r\n`);
      if (projectId === undefined || !sameOrigin(request)) return refuse('404 Not Found');
      session(request as Request, new ServerResponse(request) as Response, () => {
        const accountId = (request as Request).session.accountId;
        if (accountId === undefined) return refuse('401 Unauthorized');
        Membership.query(knex)
          .findOne({ projectId, accountId })
          .then((member) => {
            if (member === undefined) return refuse('404 Not Found');
            this.server.handleUpgrade(request, socket, head, (client) =>
              this.welcome(client, projectId, accountId),
            );
          })
          .catch(() => refuse('503 Service Unavailable'));
      });
    });
  }

  private welcome(client: WebSocket, projectId: string, accountId: string): void {
    const state = { projectId, accountId, alive: true };
    this.sockets.set(client, state);
    client.on('pong', () => (state.alive = true));
    client.on('close', () => this.sockets.delete(client));
    client.on('error', () => client.terminate());
  }

  send(projectId: string, entry: JournalEntry): void {
    const message: LiveMessage =
      entry.changes.length > mostChanges
        ? { type: 'reload', revision: entry.revision }
        : { type: 'entry', entry };
    const text = JSON.stringify(message);
    for (const [client, state] of this.sockets) if (state.projectId === projectId) client.send(text);
  }

  /** A member's role changed: the line is closed and has to be asked for anew. */
  dropAccount(projectId: string, accountId: string): void {
    for (const [client, state] of this.sockets) {
      if (state.projectId === projectId && state.accountId === accountId)
        client.close(4001, 'membership changed');
    }
  }

  private dropDead(): void {
    for (const [client, state] of this.sockets) {
      if (!state.alive) client.terminate();
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

function sameOrigin(request: IncomingMessage): boolean {
  const { origin, host } = request.headers;
  return origin === undefined || (URL.canParse(origin) && new URL(origin).host === host);
}
