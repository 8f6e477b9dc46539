import type { Knex } from 'knex';
import type { Migration } from './step.ts';

/** Places of a cloud, interfaces of what runs there, and what one side of a BGP session tells the other. */
export const nineteenth: Migration = {
  name: '019-cloud',
  up: async (knex: Knex) => {
    await knex.raw(`
      ALTER TABLE place DROP CONSTRAINT place_kind_check;
      ALTER TABLE place ADD CONSTRAINT place_kind_check CHECK (kind IN ('site', 'building', 'floor', 'room', 'row',
        'account', 'region', 'zone', 'network'));
      ALTER TABLE port DROP CONSTRAINT port_form_check;
      ALTER TABLE port ADD CONSTRAINT port_form_check CHECK (form IN ('physical', 'aggregate', 'vlan', 'subinterface',
        'loopback', 'tunnel', 'virtual'));
      ALTER TABLE bgp_session ADD announces jsonb NOT NULL DEFAULT '[]';
      ALTER TABLE bgp_session ALTER announces DROP DEFAULT;
    `);
  },
};
