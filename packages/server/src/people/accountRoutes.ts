import type { Knex } from 'knex';
import { Account, PasswordReset } from '../database/rows.ts';
import { notFound, Refusal } from '../http/problem.ts';
import type { Call, Handlers } from '../http/route.ts';
import { tellAccess } from './accessNews.ts';
import { removeAccount, setPassword } from './accounts.ts';
import { addressKey } from './addressKey.ts';
import { after, keyHash, lives, oneTimeKey } from './oneTimeKey.ts';
import { endSessions, openSessions } from './openSessions.ts';
import { checkPassword } from './passwords.ts';
import { personOf, sessionOf, signIn } from './signedIn.ts';

/** That it is the person who sits there: tries are counted as those of signing in. @throws Refusal 422, 429 */
async function provenBy(
  password: string,
  { account, request, services }: Pick<Call<'PUT /account'>, 'account' | 'request' | 'services'>,
): Promise<void> {
  const tried = await services.signInLimit.take(request.ip ?? '', account.email);
  if (!(await checkPassword(account.passwordHash, password)))
    throw new Refusal(422, 'Not changed', 'The current password is not right. Check it and try again.');
  await tried.wasRight();
}

async function mailReset({ services }: Call<'POST /password-resets'>, email: string): Promise<void> {
  const account = await Account.query(services.knex).findOne({ email: addressKey(email) });
  if (account === undefined || !services.mail.on) return;
  const key = await newReset(services.knex, account.id, lives.mailedReset);
  await services.mail.sendLink(account.email, {
    subject: 'A new password for Visograph',
    before: `Somebody, most likely you, asked for a new password for ${account.email}. Open this address to set it:`,
    path: `/reset#${key}`,
    after: 'It works once, within an hour. If it was not you, do nothing: your password stays as it is.',
  });
}

/** A key by which the password of an account is set anew; one asked for before no longer works. */
export async function newReset(knex: Knex, accountId: string, life: number): Promise<string> {
  const { key, hash } = oneTimeKey();
  await PasswordReset.query(knex)
    .insert({ accountId, keyHash: hash, until: after(life) })
    .onConflict('account_id')
    .merge();
  return key;
}

export const accountHandlers = {
  'PUT /account': async (call) => {
    const { account, body, services } = call;
    const email = addressKey(body.email);
    if (email !== account.email) {
      if (body.password === undefined)
        throw new Refusal(
          422,
          'Not changed',
          'A new address needs your password: it is what you sign in with.',
        );
      await provenBy(body.password, call);
    }
    return services.knex.transaction(async (transaction) => {
      const other = await Account.query(transaction).findOne({ email }).whereNot({ id: account.id });
      if (other !== undefined)
        throw new Refusal(
          422,
          'Not changed',
          `There is another account with the address ${email}. Give another.`,
        );
      return personOf(
        await Account.query(transaction).patchAndFetchById(account.id, { name: body.name, email }),
      );
    });
  },
  'PUT /account/password': async (call) => {
    const { account, body, services, request } = call;
    await provenBy(body.current, call);
    await services.knex.transaction(async (transaction) => {
      await setPassword(transaction, account.id, body.password);
      await endSessions(transaction, account.id, { but: request.sessionID });
    });
    await signIn(services.knex, request, account);
    return undefined;
  },
  'GET /account/sessions': async ({ account, request, services }) =>
    openSessions(services.knex, account.id, request.sessionID),
  'DELETE /account/sessions': async ({ account, request, services }) =>
    services.knex.transaction(async (transaction) => {
      await endSessions(transaction, account.id, { but: request.sessionID });
    }),
  'DELETE /account/sessions/:session': async ({ account, param, services }) =>
    services.knex.transaction(async (transaction) => {
      if ((await endSessions(transaction, account.id, { named: param('session') })) === 0)
        throw notFound('This session');
    }),
  'POST /account/removal': async (call) => {
    const { account, body, services, request } = call;
    await provenBy(body.password, call);
    await removeAccount(services.knex, account.id);
    await new Promise<void>((resolve) => request.session.destroy(() => resolve()));
    await tellAccess(services.knex, { accountId: account.id, projectId: null, session: null });
    return undefined;
  },
  'POST /password-resets': async (call) => {
    const { body, services, request } = call;
    await services.resetLimit.take(request.ip ?? '', body.email);
    // Not waited for: how long it takes would tell whether there is such an account.
    mailReset(call, body.email).catch((error: unknown) =>
      services.log.warn({ error: String(error) }, 'no link for a new password was sent'),
    );
    return undefined;
  },
  'PUT /password-resets': async ({ body, request, services }) => {
    const account = await services.knex.transaction(async (transaction) => {
      const found = await PasswordReset.query(transaction)
        .findOne({ keyHash: keyHash(body.key) })
        .forUpdate();
      if (found === undefined || found.until.getTime() < Date.now())
        throw new Refusal(
          410,
          'The link does not work',
          'This link was used already or is too old. Ask for a new one where you sign in.',
        );
      await setPassword(transaction, found.accountId, body.password);
      await endSessions(transaction, found.accountId, { but: null });
      return Account.query(transaction).findById(found.accountId).throwIfNotFound();
    });
    await signIn(services.knex, request, account);
    return sessionOf(account, services.mail);
  },
} satisfies Partial<Handlers>;
