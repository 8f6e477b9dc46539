import type { Knex } from 'knex';
import type { Migration } from './step.ts';

interface Reference {
  table: string;
  name: string;
  column: string;
  target: string;
  cascades: boolean;
}
interface Rule {
  table: string;
  name: string;
  definition: string;
}
interface Key {
  table: string;
  column: string;
  of: string;
}
type Found<T> = { rows: T[] };

/** The tables whose rows belong to a project and are named by an id of their own. */
const ofProject = `SELECT c.conrelid FROM pg_constraint c
  JOIN pg_attribute p ON p.attrelid = c.conrelid AND p.attname = 'project_id'
  WHERE c.connamespace = 'public'::regnamespace AND c.contype = 'p' AND pg_get_constraintdef(c.oid) = 'PRIMARY KEY (id)'
  AND c.conrelid::regclass::text NOT IN ('job', 'line')`;

/** Each plugged end has the project of its cable, leg or circuit. */
const cableEnds = `
  ALTER TABLE cable_end ADD project_id uuid;
  UPDATE cable_end e SET project_id = COALESCE(
    (SELECT project_id FROM cable WHERE id = e.cable_id), (SELECT project_id FROM leg WHERE id = e.leg_id),
    (SELECT project_id FROM circuit WHERE id = e.circuit_id));
  ALTER TABLE cable_end ALTER project_id SET NOT NULL;
  CREATE OR REPLACE FUNCTION note_cable_ends() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      IF TG_OP = 'UPDATE' THEN DELETE FROM cable_end WHERE project_id = NEW.project_id AND cable_id = NEW.id; END IF;
      INSERT INTO cable_end (project_id, cable_id, side, port_id)
        SELECT NEW.project_id, NEW.id, 'a', NEW.a_port_id WHERE NEW.a_port_id IS NOT NULL
        UNION ALL SELECT NEW.project_id, NEW.id, 'b', NEW.b_port_id WHERE NEW.b_port_id IS NOT NULL;
      RETURN NULL;
    END $$;
  CREATE OR REPLACE FUNCTION note_new_cable_ends() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      INSERT INTO cable_end (project_id, cable_id, side, port_id)
        SELECT project_id, id, 'a', a_port_id FROM fresh WHERE a_port_id IS NOT NULL
        UNION ALL SELECT project_id, id, 'b', b_port_id FROM fresh WHERE b_port_id IS NOT NULL;
      RETURN NULL;
    END $$;
  CREATE OR REPLACE FUNCTION note_leg_end() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      DELETE FROM cable_end WHERE project_id = NEW.project_id AND leg_id = NEW.id;
      INSERT INTO cable_end (project_id, leg_id, side, port_id) VALUES (NEW.project_id, NEW.id, NEW.side, NEW.port_id);
      RETURN NULL;
    END $$;
  CREATE OR REPLACE FUNCTION note_circuit_ends() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      DELETE FROM cable_end WHERE project_id = NEW.project_id AND circuit_id = NEW.id;
      INSERT INTO cable_end (project_id, circuit_id, side, port_id)
        SELECT NEW.project_id, NEW.id, 'a', NEW.a_port_id WHERE NEW.a_port_id IS NOT NULL
        UNION ALL SELECT NEW.project_id, NEW.id, 'b', NEW.b_port_id WHERE NEW.b_port_id IS NOT NULL;
      RETURN NULL;
    END $$;
  CREATE OR REPLACE FUNCTION address_is_one() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
    IF EXISTS (SELECT 1 FROM address WHERE project_id = NEW.project_id AND id <> NEW.id AND host = NEW.host
      AND port_id IS NOT DISTINCT FROM NEW.port_id AND (NEW.port_id IS NOT NULL OR vrf_id IS NOT DISTINCT FROM NEW.vrf_id))
      AND EXISTS (SELECT 1 FROM address WHERE project_id = NEW.project_id AND id = NEW.id)
    THEN RAISE unique_violation USING CONSTRAINT = 'address_is_one', MESSAGE = 'an address is given twice'; END IF;
    RETURN NULL; END $$;
  ALTER TABLE device DROP CONSTRAINT device_space;
  ALTER TABLE device ADD CONSTRAINT device_space EXCLUDE USING gist
    (project_id WITH =, rack_id WITH =, units_filled WITH &&, faces_filled WITH &&, sides_filled WITH &&)
    DEFERRABLE INITIALLY DEFERRED;`;

/** The id of a row stays: what else refers to it, here and in the journal, does so by it. */
export const idStays = (table: string): string => `
  CREATE TRIGGER id_stays BEFORE UPDATE OF id ON ${table} FOR EACH ROW WHEN (OLD.id IS DISTINCT FROM NEW.id)
    EXECUTE FUNCTION public.id_stays();`;

