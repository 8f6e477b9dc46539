import type { Knex } from 'knex';
import type { Migration } from './step.ts';

/** What is sold in place of a model; rows that stay as they are from some moment on. */
export const seventeenth: Migration = {
  name: '017-what-replaces-a-model',
  up: async (knex: Knex) => {
    await knex.raw(`
      ALTER TABLE model ADD replaced_by text;
      CREATE FUNCTION frozen_stays() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
        RAISE integrity_constraint_violation USING CONSTRAINT = 'frozen_stays', MESSAGE = 'the row stays as it is';
      END $$;
    `);
  },
};
