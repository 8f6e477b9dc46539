import { derivedBy, type Network, type Sheet } from '@visograph/core/model';
import { planOf, type DrawingPlan, type Point, type Scene } from '@visograph/core/sheets';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { DrawReply, DrawRequest } from './drawWorker.ts';

type Answer = (reply: DrawReply) => void;
interface Kept {
  scene: Scene;
  /** Links are elbows without labels so far. */
  draft: boolean;
}

/** A drawing of more links takes so long to be led with care that it is given up when it is not wanted any more. */
const longAbove = 30;

/** Where plates stood before. */
type Held = ReadonlyMap<string, Point>;
const nowhere: Held = new Map();

interface Wanted {
  id: number;
  plan: DrawingPlan;
  held: Held;
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
  private waiting: { plan: DrawingPlan; held: Held; answer: Answer } | null = null;
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
    if (this.busy === null && !this.scenes.has(plan)) this.send(plan, nowhere, () => {}, true);
  }

  /** Draws a plan once more, without what it was held to. */
  forget(plan: DrawingPlan): void {
    this.scenes.delete(plan);
    if (this.busy?.plan === plan) this.giveUp();
  }

  draw(plan: DrawingPlan, held: Held, answer: Answer): void {
    const kept = this.kept(plan);
    if (kept !== null) answer({ id: this.next++, ...kept });
    if (kept?.draft === false) return;
    if (this.busy?.plan === plan) {
      this.busy = { ...this.busy, answer, ahead: false };
      return;
    }
    const { busy } = this;
    if (busy !== null && (busy.ahead || busy.plan.graph.links.length > longAbove)) this.giveUp();
    if (this.busy === null) this.send(plan, held, answer, false);
    else this.waiting = { plan, held, answer };
  }

  private giveUp(): void {
    this.worker?.terminate();
    this.worker = null;
    this.busy = null;
    this.waiting = null;
  }

  private send(plan: DrawingPlan, held: Held, answer: Answer, ahead: boolean): void {
    const worker = (this.worker ??= this.start());
    const id = this.next++;
    this.busy = { id, plan, held, answer, ahead };
    worker.postMessage({ id, plan, held } satisfies DrawRequest);
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
    if (waiting !== null) this.draw(waiting.plan, waiting.held, waiting.answer);
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
  /** Its plates stand where they stood before something changed: laid out afresh they would stand otherwise. */
  held: boolean;
  afresh: () => void;
}

/** The scene with the plates locked that the plan locks: it may be a scene of an earlier plan. */
export function lockedAsIn(scene: Scene, plan: DrawingPlan): Scene {
  const all = plan.manners.devices === 'locked';
  const isLocked = (id: string): boolean => all || plan.plates.get(id)?.locked === true;
  if (scene.plates.every((plate) => plate.locked === isLocked(plate.id))) return scene;
  return { ...scene, plates: scene.plates.map((plate) => ({ ...plate, locked: isLocked(plate.id) })) };
}

const sameNodes = (one: DrawingPlan, other: DrawingPlan): boolean => {
  const ids = new Set(one.graph.nodes.map(({ id }) => id));
  return ids.size === other.graph.nodes.length && other.graph.nodes.every(({ id }) => ids.has(id));
};

/** The last drawing there was. */
interface Before {
  plan: DrawingPlan;
  sheet: Sheet;
  scene: Scene;
  /** For which its plates were laid out: an earlier one where they were held since. */
  laidOutFor: DrawingPlan;
}

/**
 * Where the plates of a drawing stood that nobody arranged, for the next one to keep its order: while the network
 * changes, and while the sheet is only told to show more or less of the same plates. A sheet that is read another way
 * is drawn anew.
 */
export function heldFrom(
  before: Pick<Before, 'plan' | 'sheet' | 'scene'> | null,
  plan: DrawingPlan,
  sheet: Sheet,
): ReadonlyMap<string, Point> {
  if (
    before === null ||
    before.plan.sheetId !== plan.sheetId ||
    before.plan.aspect !== plan.aspect ||
    before.plan.arranged ||
    plan.arranged ||
    (before.sheet !== sheet && !sameNodes(before.plan, plan))
  )
    return nowhere;
  return new Map(before.scene.plates.map(({ id, box: { x, y } }) => [id, { x, y }]));
}

const graphTexts = new WeakMap<DrawingPlan, string>();
function graphText(plan: DrawingPlan): string {
  const known = graphTexts.get(plan) ?? JSON.stringify([plan.graph, plan.bundles.drawn, plan.aspect]);
  graphTexts.set(plan, known);
  return known;
}
/** Of more plates than this it is not asked whether two plans read alike. */
const mostRead = 1000;
/** Whether two plans would be laid out alike: a change that the drawing does not show. */
const readAlike = (one: DrawingPlan, other: DrawingPlan): boolean =>
  one === other || (other.graph.nodes.length <= mostRead && graphText(one) === graphText(other));

/** Whether a drawing stands where it stood: its plates that were there before have not moved. */
const standsAs = ({ plates }: Scene, held: Held): boolean =>
  held.size > 0 &&
  plates.every(({ id, box }) => {
    const at = held.get(id);
    return at === undefined || (at.x === box.x && at.y === box.y);
  });

/**
 * The scene of a plan, made in a worker.
 *
 * @param keeps whether plates stay where they stand as others come and go
 */
export function useScene(plan: DrawingPlan, sheet: Sheet, keeps: boolean): Drawn {
  const [drawn, setDrawn] = useState<Pick<Drawn, 'scene' | 'failed' | 'held'> & { of: DrawingPlan | null }>(
    () => {
      const kept = drawing.kept(plan);
      return {
        scene: kept?.scene ?? null,
        failed: null,
        held: false,
        of: kept?.draft === false ? plan : null,
      };
    },
  );
  const before = useRef<Before | null>(null);
  const [afreshFrom, setAfreshFrom] = useState<DrawingPlan | null>(null);
  const fresh = afreshFrom === plan;
  useEffect(() => {
    let wanted = true;
    const last = before.current;
    const held = keeps && !fresh ? heldFrom(last, plan, sheet) : nowhere;
    if (fresh) drawing.forget(plan);
    drawing.draw(plan, held, (reply) => {
      if (!wanted) return;
      if (!('scene' in reply)) {
        setDrawn((last) => ({ ...last, failed: reply.failed, of: plan }));
        return;
      }
      const { scene, draft } = reply;
      const stands = standsAs(scene, held);
      const laidOutFor = stands ? (last?.laidOutFor ?? plan) : plan;
      before.current = { plan, sheet, scene, laidOutFor };
      const isHeld = stands && !readAlike(laidOutFor, plan);
      setDrawn({ scene, failed: null, held: isHeld, of: draft ? null : plan });
    });
    return () => {
      wanted = false;
    };
  }, [plan, sheet, keeps, fresh]);
  const afresh = useCallback(() => setAfreshFrom(plan), [plan]);
  return { ...drawn, afresh, pending: drawn.of !== plan };
}
