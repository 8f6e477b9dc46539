import knex, { type Knex } from 'knex';
import { knexSnakeCaseMappers } from 'objection';
import pg from 'pg';

/** Counts and sums come as numbers: all of ours lie far below 2^53. */
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

interface Pool {
  application?: string;
  /** Connections at most. */
  most?: number;
  /** Milliseconds that a statement may take; null: as long as it takes. */
  patience?: number | null;
}

/** A pool on the database of the URL. The caller destroys it. */
export const connect = (
  url: string,
  { application = 'visograph', most = 12, patience = null }: Pool = {},
): Knex =>
  knex({
    client: 'pg',
    connection: {
      connectionString: url,
      application_name: application,
      connectionTimeoutMillis: 5000,
      keepAlive: true,
      // The database ends a statement; where it is not heard of any more, the driver does.
      ...(patience === null ? {} : { statement_timeout: patience, query_timeout: patience + 5000 }),
    },
    pool: { min: 1, max: most },
    acquireConnectionTimeout: 10_000,
    ...knexSnakeCaseMappers(),
  });
