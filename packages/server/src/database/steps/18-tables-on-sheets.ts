import type { Knex } from 'knex';
import type { Migration } from './step.ts';

/** Schedules that stand on sheets. Their table may not be there yet: the reference is made where tables are. */
export const eighteenth: Migration = {
  name: '018-tables-on-sheets',
  up: async (knex: Knex) => {
    await knex.raw(`
      ALTER TABLE mark DROP CONSTRAINT mark_form_check;
      ALTER TABLE mark ADD CONSTRAINT mark_form_check CHECK (form IN ('note', 'callout', 'line', 'arrow', 'rectangle',
        'ellipse', 'polygon', 'enclosure', 'picture', 'dimension', 'schedule'));
      ALTER TABLE mark ADD schedule_id uuid;
      ALTER TABLE mark ADD CONSTRAINT mark_schedule CHECK (form <> 'schedule' OR schedule_id IS NOT NULL);
      CREATE INDEX mark_schedule_id ON mark (schedule_id) WHERE schedule_id IS NOT NULL;
    `);
  },
};
