import { derivedBy, type Network, type Sheet } from '@visograph/core/model';
import { planOf, type DrawingPlan, type Scene } from '@visograph/core/sheets';
import { useEffect, useRef, useState } from 'react';
import type { DrawReply, DrawRequest } from './drawWorker.ts';
import { quickAbove } from './quickAbove.ts';

type Answer = (reply: DrawReply) => void;
interface Kept {
  scene: Scene;
  /** Links are elbows without labels so far. */
  draft: boolean;
}

/** One worker for all sheets; while it draws, only the newest plan waits. Scenes are kept as long as their plans. */
class Drawing {
  private worker: Worker | null = null;
  private next = 0;
  private busy: { id: number; plan: DrawingPlan; answer: Answer; ahead: boolean } | null = null;
  private waiting: { plan: DrawingPlan; first: boolean; answer: Answer } | null = null;
  private readonly scenes = new WeakMap<DrawingPlan, Kept>();

  /** Starts the worker before there is anything to draw. */
  warm(): void {
    this.worker ??= this.start();
  }

  kept(plan: DrawingPlan): Kept | null {
    return this.scenes.get(plan) ?? null;
  }

  /** Draws what will probably be opened next; dropped when something else is asked for. */
  ahead(plan: DrawingPlan): void {
    if (this.busy === null && !this.scenes.has(plan)) this.send(plan, true, () => {}, true);
  }

  draw(plan: DrawingPlan, first: boolean, answer: Answer): void {
    const kept = this.kept(plan);
    if (kept !== null) answer({ id: this.next++, ...kept });
    if (kept?.draft === false) return;
    if (this.busy?.plan === plan) {
      this.busy = { ...this.busy, answer, ahead: false };
      return;
    }
    // Where nothing is seen yet, nothing is worth more than the first sight of the newest plan: it does not wait for
    // the routing of a large one that is not wanted any more.
    const long = this.busy !== null && first && this.busy.plan.graph.links.length > quickAbove;
    if (this.busy?.ahead === true || long) {
      this.worker?.terminate();
      this.worker = null;
      this.busy = null;
    }
    if (this.busy === null) this.send(plan, first, answer, false);
    else this.waiting = { plan, first, answer };
  }

  private send(plan: DrawingPlan, first: boolean, answer: Answer, ahead: boolean): void {
    const worker = (this.worker ??= this.start());
    const id = this.next++;
    this.busy = { id, plan, answer, ahead };
    worker.postMessage({ id, plan, first } satisfies DrawRequest);
  }

  private start(): Worker {
    const worker = new Worker(new URL('./drawWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<DrawReply>) => this.done(data);
    worker.onerror = (event) => {
      this.worker = null;
      this.done({ id: this.busy?.id ?? 0, failed: event.message || 'The drawing could not be made.' });
    };
    return worker;
  }

  private done(reply: DrawReply): void {
    if (this.busy !== null && 'scene' in reply)
      this.scenes.set(this.busy.plan, { scene: reply.scene, draft: reply.draft });
    if ('draft' in reply && reply.draft) return this.busy?.answer(reply);
    const { busy, waiting } = this;
    this.busy = null;
    this.waiting = null;
    if (waiting !== null) this.draw(waiting.plan, waiting.first, waiting.answer);
    busy?.answer(reply);
  }
}
const drawing = new Drawing();
export const warmDrawing = (): void => drawing.warm();

/** What a sheet shows of a network; the same plan again for as long as both are the same. */
export const planFor = derivedBy((network, sheet: Sheet) =>
  planOf(network, sheet, { today: new Date().toISOString().slice(0, 10) }),
);

/** The scene of a plan, where it has been drawn. */
export const keptScene = (plan: DrawingPlan): Scene | null => drawing.kept(plan)?.scene ?? null;

/** Draws a sheet that will probably be opened, while nothing else is to be done. */
export function drawAhead(network: Network, sheet: Sheet): () => void {
  const waiting = requestIdleCallback(() => drawing.ahead(planFor(network, sheet)), { timeout: 1000 });
  return () => cancelIdleCallback(waiting);
}

export interface Drawn {
  /** The newest scene there is: of an earlier plan while the next is being made. Null until there is one. */
  scene: Scene | null;
  pending: boolean;
  failed: string | null;
}

/** The scene with the plates locked that the plan locks: it may be a scene of an earlier plan. */
export function lockedAsIn(scene: Scene, plan: DrawingPlan): Scene {
  const all = plan.manners.devices === 'locked';
  const isLocked = (id: string): boolean => all || plan.plates.get(id)?.locked === true;
  if (scene.plates.every((plate) => plate.locked === isLocked(plate.id))) return scene;
  return { ...scene, plates: scene.plates.map((plate) => ({ ...plate, locked: isLocked(plate.id) })) };
}

/** The scene of a plan, made in a worker. */
export function useScene(plan: DrawingPlan): Drawn {
  const [drawn, setDrawn] = useState<Omit<Drawn, 'pending'> & { of: DrawingPlan | null }>(() => {
    const kept = drawing.kept(plan);
    return { scene: kept?.scene ?? null, failed: null, of: kept?.draft === false ? plan : null };
  });
  const shown = useRef<Scene | null>(drawn.scene);
  useEffect(() => {
    let wanted = true;
    const first = shown.current === null;
    drawing.draw(plan, first, (reply) => {
      if (!wanted) return;
      if ('scene' in reply) shown.current = reply.scene;
      setDrawn((before) =>
        'scene' in reply
          ? { scene: reply.scene, failed: null, of: reply.draft ? null : plan }
          : { ...before, failed: reply.failed, of: plan },
      );
    });
    return () => {
      wanted = false;
    };
  }, [plan]);
  return { ...drawn, pending: drawn.of !== plan };
}
