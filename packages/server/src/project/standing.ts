import type { Answer } from '@visograph/api';
import type { Knex } from 'knex';
import { Membership, ProjectRow, type MemberRole } from '../database/rows.ts';

type Summary = Answer<'GET /projects'>[number];
type Facts = Pick<ProjectRow, 'id' | 'name' | 'revision' | 'archivedAt' | 'deletedAt'>;

const day = 24 * 60 * 60 * 1000;

/** A project as its members see it in their list. */
export function summaryOf(
  { id, name, revision, archivedAt, deletedAt }: Facts,
  role: MemberRole,
  deletedDays: number,
): Summary {
  const standing = deletedAt !== null ? 'deleted' : archivedAt !== null ? 'archived' : 'active';
  const until = deletedAt === null ? null : new Date(deletedAt.getTime() + deletedDays * day).toISOString();
  return { id, name, role, revision, standing, until };
}

/** The projects of a person; deleted ones only where they may bring them back. */
export async function projectsOf(knex: Knex, accountId: string, deletedDays: number): Promise<Summary[]> {
  const rows = await knex('membership')
    .join('project', 'project.id', 'membership.projectId')
    .where('membership.accountId', accountId)
    .orderBy(['project.name', 'project.id'])
    .select<(Facts & { role: MemberRole })[]>(
      ...['project.id', 'project.name', 'project.revision', 'project.archivedAt', 'project.deletedAt'],
      'membership.role',
    );
  return rows
    .filter(({ role, deletedAt }) => deletedAt === null || role === 'owner')
    .map((row) => summaryOf(row, row.role, deletedDays));
}

/** Deletes a project with all that belongs to it, however much that is. */
export const deleteForGood = (knex: Knex, projectId: string): Promise<boolean> =>
  knex.transaction(async (transaction) => {
    await transaction.raw('SET LOCAL statement_timeout = 0');
    return (
      (await ProjectRow.query(transaction).delete().where({ id: projectId }).whereNotNull('deletedAt')) > 0
    );
  });

/** Deletes for good what was deleted so many days ago. Several servers may do it at once. */
export async function purge(knex: Knex, deletedDays: number): Promise<void> {
  const over = await ProjectRow.query(knex)
    .where('deletedAt', '<', new Date(Date.now() - deletedDays * day))
    .select('id');
  for (const { id } of over) await deleteForGood(knex, id);
}

/** Names of the projects that a person is the only owner of. */
export async function onlyOwnerOf(transaction: Knex.Transaction, accountId: string): Promise<string[]> {
  const owned = await Membership.query(transaction).where({ accountId, role: 'owner' }).select('projectId');
  const projects = await ProjectRow.query(transaction)
    .whereIn(
      'id',
      owned.map(({ projectId }) => projectId),
    )
    .orderBy('id')
    .forNoKeyUpdate();
  const others = await Membership.query(transaction)
    .whereIn(
      'projectId',
      projects.map(({ id }) => id),
    )
    .where({ role: 'owner' })
    .whereNot({ accountId });
  const kept = new Set(others.map(({ projectId }) => projectId));
  return projects.filter(({ id }) => !kept.has(id)).map(({ name }) => name);
}
