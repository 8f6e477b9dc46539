import { contract, lanes, type DoneByJob, type Job, type Lane } from '@visograph/api';
import { newId } from '@visograph/core/model';
import type { Knex } from 'knex';
import { raw } from 'objection';
import { JobRow } from '../database/rows.ts';
import { authorise } from '../http/authorise.ts';
import { lineOf } from '../http/meant.ts';
import { notFound, problemDocument, Refusal } from '../http/problem.ts';
import type { ProjectStore } from '../store/projectStore.ts';
import { isDoneByJob, laneOf } from './jobNames.ts';
import { jobChannel, type JobNote } from './messages.ts';
import type { JobQueue } from './queue.ts';

/** What is asked of a job. */
export interface Ask {
  call: DoneByJob;
  accountId: string;
  projectId: string | null;
  params: Record<string, string>;
  query: Record<string, string>;
  body: Uint8Array | null;
}

/** What a call that was a job answers: JSON where it has no name. */
export interface JobResult {
  bytes: Buffer;
  type: string;
  name: string | null;
}

/** More unfinished jobs of one person than this are refused. */
const mostOfOne = 30;
/** A job that ended its process or its server so often is not tried again. */
const mostTries = 3;
const keptFor = '1 hour';
const told = ['id', 'accountId', 'projectId', 'call', 'lane', 'state', 'done', 'of', 'madeAt', 'refusal'];
const begun = ['running', 'writing'];
const unfinished = ['held', 'queued', ...begun];
const unstarted = new Set<JobRow['state']>(['held', 'queued']);

const shownState = ({ state }: JobRow): Job['state'] =>
  state === 'held' || state === 'queued' ? 'waiting' : state;

/**
 * The jobs that people asked for, as the database keeps them. Of each person one of each lane is in the queue; the
 * others are held until it has ended, so that nobody waits for all of another's. Whatever happens to a job is told to
 * all servers on the database.
 */
export class JobBook {
  constructor(
    private readonly knex: Knex,
    private readonly queue: JobQueue,
    private readonly store: ProjectStore,
  ) {}

  private async note(knex: Knex, row: JobRow): Promise<void> {
    const { id, accountId, done, of } = row;
    const note: JobNote = { job: id, accountId, done, of, state: shownState(row) };
    await knex.raw('SELECT pg_notify(?, ?)', [jobChannel, JSON.stringify(note)]);
  }

  /** Whoever adds or ends a job of a person in a lane waits for others who do. */
  private async inTurn(transaction: Knex.Transaction, accountId: string, lane: Lane): Promise<void> {
    const key = `${accountId} ${lane}`;
    await transaction.raw('SELECT pg_advisory_xact_lock(hashtextextended(?, 7136406))', [key]);
  }

  /** @returns the id of the job @throws Refusal where the person has too many already */
  async begin({ call, accountId, projectId, params, query, body }: Ask): Promise<string> {
    const lane: Lane = laneOf(call);
    const id = newId();
    await this.knex.transaction(async (transaction) => {
      await this.inTurn(transaction, accountId, lane);
      const before = await JobRow.query(transaction)
        .where({ accountId, lane })
        .whereIn('state', unfinished)
        .resultSize();
      if (before >= mostOfOne)
        throw new Refusal(
          429,
          'Too much at once',
          `${before} of your jobs wait or run already. Wait for some of them, or stop them.`,
        );
      const state = before === 0 ? 'queued' : 'held';
      const row = await JobRow.query(transaction)
        .insert({
          ...{ id, accountId, projectId, call, lane, state, asked: { params, query } },
          input: body === null ? null : Buffer.from(body.buffer, body.byteOffset, body.byteLength),
        })
        .returning(told);
      if (state === 'queued') await this.queue.send(transaction, lane, id);
      await this.note(transaction, row);
    });
    return id;
  }

  private async own(accountId: string, id: string): Promise<JobRow> {
    const row = await JobRow.query(this.knex).select(told).findById(id).where({ accountId });
    if (row === undefined) throw notFound('This job');
    return row;
  }

