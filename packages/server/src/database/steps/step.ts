import type { Knex } from 'knex';

/** One step of the database's history. Never changed once released: a new step is added instead. */
export interface Migration {
  name: string;
  up: (knex: Knex) => Promise<void>;
}

export const deferred = 'DEFERRABLE INITIALLY DEFERRED';
export const inProject = `project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE ${deferred}`;
export const ref = (table: string): string => `uuid REFERENCES ${table} ${deferred}`;
export const lowered = (column: string): string =>
  `${column}_key text GENERATED ALWAYS AS (lower(${column})) STORED`;
