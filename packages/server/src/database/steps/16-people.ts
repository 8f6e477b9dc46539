import type { Knex } from 'knex';
import type { Migration } from './step.ts';

/** Invitations and new passwords by one-time links; projects that are archived, or deleted for a while. */
export const sixteenth: Migration = {
  name: '016-people',
  up: async (knex: Knex) => {
    await knex.raw(`
      CREATE TABLE invitation (
        id uuid PRIMARY KEY,
        project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
        email text NOT NULL CHECK (email = lower(email)),
        role text NOT NULL CHECK (role IN ('owner', 'editor', 'reader')),
        key_hash text NOT NULL UNIQUE,
        made_by uuid NOT NULL REFERENCES account ON DELETE CASCADE,
        until timestamptz NOT NULL,
        UNIQUE (project_id, email));
      CREATE INDEX invitation_maker ON invitation (made_by);
      CREATE TABLE password_reset (
        account_id uuid PRIMARY KEY REFERENCES account ON DELETE CASCADE,
        key_hash text NOT NULL UNIQUE,
        until timestamptz NOT NULL);
      ALTER TABLE project ADD archived_at timestamptz, ADD deleted_at timestamptz;
      CREATE INDEX project_deleted ON project (deleted_at) WHERE deleted_at IS NOT NULL;
      CREATE INDEX session_account ON session ((sess ->> 'accountId'));
    `);
  },
};
