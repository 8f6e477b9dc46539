import { applyChanges, diffOf, undoStacks, type Change, type JournalEntry } from '@visograph/core/change';
import {
  reservations,
  standing,
  withPlan,
  type PlanConflict,
  type PlanEntry,
  type Planned,
} from '@visograph/core/lens';
import { newId, type Problem } from '@visograph/core/model';
import type { Knex } from 'knex';
import { LRUCache } from 'lru-cache';
import { LineRow } from '../database/rows.ts';
import type { BuiltLine, LineListener, Moment } from '../store/builtLine.ts';
import type { Snapshot } from '../store/snapshot.ts';
import {
  keyOf,
  type Author,
  type Journal,
  type LineOf,
  type UndoResult,
  type Wish,
  type Written,
} from '../store/journal.ts';
import { problemFromDatabase } from '../store/databaseProblems.ts';
import { LineProblem } from './lineProblem.ts';
import { KeptElsewhere, reserve } from './reserve.ts';
import { Turns } from '../store/turns.ts';

/** A plan in memory: its entries, and the network they come to over as built of one revision. */
export interface PlanSnapshot extends Snapshot {
  base: Snapshot;
  entries: readonly JournalEntry[];
  conflicts: readonly PlanConflict[];
}

/** Plans in memory: each shares with as built all that it does not change. */
const mostPlans = 100;

const keyOfConflict = ({ revision, kind, id, field, code }: PlanConflict): string =>
  `${revision} ${kind} ${id} ${field ?? ''} ${code}`;

/** A wish as the next entry of a plan. */
const notedAs = (before: PlanSnapshot, wish: Wish, changes: Change[]): PlanEntry => ({
  revision: before.revision + 1,
  sentence: wish.sentence,
  changes,
  undoes: wish.undoes ?? null,
  redoes: wish.redoes ?? null,
});

/** The later steps of a plan that would no longer fit with one of its steps taken back or made again. */
function inTheWay(before: PlanSnapshot, planned: Planned, step: JournalEntry, wish: Wish): Problem[] {
  const known = new Set(before.conflicts.map(keyOfConflict));
  const verb = wish.undoes === undefined ? 'made again' : 'taken back';
  return planned.conflicts
    .filter((conflict) => !known.has(keyOfConflict(conflict)))
    .filter(({ revision }) => wish.undoes !== undefined || revision !== step.revision)
    .map(({ revision, sentence, outcome: _outcome, ...problem }) => ({
      ...problem,
      message: `“${step.sentence}” cannot be ${verb}: r${revision} of the plan, “${sentence}”, needs things as they are. ${problem.message}`,
    }));
}

export const absentPlan = (): LineProblem =>
  new LineProblem('absent', 'This plan is not there, or you may not see it.');

/** The plan of a line, or why there is none to work in. */
export function usable(row: LineRow | undefined): LineRow {
  if (row === undefined) throw absentPlan();
  if (row.thrownAwayAt === null) return row;
  const day = row.thrownAwayAt.toISOString().slice(0, 10);
  throw new LineProblem(
    'thrown away',
    `${row.thrownAwayBy ?? 'Somebody'} threw the plan “${row.name}” away on ${day}. Bring it back to work in it.`,
  );
}

/**
 * The lines of history of plans. They are kept in the journal alone and replayed over as built; what they come to is
 * kept in memory for the newest revision of both.
 */
export class PlanLines {
  private readonly cache = new LRUCache<string, PlanSnapshot>({ max: mostPlans });
  private readonly turns = new Turns();

  constructor(
    private readonly knex: Knex,
    private readonly journal: Journal,
    private readonly built: BuiltLine,
    private readonly listener: LineListener,
  ) {}

  async read(of: LineOf): Promise<PlanSnapshot> {
    const base = await this.built.read(of.projectId);
    const known = this.cache.get(keyOf(of));
    if (known?.base.revision === base.revision) return known;
    return this.turns.take(keyOf(of), () => this.onto(of, base));
  }

  /** The plan as it was at one of its revisions, over as built of that moment. */
  async at(of: LineOf, revision: number): Promise<Moment> {
    const now = await this.read(of);
    const entries = now.entries.filter((entry) => entry.revision <= revision);
    const base = entries.at(-1)?.base ?? now.base.revision;
    if (revision === now.revision && base === now.base.revision) return { network: now.network, base };
    const { network } = withPlan(await this.built.at(of.projectId, base), entries);
    return { network, base };
  }

  /** The plan over this state of as built: carried on from memory, or replayed. */
  private async onto(of: LineOf, base: Snapshot): Promise<PlanSnapshot> {
    const known = this.cache.get(keyOf(of));
    if (known?.base.revision === base.revision) return known;
    return this.keep(of, base, known?.entries ?? (await this.loaded(of)));
  }

  private async loaded(of: LineOf): Promise<JournalEntry[]> {
    usable(
      await LineRow.query(this.knex)
        .findById(of.line ?? '')
        .where({ projectId: of.projectId }),
    );
    return this.journal.after(of, 0);
  }

  private keep(of: LineOf, base: Snapshot, entries: readonly JournalEntry[]): PlanSnapshot {
    const { network, conflicts } = withPlan(base.network, entries);
    const snapshot = { base, entries, network, conflicts, revision: entries.at(-1)?.revision ?? 0 };
    this.cache.set(keyOf(of), snapshot);
    return snapshot;
  }

