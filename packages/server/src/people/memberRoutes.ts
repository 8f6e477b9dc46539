import type { Answer } from '@visograph/api';
import type { Knex } from 'knex';
import { Account, Invitation, Membership, ProjectRow } from '../database/rows.ts';
import { notFound, Refusal } from '../http/problem.ts';
import type { Call, Handlers } from '../http/route.ts';
import { tellAccess } from './accessNews.ts';

type OwnersCall = Pick<
  Call<'DELETE /projects/:project/members/:account'>,
  'services' | 'projectId' | 'account'
>;

/**
 * Changes who belongs to a project, one person after the other: whoever waited is an owner still, or is refused.
 *
 * @throws Refusal 403
 */
export async function asOwner<T>(
  { services, projectId, account }: OwnersCall,
  change: (transaction: Knex.Transaction) => Promise<T>,
): Promise<T> {
  return services.knex.transaction(async (transaction) => {
    await ProjectRow.query(transaction).findById(projectId).forNoKeyUpdate();
    const mine = await Membership.query(transaction).findById([projectId, account.id]);
    if (mine?.role !== 'owner')
      throw new Refusal(
        403,
        'Not allowed',
        'You are no longer an owner of this project: another owner has just changed that.',
      );
    return change(transaction);
  });
}

/** Whom an owner invited is invited no longer when they are an owner no longer. */
const withdrawInvitationsOf = (transaction: Knex.Transaction, projectId: string, madeBy: string) =>
  Invitation.query(transaction).delete().where({ projectId, madeBy });

const memberOf = (
  account: Account,
  role: Membership['role'],
): Answer<'GET /projects/:project/members'>[0] => ({
  ...{ id: account.id, name: account.name, email: account.email, role },
});

export const memberHandlers = {
  'GET /projects/:project/members': async ({ projectId, services }) => {
    const members = await Membership.query(services.knex)
      .where({ projectId })
      .withGraphJoined('account')
      .orderBy(['account.name', 'account.id']);
    return members.flatMap(({ account, role }) => (account === undefined ? [] : [memberOf(account, role)]));
  },
  'PUT /projects/:project/members/:account': async (call) => {
    const { body, param, projectId, account } = call;
    const accountId = param('account');
    if (accountId === account.id && body.role !== 'owner')
      throw new Refusal(
        422,
        'Not changed',
        'You cannot take the owner role from yourself. Let another owner do it.',
      );
    return asOwner(call, async (transaction) => {
      const person = await Account.query(transaction).findById(accountId);
      const changed = await Membership.query(transaction)
        .patch({ role: body.role })
        .where({ projectId, accountId });
      if (person === undefined || changed === 0) throw notFound('This member');
      if (body.role !== 'owner') await withdrawInvitationsOf(transaction, projectId, accountId);
      await tellAccess(transaction, { accountId, projectId, session: null });
      return memberOf(person, body.role);
    });
  },
  'DELETE /projects/:project/members/:account': async (call) => {
    const { param, projectId, account } = call;
    const accountId = param('account');
    if (accountId === account.id) {
      throw new Refusal(422, 'Not removed', 'You cannot remove yourself. Let another owner do it.');
    }
    await asOwner(call, async (transaction) => {
      const gone = await Membership.query(transaction).delete().where({ projectId, accountId });
      if (gone === 0) throw notFound('This member');
      await withdrawInvitationsOf(transaction, projectId, accountId);
      await tellAccess(transaction, { accountId, projectId, session: null });
    });
  },
} satisfies Partial<Handlers>;
