import type { Answer } from '@visograph/api';
import { newId } from '@visograph/core/model';
import type { Knex } from 'knex';
import { Account, Invitation, Membership, ProjectRow, type MemberRole } from '../database/rows.ts';
import { notFound, Refusal } from '../http/problem.ts';
import type { Call, Handlers } from '../http/route.ts';
import { tellAccess } from './accessNews.ts';
import { addAccount } from './accounts.ts';
import { addressKey } from './addressKey.ts';
import { asOwner } from './memberRoutes.ts';
import { after, keyHash, lives, oneTimeKey } from './oneTimeKey.ts';
import { sessionOf, signIn } from './signedIn.ts';

const invitationOf = ({
  id,
  email,
  role,
  until,
}: Invitation): Answer<'GET /projects/:project/invitations'>[0] => ({
  ...{ id, email, role, until: until.toISOString() },
});

const worthless = (): Refusal =>
  new Refusal(
    410,
    'The link does not work',
    'This link was used already, was taken back or is too old. Ask whoever invited you for a new one.',
  );

/** The invitation of a key that still holds, with its project. @throws Refusal 410 */
async function invited(knex: Knex, key: string): Promise<{ invitation: Invitation; project: ProjectRow }> {
  const invitation = await Invitation.query(knex).findOne({ keyHash: keyHash(key) });
  if (invitation === undefined || invitation.until.getTime() < Date.now()) throw worthless();
  const project = await ProjectRow.query(knex).findById(invitation.projectId);
  if (project === undefined || project.deletedAt !== null) throw worthless();
  return { invitation, project };
}

const rank: Record<MemberRole, number> = { reader: 1, editor: 2, owner: 3 };

/** Whoever belongs to the project already keeps what they may; an invitation takes nothing away. */
async function join(transaction: Knex.Transaction, { projectId, role }: Invitation, accountId: string) {
  const now = await Membership.query(transaction).findById([projectId, accountId]);
  if (now === undefined) await Membership.query(transaction).insert({ projectId, accountId, role });
  else if (rank[now.role] < rank[role])
    await Membership.query(transaction).patch({ role }).where({ projectId, accountId });
  await tellAccess(transaction, { accountId, projectId, session: null });
}

type Accepting = Call<'POST /invitations/accept'>;

/** Who accepts: a new account, or whoever is signed in. @throws Refusal 401, 409 */
async function accepting({ body, request }: Accepting, transaction: Knex.Transaction): Promise<Account> {
  if (body.account !== undefined) {
    const email = addressKey(body.account.email);
    if ((await Account.query(transaction).findOne({ email })) !== undefined)
      throw new Refusal(
        409,
        'The address is taken',
        `There is an account with the address ${email} already. Sign in with it and open the link again, or give another address.`,
      );
    return addAccount(transaction, body.account);
  }
  const { accountId } = request.session;
  const known = accountId === undefined ? undefined : await Account.query(transaction).findById(accountId);
  if (known === undefined)
    throw new Refusal(401, 'Not signed in', 'Sign in first, or make an account for the invitation.');
  return known;
}

/**
 * Nobody comes into a project by an address alone: whoever holds the link decides with which account they come, and
 * proves that it is theirs by being signed in. An account that somebody else made for that address gets nothing.
 */
export const invitationHandlers = {
  'GET /projects/:project/invitations': async ({ projectId, services }) => {
    const all = await Invitation.query(services.knex).where({ projectId }).orderBy('email');
    return all.filter(({ until }) => until.getTime() > Date.now()).map(invitationOf);
  },
  'POST /projects/:project/invitations': async (call) => {
    const { projectId, account, body, services } = call;
    const { key, hash } = oneTimeKey();
    const email = addressKey(body.email);
    const { invitation, project } = await asOwner(call, async (transaction) => {
      const known = await Account.query(transaction).findOne({ email });
      const member =
        known === undefined ? undefined : await Membership.query(transaction).findById([projectId, known.id]);
      if (member !== undefined)
        throw new Refusal(
          422,
          'Not invited',
          `${email} belongs to the project already, as ${member.role}. Change the role in the list.`,
        );
      const row = { role: body.role, keyHash: hash, madeBy: account.id, until: after(lives.invitation) };
      return {
        invitation: await Invitation.query(transaction)
          .insert({ id: newId(), projectId, email, ...row })
          .onConflict(['project_id', 'email'])
          .merge(['role', 'keyHash', 'madeBy', 'until'])
          .returning('*'),
        project: await ProjectRow.query(transaction).findById(projectId).throwIfNotFound(),
      };
    });
    const mailed = await services.mail.sendLink(email, {
      subject: `Invitation to ${project.name}`,
      before: `${account.name} invites you to the network project ${project.name}, as ${body.role}. Open this address to accept:`,
      path: `/join#${key}`,
      after: 'It works once, within seven days. If you do not know what this is about, do nothing.',
    });
    return { ...invitationOf(invitation), key, mailed };
  },
  'DELETE /projects/:project/invitations/:invitation': async (call) => {
    const id = call.param('invitation');
    await asOwner(call, async (transaction) => {
      const gone = await Invitation.query(transaction).delete().where({ id, projectId: call.projectId });
      if (gone === 0) throw notFound('This invitation');
    });
  },
  'POST /invitations/look': async ({ body, services }) => {
    const { invitation, project } = await invited(services.knex, body.key);
    const by = await Account.query(services.knex).findById(invitation.madeBy);
    const { role, email, until } = invitation;
    return { ...{ project: project.name, role, email }, by: by?.name ?? '', until: until.toISOString() };
  },
  'POST /invitations/accept': async (call) => {
    const { body, services, request } = call;
    const { account, projectId } = await services.knex.transaction(async (transaction) => {
      const { invitation } = await invited(transaction, body.key);
      // Used up by whoever is first.
      await ProjectRow.query(transaction).findById(invitation.projectId).forNoKeyUpdate();
      if ((await Invitation.query(transaction).deleteById(invitation.id)) === 0) throw worthless();
      const person = await accepting(call, transaction);
      await join(transaction, invitation, person.id);
      return { account: person, projectId: invitation.projectId };
    });
    if (request.session.accountId !== account.id) await signIn(services.knex, request, account);
    return { ...sessionOf(account, services.mail), projectId };
  },
} satisfies Partial<Handlers>;
