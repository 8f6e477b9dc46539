import { tellAccess } from './accessNews.ts';
import { addressKey } from './addressKey.ts';
import { addAccount } from './accounts.ts';
import { checkPassword } from './passwords.ts';
import { Account, Membership } from '../database/rows.ts';
import { Refusal } from '../http/problem.ts';
import type { Call, Handlers } from '../http/route.ts';

const describe = (account: Account): { id: string; name: string; email: string } => ({
  id: account.id,
  name: account.name,
  email: account.email,
});

/** A new session id at sign-in, so that one planted before cannot be used. */
const signIn = (call: Pick<Call<'POST /session'>, 'request'>, account: Account): Promise<void> =>
  new Promise((resolve, reject) => {
    call.request.session.regenerate((error: unknown) => {
      if (error) return reject(error instanceof Error ? error : new Error(String(error)));
      call.request.session.accountId = account.id;
      call.request.session.save((failure: unknown) =>
        failure ? reject(failure instanceof Error ? failure : new Error(String(failure))) : resolve(),
      );
    });
  });

export const sessionHandlers = {
  'GET /session': async ({ request, services }) => {
    const account =
      request.session.accountId === undefined
        ? undefined
        : await Account.query(services.knex).findById(request.session.accountId);
    if (account !== undefined) return { account: describe(account), firstStart: false };
    return { account: null, firstStart: (await Account.query(services.knex).resultSize()) === 0 };
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
    await signIn(call, account);
    return { account: describe(account), firstStart: false };
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
    await signIn(call, account);
    return { account: describe(account), firstStart: false };
  },
  'GET /projects': async ({ account, services }) =>
    services
      .knex('membership')
      .join('project', 'project.id', 'membership.projectId')
      .where('membership.accountId', account.id)
      .orderBy('project.name')
      .select('project.id', 'project.name', 'membership.role', 'project.revision'),
  'GET /projects/:project/members': async ({ projectId, services }) => {
    const members = await Membership.query(services.knex).where({ projectId }).withGraphFetched('account');
    return members.map((member) => ({
      id: member.accountId,
      name: member.account?.name ?? '',
      email: member.account?.email ?? '',
      role: member.role,
    }));
  },
} satisfies Partial<Handlers>;
