import type { Knex } from 'knex';
import type { Migration } from './step.ts';

/** Work outside the web process: what was asked, how far it has come, and what came of it, for an hour. Failed sign-ins. */
export const thirteenth: Migration = {
  name: '013-jobs',
  up: async (knex: Knex) => {
    await knex.raw(`
      CREATE TABLE job (
        id uuid PRIMARY KEY,
        account_id uuid NOT NULL REFERENCES account ON DELETE CASCADE,
        project_id uuid REFERENCES project ON DELETE CASCADE,
        call text NOT NULL,
        lane text NOT NULL CHECK (lane IN ('short', 'long')),
        asked json NOT NULL,
        input bytea,
        state text NOT NULL CHECK (state IN ('held', 'queued', 'running', 'writing', 'done', 'failed', 'cancelled')),
        server text,
        tries int NOT NULL DEFAULT 0,
        done int NOT NULL DEFAULT 0,
        "of" int NOT NULL DEFAULT 0,
        refusal json,
        result bytea,
        result_type text,
        result_name text,
        made_at timestamptz NOT NULL DEFAULT now(),
        ended_at timestamptz);
      CREATE UNIQUE INDEX one_job_a_person ON job (account_id, lane) WHERE state IN ('queued', 'running', 'writing');
      CREATE INDEX job_account ON job (account_id, made_at);
      CREATE INDEX job_unfinished ON job (lane, made_at) WHERE state IN ('held', 'queued', 'running', 'writing');
      CREATE INDEX job_project ON job (project_id);
      CREATE UNLOGGED TABLE sign_in_try (key varchar(255) PRIMARY KEY, points int NOT NULL DEFAULT 0, expire bigint);
    `);
  },
};