  /** With what other servers wrote since, in the plan and as built. */
  private async current(of: LineOf): Promise<PlanSnapshot> {
    const base = await this.built.read(of.projectId);
    const known = await this.onto(of, base);
    const row = await LineRow.query(this.knex)
      .findById(of.line ?? '')
      .where({ projectId: of.projectId });
    if (row?.revision === known.revision && row.thrownAwayAt === null) return known;
    const more = await this.journal.after(of, known.revision);
    const snapshot = this.keep(of, base, [...known.entries, ...more]);
    for (const entry of more) this.listener.entry(of.projectId, entry);
    if (row === undefined || row.thrownAwayAt !== null) this.forget(of);
    usable(row);
    return snapshot;
  }

  /** What is in memory of a plan is what the database holds now. @throws LineProblem */
  async refresh(of: LineOf): Promise<void> {
    await this.turns.take(keyOf(of), () => this.current(of));
  }

  /** Another server wrote into the plan. One that is not open here is read when it is asked for. */
  async notice(of: LineOf): Promise<void> {
    if (!this.cache.has(keyOf(of))) return this.listener.unread(of.projectId, of.line);
    await this.turns
      .take(keyOf(of), () => this.current(of))
      .catch((error: unknown) => {
        if (!(error instanceof LineProblem)) throw error;
      });
  }

  known(): LineOf[] {
    return [...this.cache.keys()].map((key) => {
      const [projectId = '', line = ''] = key.split(' ');
      return { projectId, line };
    });
  }

  forget(of: LineOf): void {
    this.cache.delete(keyOf(of));
  }

  write(of: LineOf, author: Author, wish: Wish): Promise<Written> {
    return this.turns.take(keyOf(of), async () => {
      let snapshot = await this.onto(of, await this.built.read(of.projectId));
      for (;;) {
        const applied = applyChanges(snapshot.network, wish.changes);
        const written = applied.ok
          ? await this.put(of, author, wish, snapshot, { ...applied, conflicts: snapshot.conflicts })
          : { ok: false as const, problems: applied.problems };
        if (written?.ok === true) return written;
        const settled = await this.journal.settled(of, wish);
        if (settled !== null) return settled;
        const newest = await this.current(of);
        // A refusal stands only against the newest state: somebody may have written since.
        if (written !== null && newest === snapshot) return written;
        snapshot = newest;
      }
    });
  }

  /** Entry, revision and reservations in one transaction; null when another server was first. */
  private async put(
    of: LineOf,
    author: Author,
    wish: Wish,
    before: PlanSnapshot,
    made: Planned & { changes: Change[] },
  ): Promise<Written | null> {
    const noted = notedAs(before, wish, made.changes);
    const { revision } = noted;
    const wanted = reservations(before.base.network, [...before.entries, noted]);
    try {
      const entry = await this.knex.transaction(async (transaction) => {
        const moved = await LineRow.query(transaction)
          .patch({ revision })
          .where({
            id: of.line ?? '',
            projectId: of.projectId,
            revision: before.revision,
            thrownAwayAt: null,
          });
        if (moved === 0) return null;
        await reserve(transaction, of, made.network, wanted);
        const [written] = await this.journal.append(transaction, of, [
          { author, wish, changes: made.changes, revision, base: before.base.revision },
        ]);
        return written ?? null;
      });
      if (entry === null) return null;
      const entries = [...before.entries, entry];
      const { network, conflicts } = made;
      this.cache.set(keyOf(of), { base: before.base, network, conflicts, entries, revision });
      this.listener.entry(of.projectId, entry);
      return { ok: true, entry };
    } catch (error) {
      if (error instanceof KeptElsewhere) return { ok: false, problems: error.problems };
      const settled = await this.journal.settled(of, wish);
      if (settled !== null) return settled;
      const problem = problemFromDatabase(error);
      if (problem === null) throw error;
      return { ok: false, problems: [problem] };
    }
  }

  /**
   * Takes back, or makes again, the person's own latest step in the plan. It is then as if the step had never been, or
   * had always been; refused where later steps of the plan would no longer fit.
   */
  step(
    of: LineOf,
    author: Author & { id: string },
    direction: 'undo' | 'redo',
    id: string = newId(),
  ): Promise<UndoResult> {
    return this.turns.take(keyOf(of), async () => {
      // Sent once more, it is that step still and no further one.
      const settled = await this.journal.settled(of, { id });
      if (settled !== null) return settled;
      for (;;) {
        const before = await this.current(of);
        const target = undoStacks(await this.journal.notes(of, author.id))[direction].at(-1);
        const step = before.entries.find(({ revision }) => revision === target);
        if (step === undefined) return { ok: false, nothing: true, problems: [] };
        const wish: Wish =
          direction === 'undo'
            ? { id, changes: [], sentence: `Undid: ${step.sentence}`, undoes: step.revision }
            : { id, changes: [], sentence: `Redid: ${step.sentence}`, redoes: step.revision };
        const planned = withPlan(before.base.network, [...before.entries, notedAs(before, wish, [])]);
        const problems = inTheWay(before, planned, step, wish);
        if (problems.length > 0) return { ok: false as const, problems };
        const touched = [...standing(before.entries), step].flatMap(({ changes }) => changes);
        const changes = diffOf(before.network, planned.network, touched);
        const written = await this.put(of, author, wish, before, { ...planned, changes });
        if (written !== null) return written;
      }
    });
  }
}