const withProject = (definition: string): string => definition.replace(/\(/, '(project_id, ');

/**
 * Rows are named by their project and their id, so that what one project holds is nothing to another: neither whether an
 * id is taken, nor a reference that leads out of it. An id stays as it is. Names are told apart without regard to case
 * by one rule, that of Unicode, here as in the application.
 */
export const fourteenth: Migration = {
  name: '014-rows-of-their-project',
  up: async (knex: Knex) => {
    const all = async <T>(sql: string): Promise<T[]> => (await knex.raw<Found<T>>(sql)).rows;
    const tables = await all<{ table: string; key: string }>(`
      SELECT conrelid::regclass::text AS "table", quote_ident(conname) AS key FROM pg_constraint
      WHERE contype = 'p' AND conrelid IN (${ofProject}) ORDER BY 1`);
    const references = await all<Reference>(`
      SELECT c.conrelid::regclass::text AS "table", quote_ident(c.conname) AS name, quote_ident(a.attname) AS "column",
        c.confrelid::regclass::text AS target, c.confdeltype = 'c' AS cascades
      FROM pg_constraint c JOIN pg_attribute a ON a.attrelid = c.conrelid AND a.attnum = c.conkey[1]
      WHERE c.contype = 'f' AND cardinality(c.conkey) = 1 AND c.confrelid IN (${ofProject}) ORDER BY 1, 2`);
    const rules = await all<Rule>(`
      SELECT conrelid::regclass::text AS "table", quote_ident(conname) AS name, pg_get_constraintdef(oid) AS definition
      FROM pg_constraint WHERE contype = 'u' AND (conrelid IN (${ofProject}) OR conrelid = 'cable_end'::regclass)
      AND conrelid <> 'change_set'::regclass ORDER BY 1, 2`);
    const keys = await all<Key>(`
      SELECT quote_ident(table_name) AS "table", quote_ident(column_name) AS "column",
        substring(generation_expression FROM '^lower\\((.*)\\)$') AS of
      FROM information_schema.columns
      WHERE table_schema = 'public' AND is_generated = 'ALWAYS' AND generation_expression LIKE 'lower(%' ORDER BY 1, 2`);
    const alone = await all<{ index: string }>(`
      SELECT quote_ident(indexname) AS index FROM pg_indexes WHERE schemaname = 'public' AND indexdef LIKE '% (project_id)'`);
    const run = async (statements: string[]): Promise<void> => {
      if (statements.length > 0) await knex.raw(statements.join('\n'));
    };
    await run([
      // What an earlier step of the same upgrade left to be judged is judged before the tables change.
      'SET CONSTRAINTS ALL IMMEDIATE;',
      ...references.map(({ table, name }) => `ALTER TABLE ${table} DROP CONSTRAINT ${name};`),
      ...rules.map(({ table, name }) => `ALTER TABLE ${table} DROP CONSTRAINT ${name};`),
      // Whatever the database is set to: the full mapping of Unicode, which is that of the application's language.
      ...keys.map(
        ({ table, column, of }) =>
          `ALTER TABLE ${table} DROP ${column}; ALTER TABLE ${table} ADD ${column} text GENERATED ALWAYS AS (lower((${of}) COLLATE "und-x-icu")) STORED;`,
      ),
      cableEnds,
      ...tables.map(
        ({ table, key }) =>
          `ALTER TABLE ${table} DROP CONSTRAINT ${key}; ALTER TABLE ${table} ADD PRIMARY KEY (project_id, id);`,
      ),
      ...rules.map(
        ({ table, name, definition }) =>
          `ALTER TABLE ${table} ADD CONSTRAINT ${name} ${definition.includes('project_id') ? definition : withProject(definition)};`,
      ),
      ...references.map(
        ({ table, name, column, target, cascades }) =>
          `ALTER TABLE ${table} ADD CONSTRAINT ${name} FOREIGN KEY (project_id, ${column}) REFERENCES ${target} (project_id, id) ${cascades ? 'ON DELETE CASCADE' : 'DEFERRABLE INITIALLY DEFERRED'};`,
      ),
      // The new keys begin with the project.
      ...alone.map(({ index }) => `DROP INDEX IF EXISTS ${index};`),
      'CREATE INDEX job_project ON job (project_id);',
      `CREATE FUNCTION id_stays() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
        RAISE integrity_constraint_violation USING CONSTRAINT = 'id_stays', MESSAGE = 'the id of a row stays';
      END $$;`,
      ...tables.map(({ table }) => idStays(table)),
    ]);
  },
};
