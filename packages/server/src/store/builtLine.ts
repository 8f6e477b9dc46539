import {
  applyChanges,
  invert,
  replaying,
  undoStacks,
  type Change,
  type JournalEntry,
} from '@visograph/core/change';
import { newId, type Network } from '@visograph/core/model';
import type { Knex } from 'knex';
import { LRUCache } from 'lru-cache';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { ProjectRow } from '../database/rows.ts';
import { sqlState } from '../database/away.ts';
import { problemFromDatabase } from './databaseProblems.ts';
import {
  asBuilt,
  type Author,
  type Journal,
  type LineOf,
  type UndoResult,
  type Wish,
  type Written,
} from './journal.ts';
import { Moments } from './moments.ts';
import type { Snapshot } from './snapshot.ts';
import { noteSheetChanges } from './sheetChanges.ts';
import { loadNetwork, writeRows } from './rowsIO.ts';
import { Turns } from './turns.ts';

/** A network as it was. */
export interface Moment {
  network: Network;
  /** The revision of as built that a plan stood on then; null for as built itself. */
  base: number | null;
}

/** Whoever is told what became of a line. */
export interface LineListener {
  entry: (projectId: string, entry: JournalEntry) => void;
  /** Another server wrote into a line that is not in memory here. */
  unread: (projectId: string, line: string | null) => void;
}

/** A wish that waits for its turn. */
interface Waiting {
  author: Author;
  wish: Wish;
  resolve: (written: Written) => void;
  reject: (error: unknown) => void;
}
/** Wishes of more changes than this go alone, so that nobody else's waits for them. */
const mostTogether = 200;

/** An entry of more changes than this is written while others go on writing. */
const mostAtOnce = 2000;

/** Deadlock and serialisation failure (PostgreSQL, appendix A), and how often one wish is tried again for it. */
const inTheWay = new Set(['40P01', '40001']);
const mostLocked = 5;

/** A wish with what it comes to over the network of a revision. */
interface Judged {
  author: Author;
  wish: Wish;
  changes: Change[];
  network: Network;
  base: number;
}
/** What stands once a wish is written: also what others wrote while that was done. */
interface Landed {
  network: Network;
  told: JournalEntry[];
}
/** What others wrote meanwhile does not go with what was being written. */
class Overtaken extends Error {}

interface Followed {
  network: Network;
  entry: JournalEntry;
}

const lineOf = (projectId: string): LineOf => ({ projectId, line: asBuilt });

/**
 * The line of history that the tables hold: a network per project in memory, kept current by the journal. A write is
 * judged on the newest network, then rows and journal go into one transaction, then everybody is told.
 */
export class BuiltLine {
  /** The networks that were used last, as many as there is room for. */
  private readonly cache: LRUCache<string, Snapshot>;
  private readonly turns = new Turns();
  private readonly waiting = new Map<string, Waiting[]>();
  private readonly moments: Moments;

  constructor(
    private readonly knex: Knex,
    private readonly journal: Journal,
    private readonly listener: LineListener,
    mostRows: number,
  ) {
    this.cache = new LRUCache({
      maxSize: mostRows,
      // One that is larger than all the room is kept alone.
      sizeCalculation: ({ network }) => Math.min(mostRows, Math.max(1, network.size)),
      dispose: (_snapshot, projectId, reason) => {
        if (reason === 'evict') this.moments.forget(projectId);
      },
    });
    this.moments = new Moments(journal);
  }

  async read(projectId: string): Promise<Snapshot> {
    return this.cache.get(projectId) ?? this.turns.take(projectId, () => this.current(projectId));
  }

