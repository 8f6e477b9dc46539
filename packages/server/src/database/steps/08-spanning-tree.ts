import type { Knex } from 'knex';
import type { Migration } from './step.ts';

export const eighth: Migration = {
  name: '008-spanning-tree-and-strands',
  up: async (knex: Knex) => {
    await knex.raw(`
      ALTER TABLE device ADD spanning_tree jsonb,
        ADD bridge_address text CHECK (bridge_address ~ '^[0-9a-f]{2}(:[0-9a-f]{2}){5}$');
      ALTER TABLE port ADD spanning_tree jsonb;
      ALTER TABLE model ADD optic_strands jsonb CHECK (optic_strands IS NULL OR form = 'transceiver');
      -- A trigger, not an index: what older projects hold twice is told by the checks and may stay until it is mended.
      CREATE FUNCTION address_is_one() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
        IF EXISTS (SELECT 1 FROM address WHERE project_id = NEW.project_id AND id <> NEW.id AND host = NEW.host
          AND port_id IS NOT DISTINCT FROM NEW.port_id AND (NEW.port_id IS NOT NULL OR vrf_id IS NOT DISTINCT FROM NEW.vrf_id))
          AND EXISTS (SELECT 1 FROM address WHERE id = NEW.id)
        THEN RAISE unique_violation USING CONSTRAINT = 'address_is_one', MESSAGE = 'an address is given twice'; END IF;
        RETURN NULL; END $$;
      CREATE CONSTRAINT TRIGGER address_is_one AFTER INSERT OR UPDATE OF address, port_id, vrf_id ON address
        DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION address_is_one();
    `);
  },
};
