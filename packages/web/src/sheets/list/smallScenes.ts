import type { Network, Sheet } from '@visograph/core/model';
import type { DrawingPlan, Scene } from '@visograph/core/sheets';
import { keptScene, planFor } from '../useScene.ts';
import type { DrawReply, DrawRequest } from '../drawWorker.ts';

interface Wish {
  plan: () => DrawingPlan;
  answer: (scene: Scene | null) => void;
}

/** Drafts of sheets that are looked at small: one after another in a worker of their own, kept as long as their plans. */
class SmallScenes {
  private worker: Worker | null = null;
  private readonly waiting: Wish[] = [];
  private busy: { plan: DrawingPlan; answer: Wish['answer'] } | null = null;
  private readonly scenes = new WeakMap<DrawingPlan, Scene>();
  private idle: number | null = null;

  ask(wish: Wish): () => void {
    this.waiting.push(wish);
    this.next();
    return () => {
      const at = this.waiting.indexOf(wish);
      if (at >= 0) this.waiting.splice(at, 1);
      if (this.busy?.answer !== wish.answer) return;
      // Nobody looks at it any more: what is opened next has the processor to itself.
      this.worker?.terminate();
      this.worker = null;
      this.busy = null;
      this.next();
    };
  }

  /** Reading the model for a sheet is done on the screen's own thread: only while it has nothing else to do. */
  private next(): void {
    if (this.busy !== null || this.idle !== null || this.waiting.length === 0) return;
    this.idle = requestIdleCallback(
      () => {
        this.idle = null;
        const wish = this.waiting.shift();
        if (wish !== undefined) this.draw(wish);
        this.next();
      },
      { timeout: 500 },
    );
  }

  private draw({ plan: read, answer }: Wish): void {
    const plan = read();
    const known = keptScene(plan) ?? this.scenes.get(plan);
    if (known !== undefined) return answer(known);
    if (plan.tooMany !== null) return answer(null);
    const worker = (this.worker ??= this.start());
    this.busy = { plan, answer };
    worker.postMessage({ id: 0, plan, small: true } satisfies DrawRequest);
  }

  private start(): Worker {
    const worker = new Worker(new URL('../drawWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<DrawReply>) => this.done('scene' in data ? data.scene : null);
    worker.onerror = () => {
      this.worker = null;
      this.done(null);
    };
    return worker;
  }

  private done(scene: Scene | null): void {
    const { busy } = this;
    this.busy = null;
    if (busy !== null && scene !== null) this.scenes.set(busy.plan, scene);
    busy?.answer(scene);
    this.next();
    if (this.waiting.length > 0) return;
    // What it has read of the network is not kept beside the drawing that is opened next.
    this.worker?.terminate();
    this.worker = null;
  }
}
const small = new SmallScenes();

/** Asks for a sheet as it is drawn, small; null where it is too much for one sheet. Gives the way to take it back. */
export const askSmall = (
  network: Network,
  sheet: Sheet,
  answer: (scene: Scene | null) => void,
): (() => void) => small.ask({ plan: () => planFor(network, sheet), answer });
