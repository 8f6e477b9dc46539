import { ProjectRow } from '../database/rows.ts';
import { notFound, Refusal } from '../http/problem.ts';
import type { Handlers } from '../http/route.ts';
import { tellAccess } from '../people/accessNews.ts';
import { asOwner } from '../people/memberRoutes.ts';
import { deleteForGood, projectsOf, summaryOf } from './standing.ts';

export const standingHandlers = {
  'GET /projects': async ({ account, services }) =>
    projectsOf(services.knex, account.id, services.deletedDays),
  'PUT /projects/:project/standing': async (call) => {
    const { projectId, body, role, services } = call;
    return asOwner(call, async (transaction) => {
      const now = new Date();
      const patch = {
        active: { archivedAt: null, deletedAt: null },
        archived: { archivedAt: now, deletedAt: null },
        deleted: { deletedAt: now },
      }[body.standing];
      await ProjectRow.query(transaction).patch(patch).where({ id: projectId });
      await tellAccess(transaction, { accountId: null, projectId, session: null });
      const project = await ProjectRow.query(transaction).findById(projectId).throwIfNotFound();
      return summaryOf(project, role, services.deletedDays);
    });
  },
  'DELETE /projects/:project': async ({ projectId, services }) => {
    const { knex, store } = services;
    const project = await ProjectRow.query(knex).findById(projectId);
    if (project === undefined) throw notFound('This project');
    if (project.deletedAt === null)
      throw new Refusal(
        409,
        'Not deleted',
        `${project.name} is in use. Delete it first; for a while it can be brought back, or then be deleted for good.`,
      );
    await deleteForGood(knex, projectId);
    store.forget(projectId);
    return undefined;
  },
} satisfies Partial<Handlers>;
