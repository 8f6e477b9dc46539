import {
  applyChanges,
  invert,
  Network,
  newId,
  undoStacks,
  type Change,
  type JournalEntry,
  type Problem,
  type WireChange,
} from '@visograph/core';
import type { Knex } from 'knex';
import { ChangeSetRow, ProjectRow } from '../database/rows.ts';
import { Moments } from './moments.ts';
import { loadNetwork, writeRows } from './rowsIO.ts';
import { problemFromDatabase } from './databaseProblems.ts';

export interface Snapshot {
  network: Network;
  revision: number;
}
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
type Listener = (projectId: string, entry: JournalEntry) => void;

export const entryOf = (row: ChangeSetRow): JournalEntry => ({
  id: row.id,
  revision: row.revision,
  author: row.author,
  at: row.at.toISOString(),
  state: row.state,
  sentence: row.sentence,
  changes: row.changes as Change[],
  undoes: row.undoes,
  redoes: row.redoes,
});

/**
 * The one way to read and write model data: a network per project in memory, kept current by the journal. A write
 * is judged on the newest network, then rows and journal go into one transaction, then everybody is told.
 */
export class ProjectStore {
  private readonly cache = new Map<string, Snapshot>();
  private readonly queues = new Map<string, Promise<unknown>>();
  private readonly listeners = new Set<Listener>();
  private readonly moments: Moments;

  constructor(
    private readonly knex: Knex,
    private readonly channel: string,
    private readonly instance: string,
  ) {
    this.moments = new Moments(knex);
  }

