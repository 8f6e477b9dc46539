import type { Knex } from 'knex';
import type { Migration } from './step.ts';

/** A project always has an owner, whoever takes the role from whom at the same moment. */
export const fifteenth: Migration = {
  name: '015-owners',
  up: async (knex: Knex) => {
    await knex.raw(`
      CREATE FUNCTION project_has_owner() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
        -- Whoever changes the members of a project waits for others who do, then sees what they did.
        PERFORM 1 FROM project WHERE id = OLD.project_id FOR NO KEY UPDATE;
        IF FOUND AND NOT EXISTS (SELECT 1 FROM membership WHERE project_id = OLD.project_id AND role = 'owner')
        THEN RAISE integrity_constraint_violation USING CONSTRAINT = 'project_has_owner', MESSAGE = 'a project needs an owner'; END IF;
        RETURN NULL; END $$;
      CREATE CONSTRAINT TRIGGER project_has_owner AFTER DELETE OR UPDATE OF role ON membership
        DEFERRABLE INITIALLY DEFERRED FOR EACH ROW WHEN (OLD.role = 'owner') EXECUTE FUNCTION project_has_owner();
    `);
  },
};
