import type { Knex } from 'knex';
import type { Migration } from './step.ts';

/** Where the accounts of clouds are read from, with the secret encrypted. An account that is deleted may come back. */
export const twentieth: Migration = {
  name: '020-field',
  up: async (knex: Knex) => {
    await knex.raw(`
      CREATE TABLE account_source (
        project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
        place_id uuid NOT NULL,
        url text NOT NULL,
        client text NOT NULL,
        secret bytea NOT NULL,
        made_by text NOT NULL,
        made_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (project_id, place_id));
    `);
  },
};
