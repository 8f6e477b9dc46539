import { lanes, type Lane } from '@visograph/api';
import type { Knex } from 'knex';
import type { Logger } from 'pino';
import { Refusal } from '../http/problem.ts';
import type { ProjectStore } from '../store/projectStore.ts';
import { JobBook, type Ask } from './jobBook.ts';
import type { JobNote } from './messages.ts';
import { JobQueue, timeLimits } from './queue.ts';
import { Worker, type WorkerEnd, type WorkerLimits } from './worker.ts';

export interface JobOptions {
  knex: Knex;
  store: ProjectStore;
  databaseUrl: string;
  /** How the session of this server names itself in the database. */
  server: string;
  log: Logger;
  /** Processes that do the jobs of each lane; 0: this server does none of them. */
  workers: Readonly<Record<Lane, number>>;
  limits: WorkerLimits;
  exampleFile: string | null;
}

/** How often it is looked whether something waits that was not told, in milliseconds. */
const beatEvery = 2000;
/** Between two words on how far a job is, in milliseconds. */
const tellEvery = 200;
const endings: ReadonlySet<JobNote['state']> = new Set(['done', 'failed', 'cancelled']);

/**
 * Work outside the web process. Jobs are kept in PostgreSQL and survive a restart. Any server on the database may do
 * them, in processes with limits of memory and time; all of them hear how they get on.
 */
export class Jobs {
  readonly book: JobBook;
  private readonly queue: JobQueue;
  private readonly workers: { lane: Lane; worker: Worker }[];
  private readonly waiting = new Map<string, Set<() => void>>();
  private readonly listeners = new Set<(note: JobNote) => void>();
  private readonly toldAt = new Map<string, number>();
  private pumping = false;
  private again = false;
  private closed = false;
  private pulse: NodeJS.Timeout | null = null;
  private beats = 0;
  private busy: Promise<unknown> = Promise.resolve();

  constructor(private readonly options: JobOptions) {
    this.queue = new JobQueue(options.knex, options.databaseUrl, options.log);
    this.book = new JobBook(options.knex, this.queue, options.store);
    this.workers = lanes.flatMap((lane) =>
      Array.from({ length: options.workers[lane] }, () => ({ lane, worker: this.newWorker(lane) })),
    );
  }

  private newWorker(lane: Lane): Worker {
    const { databaseUrl, limits, log, exampleFile } = this.options;
    const events = {
      told: (job: string, done: number, of: number) => this.behind(this.progressed(job, done, of)),
      ended: (job: string) => this.behind(this.ended(lane, job)),
      gone: (job: string | null, why: WorkerEnd) => {
        if (job !== null) this.behind(this.lost(lane, job, why));
      },
    };
    const env = {
      ...{ DATABASE_URL: databaseUrl, VISOGRAPH_LOG: log.level },
      VISOGRAPH_DEMO: exampleFile ?? '',
      VISOGRAPH_JOB_SECONDS: String(timeLimits[lane]),
    };
    return new Worker(env, limits, events);
  }

  /** Work that nobody waits for: told when it fails, and waited for at the end. */
  private behind(work: Promise<unknown>): void {
    const safe = work.catch((error: unknown) => {
      if (!this.closed) this.options.log.warn({ error: String(error) }, 'jobs');
    });
    this.busy = Promise.all([this.busy, safe]);
  }

  /** Takes up what waits, also from before a restart. Done by itself with the first job. */
  async open(): Promise<void> {
    await this.queue.open();
    if (this.closed || this.pulse !== null) return;
    this.pulse = setInterval(() => this.behind(this.beat()), beatEvery);
    this.pulse.unref();
    await this.beat();
  }

  /** @returns the id of the job @throws Refusal where the person has too many already */
  async begin(ask: Ask): Promise<string> {
    await this.open();
    return this.book.begin(ask);
  }

  onNote(listener: (note: JobNote) => void): void {
    this.listeners.add(listener);
  }

