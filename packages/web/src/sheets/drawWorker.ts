import { sceneOf, type DrawingPlan, type Scene } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';

export interface DrawRequest {
  id: number;
  plan: DrawingPlan;
  /** Only the draft is wanted: it is looked at small. */
  small?: true;
}
/** A draft comes first: plates where they stand, links led once. */
export type DrawReply = { id: number; scene: Scene; draft: boolean } | { id: number; failed: string };

/** Lays out and routes away from the screen, so that it never waits for a sheet. */
self.onmessage = ({ data }: MessageEvent<DrawRequest>): void => {
  const { id, plan, small } = data;
  const answer = (scene: Scene, draft: boolean): void =>
    self.postMessage({ id, scene, draft } satisfies DrawReply);
  try {
    if (small === true) answer(sceneOf(plan, { measure: measureText, quick: true }), true);
    else answer(sceneOf(plan, { measure: measureText, draft: (scene) => answer(scene, true) }), false);
  } catch (error) {
    const failed = error instanceof Error ? error.message : String(error);
    self.postMessage({ id, failed } satisfies DrawReply);
  }
};
