import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { columnsOf, kindNames, refsOf } from '@visograph/core/model';
import { testServer, type TestServer } from '../testServer.ts';
import { snake } from './rows.ts';
import { ensureTables, tableSql } from './tables.ts';

let server: TestServer;
jest.setTimeout(60_000);
beforeAll(async () => {
  server = await testServer({ demo: false });
}, 60_000);
afterAll(async () => server.end());

/** Types of the tables that were written by hand; whole numbers may be kept as numbers. */
const accepted: Record<string, string[]> = {
  uuid: ['uuid'],
  text: ['text', 'inet', 'cidr'],
  int: ['integer', 'double precision', 'bigint', 'smallint'],
  number: ['double precision', 'integer', 'bigint'],
  boolean: ['boolean'],
  json: ['jsonb'],
};

test('every table has the columns, types and references that the kind says', async () => {
  const { rows: columns } = await server.knex.raw<{
    rows: { tableName: string; columnName: string; dataType: string; isNullable: string }[];
  }>(
    `SELECT table_name AS "tableName", column_name AS "columnName", data_type AS "dataType", is_nullable AS "isNullable" FROM information_schema.columns WHERE table_schema = 'public'`,
  );
  const { rows: references } = await server.knex.raw<{
    rows: { source: string; field: string; target: string }[];
  }>(
    `SELECT c.conrelid::regclass::text AS source, a.attname AS field, c.confrelid::regclass::text AS target
     FROM pg_constraint c JOIN pg_attribute a ON a.attrelid = c.conrelid AND a.attnum = c.conkey[1] WHERE c.contype = 'f'`,
  );
  for (const kind of kindNames)
    for (const { field, storage, nullable, to } of columnsOf(kind)) {
      const column = columns.find((one) => one.tableName === snake(kind) && one.columnName === snake(field));
      const where = `${kind}.${field}`;
      expect([where, accepted[storage]?.includes(column?.dataType ?? 'none')]).toEqual([where, true]);
      // What may be empty in the model may be empty in the table.
      if (nullable) expect([where, column?.isNullable]).toEqual([where, 'YES']);
      if (to === null) continue;
      const target = references.find(
        (one) => one.source === snake(kind) && one.field === snake(field),
      )?.target;
      expect([where, target]).toEqual([where, snake(to)]);
    }
  // What may be one of several kinds is held for each of them.
  for (const kind of kindNames)
    for (const [field, { by, to }] of refsOf(kind)) {
      if (by === undefined) continue;
      const column = `${snake(field)}_${snake(to)}`;
      const target = references.find((one) => one.source === snake(kind) && one.field === column)?.target;
      expect([kind, column, target]).toEqual([kind, column, snake(to)]);
    }
});

test('a table made from the definition of every kind stands, and making tables twice changes nothing', async () => {
  await server.knex
    .transaction(async (transaction) => {
      await transaction.raw('CREATE SCHEMA made; SET LOCAL search_path = made');
      for (const kind of kindNames) await transaction.raw(tableSql(kind));
      const { rows } = await transaction.raw<{ rows: { count: number }[] }>(
        `SELECT count(*) AS count FROM information_schema.tables WHERE table_schema = 'made'`,
      );
      expect(rows[0]?.count).toBe(kindNames.length);
      throw new Error('put it back');
    })
    .catch((error: Error) => {
      if (error.message !== 'put it back') throw error;
    });
  await ensureTables(server.knex);
  await ensureTables(server.knex);
});
