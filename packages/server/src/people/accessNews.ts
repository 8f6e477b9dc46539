import type { Knex } from 'knex';
import { z } from 'zod';

/** On which servers tell each other that somebody may see less, or something else, than before. */
export const accessChannel = 'visograph_access';

/** Whose open lines are closed: of one session, of a person in one project or everywhere, of all in one project. */
export const accessNoteSchema = z.object({
  accountId: z.string().nullable(),
  projectId: z.string().nullable(),
  session: z.string().nullable(),
});
export type AccessNote = z.infer<typeof accessNoteSchema>;

/** Tells all servers, this one too, once the transaction stands. */
export async function tellAccess(knex: Knex, note: AccessNote): Promise<void> {
  await knex.raw('SELECT pg_notify(?, ?)', [accessChannel, JSON.stringify(note)]);
}
