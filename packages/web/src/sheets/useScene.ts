import { derivedBy, type Network, type Sheet } from '@visograph/core/model';
import { planOf, type DrawingPlan, type Scene } from '@visograph/core/sheets';
import { useEffect, useState } from 'react';
import type { DrawReply, DrawRequest } from './drawWorker.ts';

type Answer = (reply: DrawReply) => void;
interface Kept {
  scene: Scene;
  /** Links are elbows without labels so far. */
  draft: boolean;
}

/** A drawing of more links takes so long to be led with care that it is given up when it is not wanted any more. */
const longAbove = 30;

interface Wanted {
  id: number;
  plan: DrawingPlan;
  answer: Answer;
  /** Drawn before it is asked for. */
  ahead: boolean;
}

/**
 * One worker for all sheets; while it draws, only the newest plan waits. What takes long and is not wanted any more is
 * given up with its worker. Scenes are kept as long as their plans.
 */
class Drawing {
  private worker: Worker | null = null;
  private next = 0;
  private busy: Wanted | null = null;
  private waiting: { plan: DrawingPlan; answer: Answer } | null = null;
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
    if (this.busy === null && !this.scenes.has(plan)) this.send(plan, () => {}, true);
  }

  draw(plan: DrawingPlan, answer: Answer): void {
    const kept = this.kept(plan);
    if (kept !== null) answer({ id: this.next++, ...kept });
    if (kept?.draft === false) return;
    if (this.busy?.plan === plan) {
      this.busy = { ...this.busy, answer, ahead: false };
      return;
    }
    const { busy } = this;
    if (busy !== null && (busy.ahead || busy.plan.graph.links.length > longAbove)) this.giveUp();
    if (this.busy === null) this.send(plan, answer, false);
    else this.waiting = { plan, answer };
  }

  private giveUp(): void {
    this.worker?.terminate();
    this.worker = null;
    this.busy = null;
    this.waiting = null;
  }

  private send(plan: DrawingPlan, answer: Answer, ahead: boolean): void {
    const worker = (this.worker ??= this.start());
    const id = this.next++;
    this.busy = { id, plan, answer, ahead };
    worker.postMessage({ id, plan } satisfies DrawRequest);
  }

  private start(): Worker {
    const worker = new Worker(new URL('./drawWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<DrawReply>) => this.done(data);
    worker.onerror = (event) => {
      if (worker !== this.worker) return;
      this.worker = null;
      this.done({ id: this.busy?.id ?? 0, failed: event.message || 'The drawing could not be made.' });
    };
    return worker;
  }

  private done(reply: DrawReply): void {
    if (this.busy === null || reply.id !== this.busy.id) return;
    if ('scene' in reply) this.scenes.set(this.busy.plan, { scene: reply.scene, draft: reply.draft });
    if ('draft' in reply && reply.draft) return this.busy.answer(reply);
    const { busy, waiting } = this;
    this.busy = null;
    this.waiting = null;
    if (waiting !== null) this.draw(waiting.plan, waiting.answer);
    busy.answer(reply);
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
  useEffect(() => {
    let wanted = true;
    drawing.draw(plan, (reply) => {
      if (!wanted) return;
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
