import { Membership } from '../database/rows.ts';
import { asBuilt } from '../store/projectStore.ts';
import { lastSheetChanges } from '../store/sheetChanges.ts';
import { revisionOf } from './projectRoutes.ts';
import { notFound } from '../http/problem.ts';
import type { Handlers } from '../http/route.ts';

/** As many changes are told one by one; before them there were more. */
const mostSince = 60;

/** What the start of a project tells: what others did since one was last there, who changed which sheet last. */
export const startHandlers = {
  'GET /projects/:project/since': async ({ account, projectId, services, query }) => {
    const member = await Membership.query(services.knex).findById([projectId, account.id]);
    if (member === undefined) throw notFound('This project');
    const after = revisionOf('after', query('after'));
    const seen = after === null || after === 0 ? member.seen : after;
    if (seen === null) return { seen, lines: [] };
    const wish = { before: null, rowId: null, after: seen, but: account.id, most: mostSince };
    return { seen, lines: await services.store.history(projectId, asBuilt, wish) };
  },
  'PUT /projects/:project/seen': async ({ account, projectId, services, body, network: meant }) => {
    const { revision } = await meant();
    // Two windows may tell it in any order: it never goes back, nor ahead of what there is.
    await Membership.query(services.knex)
      .patch({ seen: Math.min(body.revision, revision) })
      .where({ projectId, accountId: account.id })
      .where((row) => void row.whereNull('seen').orWhere('seen', '<', body.revision));
  },
  'GET /projects/:project/sheets': async ({ projectId, services }) =>
    lastSheetChanges(services.knex, projectId),
} satisfies Partial<Handlers>;
