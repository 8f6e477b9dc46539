import type { Knex } from 'knex';
import { deferred, ref, type Migration } from './step.ts';

export const seventh: Migration = {
  name: '007-switching-and-routing-sheets',
  up: async (knex: Knex) => {
    await knex.raw(`
      ALTER TABLE sheet ADD vlan_id ${ref('vlan')}, ADD vrf_id ${ref('vrf')};
      ALTER TABLE sheet_item ADD prefix_id ${ref('prefix')}, DROP CONSTRAINT sheet_item_of_one,
        ADD CONSTRAINT sheet_item_of_one CHECK (num_nonnulls(device_id, place_id, circuit_id, prefix_id) = 1),
        ADD CONSTRAINT sheet_item_prefix UNIQUE (sheet_id, prefix_id) ${deferred};
      ALTER TABLE sheet_link ADD prefix_id ${ref('prefix')}, DROP CONSTRAINT sheet_link_of_one,
        ADD CONSTRAINT sheet_link_of_one CHECK (num_nonnulls(cable_id, circuit_id, prefix_id) = 1),
        ADD CONSTRAINT sheet_link_prefix UNIQUE (sheet_id, prefix_id) ${deferred};
      CREATE INDEX sheet_item_prefix_id ON sheet_item (prefix_id) WHERE prefix_id IS NOT NULL;
      CREATE INDEX sheet_link_prefix_id ON sheet_link (prefix_id) WHERE prefix_id IS NOT NULL;
    `);
  },
};
