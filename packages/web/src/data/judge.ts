import { findingsOf, rules, type Finding } from '@visograph/core/check';
import { ancestors, stepsBetween, type Network, type Touched } from '@visograph/core/model';
import type { JudgeReply, JudgeRequest } from './judgeWorker.ts';

const idle = (): Promise<void> =>
  new Promise((resolve) => void requestIdleCallback(() => resolve(), { timeout: 200 }));

/** A rule that took longer than this lets the screen have its turn. */
const patienceMs = 4;
/** A network of more rows is judged beside the screen; a smaller one is done before it would be there. */
const mostRows = 20_000;
/** So many rows go over at once: about what fits between two frames. */
const stride = 1000;
/** So many networks before the newest are kept, so that it is known what was touched since. */
const mostKept = 8;

/** Judges large networks in a worker of its own, which has the one that was judged last. */
class Beside {
  private readonly worker = new Worker(new URL('./judgeWorker.ts', import.meta.url), { type: 'module' });
  private readonly waiting = new Map<number, (reply: JudgeReply) => void>();
  private next = 0;
  /** What the worker has, and what that was made from. */
  private known: Network[] = [];
  private turn: Promise<unknown> = Promise.resolve();

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<JudgeReply>) => {
      this.waiting.get(data.id)?.(data);
      this.waiting.delete(data.id);
    };
    // It cannot be loaded, or has no memory left.
    this.worker.onerror = () => {
      for (const [id, answer] of this.waiting) answer({ id, failed: 'the worker has ended' });
      this.waiting.clear();
    };
  }

  end(): void {
    this.worker.terminate();
  }

  /** One after the other; what is no longer wanted when its turn comes is left out. */
  judge(network: Network, wanted: () => boolean): Promise<readonly Finding[] | null> {
    const done = this.turn.then(() => (wanted() ? this.now(network, wanted) : null));
    this.turn = done.catch(() => undefined);
    return done;
  }

  private async now(network: Network, wanted: () => boolean): Promise<readonly Finding[] | null> {
    const [known] = this.known;
    const steps = known === undefined ? null : stepsBetween(known, network);
    if (steps === null && !(await this.sendAll(network, wanted))) return null;
    this.known = ancestors(network, mostKept);
    const id = this.next++;
    const reply = await new Promise<JudgeReply>((resolve) => {
      this.waiting.set(id, resolve);
      this.send({ type: 'judge', id, steps: steps ?? [] });
    });
    if ('findings' in reply) return reply.findings;
    throw new Error(reply.failed);
  }

  private send(request: JudgeRequest): void {
    this.worker.postMessage(request);
  }

  /** All rows, some at a time while nothing else is to be done. False when they are no longer wanted. */
  private async sendAll(network: Network, wanted: () => boolean): Promise<boolean> {
    this.known = [];
    this.send({ type: 'begin' });
    let some: Touched[] = [];
    for (const step of network.steps()) {
      some.push(step);
      if (some.length < stride) continue;
      await idle();
      if (!wanted()) return false;
      this.send({ type: 'more', steps: some });
      some = [];
    }
    this.send({ type: 'more', steps: some });
    return true;
  }
}
let beside: Beside | null = null;

/** What the worker finds; undefined where it cannot: the next large network gets another. */
async function judgedBeside(
  network: Network,
  wanted: () => boolean,
): Promise<readonly Finding[] | null | undefined> {
  const its = (beside ??= new Beside());
  try {
    return await its.judge(network, wanted);
  } catch {
    its.end();
    if (beside === its) beside = null;
    return undefined;
  }
}

/**
 * What all rules find in a network: in a worker where it is large; otherwise rule by rule while nothing else is to be
 * done. The screen never waits for it. Null when it is no longer wanted.
 */
export async function judged(network: Network, wanted: () => boolean): Promise<readonly Finding[] | null> {
  if (network.size > mostRows) {
    const found = await judgedBeside(network, wanted);
    if (found !== undefined) return found;
  }
  for (const rule of rules) {
    const started = performance.now();
    rule.findings(network);
    if (performance.now() - started > patienceMs) await idle();
    if (!wanted()) return null;
  }
  return findingsOf(network);
}
