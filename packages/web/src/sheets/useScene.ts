import type { DrawingPlan, Scene } from '@visograph/core';
import { useEffect, useRef, useState } from 'react';
import type { DrawReply, DrawRequest } from './drawWorker.ts';

type Answer = (reply: DrawReply) => void;

/** One worker for all sheets; while it draws, only the newest plan waits. */
class Drawing {
  private worker: Worker | null = null;
  private next = 0;
  private busy: { id: number; answer: Answer } | null = null;
  private waiting: { plan: DrawingPlan; first: boolean; answer: Answer } | null = null;

  /** Starts the worker before there is anything to draw. */
  warm(): void {
    this.worker ??= this.start();
  }

  draw(plan: DrawingPlan, first: boolean, answer: Answer): void {
    if (this.busy !== null) {
      this.waiting = { plan, first, answer };
      return;
    }
    const worker = (this.worker ??= this.start());
    const id = this.next++;
    this.busy = { id, answer };
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

export interface Drawn {
  /** The newest scene there is: of an earlier plan while the next is being made. Null until there is one. */
  scene: Scene | null;
  pending: boolean;
  failed: string | null;
}

/** The scene of a plan, made in a worker. */
export function useScene(plan: DrawingPlan): Drawn {
  const [drawn, setDrawn] = useState<Omit<Drawn, 'pending'> & { of: DrawingPlan | null }>({
    scene: null,
    failed: null,
    of: null,
  });
  const shown = useRef<Scene | null>(null);
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