  private async described(row: JobRow): Promise<Job> {
    const { id, call, done, of, refusal, madeAt, lane } = row;
    const before = JobRow.query(this.knex).where({ lane }).whereIn('state', unfinished);
    const ahead = unstarted.has(row.state) ? await before.where('madeAt', '<', madeAt).resultSize() : 0;
    return { id, call, state: shownState(row), done, of, ahead, madeAt: madeAt.toISOString(), refusal };
  }

  /** A job of the person. @throws Refusal 404 */
  async of(accountId: string, id: string): Promise<Job> {
    return this.described(await this.own(accountId, id));
  }

  /** The jobs of the person, the newest first. */
  async list(accountId: string): Promise<Job[]> {
    const rows = await JobRow.query(this.knex)
      .select(told)
      .where({ accountId })
      .orderBy('madeAt', 'desc')
      .limit(100);
    return Promise.all(rows.map((row) => this.described(row)));
  }

  /** Whether it has ended, or is forgotten. */
  async isOver(id: string): Promise<boolean> {
    const row = await JobRow.query(this.knex).select('state').findById(id);
    return row === undefined || !unfinished.includes(row.state);
  }

  /** What came of it. @throws Refusal: why it failed, or that it is not done */
  async result(accountId: string, id: string): Promise<JobResult> {
    const row = await JobRow.query(this.knex)
      .select(...told, 'asked', 'result', 'resultType', 'resultName')
      .findById(id)
      .where({ accountId });
    if (row === undefined || !isDoneByJob(row.call)) throw notFound('This job');
    const endpoint = contract[row.call];
    // Who may no longer see the project does not see what was made of it either.
    await authorise(endpoint, { accountId, projectId: row.projectId ?? '' }, this.knex);
    if (row.refusal !== null) {
      const { status, title, detail, problems } = row.refusal;
      throw new Refusal(status, title, detail, problems);
    }
    if (row.state === 'cancelled')
      throw new Refusal(410, 'Stopped', 'This job was stopped; nothing was written.');
    if (row.state !== 'done' || row.result === null)
      throw new Refusal(409, 'Not done yet', 'This job is not done yet. Ask for it once it is.');
    // What it wrote is there for whoever asks next.
    if ('network' in endpoint && endpoint.network === 'write' && row.projectId !== null)
      await this.store.refresh(row.projectId, lineOf(row.asked.query['plan'] ?? null));
    return { bytes: row.result, type: row.resultType ?? 'application/json', name: row.resultName };
  }

  /** Stops a job of the person, or forgets its result. @throws Refusal 409 while it is writing */
  async stop(accountId: string, id: string): Promise<void> {
    const row = await this.own(accountId, id);
    if (!unfinished.includes(row.state)) {
      await JobRow.query(this.knex).deleteById(id);
      return;
    }
    if (!(await this.end(row.lane, id, { state: 'cancelled' }, ['held', 'queued', 'running'])))
      throw new Refusal(
        409,
        'It is being written',
        'It is being written at this moment and cannot be stopped. Take it back with Undo once it is done.',
      );
  }

  /** The next job of a lane, which is this server's from now on; null: none waits. */
  async take(lane: Lane, server: string): Promise<string | null> {
    for (;;) {
      // Taken from the queue and marked in one: a server that ends in between has taken nothing.
      const { id, taken } = await this.knex.transaction(async (transaction) => {
        const next = await this.queue.fetch(transaction, lane);
        if (next === null) return { id: null, taken: false };
        const [row] = await JobRow.query(transaction)
          .patch({ state: 'running', server, tries: raw('tries + 1') })
          .where({ id: next, state: 'queued' })
          .returning(told);
        if (row !== undefined) await this.note(transaction, row);
        return { id: next, taken: row !== undefined };
      });
      if (id === null || taken) return id;
      // Stopped while it waited.
      await this.queue.complete(lane, id);
    }
  }

  async progressed(id: string, done: number, of: number): Promise<void> {
    const [row] = await JobRow.query(this.knex)
      .patch({ done, of })
      .where({ id })
      .whereIn('state', begun)
      .returning(told);
    if (row !== undefined) await this.note(this.knex, row);
  }

  /** Its process wrote what came of it: the person's next one takes its place. */
  async ended(lane: Lane, id: string): Promise<void> {
    await this.end(lane, id, {}, unfinished);
  }

