import { z } from 'zod';
import { addAccount } from '../accounts/accounts.ts';
import { checkPassword } from '../accounts/passwords.ts';
import { Account, Membership } from '../database/rows.ts';
import { Refusal } from './problem.ts';
import { route, type Call, type Route } from './route.ts';

const credentials = z.strictObject({
  email: z.string().min(1).max(200),
  password: z.string().min(1).max(200),
});
const firstAccount = z.strictObject({
  name: z.string().trim().min(1, 'is empty').max(80),
  email: z.email('is not an e-mail address').max(200),
  password: z.string().min(10, 'is shorter than 10 characters').max(200),
});

const describe = (account: Account): { id: string; name: string; email: string } => ({
  id: account.id,
  name: account.name,
  email: account.email,
});

/** A new session id at sign-in, so that one planted before cannot be used. */
const signIn = (call: Pick<Call<unknown>, 'request'>, account: Account): Promise<void> =>
  new Promise((resolve, reject) => {
    call.request.session.regenerate((error: unknown) => {
      if (error) return reject(error instanceof Error ? error : new Error(String(error)));
      call.request.session.accountId = account.id;
      call.request.session.save((failure: unknown) =>
        failure ? reject(failure instanceof Error ? failure : new Error(String(failure))) : resolve(),
      );
    });
  });

export const sessionRoutes: readonly Route[] = [
  route({
    method: 'get',
    path: '/health',
    access: 'public',
    summary: 'Whether the server and its database answer',
    handle: async ({ services }) => {
      await services.knex.raw('SELECT 1');
      return { status: 'ok' };
    },
  }),
  route({
    method: 'get',
    path: '/session',
    access: 'public',
    summary: 'Who is signed in, and whether the first account is still to be made',
    handle: async ({ request, services }) => {
      const account =
        request.session.accountId === undefined
          ? undefined
          : await Account.query(services.knex).findById(request.session.accountId);
      if (account !== undefined) return { account: describe(account), firstStart: false };
      return { account: null, firstStart: (await Account.query(services.knex).resultSize()) === 0 };
    },
  }),
  route({
    method: 'post',
    path: '/session',
    access: 'public',
    summary: 'Sign in',
    body: credentials,
    handle: async (call) => {
      const account = await Account.query(call.services.knex).findOne({
        email: call.body.email.toLowerCase().trim(),
      });
      if (
        !(await checkPassword(account?.passwordHash ?? null, call.body.password)) ||
        account === undefined
      ) {
        throw new Refusal(
          401,
          'Not signed in',
          'The e-mail address and the password do not belong together. Check both and try again.',
        );
      }
      await signIn(call, account);
      return { account: describe(account), firstStart: false };
    },
  }),
  route({
    method: 'delete',
    path: '/session',
    access: 'public',
    summary: 'Sign out',
    handle: async ({ request }) => {
      await new Promise<void>((resolve) => request.session.destroy(() => resolve()));
      return undefined;
    },
  }),
  route({
    method: 'post',
    path: '/first-account',
    access: 'public',
    summary: 'Make the first account of a new server; refused once there is one',
    body: firstAccount,
    handle: async (call) => {
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
  }),
  route({
    method: 'get',
    path: '/projects',
    access: 'signedIn',
    summary: 'Projects the person is a member of',
    handle: async ({ account, services }) =>
      services
        .knex('membership')
        .join('project', 'project.id', 'membership.projectId')
        .where('membership.accountId', account.id)
        .orderBy('project.name')
        .select('project.id', 'project.name', 'membership.role', 'project.revision'),
  }),
  route({
    method: 'get',
    path: '/projects/:project/members',
    access: 'reader',
    summary: 'Members of the project and their roles',
    handle: async ({ projectId, services }) => {
      const members = await Membership.query(services.knex).where({ projectId }).withGraphFetched('account');
      return members.map((member) => ({
        id: member.accountId,
        name: member.account?.name ?? '',
        email: member.account?.email ?? '',
        role: member.role,
      }));
    },
  }),
];
