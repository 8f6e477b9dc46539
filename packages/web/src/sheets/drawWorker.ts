import {
  likeAnother,
  sceneOf,
  tidyPositions,
  type CarriedOver,
  type DrawingPlan,
  type Plate,
  type Point,
  type Scene,
  type SheetGraph,
} from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';

export interface DrawRequest {
  id: number;
  plan: DrawingPlan;
  /** Only the draft is wanted: it is looked at small. */
  small?: true;
  /** Where plates stood before, on a sheet that nobody arranged. */
  held?: ReadonlyMap<string, Point>;
}
/** A draft comes first: plates where they stand, links led once. */
export type DrawReply = { id: number; scene: Scene; draft: boolean } | { id: number; failed: string };

/** Asks for places of plates instead of a drawing: of some laid out afresh, or of all as on another sheet. */
export type PlaceRequest = { id: number; plan: DrawingPlan } & (
  | { tidy: ReadonlySet<string>; plates: readonly Plate[] }
  | { like: SheetGraph; plates: readonly Pick<Plate, 'id' | 'box'>[] }
);
export type PlaceReply = { id: number; carried: CarriedOver } | { id: number; failed: string };

const placesFor = (request: PlaceRequest): CarriedOver => {
  if ('like' in request) return likeAnother(request.like, request.plates, request.plan, measureText);
  const at = tidyPositions(request.plan, request, request.tidy, measureText);
  return { at, matched: at.size };
};

/** Lays out and routes away from the screen, so that it never waits for a sheet. */
self.onmessage = ({ data }: MessageEvent<DrawRequest | PlaceRequest>): void => {
  const { id, plan } = data;
  const answer = (scene: Scene, draft: boolean): void =>
    self.postMessage({ id, scene, draft } satisfies DrawReply);
  try {
    if ('plates' in data) self.postMessage({ id, carried: placesFor(data) } satisfies PlaceReply);
    else if (data.small === true) answer(sceneOf(plan, { measure: measureText, quick: true }), true);
    else {
      const held = data.held ?? new Map<string, Point>();
      answer(sceneOf(plan, { measure: measureText, held, draft: (scene) => answer(scene, true) }), false);
    }
  } catch (error) {
    const failed = error instanceof Error ? error.message : String(error);
    self.postMessage({ id, failed } satisfies DrawReply);
  }
};
