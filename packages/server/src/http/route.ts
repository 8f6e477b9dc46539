import type { Answer, DirectName, DoneByJob, Name, ParamName, QueryName, ReadBody } from '@visograph/api';
import type { Request, Response } from 'express';
import type { Knex } from 'knex';
import type { Logger } from 'pino';
import type { Jobs } from '../jobs/jobs.ts';
import type { Live } from '../live/live.ts';
import type { Who } from './authorise.ts';
import type { Meant, Pen } from './meant.ts';
import type { Mail } from '../people/mail.ts';
import type { SignInLimit } from '../people/signInLimit.ts';
import type { ProjectStore } from '../store/projectStore.ts';

/** What is there for every call, in the web process and in those that do jobs. */
export interface Base {
  knex: Knex;
  store: ProjectStore;
  log: Logger;
  /** The exchange file that ships as an example; null: this server has none. */
  exampleFile: string | null;
}

export interface Services extends Base {
  live: Live;
  jobs: Jobs;
  signInLimit: SignInLimit;
  /** Wishes for a new password, counted apart. */
  resetLimit: SignInLimit;
  mail: Mail;
  /** Days that a deleted project can be brought back. */
  deletedDays: number;
}

/** What a handler has of one call, whatever it asks for. */
export interface Caller extends Who {
  /** The network that is meant, with its revision: the one way to read it. */
  network: () => Promise<Meant>;
  /** The same of an earlier revision. @throws Refusal 404 where there is none */
  networkAt: (revision: number) => Promise<Meant>;
  /** Writes into the line that is meant: the one way to write model data. */
  pen: () => Pen;
}

/** What a call says. */
export interface Said<K extends Name> {
  body: ReadBody<K>;
  param: (name: ParamName<K>) => string;
  query: (name: QueryName<K>) => string | null;
}

/** A call that is answered at once, by the process that took it. */
export interface Call<K extends Name> extends Caller, Said<K> {
  request: Request;
  response: Response;
  services: Services;
}

/** A call that is done as a job: it tells how far it has come, and may be stopped at any moment. */
export interface JobCall<K extends Name> extends Caller, Said<K> {
  services: Base;
  /** Names the job, and the journal entry that it writes. */
  jobId: string;
  tell: (done: number, of: number) => void;
  /** Resolves when nobody may stop it any more. @throws Stopped when it was stopped before */
  beginWriting: () => Promise<void>;
}

/** A file, in place of JSON; its name may hold any letters. */
export class FileAnswer {
  constructor(
    readonly name: string,
    readonly type: string,
    readonly bytes: Uint8Array,
  ) {}
}

export const fileAnswer = (name: string, type: string, content: Uint8Array | string): FileAnswer =>
  new FileAnswer(name, type, typeof content === 'string' ? Buffer.from(content) : content);

/** Returned by a handler that has answered itself: with a file, or that nothing changed. */
export const sent = Symbol('sent');

/** What is done for each call of the contract: it must answer what the contract says. */
export type Handlers = { [K in DirectName]: (call: Call<K>) => Promise<Answer<K> | typeof sent> };
export type JobHandlers = { [K in DoneByJob]: (call: JobCall<K>) => Promise<Answer<K> | FileAnswer> };
