import { readFile } from 'node:fs/promises';
import type { Knex } from 'knex';
import { Account, ProjectRow } from '../database/rows.ts';
import type { ProjectStore } from '../store/projectStore.ts';
import { addAccount, addProject, setMember } from './accounts.ts';

/** The people of the demo; the password is printed at the start and is meant for the demo only. */
export const demoPassword = 'ferry-lamp-seven';
export const demoPeople = [
  { email: 'anna@marrow.example', name: 'Anna Kerr', role: 'owner' },
  { email: 'ben@marrow.example', name: 'Ben Adair', role: 'editor' },
  { email: 'rita@marrow.example', name: 'Rita Voss', role: 'reader' },
] as const;

/**
 * Loads the demo network through the importer into a database without projects. A start that was killed half-way
 * leaves at most accounts and a project without any revision: both are taken up again.
 */
export async function loadDemo(knex: Knex, store: ProjectStore, path: string): Promise<boolean> {
  await ProjectRow.query(knex).delete().where({ revision: 0 });
  if ((await ProjectRow.query(knex).resultSize()) > 0) return false;
  const file: unknown = JSON.parse(await readFile(path, 'utf8'));
  const people = [];
  for (const person of demoPeople) {
    const known = await Account.query(knex).findOne({ email: person.email });
    people.push({
      ...person,
      account: known ?? (await addAccount(knex, { ...person, password: demoPassword })),
    });
  }
  const [owner, ...others] = people;
  if (owner === undefined) return false;
  const made = await addProject(
    knex,
    store,
    { id: owner.account.id, name: owner.name },
    { name: 'Marrow Sound Ferries', file },
  );
  if (!made.ok) {
    throw new Error(
      `The demo file cannot be read: ${made.problems[0]?.path ?? ''} ${made.problems[0]?.message ?? ''}`,
    );
  }
  for (const person of others) await setMember(knex, made.projectId, person.account.id, person.role);
  return true;
}