  /**
   * The newest network for a person, whichever server wrote it. While an entry of very many changes is still to be
   * followed, what is in memory does, as long as it holds all that the person wrote.
   */
  async readFor(projectId: string, accountId: string): Promise<Snapshot> {
    const known = this.cache.get(projectId);
    if (known === undefined) return this.read(projectId);
    const { newest, own } = await this.journal.reached(projectId, accountId);
    if (known.revision >= newest) return this.read(projectId);
    const missing = await this.journal.revisionsAfter(lineOf(projectId), known.revision);
    const following = this.refresh(projectId);
    if (own > known.revision || !missing.some(({ large }) => large)) await following;
    else following.catch(() => undefined);
    return this.read(projectId);
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
        return { network, revision: project.revision };
      },
      { isolationLevel: 'repeatable read', readOnly: true },
    );
    this.cache.set(projectId, snapshot);
    // Whoever waits for the project is answered first; the first edit finds its indexes built.
    setImmediate(() => snapshot.network.warm(['device', 'cable', 'leg', 'circuit']));
    return snapshot;
  }

  /** Applies what other servers wrote since; reloads where that cannot be followed. */
  private async catchUp(projectId: string, known: Snapshot): Promise<Snapshot> {
    const project = await ProjectRow.query(this.knex).findById(projectId).throwIfNotFound();
    if (project.revision === known.revision) return known;
    // The database was put back to an earlier state: what is in memory never was, as far as it knows.
    if (project.revision < known.revision) {
      this.moments.forget(projectId);
      const earlier = await this.load(projectId);
      this.listener.unread(projectId, asBuilt);
      return earlier;
    }
    let snapshot = known;
    for (const { revision, large } of await this.journal.revisionsAfter(lineOf(projectId), known.revision)) {
      const next = large
        ? await this.followSlowly(projectId, snapshot, revision)
        : await this.follow(projectId, snapshot, revision);
      if (next === null) return this.load(projectId);
      snapshot = { network: next.network, revision };
      this.cache.set(projectId, snapshot);
      this.listener.entry(projectId, next.entry);
    }
    return snapshot;
  }

  private async follow(projectId: string, known: Snapshot, revision: number): Promise<Followed | null> {
    const entry = await this.journal.at(lineOf(projectId), revision);
    if (entry === null) return null;
    const applied = applyChanges(known.network, entry.changes);
    return applied.ok ? { network: applied.network, entry } : null;
  }

  /** An entry of many changes is read and made in pieces: whoever only reads is answered in between. */
  private async followSlowly(projectId: string, known: Snapshot, revision: number): Promise<Followed | null> {
    const entry = await this.journal.withoutChanges(lineOf(projectId), revision);
    if (entry === null) return null;
    const changes: Change[] = [];
    for await (const some of this.journal.changesOf(lineOf(projectId), revision))
      for (const one of some) changes.push(one);
    const steps = replaying(known.network, changes);
    let step = steps.next();
    for (; step.done !== true; step = steps.next()) await nextTurn();
    return step.value === null ? null : { network: step.value, entry: { ...entry, changes } };
  }

  /** What is in memory is what the database holds now. */
  async refresh(projectId: string): Promise<void> {
    await this.turns.take(projectId, () => this.current(projectId));
  }

  /** Another server wrote: bring the cache up to date and tell our own clients. */
  async notice(projectId: string): Promise<void> {
    if (this.cache.has(projectId)) await this.turns.take(projectId, () => this.current(projectId));
    else this.listener.unread(projectId, asBuilt);
  }

  get rowsInMemory(): number {
    return this.cache.calculatedSize;
  }

  /** The projects that are in memory. */
  known(): string[] {
    return [...this.cache.keys()];
  }

  forget(projectId: string): void {
    this.cache.delete(projectId);
    this.moments.forget(projectId);
  }

  /** Judged and written in turn; what waits while a transaction is under way goes into the next one together. */
  write(projectId: string, author: Author, wish: Wish): Promise<Written> {
    return new Promise((resolve, reject) => {
      const waiting = this.waiting.get(projectId) ?? [];
      waiting.push({ author, wish, resolve, reject });
      this.waiting.set(projectId, waiting);
      void this.turns.take(projectId, () => this.writeWaiting(projectId));
    });
  }

  private async writeWaiting(projectId: string): Promise<void> {
    const waiting = this.waiting.get(projectId) ?? [];
    this.waiting.delete(projectId);
    const written = waiting.length > 1 ? await this.writeTogether(projectId, waiting) : new Set<Waiting>();
    for (const one of waiting) {
      if (written.has(one)) continue;
      try {
        const start = this.cache.get(projectId) ?? (await this.load(projectId));
        one.resolve(await this.writeNow(projectId, one.author, one.wish, start));
      } catch (error) {
        one.reject(error);
      }
    }
  }

  /**
   * Several wishes in one transaction, each with a revision and an entry of its own, in the order in which they came.
   * One that is refused is left out, and all of them are where the database refuses: each is then tried alone.
   */
  private async writeTogether(projectId: string, waiting: readonly Waiting[]): Promise<Set<Waiting>> {
    const none = new Set<Waiting>();
    try {
      const start = this.cache.get(projectId) ?? (await this.load(projectId));
      let { network } = start;
      const accepted: { one: Waiting; changes: Change[] }[] = [];
      const ids = new Set<string>();
      for (const one of waiting) {
        if (ids.has(one.wish.id) || one.wish.changes.length > mostTogether) continue;
        const applied = applyChanges(network, one.wish.changes);
        if (!applied.ok) continue;
        ids.add(one.wish.id);
        network = applied.network;
        accepted.push({ one, changes: applied.changes });
      }
      if (accepted.length < 2) return none;
      const entries = await this.knex.transaction((transaction) =>
        this.commit(
          transaction,
          projectId,
          start.revision,
          accepted.map(({ one, changes }) => ({ ...one, changes })),
        ),
      );
      if (entries === null) return none;
      const revision = entries.at(-1)?.revision ?? start.revision;
      this.cache.set(projectId, { network, revision });
      entries.forEach((entry, at) => {
        this.listener.entry(projectId, entry);
        accepted[at]?.one.resolve({ ok: true, entry });
      });
      return new Set(accepted.map(({ one }) => one));
    } catch {
      return none;
    }
  }

  private async writeNow(projectId: string, author: Author, wish: Wish, start: Snapshot): Promise<Written> {
    let snapshot = start;
    for (let locked = 0; ;) {
      const applied = applyChanges(snapshot.network, wish.changes);
      if (!applied.ok)
        return (
          (await this.journal.settled(lineOf(projectId), wish)) ??
          this.retry(projectId, author, wish, snapshot, applied)
        );
      const judged = { author, wish, ...applied, base: snapshot.revision };
      try {
        const landed = await this.knex
          .transaction((transaction) =>
            applied.changes.length > mostAtOnce
              ? this.land(transaction, projectId, judged)
              : this.put(transaction, projectId, judged),
          )
          .catch((error: unknown) => {
            if (error instanceof Overtaken) return null;
            throw error;
          });
        if (landed !== null) {
          const { network, told } = landed;
          const entry = told.at(-1);
          if (entry === undefined) throw new Error('an entry is missing');
          this.cache.set(projectId, { network, revision: entry.revision });
          for (const one of told) this.listener.entry(projectId, one);
          return { ok: true, entry };
        }
      } catch (error) {
        const settled = await this.journal.settled(lineOf(projectId), wish);
        if (settled !== null) return settled;
        const problem = problemFromDatabase(error);
        // Two that waited for each other: the database ended one of them, which is judged anew and made after the other.
        const again = problem === null && inTheWay.has(sqlState(error)) && locked++ < mostLocked;
        if (problem === null && !again) throw error;
        if (problem !== null) {
          this.cache.delete(projectId);
          return { ok: false, problems: [problem] };
        }
      }
      snapshot = await this.catchUp(projectId, snapshot);
    }
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

  private async put(
    transaction: Knex.Transaction,
    projectId: string,
    { network, base, ...one }: Judged,
  ): Promise<Landed | null> {
    const entries = await this.commit(transaction, projectId, base, [one]);
    return entries === null ? null : { network, told: entries };
  }

  /**
   * Writes many rows while others go on writing: rows and journal first, then what the others wrote meanwhile is judged
   * on top of it, which comes to the same network as long as no row is in both. Only for that moment do the others wait.
   *
   * @throws Overtaken where both do not fit: all of it is then judged anew
   */
  private async land(
    transaction: Knex.Transaction,
    projectId: string,
    { author, wish, changes, network, base }: Judged,
  ): Promise<Landed> {
    const of = lineOf(projectId);
    await writeRows(transaction, projectId, changes);
    await this.journal.stage(transaction, of, { author, wish, changes });
    // Judged by the database now, while nobody waits.
    await transaction.raw('SET CONSTRAINTS ALL IMMEDIATE');
    await ProjectRow.query(transaction).select('id').findById(projectId).forNoKeyUpdate();
    const own = new Set(changes.map(({ kind, id }) => `${kind} ${id}`));
    const meanwhile = await this.journal.after(of, base);
    let both = network;
    for (const entry of meanwhile) {
      if (entry.changes.some(({ kind, id }) => own.has(`${kind} ${id}`))) throw new Overtaken();
      const applied = applyChanges(both, entry.changes);
      if (!applied.ok) throw new Overtaken();
      both = applied.network;
    }
    const revision = base + meanwhile.length + 1;
    await ProjectRow.query(transaction).patch({ revision }).where({ id: projectId });
    const at = await this.journal.settle(transaction, of, wish.id, revision);
    const { undoes = null, redoes = null } = wish;
    const entry: JournalEntry = {
      ...{ id: wish.id, revision, author: author.name, at, line: asBuilt, base: null },
      ...{ sentence: wish.sentence, changes, undoes, redoes },
    };
    await noteSheetChanges(transaction, projectId, [entry]);
    return { network: both, told: [...meanwhile, entry] };
  }

  /** Rows, journal and notification in one transaction; null when another server was first. */
  private async commit(
    transaction: Knex.Transaction,
    projectId: string,
    base: number,
    wishes: readonly { author: Author; wish: Wish; changes: Change[] }[],
  ): Promise<JournalEntry[] | null> {
    const moved = await ProjectRow.query(transaction)
      .patch({ revision: base + wishes.length })
      .where({ id: projectId, revision: base });
    if (moved === 0) return null;
    await writeRows(
      transaction,
      projectId,
      wishes.flatMap(({ changes }) => changes),
    );
    const entries = await this.journal.append(
      transaction,
      lineOf(projectId),
      wishes.map((one, at) => ({ ...one, revision: base + 1 + at, base: null })),
    );
    await noteSheetChanges(transaction, projectId, entries);
    return entries;
  }

  /** Takes back, or makes again, the person's own latest step. */
  step(
    projectId: string,
    author: Author & { id: string },
    direction: 'undo' | 'redo',
    id: string = newId(),
  ): Promise<UndoResult> {
    return this.turns.take(projectId, async () => {
      // Sent once more, it is that step still and no further one.
      const settled = await this.journal.settled(lineOf(projectId), { id });
      if (settled !== null) return settled;
      const notes = await this.journal.notes(lineOf(projectId), author.id);
      const target = undoStacks(notes)[direction].at(-1);
      const row = target === undefined ? null : await this.journal.at(lineOf(projectId), target);
      if (row === null) return { ok: false, nothing: true, problems: [] };
      const { changes } = row;
      const wish: Wish =
        direction === 'undo'
          ? { id, changes: invert(changes), sentence: `Undid: ${row.sentence}`, undoes: row.revision }
          : { id, changes, sentence: `Redid: ${row.sentence}`, redoes: row.revision };
      return this.writeNow(projectId, author, wish, await this.current(projectId));
    });
  }
}
