import type { Knex } from 'knex';
import type { Migration } from './step.ts';

export const sixth: Migration = {
  name: '006-installed',
  up: async (knex: Knex) => {
    await knex.raw(
      `ALTER TABLE device ADD installed_on text CHECK (installed_on::date IS NOT NULL OR installed_on IS NULL)`,
    );
  },
};
