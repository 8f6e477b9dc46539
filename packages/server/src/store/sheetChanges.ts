import type { Change, JournalEntry } from '@visograph/core/change';
import type { Knex } from 'knex';

/** Who changed a sheet last, or what was done on it by hand. */
export interface SheetChange {
  id: string;
  revision: number;
  author: string;
  at: string;
}

/** What stands on a sheet, and the table that it is kept in. */
const onSheets = { sheetItem: 'sheet_item', sheetLink: 'sheet_link', mark: 'mark' } as const;
const isOnSheet = (kind: string): kind is keyof typeof onSheets => kind in onSheets;

function sheetIn(row: object): string | null {
  const { sheetId }: { sheetId?: unknown } = row;
  return typeof sheetId === 'string' ? sheetId : null;
}

/** Ids of the sheets that an entry changed. An update tells its id alone: its sheet is looked up among the rows as written. */
async function sheetsOf(
  transaction: Knex.Transaction,
  projectId: string,
  changes: readonly Change[],
): Promise<Set<string>> {
  const found = new Set<string>();
  const asked: Record<keyof typeof onSheets, string[]> = { sheetItem: [], sheetLink: [], mark: [] };
  for (const change of changes) {
    if (change.kind === 'sheet' && change.op !== 'delete') found.add(change.id);
    if (!isOnSheet(change.kind)) continue;
    const own = sheetIn(change.op === 'delete' ? change.before : change.after);
    if (own !== null) found.add(own);
    else asked[change.kind].push(change.id);
  }
  for (const [kind, ids] of Object.entries(asked)) {
    if (ids.length === 0 || !isOnSheet(kind)) continue;
    const rows: { sheetId: string }[] = await transaction(onSheets[kind])
      .distinct('sheetId')
      .where({ projectId })
      .whereIn('id', ids);
    for (const { sheetId } of rows) found.add(sheetId);
  }
  return found;
}

/** Keeps who changed which sheets, in the transaction of the entries, after their rows were written. */
export async function noteSheetChanges(
  transaction: Knex.Transaction,
  projectId: string,
  entries: readonly Pick<JournalEntry, 'revision' | 'author' | 'at' | 'changes'>[],
): Promise<void> {
  for (const { revision, author, at, changes } of entries) {
    const ids = [...(await sheetsOf(transaction, projectId, changes))];
    if (ids.length === 0) continue;
    await transaction('sheetChange')
      .insert(ids.map((sheetId) => ({ projectId, sheetId, revision, author, at })))
      .onConflict(['project_id', 'sheet_id'])
      .merge();
  }
}

/** The last change of every sheet of a project, of what is as built. */
export async function lastSheetChanges(knex: Knex, projectId: string): Promise<SheetChange[]> {
  const rows: { id: string; revision: number; author: string; at: Date }[] = await knex('sheetChange')
    .join('sheet', (on) => {
      on.on('sheet.id', 'sheetChange.sheetId').andOn('sheet.projectId', 'sheetChange.projectId');
    })
    .where({ 'sheetChange.projectId': projectId })
    .select({ id: 'sheet.id', revision: 'sheetChange.revision', author: 'author', at: 'at' })
    .orderBy('revision', 'desc');
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}
