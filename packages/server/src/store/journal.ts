import {
  completed,
  shortened,
  undoStacks,
  type Change,
  type JournalEntry,
  type UndoNote,
  type WireChange,
} from '@visograph/core/change';
import { type Problem } from '@visograph/core/model';
import type { Knex } from 'knex';
import { randomInt } from 'node:crypto';
import type { PoolClient } from 'pg';
import { copiedLines } from './copiedLines.ts';
import type { QueryBuilder } from 'objection';
import { ChangeSetRow } from '../database/rows.ts';

/** A line of history of a project: as built, which is what the tables hold, or that of a plan by its id. */
export interface LineOf {
  projectId: string;
  /** The plan; null: as built. */
  line: string | null;
}
export const asBuilt = null;
export const keyOf = ({ projectId, line }: LineOf): string => `${projectId} ${line ?? ''}`;

export interface Author {
  id: string | null;
  name: string;
}
export interface Wish {
  /** Made by the client: the same wish sent twice is carried out once. */
  id: string;
  changes: readonly (WireChange | Change)[];
  sentence: string;
  undoes?: number;
  redoes?: number;
}
export type Written = { ok: true; entry: JournalEntry } | { ok: false; problems: Problem[] };
/** Nothing to undo: the person has no entry left that can be taken back. */
export type UndoResult = Written | { ok: false; nothing: true; problems: [] };

/** An entry without its changes. */
export type HistoryLine = Pick<
  JournalEntry,
  'id' | 'revision' | 'author' | 'at' | 'sentence' | 'undoes' | 'redoes'
>;

/** Which entries of the history are read. */
export interface HistoryWish {
  /** Those before a revision, and after one. */
  before: number | null;
  after?: number | null;
  /** Only those about one row. */
  rowId: string | null;
  /** Without those of a person. */
  but?: string | null;
  most: number;
}

/** Bytes as they are kept, of the changes of an entry that is read in pieces: about two thousand new rows. */
const largeEntry = 200_000;

/** Entries of more changes are made outside the web process. */
const manyChanges = 1000;

const entryOf = (row: ChangeSetRow): JournalEntry => ({
  id: row.id,
  revision: row.revision,
  author: row.author,
  at: row.at.toISOString(),
  line: row.lineId,
  base: row.base,
  sentence: row.sentence,
  changes: (row.changes as Change[]).map(completed),
  undoes: row.undoes,
  redoes: row.redoes,
});

/** A wish as it is to stand in the journal. */
export interface NewEntry {
  author: Author;
  wish: Pick<Wish, 'id' | 'sentence' | 'undoes' | 'redoes'>;
  changes: Change[];
  revision: number;
  /** The revision of as built that an entry of a plan is made over; null for as built itself. */
  base: number | null;
}

/** What a line of history wrote, and the one way to write more: entry and word of it in the caller's transaction. */
export class Journal {
  constructor(
    private readonly knex: Knex,
    private readonly channel: string,
    private readonly instance: string,
  ) {}

  private of({ projectId, line }: LineOf): QueryBuilder<ChangeSetRow> {
    return ChangeSetRow.query(this.knex).where({ projectId, lineId: line });
  }

  /** Everything after a revision, oldest first. */
  async after(of: LineOf, revision: number): Promise<JournalEntry[]> {
    const rows = await this.of(of).where('revision', '>', revision).orderBy('revision');
    return rows.map(entryOf);
  }

  /** Only the changes of the entries in (from, to], oldest first: many of them are read at once. */
  async changes({ projectId, line }: LineOf, from: number, to: number): Promise<Change[][]> {
    const rows = await this.knex('changeSet')
      .select('changes')
      .where({ projectId, lineId: line })
      .where('revision', '>', from)
      .where('revision', '<=', to)
      .orderBy('revision');
    return rows.map(({ changes }: { changes: Change[] }) => changes);
  }

  async at(of: LineOf, revision: number): Promise<JournalEntry | null> {
    const row = await this.of(of).findOne({ revision });
    return row === undefined ? null : entryOf(row);
  }

  /** The entry of a wish that was carried out before: it came twice. */
  async settled(of: LineOf, wish: Pick<Wish, 'id'>): Promise<Written | null> {
    const earlier = await this.of(of).findById(wish.id);
    return earlier === undefined ? null : { ok: true, entry: entryOf(earlier) };
  }

  /** What of a person's own entries tells what can be undone. */
  async notes(of: LineOf, authorId: string): Promise<UndoNote[]> {
    return this.of(of).select('revision', 'undoes', 'redoes').where({ authorId }).orderBy('revision');
  }

  /** Whether the entry of a person that is next to be taken back, or made again, holds many changes. */
  async isNextStepLarge(of: LineOf, authorId: string, direction: 'undo' | 'redo'): Promise<boolean> {
    const target = undoStacks(await this.notes(of, authorId))[direction].at(-1);
    if (target === undefined) return false;
    const row = await this.of(of)
      .select('id')
      .where({ revision: target })
      .whereRaw('jsonb_array_length(changes) > ?', [manyChanges])
      .first();
    return row !== undefined;
  }