  async fail(lane: Lane, id: string, refusal: Refusal): Promise<void> {
    await this.end(lane, id, { state: 'failed', refusal: problemDocument(refusal, id) }, unfinished);
  }

  private async end(
    lane: Lane,
    id: string,
    outcome: Partial<Pick<JobRow, 'state' | 'refusal'>>,
    from: readonly string[],
  ): Promise<boolean> {
    const known = await JobRow.query(this.knex).select('accountId').findById(id);
    if (known === undefined) {
      // Whoever asked has its result and has forgotten it already, before its process told that it is done.
      await this.promoteLeft(lane);
      await this.queue.complete(lane, id);
      return false;
    }
    const { accountId } = known;
    const closed = await this.knex.transaction(async (transaction) => {
      await this.inTurn(transaction, accountId, lane);
      if (outcome.state !== undefined) {
        const patched = await JobRow.query(transaction)
          .patch({ ...outcome, input: null, endedAt: new Date() })
          .where({ id })
          .whereIn('state', [...from]);
        if (patched === 0) return false;
      }
      await this.promote(transaction, accountId, lane);
      const row = await JobRow.query(transaction).select(told).findById(id);
      if (row !== undefined) await this.note(transaction, row);
      return true;
    });
    if (closed) await this.queue.complete(lane, id);
    return closed;
  }

  /** The person's next job of the lane goes into the queue, where none of theirs is in it. */
  private async promote(transaction: Knex.Transaction, accountId: string, lane: Lane): Promise<void> {
    const rows = await JobRow.query(transaction)
      .select(told)
      .where({ accountId, lane })
      .whereIn('state', unfinished)
      .orderBy(['madeAt', 'id']);
    const [next] = rows;
    if (next === undefined || rows.some(({ state }) => state !== 'held')) return;
    await JobRow.query(transaction).patch({ state: 'queued' }).where({ id: next.id });
    await this.queue.send(transaction, lane, next.id);
    await this.note(transaction, next);
  }

  /** Of each person of whom jobs are held and none is under way, the first one goes into the queue. */
  private async promoteLeft(lane: Lane): Promise<void> {
    const left = await JobRow.query(this.knex)
      .distinct('accountId')
      .where({ lane, state: 'held' })
      .whereNotExists(
        JobRow.query(this.knex)
          .alias('other')
          .whereColumn('other.accountId', 'job.accountId')
          .where({ 'other.lane': lane })
          .whereIn('other.state', ['queued', ...begun]),
      )
      .orderBy('accountId');
    for (const { accountId } of left)
      await this.knex.transaction(async (transaction) => {
        await this.inTurn(transaction, accountId, lane);
        await this.promote(transaction, accountId, lane);
      });
  }

  /** Jobs of servers that are gone, of which no session of their name is left, and those that one of them let wait. */
  async recover(): Promise<void> {
    const { knex } = this;
    for (const lane of lanes) await this.promoteLeft(lane);
    const lost = await JobRow.query(knex)
      .select('id', 'lane')
      .whereIn('state', begun)
      .whereNotExists((found) => {
        void found.from('pg_stat_activity').whereRaw('application_name = job.server').select(knex.raw('1'));
      });
    for (const { id, lane } of lost) await this.again(lane, id);
  }

  /** Nobody works at it any more: it is queued again, or given up where it ended several servers or processes. */
  async again(lane: Lane, id: string): Promise<void> {
    const queued = await this.knex.transaction(async (transaction) => {
      const [row] = await JobRow.query(transaction)
        .patch({ state: 'queued', server: null, done: 0, of: 0 })
        .where({ id })
        .where('tries', '<', mostTries)
        .whereIn('state', begun)
        .returning(told);
      if (row === undefined) return false;
      await this.queue.again(transaction, lane, id);
      await this.note(transaction, row);
      return true;
    });
    if (queued) return;
    const detail = `What works at it ended ${mostTries} times. It is not tried again; nothing was written.`;
    await this.fail(lane, id, new Refusal(503, 'Given up', detail));
  }

  /** What ended an hour ago is forgotten. */
  async prune(): Promise<void> {
    await this.knex.raw(`DELETE FROM job WHERE ended_at < now() - interval '${keptFor}'`);
  }
}