  /** Heard from the database: what this server or another told. */
  heard(note: JobNote): void {
    if (note.state === 'waiting') this.behind(this.pump());
    if (endings.has(note.state)) for (const wake of this.waiting.get(note.job) ?? []) wake();
    // Whatever server it was stopped at.
    if (note.state === 'cancelled')
      for (const { worker } of this.workers) if (worker.current === note.job) worker.kill('stopped');
    for (const listener of this.listeners) listener(note);
  }

  /** Whether the job has ended before so many milliseconds were over. */
  async finished(id: string, ms: number, gone: AbortSignal): Promise<boolean> {
    const until = performance.now() + ms;
    for (;;) {
      if (await this.book.isOver(id)) return true;
      const left = until - performance.now();
      if (left <= 0 || this.closed || gone.aborted) return false;
      // A note that was missed costs a second, no more.
      await this.wakened(id, Math.min(left, 1000), gone);
    }
  }

  private wakened(id: string, ms: number, gone: AbortSignal): Promise<void> {
    return new Promise((resolve) => {
      const all = this.waiting.get(id) ?? new Set();
      const wake = (): void => {
        clearTimeout(timer);
        gone.removeEventListener('abort', wake);
        all.delete(wake);
        if (all.size === 0) this.waiting.delete(id);
        resolve();
      };
      const timer = setTimeout(wake, ms);
      gone.addEventListener('abort', wake);
      all.add(wake);
      this.waiting.set(id, all);
    });
  }

  private async beat(): Promise<void> {
    if (this.beats % 5 === 0) await this.book.recover();
    if (this.beats % 150 === 0) await this.book.prune();
    this.beats++;
    await this.pump();
  }

  /** Gives each free process its next job. */
  private async pump(): Promise<void> {
    this.again = true;
    if (this.pumping || this.pulse === null) return;
    this.pumping = true;
    try {
      while (this.again && !this.closed) {
        this.again = false;
        for (const { lane, worker } of this.workers) if (worker.isFree) await this.feed(lane, worker);
      }
    } finally {
      this.pumping = false;
    }
  }

  private async feed(lane: Lane, worker: Worker): Promise<void> {
    const id = await this.book.take(lane, this.options.server);
    if (id !== null && !this.closed) worker.run(id, timeLimits[lane]);
  }

  private async progressed(id: string, done: number, of: number): Promise<void> {
    const now = performance.now();
    if (now - (this.toldAt.get(id) ?? -tellEvery) < tellEvery) return;
    this.toldAt.set(id, now);
    await this.book.progressed(id, done, of);
  }

  private async ended(lane: Lane, id: string): Promise<void> {
    this.toldAt.delete(id);
    await this.book.ended(lane, id);
    await this.pump();
  }

  private async lost(lane: Lane, id: string, why: WorkerEnd): Promise<void> {
    this.toldAt.delete(id);
    const refusal = this.refusalOf(lane, why);
    if (refusal !== null) await this.book.fail(lane, id, refusal);
    else if (why === 'died') await this.book.again(lane, id);
    await this.pump();
  }

  private refusalOf(lane: Lane, why: WorkerEnd): Refusal | null {
    const parts = 'Nothing was written. Do it in parts.';
    if (why === 'memory') {
      const detail = `It took more than the ${this.options.limits.megabytes} MB that one job may have. ${parts}`;
      return new Refusal(422, 'It takes too much memory', detail);
    }
    if (why === 'time') {
      const detail = `It took longer than the ${timeLimits[lane] / 60} minutes that it may. ${parts}`;
      return new Refusal(422, 'It takes too long', detail);
    }
    return null;
  }

  async close(): Promise<void> {
    this.closed = true;
    if (this.pulse !== null) clearInterval(this.pulse);
    for (const waiters of [...this.waiting.values()]) for (const wake of [...waiters]) wake();
    await Promise.all(this.workers.map(({ worker }) => worker.close()));
    await this.busy;
    await this.queue.close();
  }
}
