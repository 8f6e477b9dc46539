import type { z } from 'zod';

/** Who may call: anybody, anybody signed in, or a member of the project with at least this role. */
export type Access = 'public' | 'signedIn' | 'reader' | 'editor' | 'owner';

/** What is done outside the web process, one piece of work a person at a time: what is over soon, and what takes long. */
export const lanes = ['short', 'long'] as const;
export type Lane = (typeof lanes)[number];

/** A body that is no JSON: text, or bytes as they are, up to so many bytes. */
export interface RawBody {
  readonly raw: 'text' | 'bytes';
  readonly limit: number;
}

/** One way to call the server: what it takes, who may, and what it answers. Server, browser and OpenAPI read it here. */
export interface Endpoint {
  readonly access: Access;
  /**
   * It may be called while the project is archived though it changes something, or even while it is deleted and may
   * still be brought back. Left out: reading alone goes on while a project is archived.
   */
  readonly standing?: 'archived' | 'deleted';
  readonly summary: string;
  /**
   * The network it is about, of the project in its path. `read`: the query may say which (`plan`, `at`, `built`);
   * `write`: it may name a `plan`.
   */
  readonly network?: 'read' | 'write';
  /** What else the query may say, in words. */
  readonly query?: { readonly [name: string]: string };
  readonly body?: z.ZodType | RawBody;
  /** The most bytes that a body of JSON may have; left out: 64 kB. */
  readonly limit?: number;
  /**
   * It is a job: a GET answers when it is done, any other call answers 202 with the job, whose result is then asked for
   * (`Prefer: wait=30`, RFC 7240: it is waited for so many seconds first).
   */
  readonly job?: Lane;
  /** It is answered at once, and as a job does where there is much to do. */
  readonly jobIfLarge?: Lane;
  /** The reply as JSON; left out: none (204). */
  readonly answers?: z.ZodType;
  /** Media types of files that it answers with, in place of JSON or besides. */
  readonly files?: readonly string[];
}

export const endpoint = <const E extends Endpoint>(definition: E): E => definition;
export const text = <const L extends number>(limit: L) => ({ raw: 'text', limit }) as const;
export const bytes = <const L extends number>(limit: L) => ({ raw: 'bytes', limit }) as const;

export const isRaw = (body: z.ZodType | RawBody): body is RawBody => 'raw' in body;

/** What the query says of the network that is meant. */
export const networkQuery = {
  read: {
    plan: 'The plan to look at, by its id; left out: as built',
    at: 'The revision of an earlier moment; left out: now',
    built: '1: without what is only planned',
  },
  write: { plan: 'The plan to write into, by its id; left out: as built' },
} as const;
