import { sceneOf, type DrawingPlan, type Scene } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import { quickAbove } from './quickAbove.ts';

export interface DrawRequest {
  id: number;
  plan: DrawingPlan;
  /** Nothing is on the screen yet. */
  first: boolean;
  /** Only the draft is wanted: it is looked at small. */
  small?: true;
}
/** A draft comes first where the links take a while to route. */
export type DrawReply = { id: number; scene: Scene; draft: boolean } | { id: number; failed: string };

/** Lays out and routes away from the screen, so that it never waits for a large sheet. */
self.onmessage = ({ data }: MessageEvent<DrawRequest>): void => {
  const { id, plan } = data;
  let reply: DrawReply;
  try {
    if (data.small === true) {
      const scene = sceneOf(plan, { measure: measureText, quick: true });
      return self.postMessage({ id, scene, draft: true } satisfies DrawReply);
    }
    if (data.first && plan.graph.links.length > quickAbove)
      self.postMessage({
        id,
        scene: sceneOf(plan, { measure: measureText, quick: true }),
        draft: true,
      } satisfies DrawReply);
    reply = { id, scene: sceneOf(plan, { measure: measureText }), draft: false };
  } catch (error) {
    reply = { id, failed: error instanceof Error ? error.message : String(error) };
  }
  self.postMessage(reply);
};
