import { hasNames, inSchemaOrder, kindNames, Network, type Change, type Kind } from '@visograph/core';
import type { Knex } from 'knex';
import { raw } from 'objection';
import { from as copyFrom } from 'pg-copy-streams';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { PoolClient } from 'pg';
import { fieldsOf, jsonFieldsOf, rowClassOf, snake } from '../database/rows.ts';

/** More new rows of a kind than this go through COPY. */
const copyFromCount = 500;

/** Reads all rows of a project. Run inside a repeatable-read transaction, so that they belong to one revision. */
export async function loadNetwork(transaction: Knex, projectId: string): Promise<Network> {
  const rows: Record<string, unknown[]> = {};
  for (const kind of kindNames) {
    const owner = kind === 'project' ? 'id' : 'projectId';
    const kept: Record<string, unknown>[] = await transaction(kind)
      .select(fieldsOf(kind))
      .where(owner, projectId);
    const json = jsonFieldsOf(kind);
    if (json.length > 0)
      kept.forEach((row, at) => {
        if (json.some((field) => hasNames(row[field]))) kept[at] = { ...inSchemaOrder(kind, row) };
      });
    rows[kind] = kept;
  }
  return Network.of(rows as Parameters<typeof Network.of>[0]);
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
