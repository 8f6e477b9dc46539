import type { Knex } from 'knex';
import { z } from 'zod';
import { BuiltLine, type LineListener, type Moment } from './builtLine.ts';
import type { Change } from '@visograph/core/change';
import type { Snapshot } from './snapshot.ts';
import {
  asBuilt,
  Journal,
  type Author,
  type HistoryLine,
  type HistoryWish,
  type UndoResult,
  type Wish,
  type Written,
} from './journal.ts';
import { PlanLines, type PlanSnapshot } from '../plans/planLines.ts';
import { Plans } from '../plans/plans.ts';

export type { Snapshot } from './snapshot.ts';
export {
  asBuilt,
  type Author,
  type HistoryLine,
  type UndoResult,
  type Wish,
  type Written,
} from './journal.ts';
/** On which servers tell each other what they wrote. */
export const storeChannel = 'visograph';
const noteSchema = z.object({ projectId: z.string(), line: z.string().nullable(), instance: z.string() });
/** Rows of networks that are kept in memory, all projects together: about a kilobyte each. */
const usualRows = 2_000_000;

/**
 * The one way to read and write model data, by project and line of history: as built, which the tables hold, or a
 * plan, which the journal holds alone. A write is judged on the newest network of its line, written in one
 * transaction, then told to everybody.
 */
export class ProjectStore {
  private readonly listeners = new Set<LineListener>();
  private readonly built: BuiltLine;
  private readonly lines: PlanLines;
  private readonly journal: Journal;
  readonly plans: Plans;

  constructor(
    knex: Knex,
    channel: string,
    private readonly instance: string,
    mostRows = usualRows,
  ) {
    const listener: LineListener = {
      entry: (projectId, entry) => this.listeners.forEach((one) => one.entry(projectId, entry)),
      unread: (projectId, line) => this.listeners.forEach((one) => one.unread(projectId, line)),
    };
    this.journal = new Journal(knex, channel, instance);
    this.built = new BuiltLine(knex, this.journal, listener, mostRows);
    this.lines = new PlanLines(knex, this.journal, this.built, listener);
    this.plans = new Plans(knex, this.journal, this.built, this.lines);
  }

  /** Hears of every entry of every line, each in order. */
  listen(listener: LineListener): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** The newest network of a line. @throws LineProblem where there is no such plan, or it was thrown away */
  async read(projectId: string, line: string | null = asBuilt): Promise<Snapshot> {
    return line === asBuilt ? this.built.read(projectId) : this.lines.read({ projectId, line });
  }

  /**
   * The newest network of a line for a person: never older than what they wrote, at whatever server.
   *
   * @throws LineProblem
   */
  async readFor(
    accountId: string,
    projectId: string,
    line: string | null,
  ): Promise<Snapshot & { base: Snapshot | null }> {
    const base = await this.built.readFor(projectId, accountId);
    if (line === asBuilt) return { ...base, base: null };
    await this.lines.refresh({ projectId, line });
    return this.lines.read({ projectId, line });
  }

  /** A plan with what it stands on, and where the two contradict each other. @throws LineProblem */
  async readPlan(projectId: string, line: string): Promise<PlanSnapshot> {
    return this.lines.read({ projectId, line });
  }

  /** A line as it was at a revision, from 1 to its newest; a plan over as built of that moment. @throws LineProblem */
  async at(projectId: string, line: string | null, revision: number): Promise<Moment> {
    return line === asBuilt
      ? { network: await this.built.at(projectId, revision), base: null }
      : this.lines.at({ projectId, line }, revision);
  }

  /** @throws LineProblem */
  write(projectId: string, line: string | null, author: Author, wish: Wish): Promise<Written> {
    return line === asBuilt
      ? this.built.write(projectId, author, wish)
      : this.lines.write({ projectId, line }, author, wish);
  }

  /** Takes back, or makes again, the person's own latest step in a line. @throws LineProblem */
  step(
    projectId: string,
    line: string | null,
    author: Author & { id: string },
    direction: 'undo' | 'redo',
    id?: string,
  ): Promise<UndoResult> {
    return line === asBuilt
      ? this.built.step(projectId, author, direction, id)
      : this.lines.step({ projectId, line }, author, direction, id);
  }

  /** Whether what `step` would take back or make again is a large entry. */
  isNextStepLarge(
    projectId: string,
    line: string | null,
    accountId: string,
    direction: 'undo' | 'redo',
  ): Promise<boolean> {
    return this.journal.isNextStepLarge({ projectId, line }, accountId, direction);
  }

  /** Rows of networks that are kept in memory. */
  get rowsInMemory(): number {
    return this.built.rowsInMemory;
  }

  /** The changes of the entries in (from, to], oldest first. */
  changes(projectId: string, line: string | null, from: number, to: number): Promise<Change[][]> {
    return this.journal.changes({ projectId, line }, from, to);
  }

  /** What a line wrote, as it is read by people. */
  history(projectId: string, line: string | null, wish: HistoryWish): Promise<HistoryLine[]> {
    return this.journal.lines({ projectId, line }, wish);
  }

  /** Brings what is in memory up to date with the database: for whoever knows that somebody wrote. @throws LineProblem */
  async refresh(projectId: string, line: string | null): Promise<void> {
    await this.built.refresh(projectId);
    if (line !== asBuilt) await this.lines.refresh({ projectId, line });
  }

  /** Told by a server on the same database: it wrote. */
  async heard(note: unknown): Promise<void> {
    const { projectId, line, instance } = noteSchema.parse(note);
    if (instance !== this.instance) await this.notice(projectId, line);
  }

  /** Another server wrote: bring what is in memory up to date and tell our own clients. */
  async notice(projectId: string, line: string | null): Promise<void> {
    await (line === asBuilt ? this.built.notice(projectId) : this.lines.notice({ projectId, line }));
  }

  /** Makes sure nothing is missed after the connection to the database was down. */
  async noticeAll(): Promise<void> {
    for (const projectId of this.built.known()) await this.built.notice(projectId);
    for (const of of this.lines.known()) await this.lines.notice(of);
  }

  forget(projectId: string): void {
    this.built.forget(projectId);
    for (const of of this.lines.known()) if (of.projectId === projectId) this.lines.forget(of);
  }
}
