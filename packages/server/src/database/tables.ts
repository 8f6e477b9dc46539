import {
  columnsOf,
  kindNames,
  refsOf,
  type Kind,
  type Storage,
  type StoredField,
  anyKind,
} from '@visograph/core/model';
import type { Knex } from 'knex';
import { snake } from './rows.ts';
import { idStays } from './steps/14-rows-of-their-project.ts';

const types: Record<Storage, string> = {
  uuid: 'uuid',
  text: 'text',
  int: 'int',
  number: 'float8',
  boolean: 'boolean',
  json: 'jsonb',
};
const deferred = 'DEFERRABLE INITIALLY DEFERRED';
const columnSql = ({ field, storage, nullable }: StoredField): string =>
  `"${snake(field)}" ${types[storage]}${nullable ? '' : ' NOT NULL'}`;
/** A reference stays within its project. */
const referenceSql = (column: string, to: string): string =>
  to === 'project'
    ? `FOREIGN KEY ("${column}") REFERENCES project ${deferred}`
    : `FOREIGN KEY (project_id, "${column}") REFERENCES "${snake(to)}" (project_id, id) ${deferred}`;

/** Rows of a kind that stay as they are from some moment on do so for whoever writes to the table. */
function frozenSql(kind: Kind): string {
  const { frozen } = anyKind(kind);
  if (frozen === undefined) return '';
  const column = `"${snake(frozen.field)}"`;
  const without = frozen.except.map((field) => ` - '${snake(field)}'`).join('');
  // After the update, when the columns that are worked out are there in both rows.
  return `CREATE TRIGGER frozen_stays AFTER UPDATE ON "${snake(kind)}" FOR EACH ROW
    WHEN (OLD.${column} = '${frozen.value}' AND (to_jsonb(OLD)${without}) IS DISTINCT FROM (to_jsonb(NEW)${without}))
    EXECUTE FUNCTION public.frozen_stays();`;
}

/** A table of this kind as its definition says it: columns, references, what is unique without regard to case. */
export function tableSql(kind: Kind): string {
  const table = snake(kind);
  const columns = columnsOf(kind);
  const textual = new Set<string>(
    columns.filter(({ storage }) => storage === 'text').map(({ field }) => field),
  );
  const ruled = anyKind(kind).unique.filter(({ fields }) => fields !== undefined);
  const keyed = new Set<string>(
    ruled.flatMap(({ fields = [] }): string[] => fields.filter((field) => textual.has(field))),
  );
  const key = (field: string): string => (keyed.has(field) ? `"${snake(field)}_key"` : `"${snake(field)}"`);
  // A reference to one of several kinds has a column for each, worked out, so that the database holds it as well.
  const split = refsOf(kind).filter(([, { by }]) => by !== undefined);
  const parts = [
    ...columns.map(columnSql),
    ...split.map(
      ([field, { by = '', to }]) =>
        `"${snake(field)}_${snake(to)}" uuid GENERATED ALWAYS AS (CASE WHEN "${snake(by)}" = '${to}' THEN "${snake(field)}" END) STORED`,
    ),
    `project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE ${deferred}`,
    ...[...keyed].map(
      (field) =>
        `${key(field)} text GENERATED ALWAYS AS (lower("${snake(field)}" COLLATE "und-x-icu")) STORED`,
    ),
    kind === 'project' ? 'PRIMARY KEY (id)' : 'PRIMARY KEY (project_id, id)',
    ...columns.flatMap(({ field, to }) => (to === null ? [] : [referenceSql(snake(field), to)])),
    ...split.map(([field, { to }]) => referenceSql(`${snake(field)}_${snake(to)}`, to)),
    ...ruled.map(
      ({ what, fields = [] }) =>
        `CONSTRAINT "${table}_${snake(what)}" UNIQUE (${['project_id', ...fields.map(key)].join(', ')}) ${deferred}`,
    ),
  ];
  // What is unique has an index that begins with its first field.
  const indexed = new Set<string>(ruled.map(({ what, fields = [] }) => fields[0] ?? what));
  const referring = [
    ...columns.filter(({ field, to }) => to !== null && !indexed.has(field)).map(({ field }) => field),
    ...split.map(([field, { to }]) => `${field}_${to}`),
  ];
  return [
    `CREATE TABLE "${table}" (${parts.join(', ')});`,
    idStays(`"${table}"`),
    frozenSql(kind),
    ...referring.map((field) => `CREATE INDEX "${table}_${snake(field)}" ON "${table}" ("${snake(field)}");`),
  ].join('\n');
}

/** References of kinds with a table of a step to kinds whose tables are made here. */
const late: readonly (readonly [kind: Kind, field: string, to: Kind])[] = [
  ['mark', 'scheduleId', 'schedule'],
];

/**
 * Makes the tables of kinds that have none yet: a new kind needs no step of its own. A kind that changes afterwards
 * needs one. Several servers may start at once.
 */
export async function ensureTables(knex: Knex): Promise<void> {
  await knex.transaction(async (transaction) => {
    // The lock of the house's own: nobody else makes tables meanwhile.
    await transaction.raw('SELECT pg_advisory_xact_lock(7136405)');
    for (const kind of kindNames)
      if (!(await transaction.schema.hasTable(snake(kind)))) await transaction.raw(tableSql(kind));
    for (const [kind, field, to] of late) {
      const name = `${snake(kind)}_${snake(field)}_fkey`;
      const found = await transaction('pg_constraint').where('conname', name).first('oid');
      if (found === undefined)
        await transaction.raw(
          `ALTER TABLE "${snake(kind)}" ADD CONSTRAINT "${name}" ${referenceSql(snake(field), to)}`,
        );
    }
  });
}
