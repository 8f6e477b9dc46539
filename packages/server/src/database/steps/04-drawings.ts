import { deferred, inProject, ref, type Migration } from './step.ts';

export const fourth: Migration = {
  name: '004 drawings',
  up: async (knex) => {
    await knex.raw(`
      ALTER TABLE project ADD symbols jsonb NOT NULL DEFAULT '{}';
      ALTER TABLE model ADD symbol text;
      ALTER TABLE sheet ADD picked boolean NOT NULL DEFAULT false, ADD faded jsonb NOT NULL DEFAULT '[]',
        ADD locked jsonb NOT NULL DEFAULT '[]', ADD templates jsonb NOT NULL DEFAULT '{}',
        ADD colour_by text NOT NULL DEFAULT 'role', ADD views jsonb NOT NULL DEFAULT '[]',
        ADD groups jsonb NOT NULL DEFAULT '[]',
        ADD reading jsonb NOT NULL DEFAULT '{"throughPanels":false,"racks":false,"pairs":false,"unfolded":[],"newcomers":"place","straight":false}',
        ADD page jsonb NOT NULL DEFAULT '{"size":"A3","landscape":true,"marginMm":10,"fit":true,"scale":0.5}';
      -- What was always shown is a choice from now on.
      UPDATE sheet SET show = show || '["containers","devices","links","names","notes","titleBlock"]';

      ALTER TABLE sheet_item DROP CONSTRAINT sheet_item_device, ALTER COLUMN device_id DROP NOT NULL,
        ALTER COLUMN x DROP NOT NULL, ALTER COLUMN y DROP NOT NULL,
        ADD place_id ${ref('place')}, ADD circuit_id ${ref('circuit')}, ADD width float8 CHECK (width > 0), ADD height float8 CHECK (height > 0),
        ADD locked boolean NOT NULL DEFAULT false, ADD away boolean NOT NULL DEFAULT false,
        ADD collapsed boolean NOT NULL DEFAULT false,
        ADD CONSTRAINT sheet_item_of_one CHECK (num_nonnulls(device_id, place_id, circuit_id) = 1),
        ADD CONSTRAINT sheet_item_spot CHECK ((x IS NULL) = (y IS NULL)),
        ADD CONSTRAINT sheet_item_device UNIQUE (sheet_id, device_id) ${deferred},
        ADD CONSTRAINT sheet_item_place UNIQUE (sheet_id, place_id) ${deferred},
        ADD CONSTRAINT sheet_item_circuit UNIQUE (sheet_id, circuit_id) ${deferred};
      CREATE INDEX sheet_item_place_id ON sheet_item (place_id) WHERE place_id IS NOT NULL;

      CREATE TABLE sheet_link (
        id uuid PRIMARY KEY, ${inProject}, sheet_id ${ref('sheet')} NOT NULL, cable_id ${ref('cable')},
        circuit_id ${ref('circuit')}, a_label jsonb, b_label jsonb, middle_label jsonb,
        bends jsonb NOT NULL DEFAULT '[]', show jsonb, straight boolean NOT NULL DEFAULT false,
        CONSTRAINT sheet_link_of_one CHECK (num_nonnulls(cable_id, circuit_id) = 1),
        CONSTRAINT sheet_link_cable UNIQUE (sheet_id, cable_id) ${deferred},
        CONSTRAINT sheet_link_circuit UNIQUE (sheet_id, circuit_id) ${deferred});
      CREATE INDEX sheet_link_in_project ON sheet_link (project_id);
      CREATE INDEX sheet_link_cable_id ON sheet_link (cable_id);
      CREATE INDEX sheet_link_circuit_id ON sheet_link (circuit_id) WHERE circuit_id IS NOT NULL;

      CREATE TABLE mark (
        id uuid PRIMARY KEY, ${inProject}, sheet_id ${ref('sheet')} NOT NULL,
        form text NOT NULL CHECK (form IN ('note', 'callout', 'line', 'arrow', 'rectangle', 'ellipse', 'polygon', 'enclosure', 'picture', 'dimension')),
        x float8 NOT NULL, y float8 NOT NULL, width float8 NOT NULL CHECK (width >= 0), height float8 NOT NULL CHECK (height >= 0),
        points jsonb NOT NULL DEFAULT '[]', text text NOT NULL DEFAULT '', tone text NOT NULL DEFAULT 'plain',
        filled boolean NOT NULL DEFAULT false, opacity float8 NOT NULL DEFAULT 1 CHECK (opacity > 0 AND opacity <= 1),
        level int NOT NULL DEFAULT 1, locked boolean NOT NULL DEFAULT false,
        device_id ${ref('device')}, a_rack_id ${ref('rack')}, b_rack_id ${ref('rack')}, link_sheet_id ${ref('sheet')}, picture text,
        CONSTRAINT mark_picture CHECK (form <> 'picture' OR picture IS NOT NULL),
        CONSTRAINT mark_dimension CHECK (form <> 'dimension' OR (a_rack_id IS NOT NULL AND b_rack_id IS NOT NULL)));
      CREATE INDEX mark_in_project ON mark (project_id);
      CREATE INDEX mark_sheet ON mark (sheet_id);
    `);
  },
};
