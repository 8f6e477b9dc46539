import type { z } from 'zod';
import type { Contract, Name } from './contract.ts';
import type { Endpoint, networkQuery, RawBody } from './endpoint.ts';
import type { PathWish } from './path.ts';
import type { job } from './schemas.ts';

type Taken<B> = B extends RawBody
  ? B['raw'] extends 'text'
    ? string
    : Uint8Array
  : B extends z.ZodType
    ? z.output<B>
    : undefined;
type Given<B> = B extends RawBody
  ? B['raw'] extends 'text'
    ? string
    : Uint8Array
  : B extends z.ZodType
    ? z.input<B>
    : undefined;
type Part<K extends Name, F extends keyof Endpoint> = Contract[K] extends { readonly [P in F]: infer V }
  ? V
  : undefined;

/** What a caller sends, and what the server has of it once it is read. */
export type BodyOf<K extends Name> = Given<Part<K, 'body'>>;
export type ReadBody<K extends Name> = Taken<Part<K, 'body'>>;
/** What the server answers as JSON; nothing where it answers with a file or no content. */
export type Answer<K extends Name> = Part<K, 'answers'> extends z.ZodType<infer A> ? A : void;
/** The calls that are jobs, and those that are answered at once. */
export type JobName = { [K in Name]: Contract[K] extends { readonly job: string } ? K : never }[Name];
export type DirectName = Exclude<Name, JobName>;
/** Calls answered at once that become jobs where there is much to do. */
export type LargeName = {
  [K in Name]: Contract[K] extends { readonly jobIfLarge: string } ? K : never;
}[Name];
/** All that may be done as a job. */
export type DoneByJob = JobName | LargeName;
export type Job = z.infer<typeof job>;

type NetworkQuery<K extends Name> =
  Part<K, 'network'> extends infer N extends keyof typeof networkQuery
    ? keyof (typeof networkQuery)[N]
    : never;
export type QueryName<K extends Name> = (keyof Part<K, 'query'> & string) | NetworkQuery<K>;

type Filled<B> = B extends undefined ? { body?: undefined } : { body: B };
/** All that a call needs: the parts of its path, its query, its body. */
export type CallWish<K extends Name> = Pick<PathWish<K>, 'params'> &
  Filled<BodyOf<K>> & { query?: { readonly [Q in QueryName<K>]?: string | undefined } | undefined };
