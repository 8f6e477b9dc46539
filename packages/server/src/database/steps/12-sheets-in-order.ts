import type { Knex } from 'knex';
import { inProject, type Migration } from './step.ts';

/**
 * Sheets have an order of their own; who changed one last is kept beside it, and how far a member has seen a project.
 * What came before is read out of the journal once.
 */
export const twelfth: Migration = {
  name: '012-sheets-in-order',
  up: async (knex: Knex) => {
    await knex.raw(`
      ALTER TABLE sheet ADD position int CHECK (position BETWEEN 1 AND 100000);
      ALTER TABLE membership ADD seen int CHECK (seen >= 0);
      CREATE TABLE sheet_change (
        ${inProject}, sheet_id uuid NOT NULL, revision int NOT NULL, author text NOT NULL, at timestamptz NOT NULL,
        PRIMARY KEY (project_id, sheet_id));
      INSERT INTO sheet_change (project_id, sheet_id, revision, author, at)
        SELECT DISTINCT ON (c.project_id, s.id) c.project_id, s.id, c.revision, c.author, c.at
        FROM change_set c
        CROSS JOIN LATERAL jsonb_array_elements(c.changes) AS e(change)
        LEFT JOIN sheet_item i ON e.change->>'kind' = 'sheetItem' AND i.id = (e.change->>'id')::uuid
        LEFT JOIN sheet_link l ON e.change->>'kind' = 'sheetLink' AND l.id = (e.change->>'id')::uuid
        LEFT JOIN mark m ON e.change->>'kind' = 'mark' AND m.id = (e.change->>'id')::uuid
        JOIN sheet s ON s.project_id = c.project_id AND s.id = COALESCE(i.sheet_id, l.sheet_id, m.sheet_id,
          CASE WHEN e.change->>'kind' = 'sheet' THEN (e.change->>'id')::uuid END)
        WHERE c.line_id IS NULL
        ORDER BY c.project_id, s.id, c.revision DESC;
    `);
  },
};
