import { deferred, inProject, ref, lowered, type Migration } from './step.ts';

/** Half units, half-width gear, modules, kits, power feeds, and the figures of the catalogue. */
export const second: Migration = {
  name: '002 places, catalogue, racks',
  up: async (knex) => {
    await knex.raw(`
      ALTER TABLE place ADD address text, ADD latitude float8 CHECK (latitude BETWEEN -90 AND 90),
        ADD longitude float8 CHECK (longitude BETWEEN -180 AND 180), ADD contacts text;

      ALTER TABLE rack ADD width_in int NOT NULL DEFAULT 19 CHECK (width_in IN (19, 21, 23)), ADD depth_mm int,
        ADD posts int NOT NULL DEFAULT 4 CHECK (posts IN (2, 4)), ADD facing text,
        ADD feeds jsonb NOT NULL DEFAULT '[]';

      ALTER TABLE model DROP CONSTRAINT model_form_check, ALTER COLUMN units TYPE float8,
        ADD part_number text, ADD part text, ADD half_width boolean NOT NULL DEFAULT false,
        ADD typical_power_w float8 CHECK (typical_power_w >= 0), ADD capacity_w float8,
        ADD inlets_needed int NOT NULL DEFAULT 1, ADD airflow text, ADD poe_budget_w float8, ADD poe_class int,
        ADD price_minor float8, ADD currency text, ADD end_of_sale text, ADD end_of_support text,
        ADD licences jsonb NOT NULL DEFAULT '[]', ADD slots jsonb NOT NULL DEFAULT '[]', ADD module_family text,
        ADD optics jsonb, ADD strands int, ADD stock_prices_minor jsonb NOT NULL DEFAULT '[]', ADD picture text,
        ADD sharing text CHECK (sharing IN ('draft', 'offered', 'accepted')),
        ADD retired boolean NOT NULL DEFAULT false;
      ALTER TABLE model ADD CONSTRAINT model_form_check CHECK (form IN ('device', 'module', 'transceiver', 'cable'));
      ALTER TABLE model ADD CONSTRAINT model_mass CHECK (mass_kg >= 0), ADD CONSTRAINT model_power CHECK (max_power_w >= 0);
      CREATE INDEX model_shared ON model (sharing) WHERE sharing = 'accepted';

      -- Space is counted in half units, and in width as well as in depth.
      ALTER TABLE device DROP CONSTRAINT device_space, DROP COLUMN units_filled;
      ALTER TABLE device ALTER COLUMN unit TYPE float8, ALTER COLUMN units TYPE float8,
        ADD side text NOT NULL DEFAULT 'full' CHECK (side IN ('full', 'left', 'right')),
        ADD feed text, ADD extra jsonb NOT NULL DEFAULT '{}',
        ADD CONSTRAINT device_half_units CHECK (unit * 2 = floor(unit * 2) AND units * 2 = floor(units * 2));
      ALTER TABLE device
        ADD units_filled int4range GENERATED ALWAYS AS (CASE WHEN unit IS NULL THEN NULL ELSE int4range((unit * 2)::int, (unit * 2 + units * 2)::int) END) STORED,
        ADD sides_filled int4range GENERATED ALWAYS AS (CASE side WHEN 'full' THEN int4range(0, 2) WHEN 'left' THEN int4range(0, 1) ELSE int4range(1, 2) END) STORED;
      ALTER TABLE device ADD CONSTRAINT device_space
        EXCLUDE USING gist (rack_id WITH =, units_filled WITH &&, faces_filled WITH &&, sides_filled WITH &&) ${deferred};

      CREATE TABLE module (
        id uuid PRIMARY KEY, ${inProject}, device_id ${ref('device')} NOT NULL, slot text NOT NULL, ${lowered('slot')},
        model_id ${ref('model')} NOT NULL, serial text, notes text,
        CONSTRAINT module_slot UNIQUE (device_id, slot_key) ${deferred});
      CREATE INDEX module_in_project ON module (project_id);
      CREATE INDEX module_model ON module (model_id);
      ALTER TABLE port ADD module_id ${ref('module')};
      CREATE INDEX port_module ON port (module_id) WHERE module_id IS NOT NULL;

      CREATE TABLE kit (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')}, contents jsonb NOT NULL, notes text,
        CONSTRAINT kit_name UNIQUE (project_id, name_key) ${deferred});
    `);
  },
};
