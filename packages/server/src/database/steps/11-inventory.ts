import type { Knex } from 'knex';
import type { Migration } from './step.ts';

const day = (column: string): string =>
  `ADD ${column} text CHECK (${column}::date IS NOT NULL OR ${column} IS NULL)`;

/** What an owner is asked for: where a thing was bought, for how much, until when it is supported, who answers for it. */
export const eleventh: Migration = {
  name: '011-inventory',
  up: async (knex: Knex) => {
    await knex.raw(`
      ALTER TABLE device ADD asset_number text, ADD supplier text, ADD order_number text, ${day('bought_on')},
        ADD price_minor float8 CHECK (price_minor >= 0), ADD currency text CHECK (currency ~ '^[A-Z]{3}$'),
        ${day('warranty_until')}, ${day('support_until')}, ADD contract text, ADD software_version text,
        ADD responsible text,
        ADD CONSTRAINT device_price_has_currency CHECK (price_minor IS NULL OR currency IS NOT NULL);
      ALTER TABLE port ADD mac text CHECK (mac ~ '^[0-9a-f]{2}(:[0-9a-f]{2}){5}$');
    `);
  },
};
