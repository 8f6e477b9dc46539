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
     FROM pg_constraint c JOIN pg_attribute a ON a.attrelid = c.conrelid AND a.attnum = c.conkey[cardinality(c.conkey)] WHERE c.contype = 'f'`,
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

test('names are told apart by one rule, here and in the application: every letter there is', async () => {
  const letters: string[] = [];
  for (let code = 1; code <= 0x10ffff; code++)
    if (code < 0xd800 || code > 0xdfff) letters.push(String.fromCodePoint(code));
  const { rows } = await server.knex.raw<{ rows: { letter: string; low: string }[] }>(
    `SELECT letter, lower(letter COLLATE "und-x-icu") AS low FROM unnest(?::text[]) AS letter`,
    [letters.filter((letter) => letter.toLowerCase() !== letter || letter.toUpperCase() !== letter)],
  );
  expect(rows.length).toBeGreaterThan(2500);
  // Letters that one of the two does not know yet (Unicode grows) are no names of anything.
  const known = rows.filter(({ letter }) => (letter.codePointAt(0) ?? 0) < 0x1c80);
  expect(known.filter(({ letter, low }) => low !== letter.toLowerCase())).toEqual([]);
  const words = ['İstanbul', 'ISTANBUL', 'ıstanbul', 'ΟΔΟΣ', 'ΟΔΟΣ 1', 'ΣΑΣ', 'STRAßE', 'ẞ', 'Ǆ'];
  const { rows: lowered } = await server.knex.raw<{ rows: { low: string }[] }>(
    `SELECT lower(word COLLATE "und-x-icu") AS low FROM unnest(?::text[]) WITH ORDINALITY AS t (word, at) ORDER BY at`,
    [words],
  );
  expect(lowered.map(({ low }) => low)).toEqual(words.map((word) => word.toLowerCase()));
});

test('the id of a row stays, whoever asks the database for another', async () => {
  const raw = (sql: string): Promise<unknown> => Promise.resolve(server.knex.raw(sql));
  const [project, place] = ['11111111-1111-4111-8111-111111111111', '22222222-2222-4222-8222-222222222222'];
  await raw(
    `INSERT INTO project (id, name, label_digits, revision, cabling) VALUES ('${project}', 'Ids', 5, 0, '{}')`,
  );
  await raw(
    `INSERT INTO place (project_id, id, name, kind) VALUES ('${project}', '${place}', 'Quay', 'site')`,
  );
  await raw(`UPDATE place SET id = id, name = 'Quay 2' WHERE id = '${place}'`);
  await expect(raw(`UPDATE place SET id = '${project}' WHERE id = '${place}'`)).rejects.toMatchObject({
    constraint: 'id_stays',
  });
});