  onEntry(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** One piece of work after the other for each project. */
  private inTurn<T>(projectId: string, work: () => Promise<T>): Promise<T> {
    const before = this.queues.get(projectId) ?? Promise.resolve();
    const turn = before.then(work, work);
    this.queues.set(
      projectId,
      turn.catch(() => undefined),
    );
    return turn;
  }

  async read(projectId: string): Promise<Snapshot> {
    return this.cache.get(projectId) ?? this.inTurn(projectId, () => this.current(projectId));
  }

  /** The network as it was at a revision of the journal, from 1 to the newest. */
  async at(projectId: string, revision: number): Promise<Network> {
    const newest = await this.read(projectId);
    return revision === newest.revision ? newest.network : this.moments.at(projectId, newest, revision);
  }

  private async current(projectId: string): Promise<Snapshot> {
    const known = this.cache.get(projectId);
    return known === undefined ? this.load(projectId) : this.catchUp(projectId, known);
  }

  private async load(projectId: string): Promise<Snapshot> {
    const snapshot = await this.knex.transaction(
      async (transaction) => {
        const project = await ProjectRow.query(transaction).findById(projectId).throwIfNotFound();
        const network = await loadNetwork(transaction, projectId);
        return { network: network.warm(['cable', 'leg', 'circuit']), revision: project.revision };
      },
      { isolationLevel: 'repeatable read', readOnly: true },
    );
    this.cache.set(projectId, snapshot);
    return snapshot;
  }

  /** Applies what other servers wrote since; reloads where that cannot be followed. */
  private async catchUp(projectId: string, known: Snapshot): Promise<Snapshot> {
    const project = await ProjectRow.query(this.knex).findById(projectId).throwIfNotFound();
    if (project.revision === known.revision) return known;
    const rows = await ChangeSetRow.query(this.knex)
      .where({ projectId })
      .where('revision', '>', known.revision)
      .orderBy('revision');
    let { network } = known;
    for (const row of rows) {
      const applied = applyChanges(network, row.changes as Change[]);
      if (!applied.ok) return this.load(projectId);
      network = applied.network;
    }
    const snapshot = { network, revision: rows.at(-1)?.revision ?? known.revision };
    this.cache.set(projectId, snapshot);
    for (const row of rows) this.tell(projectId, entryOf(row));
    return snapshot;
  }

  private tell(projectId: string, entry: JournalEntry): void {
    for (const listener of this.listeners) listener(projectId, entry);
  }

  /** Another server wrote: bring the cache up to date and tell our own clients. */
  async notice(projectId: string): Promise<void> {
    if (this.cache.has(projectId)) await this.inTurn(projectId, () => this.current(projectId));
  }

  /** Makes sure nothing is missed after the line to the database was down. */
  async noticeAll(): Promise<void> {
    for (const projectId of this.cache.keys()) await this.notice(projectId);
  }

  forget(projectId: string): void {
    this.cache.delete(projectId);
  }

  write(projectId: string, author: Author, wish: Wish): Promise<Written> {
    return this.inTurn(projectId, async () =>
      this.writeNow(projectId, author, wish, this.cache.get(projectId) ?? (await this.load(projectId))),
    );
  }

  private async writeNow(projectId: string, author: Author, wish: Wish, start: Snapshot): Promise<Written> {
    let snapshot = start;
    for (;;) {
      const applied = applyChanges(snapshot.network, wish.changes);
      if (!applied.ok)
        return (
          (await this.settled(projectId, wish)) ?? this.retry(projectId, author, wish, snapshot, applied)
        );
      const { revision } = snapshot;
      try {
        const entry = await this.knex.transaction((transaction) =>
          this.commit(transaction, projectId, author, wish, applied.changes, revision),
        );
        if (entry !== null) {
          this.cache.set(projectId, { network: applied.network, revision: entry.revision });
          this.tell(projectId, entry);
          return { ok: true, entry };
        }
      } catch (error) {
        const settled = await this.settled(projectId, wish);
        if (settled !== null) return settled;
        const problem = problemFromDatabase(error);
        if (problem === null) throw error;
        this.forget(projectId);
        return { ok: false, problems: [problem] };
      }
      snapshot = await this.catchUp(projectId, snapshot);
    }
  }

  /** The entry of a wish that was carried out before: it came twice. */
  private async settled(projectId: string, wish: Wish): Promise<Written | null> {
    const earlier = await ChangeSetRow.query(this.knex).findById(wish.id).where({ projectId });
    return earlier === undefined ? null : { ok: true, entry: entryOf(earlier) };
  }

  /** A refusal stands only against the newest network: another server may have written since. */
  private async retry(
    projectId: string,
    author: Author,
    wish: Wish,
    known: Snapshot,
    refused: Written,
  ): Promise<Written> {
    const newest = await this.catchUp(projectId, known);
    return newest.revision === known.revision ? refused : this.writeNow(projectId, author, wish, newest);
  }

  /** Rows, journal and notification in one transaction; null when another server was first. */
  private async commit(
    transaction: Knex.Transaction,
    projectId: string,
    author: Author,
    wish: Wish,
    changes: Change[],
    base: number,
  ): Promise<JournalEntry | null> {
    const revision = base + 1;
    const moved = await ProjectRow.query(transaction)
      .patch({ revision })
      .where({ id: projectId, revision: base });
    if (moved === 0) return null;
    await writeRows(transaction, projectId, changes);
    const entry: JournalEntry = {
      id: wish.id,
      revision,
      author: author.name,
      at: new Date().toISOString(),
      state: 'as built',
      sentence: wish.sentence,
      changes,
      undoes: wish.undoes ?? null,
      redoes: wish.redoes ?? null,
    };
    await transaction('changeSet').insert({
      ...entry,
      projectId,
      authorId: author.id,
      changes: JSON.stringify(changes),
    });
    await transaction.raw('SELECT pg_notify(?, ?)', [
      this.channel,
      JSON.stringify({ projectId, instance: this.instance }),
    ]);
    return entry;
  }

  /** Takes back, or makes again, the person's own latest step. */
  step(
    projectId: string,
    author: Author & { id: string },
    direction: 'undo' | 'redo',
    id: string = newId(),
  ): Promise<UndoResult> {
    return this.inTurn(projectId, async () => {
      const notes = await ChangeSetRow.query(this.knex)
        .select('revision', 'undoes', 'redoes')
        .where({ projectId, authorId: author.id })
        .orderBy('revision');
      const target = undoStacks(notes)[direction].at(-1);
      const row =
        target === undefined
          ? undefined
          : await ChangeSetRow.query(this.knex).findOne({ projectId, revision: target });
      if (row === undefined) return { ok: false as const, nothing: true as const, problems: [] as [] };
      const changes = row.changes as Change[];
      const wish: Wish =
        direction === 'undo'
          ? { id, changes: invert(changes), sentence: `Undid: ${row.sentence}`, undoes: row.revision }
          : { id, changes, sentence: `Redid: ${row.sentence}`, redoes: row.revision };
      return this.writeNow(projectId, author, wish, await this.current(projectId));
    });
  }
}
