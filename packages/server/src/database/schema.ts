import type { Knex } from 'knex';
import { ensureTables } from './tables.ts';

/** One step of the database's history. Never changed once released: a new step is added instead. */
interface Migration {
  name: string;
  up: (knex: Knex) => Promise<void>;
}

const deferred = 'DEFERRABLE INITIALLY DEFERRED';
const inProject = `project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE ${deferred}`;
const ref = (table: string): string => `uuid REFERENCES ${table} ${deferred}`;
const lowered = (column: string): string =>
  `${column}_key text GENERATED ALWAYS AS (lower(${column})) STORED`;

const first: Migration = {
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

/** Half units, half-width gear, modules, kits, power feeds, and the figures of the catalogue. */
const second: Migration = {
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

/** Transceivers, cassettes, breakouts, circuits, pathways, and what lengths and labels are worked out from. */
const third: Migration = {
  name: '003 cabling',
  up: async (knex) => {
    await knex.raw(`
      ALTER TABLE project ADD cabling jsonb NOT NULL DEFAULT '{"slackM":0.5,"trayRiseM":0.4,"sideM":0.3,"rackPitchM":0.6,"detour":1.4,"connectorLossDb":0.75,"spliceLossDb":0.3,"labelScheme":"{site}-{number}"}';
      ALTER TABLE place ADD tray_height_m float8 CHECK (tray_height_m >= 0), ADD east_m float8, ADD north_m float8,
        ADD level_m float8;
      ALTER TABLE model ADD legs_a int NOT NULL DEFAULT 1 CHECK (legs_a >= 1), ADD legs_b int NOT NULL DEFAULT 1 CHECK (legs_b >= 1),
        ADD crossed boolean NOT NULL DEFAULT false,
        ADD polarity text NOT NULL DEFAULT 'straight' CHECK (polarity IN ('straight', 'reversed', 'pairs'));

      ALTER TABLE port DROP CONSTRAINT port_pass_through, ADD pass_through_strand int CHECK (pass_through_strand >= 1),
        ADD transceiver_id ${ref('model')}, ADD transceiver_serial text, ADD reserved text;
      ALTER TABLE port ADD pass_strand_key int GENERATED ALWAYS AS (coalesce(pass_through_strand, 0)) STORED,
        ADD CONSTRAINT port_strand_of CHECK (pass_through_strand IS NULL OR pass_through_id IS NOT NULL);
      ALTER TABLE port ADD CONSTRAINT port_pass_through UNIQUE (pass_through_id, pass_strand_key) ${deferred};
      CREATE INDEX port_transceiver ON port (transceiver_id) WHERE transceiver_id IS NOT NULL;

      ALTER TABLE cable ADD splices int NOT NULL DEFAULT 0 CHECK (splices >= 0);
      CREATE TABLE leg (
        id uuid PRIMARY KEY, ${inProject}, cable_id ${ref('cable')} NOT NULL, side text NOT NULL CHECK (side IN ('a', 'b')),
        number int NOT NULL CHECK (number >= 2), port_id ${ref('port')} NOT NULL,
        CONSTRAINT leg_number UNIQUE (cable_id, side, number) ${deferred});
      CREATE INDEX leg_in_project ON leg (project_id);
      CREATE TABLE circuit (
        id uuid PRIMARY KEY, ${inProject}, number text NOT NULL, ${lowered('number')}, provider text,
        kind text NOT NULL CHECK (kind IN ('internet', 'private WAN', 'leased fibre', 'radio hop', 'VPN underlay')),
        bandwidth_bps float8 CHECK (bandwidth_bps >= 0), length_m float8 CHECK (length_m >= 0),
        status text NOT NULL CHECK (status IN ('planned', 'active', 'retired')),
        a_port_id ${ref('port')}, b_port_id ${ref('port')}, handover text, notes text,
        CONSTRAINT circuit_number UNIQUE (project_id, number_key) ${deferred},
        CONSTRAINT circuit_ends_differ CHECK (a_port_id <> b_port_id));
      CREATE TABLE pathway (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')},
        kind text NOT NULL CHECK (kind IN ('tray', 'conduit', 'riser', 'duct')),
        a_place_id ${ref('place')} NOT NULL, b_place_id ${ref('place')} NOT NULL,
        length_m float8 NOT NULL CHECK (length_m > 0), notes text,
        CONSTRAINT pathway_name UNIQUE (project_id, name_key) ${deferred},
        CONSTRAINT pathway_ends_differ CHECK (a_place_id <> b_place_id));
      CREATE INDEX pathway_a ON pathway (a_place_id);
      CREATE INDEX pathway_b ON pathway (b_place_id);

      -- One thing per port, be it the end of a cable, a leg of one, or the end of a circuit.
      ALTER TABLE cable_end DROP CONSTRAINT cable_end_pkey, ALTER COLUMN cable_id DROP NOT NULL,
        ADD leg_id uuid REFERENCES leg ON DELETE CASCADE, ADD circuit_id uuid REFERENCES circuit ON DELETE CASCADE,
        ADD CONSTRAINT end_of_one CHECK (num_nonnulls(cable_id, leg_id, circuit_id) = 1);
      CREATE INDEX cable_end_cable ON cable_end (cable_id);
      CREATE INDEX cable_end_leg ON cable_end (leg_id) WHERE leg_id IS NOT NULL;
      CREATE INDEX cable_end_circuit ON cable_end (circuit_id) WHERE circuit_id IS NOT NULL;
      CREATE OR REPLACE FUNCTION note_cable_ends() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          IF TG_OP = 'UPDATE' THEN DELETE FROM cable_end WHERE cable_id = NEW.id; END IF;
          INSERT INTO cable_end (cable_id, side, port_id) SELECT NEW.id, 'a', NEW.a_port_id WHERE NEW.a_port_id IS NOT NULL;
          INSERT INTO cable_end (cable_id, side, port_id) SELECT NEW.id, 'b', NEW.b_port_id WHERE NEW.b_port_id IS NOT NULL;
          RETURN NULL;
        END $$;
      CREATE OR REPLACE FUNCTION note_new_cable_ends() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          INSERT INTO cable_end (cable_id, side, port_id)
            SELECT id, 'a', a_port_id FROM fresh WHERE a_port_id IS NOT NULL
            UNION ALL SELECT id, 'b', b_port_id FROM fresh WHERE b_port_id IS NOT NULL;
          RETURN NULL;
        END $$;
      CREATE FUNCTION note_leg_end() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          DELETE FROM cable_end WHERE leg_id = NEW.id;
          INSERT INTO cable_end (leg_id, side, port_id) VALUES (NEW.id, NEW.side, NEW.port_id);
          RETURN NULL;
        END $$;
      CREATE FUNCTION note_circuit_ends() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          DELETE FROM cable_end WHERE circuit_id = NEW.id;
          INSERT INTO cable_end (circuit_id, side, port_id) SELECT NEW.id, 'a', NEW.a_port_id WHERE NEW.a_port_id IS NOT NULL;
          INSERT INTO cable_end (circuit_id, side, port_id) SELECT NEW.id, 'b', NEW.b_port_id WHERE NEW.b_port_id IS NOT NULL;
          RETURN NULL;
        END $$;
      CREATE TRIGGER leg_end AFTER INSERT OR UPDATE ON leg FOR EACH ROW EXECUTE FUNCTION note_leg_end();
      CREATE TRIGGER circuit_ends AFTER INSERT OR UPDATE ON circuit FOR EACH ROW EXECUTE FUNCTION note_circuit_ends();
    `);
  },
};

const fourth: Migration = {
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

const fifth: Migration = {
  name: '005 VLANs, addresses, routing',
  up: async (knex) => {
    const vid = (column: string): string => `${column} int CHECK (${column} BETWEEN 1 AND 4094)`;
    const colour = 'colour int NOT NULL CHECK (colour BETWEEN 0 AND 11)';
    await knex.raw(`
      CREATE TABLE vlan_group (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')}, notes text,
        CONSTRAINT vlan_group_name UNIQUE (project_id, name_key) ${deferred});
      CREATE TABLE vrf (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')}, route_distinguisher text, ${colour},
        notes text,
        CONSTRAINT vrf_name UNIQUE (project_id, name_key) ${deferred},
        CONSTRAINT vrf_distinguisher UNIQUE (project_id, route_distinguisher) ${deferred});
      CREATE TABLE vlan (
        id uuid PRIMARY KEY, ${inProject}, group_id ${ref('vlan_group')} NOT NULL, ${vid('vid')} NOT NULL,
        name text NOT NULL, ${lowered('name')}, purpose text, ${colour}, vrf_id ${ref('vrf')},
        unused boolean NOT NULL, notes text,
        CONSTRAINT vlan_number UNIQUE (group_id, vid) ${deferred},
        CONSTRAINT vlan_name UNIQUE (group_id, name_key) ${deferred});
      CREATE TABLE port_profile (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')},
        mode text NOT NULL CHECK (mode IN ('access', 'trunk', 'routed')), ${vid('untagged_vid')}, tagged_vids jsonb,
        ${vid('voice_vid')}, notes text,
        CONSTRAINT port_profile_name UNIQUE (project_id, name_key) ${deferred});

      ALTER TABLE place ADD vlan_group_id ${ref('vlan_group')};
      ALTER TABLE device ADD stack text, ADD bridge_priority int CHECK (bridge_priority BETWEEN 0 AND 61440 AND bridge_priority % 4096 = 0),
        ADD router_id text CHECK (router_id IS NULL OR router_id::inet IS NOT NULL), ADD as_number bigint CHECK (as_number BETWEEN 1 AND 4294967294);
      ALTER TABLE port ADD form text NOT NULL DEFAULT 'physical'
          CHECK (form IN ('physical', 'aggregate', 'vlan', 'subinterface', 'loopback', 'tunnel')),
        ADD mode text CHECK (mode IN ('access', 'trunk', 'routed')),
        ADD ${vid('untagged_vid')}, ADD tagged_vids jsonb, ADD ${vid('voice_vid')},
        ADD vlan_group_id ${ref('vlan_group')}, ADD aggregate_id ${ref('port')}, ADD lacp text CHECK (lacp IN ('active', 'passive', 'on')),
        ADD parent_id ${ref('port')} CHECK (parent_id <> id), ADD ${vid('vid')}, ADD ${vid('inner_vid')}, ADD vrf_id ${ref('vrf')},
        ADD far_address text, ADD ospf jsonb,
        ADD CONSTRAINT port_tagged CHECK (tagged_vids IS NULL OR mode = 'trunk'),
        ADD CONSTRAINT port_not_both CHECK (untagged_vid IS NULL OR tagged_vids IS NULL OR NOT tagged_vids @> to_jsonb(untagged_vid)),
        ADD CONSTRAINT port_vid CHECK ((vid IS NOT NULL) = (form IN ('vlan', 'subinterface')));
      CREATE INDEX port_aggregate ON port (aggregate_id) WHERE aggregate_id IS NOT NULL;
      CREATE INDEX port_parent ON port (parent_id) WHERE parent_id IS NOT NULL;

      CREATE TABLE prefix (
        id uuid PRIMARY KEY, ${inProject}, prefix text NOT NULL, network cidr GENERATED ALWAYS AS (prefix::cidr) STORED,
        vrf_id ${ref('vrf')}, role text NOT NULL CHECK (role IN ('pool', 'subnet', 'transit', 'loopback')), name text,
        status text NOT NULL CHECK (status IN ('planned', 'active', 'retired')), vlan_id ${ref('vlan')},
        place_id ${ref('place')}, gateway text CHECK (gateway::inet << prefix::cidr OR gateway::inet = host(prefix::cidr)::inet),
        ranges jsonb NOT NULL, notes text,
        CONSTRAINT prefix_in_vrf UNIQUE NULLS NOT DISTINCT (project_id, vrf_id, network) ${deferred},
        CONSTRAINT prefix_pool CHECK (role <> 'pool' OR (vlan_id IS NULL AND gateway IS NULL)));
      CREATE INDEX prefix_network ON prefix USING gist (network inet_ops);
      CREATE INDEX prefix_vlan ON prefix (vlan_id) WHERE vlan_id IS NOT NULL;
      CREATE INDEX prefix_place ON prefix (place_id) WHERE place_id IS NOT NULL;
      CREATE TABLE address (
        id uuid PRIMARY KEY, ${inProject}, address text NOT NULL, host inet GENERATED ALWAYS AS (address::inet) STORED,
        vrf_id ${ref('vrf')}, port_id ${ref('port')}, use text NOT NULL CHECK (use IN ('interface', 'secondary', 'reserved')),
        dns_name text, notes text,
        CONSTRAINT address_use CHECK ((use = 'reserved') = (port_id IS NULL)));
      CREATE INDEX address_in_project ON address (project_id);
      CREATE INDEX address_host ON address USING gist (host inet_ops);
      CREATE INDEX address_port ON address (port_id) WHERE port_id IS NOT NULL;
      CREATE TABLE route (
        id uuid PRIMARY KEY, ${inProject}, device_id ${ref('device')} NOT NULL, vrf_id ${ref('vrf')},
        prefix text NOT NULL CHECK (prefix::cidr IS NOT NULL), via text CHECK (via IS NULL OR via::inet IS NOT NULL), via_port_id ${ref('port')},
        discard boolean NOT NULL, distance int NOT NULL CHECK (distance BETWEEN 1 AND 255), notes text,
        CONSTRAINT route_leads CHECK (discard <> (num_nonnulls(via, via_port_id) > 0)));
      CREATE INDEX route_in_project ON route (project_id);
      CREATE INDEX route_device ON route (device_id);
      CREATE TABLE bgp_session (
        id uuid PRIMARY KEY, ${inProject}, device_id ${ref('device')} NOT NULL, vrf_id ${ref('vrf')},
        neighbour text NOT NULL CHECK (neighbour::inet IS NOT NULL),
        remote_as bigint NOT NULL CHECK (remote_as BETWEEN 1 AND 4294967294), families jsonb NOT NULL, notes text,
        CONSTRAINT bgp_session_neighbour UNIQUE NULLS NOT DISTINCT (device_id, vrf_id, neighbour) ${deferred});
      CREATE INDEX bgp_session_in_project ON bgp_session (project_id);
      CREATE TABLE redundancy (
        id uuid PRIMARY KEY, ${inProject}, port_id ${ref('port')} NOT NULL, "group" int NOT NULL CHECK ("group" BETWEEN 1 AND 255),
        virtual text NOT NULL CHECK (virtual::inet IS NOT NULL), priority int NOT NULL CHECK (priority BETWEEN 1 AND 255),
        CONSTRAINT redundancy_group UNIQUE (port_id, "group", virtual) ${deferred});
      CREATE INDEX redundancy_in_project ON redundancy (project_id);
      CREATE TABLE site_template (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')}, parts jsonb NOT NULL, notes text,
        CONSTRAINT site_template_name UNIQUE (project_id, name_key) ${deferred});
    `);
  },
};

const sixth: Migration = {
  name: '006-installed',
  up: async (knex: Knex) => {
    await knex.raw(
      `ALTER TABLE device ADD installed_on text CHECK (installed_on::date IS NOT NULL OR installed_on IS NULL)`,
    );
  },
};

const seventh: Migration = {
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

const eighth: Migration = {
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

const ninth: Migration = {
  name: '009-lines-of-history',
  up: async (knex: Knex) => {
    await knex.raw(`
      CREATE TABLE line (
        id uuid PRIMARY KEY, project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE, name text NOT NULL, purpose text,
        revision int NOT NULL, made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(),
        thrown_away_at timestamptz, thrown_away_by text, UNIQUE (project_id, id));
      -- The name of a plan that was thrown away is free again.
      CREATE UNIQUE INDEX line_name ON line (project_id, lower(name)) WHERE thrown_away_at IS NULL;
      -- What was written before there were plans is of the line as built: that is what no line means.
      ALTER TABLE change_set DROP COLUMN state, ADD line_id uuid, ADD base int,
        ADD CONSTRAINT change_set_line FOREIGN KEY (project_id, line_id) REFERENCES line (project_id, id) ON DELETE CASCADE,
        ADD CONSTRAINT change_set_base CHECK ((line_id IS NULL) = (base IS NULL)),
        DROP CONSTRAINT change_set_project_id_revision_key,
        ADD CONSTRAINT change_set_revision UNIQUE NULLS NOT DISTINCT (project_id, line_id, revision);
      DROP INDEX change_set_author;
      CREATE INDEX change_set_author ON change_set (project_id, line_id, author_id, revision);
      CREATE TABLE reservation (
        project_id uuid NOT NULL, line_id uuid NOT NULL, kind text NOT NULL, what text NOT NULL, key text NOT NULL,
        PRIMARY KEY (project_id, kind, what, key),
        FOREIGN KEY (project_id, line_id) REFERENCES line (project_id, id) ON DELETE CASCADE);
      CREATE INDEX reservation_line ON reservation (line_id);
    `);
  },
};

const steps: readonly Migration[] = [first, second, third, fourth, fifth, sixth, seventh, eighth, ninth];
/** How many steps the database's history has. */
export const stepCount = steps.length;

/**
 * Brings the database to the newest schema; several servers may start at once.
 *
 * @param upTo so many steps and no more, for tests of what older versions left
 */
export async function migrate(knex: Knex, upTo = stepCount): Promise<void> {
  await knex.migrate.latest({
    migrationSource: {
      getMigrations: async () => steps.slice(0, upTo),
      getMigrationName: (step: Migration) => step.name,
      getMigration: async (step: Migration) => ({ up: step.up, down: async () => undefined }),
    },
  });
  if (upTo === stepCount) await ensureTables(knex);
}
