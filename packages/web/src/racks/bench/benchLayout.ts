import { type Device, type Rack } from '@visograph/core/model';
import { unitAt, type ElevationPlate, type ElevationPort, type ElevationScene } from '@visograph/core/racks';
import { faceGap, gaugeHeight, headHeight } from '@visograph/drawing';

export type Faces = 'both' | 'front' | 'rear';
export interface Point {
  x: number;
  y: number;
}
interface FaceSpot {
  face: 'front' | 'rear';
  /** Top left of the rack's frame on that face, on the surface. */
  x: number;
  y: number;
}
/** A rack on the surface: where it stands and where its faces are. */
export interface RackSpot {
  rack: Rack;
  scene: ElevationScene;
  x: number;
  y: number;
  width: number;
  height: number;
  faces: FaceSpot[];
}

const rackGap = 44;
const titleHeight = 30;
/** Height of what stands above the frame of a rack: name, gauges, name of the face. */
export const aboveFrame = titleHeight + gaugeHeight + headHeight;

/** Racks beside each other in the given order, standing on one floor. */
export function layOutRacks(
  racks: readonly { rack: Rack; scene: ElevationScene }[],
  faces: Faces,
): RackSpot[] {
  const tallest = Math.max(0, ...racks.map(({ scene }) => scene.height));
  let x = 0;
  return racks.map(({ rack, scene }) => {
    const shown: FaceSpot['face'][] = faces === 'both' ? ['front', 'rear'] : [faces];
    const width = shown.length * scene.width + (shown.length - 1) * faceGap;
    const y = tallest - scene.height;
    const left = x;
    x += width + rackGap;
    return {
      rack,
      scene,
      x: left,
      y,
      width,
      height: aboveFrame + scene.height + 4,
      faces: shown.map((face, at) => ({
        face,
        x: left + at * (scene.width + faceGap),
        y: y + aboveFrame,
      })),
    };
  });
}

/** Zoom at which names and ports of gear are read without leaning forward. */
const reading = 1.15;
const aroundGear = 20;

/**
 * The view that racks open with: one rack fills the width as far as that reads well and stands on its gear, with its
 * head where that is near; if all of it fits it is seen whole. Several racks are seen whole.
 *
 * @param view size of the surface in pixels
 */
export function openingView(
  spots: readonly RackSpot[],
  view: { width: number; height: number },
): { x: number; y: number; zoom: number } {
  const right = Math.max(1, ...spots.map((spot) => spot.x + spot.width));
  const bottom = Math.max(1, ...spots.map((spot) => spot.y + spot.height));
  const across = Math.min(reading, (view.width * 0.94) / right);
  const whole = Math.min(across, (view.height * 0.94) / bottom);
  const [only, second] = spots;
  const centred = (zoom: number, y: number): { x: number; y: number; zoom: number } => ({
    x: (view.width - right * zoom) / 2,
    y,
    zoom,
  });
  const plates = only === undefined ? [] : only.faces.flatMap(({ face, y }) => platesOn(only, face, y));
  if (only === undefined || second !== undefined || plates.length === 0 || whole === across)
    return centred(whole, (view.height - bottom * whole) / 2);
  const gearTop = Math.min(...plates.map((plate) => plate.y)) - aroundGear;
  const gearBottom = Math.max(...plates.map((plate) => plate.y + plate.height)) + aroundGear;
  const seen = view.height / across;
  // The head of the rack comes along where gear hangs close below it.
  const top = gearTop - only.y - aboveFrame < seen / 4 ? Math.min(only.y, gearTop) : gearTop;
  const middle = gearBottom - top <= seen ? (top + gearBottom) / 2 - seen / 2 : top;
  return centred(across, -Math.max(0, Math.min(middle, bottom - seen)) * across);
}

/** The plates of one face of a rack, where they are on the surface. */
const platesOn = ({ scene }: RackSpot, face: FaceSpot['face'], y: number): { y: number; height: number }[] =>
  (scene.faces.find((one) => one.face === face)?.plates ?? []).map(({ box }) => ({
    y: box.y + y,
    height: box.height,
  }));

export interface Hit {
  spot: RackSpot;
  face: 'front' | 'rear';
  /** The point in the coordinates of the rack's frame. */
  at: Point;
}

/** The rack face below a point of the surface. */
export function faceAt(spots: readonly RackSpot[], point: Point): Hit | null {
  for (const spot of spots) {
    for (const { face, x, y } of spot.faces) {
      const at = { x: point.x - x, y: point.y - y };
      if (at.x >= 0 && at.x <= spot.scene.width && at.y >= -6 && at.y <= spot.scene.height + 6)
        return { spot, face, at };
    }
  }
  return null;
}

const inside = (box: { x: number; y: number; width: number; height: number }, { x, y }: Point): boolean =>
  x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height;

export const plateAt = (hit: Hit): ElevationPlate | null =>
  hit.spot.scene.faces
    .find((face) => face.face === hit.face)
    ?.plates.find((plate) => inside(plate.box, hit.at)) ?? null;

/** The port below a point, with a margin that makes small ones easy to meet. */
export function portAt(plate: ElevationPlate, at: Point): ElevationPort | null {
  const margin = 0.8;
  return (
    plate.ports.find(({ box }) =>
      inside(
        {
          x: box.x - margin,
          y: box.y - margin,
          width: box.width + 2 * margin,
          height: box.height + 2 * margin,
        },
        at,
      ),
    ) ?? null
  );
}

export interface Landing {
  rackId: string;
  unit: number | null;
  face: 'front' | 'rear';
  side: Device['side'];
}

/** Where something of this shape would land when its top left is let go at a point of a face. */
export function landing(
  hit: Hit,
  shape: { units: number; side: Device['side'] },
  grab: Point = { x: 0, y: 0 },
): Landing {
  const { rack, scene } = hit.spot;
  const middle = scene.inner.x + scene.inner.width / 2;
  const seen = hit.at.x < middle ? 'left' : 'right';
  const fromFront = hit.face === 'front' ? seen : seen === 'left' ? 'right' : 'left';
  return {
    rackId: rack.id,
    face: hit.face,
    unit: shape.units === 0 ? null : unitAt(rack, hit.at.y - grab.y, shape.units),
    side: shape.side === 'full' && shape.units > 0 ? 'full' : fromFront,
  };
}
