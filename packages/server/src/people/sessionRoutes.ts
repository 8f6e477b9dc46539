import { tellAccess } from './accessNews.ts';
import { addressKey } from './addressKey.ts';
import { addAccount } from './accounts.ts';
import { checkPassword } from './passwords.ts';
import { sessionOf, signIn } from './signedIn.ts';
import { Account } from '../database/rows.ts';
import { Refusal } from '../http/problem.ts';
import type { Handlers } from '../http/route.ts';

export const sessionHandlers = {
  'GET /session': async ({ request, services }) => {
    const account =
      request.session.accountId === undefined
        ? undefined
        : await Account.query(services.knex).findById(request.session.accountId);
    if (account !== undefined) return sessionOf(account, services.mail);
    const first = (await Account.query(services.knex).resultSize()) === 0;
    return sessionOf(null, services.mail, first);
  },
  'POST /session': async (call) => {
    const { knex, signInLimit } = call.services;
    const tried = await signInLimit.take(call.request.ip ?? '', call.body.email);
    const account = await Account.query(knex).findOne({ email: addressKey(call.body.email) });
    if (!(await checkPassword(account?.passwordHash ?? null, call.body.password)) || account === undefined) {
      throw new Refusal(
        401,
        'Not signed in',
        'The e-mail address and the password do not belong together. Check both and try again.',
      );
    }
    await tried.wasRight();
    await signIn(knex, call.request, account);
    return sessionOf(account, call.services.mail);
  },
  'DELETE /session': async ({ request, services }) => {
    const { accountId } = request.session;
    const session = request.sessionID;
    await new Promise<void>((resolve) => request.session.destroy(() => resolve()));
    if (accountId !== undefined) await tellAccess(services.knex, { accountId, projectId: null, session });
    return undefined;
  },
  'POST /first-account': async (call) => {
    const { knex } = call.services;
    const account = await knex.transaction(async (transaction) => {
      await transaction.raw('LOCK TABLE account IN EXCLUSIVE MODE');
      if ((await Account.query(transaction).resultSize()) > 0) {
        throw new Refusal(
          409,
          'Already set up',
          'This server has accounts already. Sign in, or ask an owner for an account.',
        );
      }
      return addAccount(transaction, call.body);
    });
    await signIn(knex, call.request, account);
    return sessionOf(account, call.services.mail);
  },
} satisfies Partial<Handlers>;
