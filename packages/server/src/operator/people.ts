import { Account } from '../database/rows.ts';
import { connect } from '../database/connect.ts';
import { newReset } from '../people/accountRoutes.ts';
import { removeAccount } from '../people/accounts.ts';
import { addressKey } from '../people/addressKey.ts';
import { lives } from '../people/oneTimeKey.ts';
import { Refusal } from '../http/problem.ts';
import type { Knex } from 'knex';
import { CannotDo } from './projectArchive.ts';

async function withKnex<T>(url: string, work: (knex: Knex) => Promise<T>): Promise<T> {
  const knex = connect(url, { most: 2 });
  try {
    return await work(knex);
  } finally {
    await knex.destroy();
  }
}

async function accountOf(knex: Knex, email: string): Promise<Account> {
  const account = await Account.query(knex).findOne({ email: addressKey(email) });
  if (account === undefined) throw new CannotDo(`There is no account with the address ${email}.`);
  return account;
}

/** All accounts, each with its projects and roles, in the order of their addresses. */
export const listPeople = (url: string): Promise<string[]> =>
  withKnex(url, async (knex) => {
    const rows: { email: string; name: string; projects: string | null }[] = await knex('account')
      .leftJoin('membership', 'membership.accountId', 'account.id')
      .leftJoin('project', 'project.id', 'membership.projectId')
      .groupBy('account.id')
      .orderBy('account.email')
      .select('account.email', 'account.name')
      .select(
        knex.raw(
          `string_agg(project.name || ' (' || membership.role || ')', ', ' ORDER BY project.name) AS projects`,
        ),
      );
    return rows.map(({ email, name, projects }) => `${email}\t${name}\t${projects ?? 'no project'}`);
  });

/** The path of a link by which the person sets a new password, once, within a day. */
export const passwordLink = (url: string, email: string): Promise<string> =>
  withKnex(url, async (knex) => {
    const account = await accountOf(knex, email);
    return `/reset#${await newReset(knex, account.id, lives.handedReset)}`;
  });

/** Removes an account with all its sessions. @throws CannotDo while a project has no other owner */
export const removePerson = (url: string, email: string): Promise<string> =>
  withKnex(url, async (knex) => {
    const account = await accountOf(knex, email);
    try {
      await removeAccount(knex, account.id);
    } catch (error) {
      throw error instanceof Refusal ? new CannotDo(error.detail) : error;
    }
    return account.email;
  });
