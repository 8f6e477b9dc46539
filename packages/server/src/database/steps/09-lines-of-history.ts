import type { Knex } from 'knex';
import type { Migration } from './step.ts';

export const ninth: Migration = {
  name: '009-lines-of-history',
  up: async (knex: Knex) => {
    await knex.raw(`
      CREATE TABLE line (
        id uuid PRIMARY KEY, project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE, name text NOT NULL, purpose text,
        revision int NOT NULL, made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(),
        thrown_away_at timestamptz, thrown_away_by text, UNIQUE (project_id, id));
      -- The name of a plan that was thrown away is free again.
      CREATE UNIQUE INDEX line_name ON line (project_id, lower(name)) WHERE thrown_away_at IS NULL;
      -- What was written before there were plans is of the line as built: that is what no line means.
      ALTER TABLE change_set DROP COLUMN state, ADD line_id uuid, ADD base int,
        ADD CONSTRAINT change_set_line FOREIGN KEY (project_id, line_id) REFERENCES line (project_id, id) ON DELETE CASCADE,
        ADD CONSTRAINT change_set_base CHECK ((line_id IS NULL) = (base IS NULL)),
        DROP CONSTRAINT change_set_project_id_revision_key,
        ADD CONSTRAINT change_set_revision UNIQUE NULLS NOT DISTINCT (project_id, line_id, revision);
      DROP INDEX change_set_author;
      CREATE INDEX change_set_author ON change_set (project_id, line_id, author_id, revision);
      CREATE TABLE reservation (
        project_id uuid NOT NULL, line_id uuid NOT NULL, kind text NOT NULL, what text NOT NULL, key text NOT NULL,
        PRIMARY KEY (project_id, kind, what, key),
        FOREIGN KEY (project_id, line_id) REFERENCES line (project_id, id) ON DELETE CASCADE);
      CREATE INDEX reservation_line ON reservation (line_id);
    `);
  },
};
