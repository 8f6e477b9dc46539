import { deferred, inProject, ref, lowered, type Migration } from './step.ts';

/** Transceivers, cassettes, breakouts, circuits, pathways, and what lengths and labels are worked out from. */
export const third: Migration = {
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
