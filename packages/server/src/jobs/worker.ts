import { fork, type ChildProcess } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { Order, Report } from './messages.ts';

/** What a process that does jobs may take. */
export interface WorkerLimits {
  /** Megabytes of memory, all counted. */
  megabytes: number;
}

/** Why a process is gone. */
export type WorkerEnd = 'memory' | 'time' | 'stopped' | 'died';

export interface WorkerEvents {
  told: (job: string, done: number, of: number) => void;
  ended: (job: string) => void;
  /** The process is gone; the job that it had, if any, is nobody's now. */
  gone: (job: string | null, why: WorkerEnd) => void;
}

/** The bundle of jobProcess.ts: beside the server's own, or named by who runs the sources as they are. */
const workerFile = (): string =>
  process.env['VISOGRAPH_JOB_PROCESS'] ?? fileURLToPath(new URL('./jobProcess.mjs', import.meta.url));

const pageBytes = 4096;
/** A process that holds more than this share of what a job may take is not used for another. */
const keptShare = 0.35;
/** The memory that a process holds, in megabytes; 0 where the system does not tell. */
async function memoryOf(pid: number): Promise<number> {
  const text = await readFile(`/proc/${pid}/statm`, 'utf8').catch(() => '');
  return (Number(text.split(' ')[1] ?? 0) * pageBytes) / 1024 / 1024;
}

/**
 * A process that does one job after the other, started with the first. What takes more memory or time than it may is
 * ended with its process; the next job gets a new one.
 */
export class Worker {
  private child: ChildProcess | null = null;
  private job: string | null = null;
  private why: WorkerEnd = 'died';
  private clock: NodeJS.Timeout | null = null;
  private watch: NodeJS.Timeout | null = null;

  constructor(
    /** What the process is told by its environment. */
    private readonly env: Readonly<Record<string, string>>,
    private readonly limits: WorkerLimits,
    private readonly events: WorkerEvents,
  ) {}

  get isFree(): boolean {
    return this.job === null;
  }
  get current(): string | null {
    return this.job;
  }

  run(job: string, seconds: number): void {
    this.job = job;
    this.child ??= this.start();
    this.child.send({ run: job } satisfies Order, (error) => {
      if (error !== null) this.child?.kill('SIGKILL');
    });
    this.clock = setTimeout(() => this.kill('time'), seconds * 1000);
    this.watch = setInterval(() => void this.weigh(), 250);
  }

  private async weigh(): Promise<void> {
    const pid = this.child?.pid;
    if (pid === undefined || (await memoryOf(pid)) <= this.limits.megabytes) return;
    if (this.child?.pid === pid && this.job !== null) this.kill('memory');
  }

  /** What a large job leaves in memory would be counted as the next one's: that one gets a new process. */
  private async renew(child: ChildProcess): Promise<void> {
    const kept = await memoryOf(child.pid ?? 0);
    if (kept <= this.limits.megabytes * keptShare || this.child !== child) return;
    this.child = null;
    child.kill('SIGKILL');
  }

  /** Ends the process and what it does. */
  kill(why: WorkerEnd): void {
    this.why = why;
    this.child?.kill('SIGKILL');
  }

  private rest(): void {
    this.job = null;
    if (this.clock !== null) clearTimeout(this.clock);
    if (this.watch !== null) clearInterval(this.watch);
  }

  private start(): ChildProcess {
    const child = fork(workerFile(), [], {
      // The heap ends the process before the system has to; the rest is room for files and pictures.
      execArgv: ['--enable-source-maps', `--max-old-space-size=${Math.round(this.limits.megabytes * 0.8)}`],
      env: { ...process.env, ...this.env },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    this.why = 'died';
    child.on('message', (report: Report) => {
      if (report.type === 'told') return this.events.told(report.job, report.done, report.of);
      void this.renew(child).finally(() => {
        this.rest();
        this.events.ended(report.job);
      });
    });
    let over = false;
    const gone = (code: number | null, signal: string | null): void => {
      // One that was let go has nothing to do with what its successor does.
      if (over || this.child !== child) return;
      over = true;
      const { job } = this;
      this.child = null;
      this.rest();
      // V8 aborts when its heap is full.
      const full = this.why === 'died' && (signal === 'SIGABRT' || code === 134);
      this.events.gone(job, full ? 'memory' : this.why);
    };
    child.on('error', () => gone(null, null));
    child.on('exit', gone);
    return child;
  }

  async close(): Promise<void> {
    const { child } = this;
    this.rest();
    if (child === null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await ended;
  }
}
