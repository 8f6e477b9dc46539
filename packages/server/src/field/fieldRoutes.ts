import type { Answer } from '@visograph/api';
import { notFound } from '../http/problem.ts';
import type { Handlers, JobHandlers } from '../http/route.ts';
import { readAccount } from './accountReader.ts';
import { AccountSources, fieldSettings } from './accountSources.ts';

/** What the environment says now: the same in every process of a server. */
const sources = (knex: ConstructorParameters<typeof AccountSources>[0]): AccountSources =>
  new AccountSources(knex, fieldSettings(process.env));

type Told = Answer<'GET /projects/:project/account-sources/:place'>;

export const fieldHandlers = {
  'GET /projects/:project/account-sources/:place': async ({ projectId, param, services }): Promise<Told> => {
    const row = await sources(services.knex).find({ projectId, placeId: param('place') });
    return {
      source:
        row === null
          ? null
          : { url: row.url, client: row.client, madeBy: row.madeBy, madeAt: row.madeAt.toISOString() },
    };
  },
  'PUT /projects/:project/account-sources/:place': async (call) => {
    const { projectId, param, services, account, body } = call;
    const placeId = param('place');
    const { network } = await call.network();
    if (network.get('place', placeId)?.kind !== 'account') throw notFound('This account');
    await sources(services.knex).set({ projectId, placeId }, account.name, body);
    return undefined;
  },
  'DELETE /projects/:project/account-sources/:place': async ({ projectId, param, services }) => {
    await sources(services.knex).forget({ projectId, placeId: param('place') });
    return undefined;
  },
} satisfies Partial<Handlers>;

export const fieldJobs = {
  'POST /projects/:project/account-sources/:place/read': async ({ projectId, param, services, tell }) =>
    readAccount(await sources(services.knex).open({ projectId, placeId: param('place') }), { tell }),
} satisfies Partial<JobHandlers>;
