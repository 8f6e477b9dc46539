import type { Knex } from 'knex';
import { first } from './steps/01-model-and-journal.ts';
import { second } from './steps/02-places-catalogue-racks.ts';
import { third } from './steps/03-cabling.ts';
import { fourth } from './steps/04-drawings.ts';
import { fifth } from './steps/05-logical.ts';
import { sixth } from './steps/06-installed.ts';
import { seventh } from './steps/07-logical-sheets.ts';
import { eighth } from './steps/08-spanning-tree.ts';
import { ninth } from './steps/09-lines-of-history.ts';
import { tenth } from './steps/10-names-of-our-own.ts';
import { eleventh } from './steps/11-inventory.ts';
import { twelfth } from './steps/12-sheets-in-order.ts';
import { thirteenth } from './steps/13-jobs.ts';
import { fourteenth } from './steps/14-rows-of-their-project.ts';
import { fifteenth } from './steps/15-owners.ts';
import { sixteenth } from './steps/16-people.ts';
import { seventeenth } from './steps/17-what-replaces-a-model.ts';
import { eighteenth } from './steps/18-tables-on-sheets.ts';
import { nineteenth } from './steps/19-cloud.ts';
import { twentieth } from './steps/20-field.ts';
import type { Migration } from './steps/step.ts';
import { ensureTables } from './tables.ts';

const steps: readonly Migration[] = [
  first,
  second,
  third,
  fourth,
  fifth,
  sixth,
  seventh,
  eighth,
  ninth,
  tenth,
  eleventh,
  twelfth,
  thirteenth,
  fourteenth,
  fifteenth,
  sixteenth,
  seventeenth,
  eighteenth,
  nineteenth,
  twentieth,
];
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
