import type { Request, Response } from 'express';
import type { Knex } from 'knex';
import type { Logger } from 'pino';
import type { z } from 'zod';
import type { Account, MemberRole } from '../database/rows.ts';
import type { Live } from '../live/live.ts';
import type { Press } from '../printing/press.ts';
import type { Meant, Pen } from './meant.ts';
import type { ProjectStore } from '../store/projectStore.ts';

/** Who may call a route: anybody, anybody signed in, or a member of the project with at least this role. */
export type Access = 'public' | 'signedIn' | MemberRole;

export interface Services {
  knex: Knex;
  store: ProjectStore;
  live: Live;
  press: Press;
  log: Logger;
}

export interface Call<B> {
  request: Request;
  response: Response;
  services: Services;
  /** The person; set for every route that is not public. */
  account: Account;
  projectId: string;
  role: MemberRole;
  body: B;
  param: (name: string) => string;
  query: (name: string) => string | null;
  /** The network that is meant, with its revision: the one way to read it. */
  network: () => Promise<Meant>;
  /** Writes into the line that is meant: the one way to write model data. */
  pen: () => Pen;
}

export interface Route<B = unknown> {
  method: 'get' | 'post' | 'put' | 'delete';
  path: string;
  access: Access;
  summary: string;
  body?: z.ZodType<B>;
  /** Takes the body as text up to this many bytes instead of JSON. */
  textLimit?: number;
  /** Takes the body as it is, up to this many bytes, as a Buffer. */
  bytesLimit?: number;
  /** What the handler returns is sent as JSON; undefined: 204, or the handler has answered itself. */
  handle: (call: Call<B>) => Promise<unknown>;
}

/** Keeps the body's type between the schema and the handler. */
export const route = <B = unknown>(definition: Route<B>): Route => definition as unknown as Route;
