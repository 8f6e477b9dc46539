import { changeNow, heldNow } from '@visograph/core/exchange';
import type { Knex } from 'knex';
import { deferred, type Migration } from './step.ts';

/** What is kept as JSON in rows and had names in it that changed. */
const kept = [
  ['model', 'port_groups'],
  ['kit', 'contents'],
  ['sheet', 'templates'],
] as const;
/** Where these words are not in it, nothing of it changes. */
const oldWords = `'pattern|fullDepth|passThrough|widthIn|vlanGroup|groupId|\\[[0-9]+-[0-9]+\\]|\\{slot\\}|place\\.code|sheetItem|sheetLink'`;
const atOnce = 200;

/** The field of a JSON column as its kind calls it: what is kept under `templates` is named by it. */
const fieldOf = (column: string): string => (column === 'port_groups' ? 'portGroups' : column);

async function renameInRows(knex: Knex): Promise<void> {
  for (const [table, column] of kept) {
    const { rows } = await knex.raw<{ rows: { id: string; value: unknown }[] }>(
      `SELECT id, "${column}" AS value FROM "${table}" WHERE "${column}"::text ~ ${oldWords}`,
    );
    for (const { id, value } of rows) {
      const now = heldNow(fieldOf(column), value);
      await knex.raw(`UPDATE "${table}" SET "${column}" = ?::jsonb WHERE id = ?`, [JSON.stringify(now), id]);
    }
  }
}

/** The journal says what it said, in today's names: what is undone or looked back at is made of it. */
async function renameInJournal(knex: Knex): Promise<void> {
  for (let after = '00000000-0000-0000-0000-000000000000'; ;) {
    const { rows } = await knex.raw<{ rows: { id: string; changes: unknown[] }[] }>(
      `SELECT id, changes FROM change_set WHERE id > ? AND changes::text ~ ${oldWords} ORDER BY id LIMIT ${atOnce}`,
      [after],
    );
    for (const { id, changes } of rows) {
      await knex.raw('UPDATE change_set SET changes = ?::jsonb WHERE id = ?', [
        JSON.stringify(changes.map(changeNow)),
        id,
      ]);
      after = id;
    }
    if (rows.length < atOnce) return;
  }
}

/** One subject in place of a column for each kind; what it is keeps a foreign key for each all the same. */
const subjectSql = (table: string, kinds: readonly string[]): string => {
  const led = (kind: string): string =>
    `ADD subject_id_${kind} uuid GENERATED ALWAYS AS (CASE WHEN subject_kind = '${kind}' THEN subject_id END) STORED REFERENCES "${kind}" ${deferred}`;
  return `
    ALTER TABLE ${table} ADD subject_kind text, ADD subject_id uuid;
    UPDATE ${table} SET subject_id = coalesce(${kinds.map((kind) => `${kind}_id`).join(', ')}),
      subject_kind = CASE ${kinds.map((kind) => `WHEN ${kind}_id IS NOT NULL THEN '${kind}'`).join(' ')} END;
    SET CONSTRAINTS ALL IMMEDIATE;
    SET CONSTRAINTS ALL DEFERRED;
    ALTER TABLE ${table} ${kinds.map((kind) => `DROP COLUMN ${kind}_id`).join(', ')},
      ALTER subject_kind SET NOT NULL, ALTER subject_id SET NOT NULL,
      ADD CONSTRAINT ${table}_kind CHECK (subject_kind IN (${kinds.map((kind) => `'${kind}'`).join(', ')})),
      ADD CONSTRAINT ${table}_subject UNIQUE (sheet_id, subject_id) ${deferred};
    ALTER TABLE ${table} ${kinds.map(led).join(', ')};
    ${kinds.map((kind) => `CREATE INDEX ${table}_subject_id_${kind} ON ${table} (subject_id_${kind}) WHERE subject_id_${kind} IS NOT NULL;`).join('\n')}`;
};

export const tenth: Migration = {
  name: '010-names-of-our-own',
  up: async (knex) => {
    await knex.raw(`
      ALTER TABLE vlan_group RENAME TO vlan_numbering;
      ALTER TABLE vlan_numbering RENAME CONSTRAINT vlan_group_name TO vlan_numbering_name;
      ALTER TABLE vlan RENAME COLUMN group_id TO numbering_id;
      ALTER TABLE place RENAME COLUMN vlan_group_id TO vlan_numbering_id;
      ALTER TABLE port RENAME COLUMN vlan_group_id TO vlan_numbering_id;
      ALTER TABLE model RENAME COLUMN full_depth TO fills_both_faces;
      ALTER TABLE device RENAME COLUMN full_depth TO fills_both_faces;
      ALTER TABLE port RENAME COLUMN pass_through_id TO leads_to_id;
      ALTER TABLE port RENAME COLUMN pass_through_strand TO leads_to_strand;
      ALTER TABLE port RENAME CONSTRAINT port_pass_through TO port_leads_to;
      ALTER TABLE rack DROP CONSTRAINT rack_width_in_check, ALTER width_in DROP DEFAULT;
      ALTER TABLE rack RENAME COLUMN width_in TO width_mm;
      ALTER TABLE rack ALTER width_mm TYPE float8 USING CASE width_mm WHEN 19 THEN 482.6 WHEN 21 THEN 535 ELSE 584.2 END,
        ADD CONSTRAINT rack_width CHECK (width_mm BETWEEN 200 AND 1200);
      UPDATE port SET role = 'panel' WHERE role = 'passThrough';
      UPDATE reservation SET kind = 'vlanNumbering' WHERE kind = 'vlanGroup';
    `);
    await knex.raw(subjectSql('sheet_item', ['device', 'place', 'circuit', 'prefix']));
    await knex.raw(subjectSql('sheet_link', ['cable', 'circuit', 'prefix']));
    await renameInRows(knex);
    await renameInJournal(knex);
  },
};
