import { addressKey } from './addressKey.ts';
import { addAccount, setMember } from './accounts.ts';
import { Account, Membership } from '../database/rows.ts';
import { notFound, Refusal } from '../http/problem.ts';
import type { Handlers } from '../http/route.ts';

export const memberHandlers = {
  'PUT /projects/:project/members': async ({ body, projectId, services, account }) => {
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
    const person =
      known ??
      (await addAccount(services.knex, {
        email: body.email,
        name: body.name ?? '',
        password: body.password ?? '',
      }));
    await setMember(services.knex, projectId, person.id, body.role);
    services.live.dropAccount(projectId, person.id);
    return { id: person.id, name: person.name, email: person.email, role: body.role };
  },
  'DELETE /projects/:project/members/:account': async ({ param, projectId, services, account }) => {
    if (param('account') === account.id) {
      throw new Refusal(422, 'Not removed', 'You cannot remove yourself. Let another owner do it.');
    }
    const gone = await Membership.query(services.knex)
      .delete()
      .where({ projectId, accountId: param('account') });
    if (gone === 0) throw notFound('This member');
    services.live.dropAccount(projectId, param('account'));
    return undefined;
  },
} satisfies Partial<Handlers>;
