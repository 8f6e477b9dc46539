import { type Change } from '@visograph/core/change';
import {
  columnsOf,
  hasNames,
  inSchemaOrder,
  kindNames,
  Network,
  type Kind,
  type Row,
  type Storage,
  type Held,
} from '@visograph/core/model';
import type { Knex } from 'knex';
import { raw } from 'objection';
import { from as copyFrom } from 'pg-copy-streams';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { PoolClient } from 'pg';
import { rawLines, unescaped } from './copiedLines.ts';
import { fieldsOf, jsonFieldsOf, rowClassOf, snake } from '../database/rows.ts';

/** More new rows of a kind than this go through COPY. */
const copyFromCount = 500;

const readers: Readonly<Record<Storage, (text: string) => unknown>> = {
  uuid: (text) => text,
  text: unescaped,
  int: Number,
  number: Number,
  boolean: (text) => text === 't',
  json: (text) => JSON.parse(unescaped(text)) as unknown,
};

/** One line of COPY as a row. */
function rowReader(kind: Kind): (line: string) => Row {
  const columns = columnsOf(kind).map(({ field, storage }) => ({ field, read: readers[storage] }));
  const json = jsonFieldsOf(kind);
  // Copied for each row, so that all have one shape; most fields of most rows hold nothing.
  const empty: Held = structuredClone(Object.fromEntries(columns.map(({ field }) => [field, null])));
  return (line) => {
    const row: Record<string, unknown> = { ...empty };
    let from = 0;
    for (const { field, read } of columns) {
      const tab = line.indexOf('\t', from);
      const to = tab < 0 ? line.length : tab;
      const isNull = to - from === 2 && line.startsWith('\\N', from);
      if (!isNull) row[field] = read(line.slice(from, to));
      from = to + 1;
    }
    return (json.some((field) => hasNames(row[field])) ? inSchemaOrder(kind, row) : row) as Row;
  };
}

/** The rows of a kind. */
async function readRows(client: PoolClient, projectId: string, kind: Kind): Promise<Row[]> {
  const columns = fieldsOf(kind).map((field) => `"${snake(field)}"`);
  const owner = kind === 'project' ? 'id' : 'project_id';
  const question = `SELECT ${columns.join(', ')} FROM "${snake(kind)}" WHERE ${owner} = ${client.escapeLiteral(projectId)}`;
  const read = rowReader(kind);
  const rows: Row[] = [];
  for await (const lines of rawLines(client, question)) for (const line of lines) rows.push(read(line));
  return rows;
}

/** Reads all rows of a project. Run inside a repeatable-read transaction, so that they belong to one revision. */
export async function loadNetwork(transaction: Knex.Transaction, projectId: string): Promise<Network> {
  const client = (await transaction.client.acquireConnection()) as PoolClient;
  const rows: Record<string, Row[]> = {};
  for (const kind of kindNames) rows[kind] = await readRows(client, projectId, kind);
  return Network.of(rows);
}

/** One value in the text format of COPY. */
function copyText(value: unknown, json: boolean): string {
  if (value === null || value === undefined) return '\\N';
  const text = json ? JSON.stringify(value) : String(value);
  return text
    .replaceAll('\\', '\\\\')
    .replaceAll('\n', '\\n')
    .replaceAll('\r', '\\r')
    .replaceAll('\t', '\\t');
}

async function copyRows(
  transaction: Knex.Transaction,
  projectId: string,
  kind: Kind,
  rows: Record<string, unknown>[],
): Promise<void> {
  const fields = fieldsOf(kind);
  const json = new Set(jsonFieldsOf(kind));
  const columns = ['project_id', ...fields.map(snake)].map((column) => `"${column}"`).join(', ');
  const client = (await transaction.client.acquireConnection()) as PoolClient;
  const stream = client.query(copyFrom(`COPY "${snake(kind)}" (${columns}) FROM STDIN`));
  function* lines(): Generator<string> {
    let block = '';
    for (const row of rows) {
      block += `${projectId}\t${fields.map((field) => copyText(row[field], json.has(field))).join('\t')}\n`;
      if (block.length < 65536) continue;
      yield block;
      block = '';
    }
    yield block;
  }
  await pipeline(Readable.from(lines()), stream);
}

const plain = (kind: Kind, row: object): Record<string, unknown> => {
  const json = jsonFieldsOf(kind);
  return Object.fromEntries(
    Object.entries(row).map(([field, value]) => [
      field,
      json.includes(field) && value !== null ? raw('?::jsonb', JSON.stringify(value)) : value,
    ]),
  );
};

/** Writes checked changes to the tables. Constraints are deferred: they are judged at the commit. */
export async function writeRows(
  transaction: Knex.Transaction,
  projectId: string,
  changes: readonly Change[],
): Promise<void> {
  const created = new Map<Kind, Record<string, unknown>[]>();
  const flush = async (): Promise<void> => {
    for (const kind of kindNames) {
      const rows = created.get(kind) ?? [];
      if (rows.length > copyFromCount) await copyRows(transaction, projectId, kind, rows);
      else if (rows.length > 0) {
        await rowClassOf(kind)
          .query(transaction)
          .insert(rows.map((row) => ({ ...plain(kind, row), projectId })));
      }
    }
    created.clear();
  };
  const removed = new Map<Kind, string[]>();
  for (const change of changes) {
    if (change.op === 'create') {
      const rows = created.get(change.kind);
      if (rows === undefined) created.set(change.kind, [{ ...change.after }]);
      else rows.push({ ...change.after });
      continue;
    }
    if (created.size > 0) await flush();
    if (change.op === 'delete') {
      const ids = removed.get(change.kind);
      if (ids === undefined) removed.set(change.kind, [change.id]);
      else ids.push(change.id);
    } else {
      const scope = change.kind === 'project' ? { id: projectId } : { id: change.id, projectId };
      await rowClassOf(change.kind).query(transaction).patch(plain(change.kind, change.after)).where(scope);
    }
  }
  await flush();
  for (const kind of [...kindNames].reverse()) {
    const ids = removed.get(kind) ?? [];
    if (ids.length > 0)
      await rowClassOf(kind).query(transaction).delete().whereIn('id', ids).where({ projectId });
  }
}
