import knex, { type Knex } from 'knex';
import { knexSnakeCaseMappers } from 'objection';
import pg from 'pg';

/** Counts and sums come as numbers: all of ours lie far below 2^53. */
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

/** A pool on the database of the URL. The caller destroys it. */
export const connect = (url: string, { application = 'visograph', most = 12 } = {}): Knex =>
  knex({
    client: 'pg',
    connection: { connectionString: url, application_name: application },
    pool: { min: 1, max: most },
    acquireConnectionTimeout: 10_000,
    ...knexSnakeCaseMappers(),
  });
