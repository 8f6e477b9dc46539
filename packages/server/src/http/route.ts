import type { Answer, Name, ParamName, QueryName, ReadBody } from '@visograph/api';
import type { Request, Response } from 'express';
import type { Knex } from 'knex';
import type { Logger } from 'pino';
import type { Account, MemberRole } from '../database/rows.ts';
import type { Live } from '../live/live.ts';
import type { Press } from '../sheets/printing/press.ts';
import type { Meant, Pen } from './meant.ts';
import type { ProjectStore } from '../store/projectStore.ts';

export interface Services {
  knex: Knex;
  store: ProjectStore;
  live: Live;
  press: Press;
  /** The network that ships as an example, as an exchange file. @throws Refusal where this server has none */
  example: () => Promise<unknown>;
  log: Logger;
}

/** What a handler has of one call, whatever it asks for. */
export interface Caller {
  request: Request;
  response: Response;
  services: Services;
  /** The person; set for every call that is not public. */
  account: Account;
  projectId: string;
  role: MemberRole;
  /** The network that is meant, with its revision: the one way to read it. */
  network: () => Promise<Meant>;
  /** Writes into the line that is meant: the one way to write model data. */
  pen: () => Pen;
}

export interface Call<K extends Name> extends Caller {
  body: ReadBody<K>;
  param: (name: ParamName<K>) => string;
  query: (name: QueryName<K>) => string | null;
}

/** Returned by a handler that has answered itself: with a file, with lines, or that nothing changed. */
export const sent = Symbol('sent');

/** What is done for each call of the contract: it must answer what the contract says. */
export type Handlers = { [K in Name]: (call: Call<K>) => Promise<Answer<K> | typeof sent> };
