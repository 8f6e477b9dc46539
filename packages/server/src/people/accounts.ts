import { builtInModels } from '@visograph/core/catalogue';
import { create, type Change } from '@visograph/core/change';
import { readExchange, type FileProblem } from '@visograph/core/exchange';
import { newId, newProject, Network } from '@visograph/core/model';
import type { Knex } from 'knex';
import { Account, Membership, PasswordReset, ProjectRow, type MemberRole } from '../database/rows.ts';
import { Refusal } from '../http/problem.ts';
import { onlyOwnerOf } from '../project/standing.ts';
import { asBuilt, type Author, type ProjectStore } from '../store/projectStore.ts';
import { addressKey } from './addressKey.ts';
import { endSessions } from './openSessions.ts';
import { hashPassword } from './passwords.ts';

export async function addAccount(
  knex: Knex,
  wish: { email: string; name: string; password: string },
): Promise<Account> {
  return Account.query(knex)
    .insert({
      id: newId(),
      email: addressKey(wish.email),
      name: wish.name,
      passwordHash: await hashPassword(wish.password),
    })
    .returning('*');
}

export async function setPassword(knex: Knex, accountId: string, password: string): Promise<void> {
  await Account.query(knex)
    .patch({ passwordHash: await hashPassword(password) })
    .where({ id: accountId });
  // Links for a new password that are still about do not outlive it.
  await PasswordReset.query(knex).deleteById(accountId);
}

/**
 * Removes an account with its sessions and memberships; history keeps the name.
 *
 * @throws Refusal 409 while a project has no other owner
 */
export async function removeAccount(knex: Knex, accountId: string): Promise<void> {
  await knex.transaction(async (transaction) => {
    const [first, ...others] = await onlyOwnerOf(transaction, accountId);
    if (first !== undefined)
      throw new Refusal(
        409,
        'Not removed',
        `${first}${others.length > 0 ? ` and ${others.length} more` : ''} would be without an owner. Make somebody else owner, or delete the project for good.`,
      );
    await endSessions(transaction, accountId, { but: null });
    await Account.query(transaction).deleteById(accountId);
  });
}

export const setMember = async (
  knex: Knex,
  projectId: string,
  accountId: string,
  role: MemberRole,
): Promise<void> => {
  await Membership.query(knex)
    .insert({ projectId, accountId, role })
    .onConflict(['project_id', 'account_id'])
    .merge();
};

export type NewProject = { ok: true; projectId: string } | { ok: false; problems: FileProblem[] };

/**
 * A project with the built-in catalogue and, where given, the content of an exchange file: all through the
 * journal. A file with problems leaves nothing behind.
 */
export async function addProject(
  knex: Knex,
  store: ProjectStore,
  owner: Author & { id: string },
  wish: { name: string; file?: unknown },
): Promise<NewProject> {
  const project = newProject(wish.name);
  const models = builtInModels().map((model) => ({ ...model, id: newId() }));
  const read =
    wish.file === undefined
      ? null
      : readExchange(Network.of({ project: [project], model: models }), wish.file);
  if (read !== null && !read.ok) return read;
  await knex.transaction(async (transaction) => {
    await ProjectRow.query(transaction).insert(project);
    await Membership.query(transaction).insert({ projectId: project.id, accountId: owner.id, role: 'owner' });
  });
  const catalogue: Change[] = models.map((model) => create('model', model));
  const changes = [...catalogue, ...(read?.changes ?? [])];
  const sentence = read === null ? `Began the project ${wish.name}` : read.sentence;
  const written = await store.write(
    project.id,
    asBuilt,
    { id: null, name: owner.name },
    { id: newId(), changes, sentence },
  );
  if (written.ok) return { ok: true, projectId: project.id };
  await ProjectRow.query(knex).deleteById(project.id);
  store.forget(project.id);
  return {
    ok: false,
    problems: written.problems.map((problem) => ({ path: '$', message: problem.message })),
  };
}
