import { addressKey } from './addressKey.ts';
import { addAccount, setMember } from './accounts.ts';
import { tellAccess } from './accessNews.ts';
import type { Knex } from 'knex';
import { Account, Membership, ProjectRow } from '../database/rows.ts';
import { notFound, Refusal } from '../http/problem.ts';
import type { Call, Handlers } from '../http/route.ts';

type MemberCall = Call<'PUT /projects/:project/members'> | Call<'DELETE /projects/:project/members/:account'>;

/**
 * Changes the members of a project, one person after the other: whoever waited is an owner still, or is refused.
 *
 * @throws Refusal 403
 */
async function changeMembers<T>(
  { services, projectId, account }: Pick<MemberCall, 'services' | 'projectId' | 'account'>,
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

export const memberHandlers = {
  'PUT /projects/:project/members': async (call) => {
    const { body, projectId, services, account } = call;
    const known = await Account.query(services.knex).findOne({ email: addressKey(body.email) });
    if (known?.id === account.id && body.role !== 'owner') {
      throw new Refusal(
        422,
        'Not changed',
        'You cannot take the owner role from yourself. Let another owner do it.',
      );
    }
    if (known === undefined && (body.name === undefined || body.password === undefined)) {
      throw new Refusal(
        422,
        'Not added',
        `There is no account ${body.email}. Give a name and a first password to make one.`,
      );
    }
    return changeMembers(call, async (transaction) => {
      const { email, name = '', password = '' } = body;
      const person = known ?? (await addAccount(transaction, { email, name, password }));
      await setMember(transaction, projectId, person.id, body.role);
      await tellAccess(transaction, { accountId: person.id, projectId, session: null });
      return { id: person.id, name: person.name, email: person.email, role: body.role };
    });
  },
  'DELETE /projects/:project/members/:account': async (call) => {
    const { param, projectId, account } = call;
    const accountId = param('account');
    if (accountId === account.id) {
      throw new Refusal(422, 'Not removed', 'You cannot remove yourself. Let another owner do it.');
    }
    await changeMembers(call, async (transaction) => {
      const gone = await Membership.query(transaction).delete().where({ projectId, accountId });
      if (gone === 0) throw notFound('This member');
      await tellAccess(transaction, { accountId, projectId, session: null });
    });
  },
} satisfies Partial<Handlers>;
