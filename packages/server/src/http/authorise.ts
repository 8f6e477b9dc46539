import type { Endpoint } from '@visograph/api';
import type { Knex } from 'knex';
import { z } from 'zod';
import { Account, type MemberRole } from '../database/rows.ts';
import { notFound, Refusal } from './problem.ts';

/** Who calls, and as what. */
export interface Who {
  /** The person; an empty one for calls that are public. */
  account: Account;
  projectId: string;
  role: MemberRole;
}

const rank: Record<MemberRole, number> = { reader: 1, editor: 2, owner: 3 };
const nobody: Who = { account: new Account(), projectId: '', role: 'reader' };

/** Membership and standing of the project in one question. */
interface Standing {
  role: MemberRole;
  name: string;
  archivedAt: Date | null;
  deletedAt: Date | null;
}
const standingOf = (knex: Knex, projectId: string, accountId: string): Promise<Standing | undefined> =>
  knex('membership')
    .join('project', 'project.id', 'membership.projectId')
    .where({ projectId, accountId })
    .first('membership.role', 'project.name', 'project.archivedAt', 'project.deletedAt');

/**
 * The one place where it is decided who may call what, for requests and for jobs. An outsider learns nothing, not even
 * that a project exists.
 *
 * @throws Refusal 401 without a person, 404 for outsiders and for what is deleted, 403 for members whose role does not
 *   reach, 409 where the project is archived
 */
export async function authorise(
  { access, standing }: Pick<Endpoint, 'access' | 'standing'>,
  { accountId, projectId }: { accountId: string | undefined; projectId: string },
  knex: Knex,
): Promise<Who> {
  if (access === 'public') return nobody;
  const ofProject = access !== 'signedIn' && z.uuid().safeParse(projectId).success;
  const [account, member] =
    accountId === undefined
      ? []
      : await Promise.all([
          Account.query(knex).findById(accountId),
          ofProject ? standingOf(knex, projectId, accountId) : undefined,
        ]);
  if (account === undefined)
    throw new Refusal(401, 'Not signed in', 'Your session has ended. Sign in again; what you typed is kept.');
  if (access === 'signedIn') return { ...nobody, account };
  if (member === undefined || (member.deletedAt !== null && standing !== 'deleted'))
    throw notFound('This project');
  if (rank[member.role] < rank[access]) {
    throw new Refusal(
      403,
      'Not allowed',
      `You are ${member.role} of this project; this needs ${access}. Ask an owner of the project.`,
    );
  }
  if (member.archivedAt !== null && access !== 'reader' && standing === undefined)
    throw new Refusal(
      409,
      'Archived',
      `${member.name} is archived: it can be read, and nobody changes it. An owner can bring it back.`,
    );
  return { account, projectId, role: member.role };
}
