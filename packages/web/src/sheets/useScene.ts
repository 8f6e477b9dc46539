import type { DrawingPlan, Scene } from '@visograph/core';
import { useEffect, useState } from 'react';
import type { DrawReply, DrawRequest } from './drawWorker.ts';

type Answer = (reply: DrawReply) => void;

/** One worker for all sheets; while it draws, only the newest plan waits. */
class Drawing {
  private worker: Worker | null = null;
  private next = 0;
  private busy: { id: number; answer: Answer } | null = null;
  private waiting: { plan: DrawingPlan; answer: Answer } | null = null;

  draw(plan: DrawingPlan, answer: Answer): void {
    if (this.busy !== null) {
      this.waiting = { plan, answer };
      return;
    }
    const worker = (this.worker ??= this.start());
    const id = this.next++;
    this.busy = { id, answer };
    worker.postMessage({ id, plan } satisfies DrawRequest);
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
    const { busy, waiting } = this;
    this.busy = null;
    this.waiting = null;
    if (waiting !== null) this.draw(waiting.plan, waiting.answer);
    busy?.answer(reply);
  }
}
const drawing = new Drawing();

export interface Drawn {
  /** The newest scene there is: of an earlier plan while the next is being made. Null until there is one. */
  scene: Scene | null;
  pending: boolean;
  failed: string | null;
}

/** The scene of a plan, made in a worker. */
export function useScene(plan: DrawingPlan): Drawn {
  const [drawn, setDrawn] = useState<Drawn & { of: DrawingPlan | null }>({
    scene: null,
    pending: true,
    failed: null,
    of: null,
  });
  useEffect(() => {
    let wanted = true;
    drawing.draw(plan, (reply) => {
      if (!wanted) return;
      setDrawn((before) =>
        'scene' in reply
          ? { scene: reply.scene, pending: false, failed: null, of: plan }
          : { ...before, pending: false, failed: reply.failed, of: plan },
      );
    });
    return () => {
      wanted = false;
    };
  }, [plan]);
  return { ...drawn, pending: drawn.of !== plan };
}
