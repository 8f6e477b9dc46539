import { deferred, inProject, ref, lowered, type Migration } from './step.ts';

export const first: Migration = {
  name: '001 accounts, model, journal',
  up: async (knex) => {
    await knex.raw(`
      CREATE EXTENSION IF NOT EXISTS btree_gist;

      CREATE TABLE setting (key text PRIMARY KEY, value text NOT NULL);
      CREATE TABLE account (
        id uuid PRIMARY KEY, email text NOT NULL UNIQUE CHECK (email = lower(email)), name text NOT NULL,
        password_hash text NOT NULL, created_at timestamptz NOT NULL DEFAULT now());
      CREATE TABLE session (sid text PRIMARY KEY, sess json NOT NULL, expire timestamp(6) NOT NULL);
      CREATE INDEX session_expire ON session (expire);

      CREATE TABLE project (
        id uuid PRIMARY KEY, name text NOT NULL, label_digits int NOT NULL, revision int NOT NULL DEFAULT 0,
        created_at timestamptz NOT NULL DEFAULT now());
      CREATE TABLE membership (
        project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
        account_id uuid NOT NULL REFERENCES account ON DELETE CASCADE,
        role text NOT NULL CHECK (role IN ('owner', 'editor', 'reader')), PRIMARY KEY (project_id, account_id));

      CREATE TABLE change_set (
        id uuid PRIMARY KEY, project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE, revision int NOT NULL,
        author_id uuid REFERENCES account ON DELETE SET NULL, author text NOT NULL,
        at timestamptz NOT NULL DEFAULT now(), state text NOT NULL, sentence text NOT NULL,
        changes jsonb NOT NULL, undoes int, redoes int, UNIQUE (project_id, revision));
      ALTER TABLE change_set ALTER COLUMN changes SET COMPRESSION lz4;
      CREATE INDEX change_set_author ON change_set (project_id, author_id, revision);

      CREATE TABLE place (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')},
        kind text NOT NULL CHECK (kind IN ('site', 'building', 'floor', 'room', 'row')),
        parent_id ${ref('place')} CHECK (parent_id <> id), code text, ${lowered('code')}, notes text,
        CONSTRAINT place_name UNIQUE NULLS NOT DISTINCT (project_id, parent_id, name_key) ${deferred},
        CONSTRAINT place_code UNIQUE (project_id, code_key) ${deferred});
      CREATE TABLE rack (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')}, place_id ${ref('place')} NOT NULL,
        units int NOT NULL CHECK (units BETWEEN 1 AND 60), numbering text NOT NULL CHECK (numbering IN ('up', 'down')),
        position int NOT NULL, mass_limit_kg float8, notes text,
        CONSTRAINT rack_name UNIQUE (project_id, name_key) ${deferred});
      CREATE TABLE model (
        id uuid PRIMARY KEY, ${inProject}, form text NOT NULL CHECK (form IN ('device', 'cable')), maker text,
        name text NOT NULL, title_key text GENERATED ALWAYS AS (lower(coalesce(maker || ' ', '') || name)) STORED,
        role text, units int NOT NULL, full_depth boolean NOT NULL, mass_kg float8, max_power_w float8,
        port_groups jsonb NOT NULL, medium text, ends jsonb, jacket text, stock_lengths_m jsonb NOT NULL, notes text,
        CONSTRAINT model_title UNIQUE (project_id, title_key) ${deferred});
      CREATE TABLE device (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL CHECK (position(':' in name) = 0), ${lowered('name')},
        role text NOT NULL, status text NOT NULL CHECK (status IN ('planned', 'active', 'retired')),
        model_id ${ref('model')}, place_id ${ref('place')}, rack_id ${ref('rack')}, unit int, units int NOT NULL,
        face text NOT NULL CHECK (face IN ('front', 'rear')), full_depth boolean NOT NULL, serial text, notes text,
        units_filled int4range GENERATED ALWAYS AS (CASE WHEN unit IS NULL THEN NULL ELSE int4range(unit, unit + units) END) STORED,
        faces_filled int4range GENERATED ALWAYS AS (CASE WHEN full_depth THEN int4range(0, 2) WHEN face = 'front' THEN int4range(0, 1) ELSE int4range(1, 2) END) STORED,
        CONSTRAINT device_name UNIQUE (project_id, name_key) ${deferred},
        CONSTRAINT device_unit_needs_rack CHECK (unit IS NULL OR rack_id IS NOT NULL),
        CONSTRAINT device_space EXCLUDE USING gist (rack_id WITH =, units_filled WITH &&, faces_filled WITH &&) ${deferred});
      CREATE TABLE port (
        id uuid PRIMARY KEY, ${inProject}, device_id ${ref('device')} NOT NULL, name text NOT NULL, ${lowered('name')},
        connector text, speed_bps float8, role text NOT NULL, face text NOT NULL CHECK (face IN ('front', 'rear')),
        ordinal int NOT NULL, pass_through_id ${ref('port')}, notes text,
        CONSTRAINT port_name UNIQUE (device_id, name_key) ${deferred},
        CONSTRAINT port_pass_through UNIQUE (pass_through_id) ${deferred});
      CREATE TABLE cable (
        id uuid PRIMARY KEY, ${inProject}, label text NOT NULL, ${lowered('label')}, type_id ${ref('model')},
        length_m float8 CHECK (length_m >= 0), status text NOT NULL CHECK (status IN ('planned', 'active', 'retired')),
        a_port_id ${ref('port')}, b_port_id ${ref('port')}, notes text,
        CONSTRAINT cable_label UNIQUE (project_id, label_key) ${deferred},
        CONSTRAINT cable_ends_differ CHECK (a_port_id <> b_port_id));
      CREATE TABLE sheet (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')}, projection text NOT NULL,
        scope_id ${ref('place')}, show jsonb NOT NULL,
        CONSTRAINT sheet_name UNIQUE (project_id, name_key) ${deferred});
      CREATE TABLE sheet_item (
        id uuid PRIMARY KEY, ${inProject}, sheet_id ${ref('sheet')} NOT NULL, device_id ${ref('device')} NOT NULL,
        x float8 NOT NULL, y float8 NOT NULL,
        CONSTRAINT sheet_item_device UNIQUE (sheet_id, device_id) ${deferred});

      CREATE INDEX place_in_project ON place (project_id);
      CREATE INDEX place_parent ON place (parent_id);
      CREATE INDEX rack_place ON rack (place_id);
      CREATE INDEX device_place ON device (place_id);
      CREATE INDEX device_model ON device (model_id);
      CREATE INDEX port_in_project ON port (project_id);
      CREATE INDEX cable_type ON cable (type_id);
      CREATE INDEX sheet_scope ON sheet (scope_id);
      CREATE INDEX sheet_item_in_project ON sheet_item (project_id);
      CREATE INDEX sheet_item_device_id ON sheet_item (device_id);

      -- One cable per port, whichever end it is: both ends of all cables in one column.
      CREATE TABLE cable_end (
        cable_id uuid NOT NULL REFERENCES cable ON DELETE CASCADE, side char(1) NOT NULL, port_id uuid NOT NULL,
        PRIMARY KEY (cable_id, side), CONSTRAINT one_cable_per_port UNIQUE (port_id) ${deferred});
      CREATE FUNCTION note_cable_ends() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          IF TG_OP = 'UPDATE' THEN DELETE FROM cable_end WHERE cable_id = NEW.id; END IF;
          INSERT INTO cable_end SELECT NEW.id, 'a', NEW.a_port_id WHERE NEW.a_port_id IS NOT NULL;
          INSERT INTO cable_end SELECT NEW.id, 'b', NEW.b_port_id WHERE NEW.b_port_id IS NOT NULL;
          RETURN NULL;
        END $$;
      CREATE FUNCTION note_new_cable_ends() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          INSERT INTO cable_end
            SELECT id, 'a', a_port_id FROM fresh WHERE a_port_id IS NOT NULL
            UNION ALL SELECT id, 'b', b_port_id FROM fresh WHERE b_port_id IS NOT NULL;
          RETURN NULL;
        END $$;
      CREATE TRIGGER cable_ends_of_new AFTER INSERT ON cable REFERENCING NEW TABLE AS fresh
        FOR EACH STATEMENT EXECUTE FUNCTION note_new_cable_ends();
      CREATE TRIGGER cable_ends_moved AFTER UPDATE OF a_port_id, b_port_id ON cable
        FOR EACH ROW EXECUTE FUNCTION note_cable_ends();
    `);
  },
};
