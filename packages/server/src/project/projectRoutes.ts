import { z } from 'zod';
import { ProjectRow } from '../database/rows.ts';
import { addProject } from '../people/accounts.ts';
import { Refusal, refuseFile } from '../http/problem.ts';
import { sent, type Handlers } from '../http/route.ts';
import { sendNetwork } from './sendNetwork.ts';
import { summaryOf } from './standing.ts';

/** A revision that a query names; null where it names none. @throws Refusal 400 for anything else */
export function revisionOf(name: string, text: string | null): number | null {
  if (text === null) return null;
  if (/^\d{1,9}$/.test(text)) return Number(text);
  throw new Refusal(
    400,
    'The request is not understood',
    `${name} is ${text.slice(0, 20)}, not a revision such as 12.`,
  );
}

const isId = (text: string | null): text is string => z.uuid().safeParse(text).success;

export const projectHandlers = {
  'POST /projects': async ({ account, body, services }) => {
    const made = await addProject(services.knex, services.store, account, { name: body.name });
    if (!made.ok) throw refuseFile(made.problems);
    const row = await ProjectRow.query(services.knex).findById(made.projectId).throwIfNotFound();
    return summaryOf(row, 'owner', services.deletedDays);
  },
  'GET /projects/:project/network': async ({ network: meant, query, request, response }) => {
    const { network, revision, line, base } = await meant();
    const tag = line === null ? `"r${revision}"` : `"p${line}.${revision}.${base ?? 0}"`;
    response.set('ETag', tag).set('Cache-Control', 'private, no-cache');
    if (query('at') === null && query('built') === null && request.headers['if-none-match'] === tag) {
      response.status(304).end();
      return sent;
    }
    await sendNetwork(response, network, { revision, line, base });
    return sent;
  },
  'GET /projects/:project/changes': async ({ projectId, services, query, network: meant }) => {
    const before = revisionOf('before', query('before'));
    const row = query('row');
    const { line } = await meant();
    return services.store.history(projectId, line, {
      before,
      rowId: isId(row) ? row : null,
      most: 100,
    });
  },
} satisfies Partial<Handlers>;
