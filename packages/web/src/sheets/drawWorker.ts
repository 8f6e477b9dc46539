import { sceneOf, type DrawingPlan, type Scene } from '@visograph/core';
import { measureText } from '@visograph/drawing';

export interface DrawRequest {
  id: number;
  plan: DrawingPlan;
}
export type DrawReply = { id: number; scene: Scene } | { id: number; failed: string };

/** Lays out and routes away from the screen, so that it never waits for a large sheet. */
self.onmessage = ({ data }: MessageEvent<DrawRequest>): void => {
  let reply: DrawReply;
  try {
    reply = { id: data.id, scene: sceneOf(data.plan, { measure: measureText }) };
  } catch (error) {
    reply = { id: data.id, failed: error instanceof Error ? error.message : String(error) };
  }
  self.postMessage(reply);
};