  /** The history as it is read: newest first, `most` at most. */
  async lines(of: LineOf, wish: HistoryWish): Promise<HistoryLine[]> {
    const rows = await this.of(of)
      .select('id', 'revision', 'author', 'at', 'sentence', 'undoes', 'redoes')
      .modify((builder) => {
        if (wish.before !== null) void builder.where('revision', '<', wish.before);
        if (wish.after != null) void builder.where('revision', '>', wish.after);
        if (wish.but != null)
          void builder.where(
            (row) => void row.whereNull('authorId').orWhereNot({ authorId: wish.but ?? '' }),
          );
        if (wish.rowId !== null)
          void builder.whereRaw('changes @> ?::jsonb', JSON.stringify([{ id: wish.rowId }]));
      })
      .orderBy('revision', 'desc')
      .limit(wish.most);
    return rows.map(({ id, revision, author, at, sentence, undoes, redoes }) => ({
      ...{ id, revision, author, sentence, undoes, redoes },
      at: at.toISOString(),
    }));
  }

  /** The changes of one entry, so many at a time: for those that are too many to be read while others wait. */
  async *changesOf({ projectId, line }: LineOf, revision: number): AsyncGenerator<Change[]> {
    const client = await this.borrow();
    try {
      const whose = line === null ? 'IS NULL' : `= ${client.escapeLiteral(line)}`;
      const question = `SELECT e.change FROM change_set c, jsonb_array_elements(c.changes) WITH ORDINALITY AS e (change, at)
        WHERE c.project_id = ${client.escapeLiteral(projectId)} AND c.line_id ${whose} AND c.revision = ${Number(revision)} ORDER BY e.at`;
      for await (const lines of copiedLines(client, question))
        yield lines.map((text) => completed(JSON.parse(text) as Change));
    } finally {
      await this.knex.client.releaseConnection(client);
    }
  }

  private borrow(): Promise<PoolClient> {
    return this.knex.client.acquireConnection() as Promise<PoolClient>;
  }

  /** The newest revision of as built, and the newest that a person wrote (0: none). */
  async reached(projectId: string, accountId: string): Promise<{ newest: number; own: number }> {
    const { rows }: { rows: { newest: number | null; own: number | null }[] } = await this.knex.raw(
      `SELECT (SELECT revision FROM project WHERE id = :projectId) AS newest,
        (SELECT max(revision) FROM change_set
         WHERE project_id = :projectId AND line_id IS NULL AND author_id = :accountId) AS own`,
      { projectId, accountId },
    );
    return { newest: rows[0]?.newest ?? 0, own: rows[0]?.own ?? 0 };
  }

  /** The revisions after one, oldest first, and whether their entries are large. */
  async revisionsAfter(
    { projectId, line }: LineOf,
    revision: number,
  ): Promise<{ revision: number; large: boolean }[]> {
    return this.knex('changeSet')
      .select('revision', this.knex.raw('pg_column_size(changes) > ? AS large', [largeEntry]))
      .where({ projectId, lineId: line })
      .where('revision', '>', revision)
      .orderBy('revision');
  }

  /** An entry without its changes. */
  async withoutChanges(of: LineOf, revision: number): Promise<Omit<JournalEntry, 'changes'> | null> {
    const row = await this.of(of)
      .select('id', 'revision', 'author', 'at', 'lineId', 'base', 'sentence', 'undoes', 'redoes')
      .findOne({ revision });
    if (row === undefined) return null;
    const { changes: _none, ...entry } = entryOf({ ...row, changes: [] } as unknown as ChangeSetRow);
    return entry;
  }

  /**
   * Writes an entry before it is known which revision it gets, so that nobody waits while its many changes are written.
   * Until `settle` gives it one, in the same transaction, nobody else sees it.
   */
  async stage(
    transaction: Knex.Transaction,
    of: LineOf,
    { author, wish, changes }: Pick<NewEntry, 'author' | 'wish' | 'changes'>,
  ): Promise<void> {
    await transaction('changeSet').insert({
      ...{ id: wish.id, projectId: of.projectId, lineId: of.line, authorId: author.id, author: author.name },
      ...{ sentence: wish.sentence, undoes: wish.undoes ?? null, redoes: wish.redoes ?? null, base: null },
      ...{ revision: -1 - randomInt(2 ** 30), at: new Date().toISOString() },
      changes: JSON.stringify(changes.map(shortened)),
    });
  }

  /** Gives a staged entry its revision, and tells of it. */
  async settle(transaction: Knex.Transaction, of: LineOf, id: string, revision: number): Promise<string> {
    const at = new Date().toISOString();
    await transaction('changeSet').where({ projectId: of.projectId, id }).update({ revision, at });
    await this.tell(transaction, of);
    return at;
  }

  private async tell(transaction: Knex.Transaction, of: LineOf): Promise<void> {
    const note = JSON.stringify({ ...of, instance: this.instance });
    await transaction.raw('SELECT pg_notify(?, ?)', [this.channel, note]);
  }

  /** Writes entries in the order of their revisions, and word of them. */
  async append(
    transaction: Knex.Transaction,
    of: LineOf,
    wishes: readonly NewEntry[],
  ): Promise<JournalEntry[]> {
    const at = new Date().toISOString();
    const entries = wishes.map(({ author, wish, changes, revision, base }): JournalEntry => ({
      id: wish.id,
      revision,
      author: author.name,
      at,
      line: of.line,
      base,
      sentence: wish.sentence,
      changes,
      undoes: wish.undoes ?? null,
      redoes: wish.redoes ?? null,
    }));
    const rows = entries.map(({ line, changes, ...fields }, which) => ({
      ...fields,
      projectId: of.projectId,
      lineId: line,
      authorId: wishes[which]?.author.id ?? null,
      changes: JSON.stringify(changes.map(shortened)),
    }));
    await transaction('changeSet').insert(rows);
    await this.tell(transaction, of);
    return entries;
  }
}
