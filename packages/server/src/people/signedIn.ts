import type { Answer } from '@visograph/api';
import type { Request } from 'express';
import type { Knex } from 'knex';
import type { Account } from '../database/rows.ts';
import { tellAccess } from './accessNews.ts';
import type { Mail } from './mail.ts';

const failure = (error: unknown): Error => (error instanceof Error ? error : new Error(String(error)));

/** A new session id at sign-in, so that one planted before cannot be used; what was open with the old one is closed. */
export async function signIn(knex: Knex, request: Request, account: Account): Promise<void> {
  const { sessionID: session } = request;
  const { accountId } = request.session;
  await begin(request, account);
  if (accountId !== undefined) await tellAccess(knex, { accountId, projectId: null, session });
}

const begin = (request: Request, account: Account): Promise<void> =>
  new Promise((resolve, reject) => {
    request.session.regenerate((error: unknown) => {
      if (error) return reject(failure(error));
      request.session.accountId = account.id;
      request.session.since = new Date().toISOString();
      request.session.agent = (request.get('user-agent') ?? '').slice(0, 300);
      request.session.save((problem: unknown) => (problem ? reject(failure(problem)) : resolve()));
    });
  });

export const personOf = ({ id, name, email }: Account): Answer<'PUT /account'> => ({ id, name, email });

/** What a window is told of who is signed in. */
export const sessionOf = (
  account: Account | null,
  mail: Mail,
  firstStart = false,
): Answer<'GET /session'> => ({
  account: account === null ? null : personOf(account),
  firstStart,
  mail: mail.on,
});
