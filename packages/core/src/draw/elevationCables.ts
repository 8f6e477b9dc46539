import { speedText } from '../cabling/link.ts';
import type { Cable } from '../model/kinds/cable.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network.ts';
import { cableAt, endsOf, portTitle } from '../model/ports.ts';
import type { ElevationFace, ElevationScene } from './elevation.ts';
import { railWidth, sideWidth } from './elevation.ts';
import type { Box } from './scene.ts';

/** A cable as it lies on one face of a rack: from its ports over the vertical managers, or out at the top. */
export interface ElevationCable {
  cableId: string;
  /** An SVG path in rack coordinates. */
  d: string;
  jacket: string | null;
  /** Both ends, label, type and length in one line. */
  spoken: string;
  portIds: string[];
}

/** Lanes of the vertical manager, from the inner edge of a rail outwards: beside the unit numbers, not on them. */
const laneOffsets = [20, 22, 24, 4, 2, 21, 23];

interface End {
  portId: string;
  box: Box;
}

function spokenOf(network: Network, cable: Cable): string {
  const type = network.get('model', cable.typeId);
  const ends = [cable.aPortId, cable.bPortId].map((id) => portTitle(network, id).replace(':', ' ') || 'open');
  const speed = network.get('port', cable.aPortId)?.speedBps ?? null;
  return [
    `${cable.label}: ${ends.join(' – ')}`,
    type === null ? null : modelTitle(type),
    cable.lengthM === null ? null : `${cable.lengthM} m`,
    speed === null ? null : speedText(speed),
  ]
    .filter(Boolean)
    .join(' · ');
}

const round = (value: number): number => Math.round(value * 10) / 10;

/** From a port along the gap below its row to the side, up or down the manager, and back to the other port. */
function way(scene: ElevationScene, ends: readonly End[], order: number): string {
  const { inner } = scene;
  const lane = order % laneOffsets.length;
  const offset = Math.min(railWidth - 1, laneOffsets[lane] ?? 3);
  const leftX = inner.x - offset;
  const rightX = inner.x + inner.width + offset;
  const middle = (box: Box): { x: number; y: number } => ({
    x: round(box.x + box.width / 2),
    y: round(box.y + box.height / 2),
  });
  const [first, second] = ends.map((end) => middle(end.box));
  if (first === undefined) return '';
  const centre = inner.x + inner.width / 2;
  const meanX = second === undefined ? first.x : (first.x + second.x) / 2;
  const side = round(meanX < centre ? leftX : rightX);
  const drop = 2 + (order % 3);
  if (second === undefined) {
    const out = round(-sideWidth / 2 - lane * 1.5);
    return `M${first.x} ${first.y}v${drop}H${side}V${out}`;
  }
  // Neighbours in one row are joined directly, in a shallow loop below it.
  if (Math.abs(first.y - second.y) < 6 && Math.abs(first.x - second.x) < inner.width / 3)
    return `M${first.x} ${first.y}C${first.x} ${first.y + 14} ${second.x} ${second.y + 14} ${second.x} ${second.y}`;
  return `M${first.x} ${first.y}v${drop}H${side}V${round(second.y + drop)}H${second.x}V${second.y}`;
}

/** The cables on one face of a rack, in the order of their labels. Power cables are left to the rear. */
export function elevationCables(
  network: Network,
  scene: ElevationScene,
  face: ElevationFace,
): ElevationCable[] {
  const boxes = new Map<string, Box>();
  for (const plate of face.plates)
    for (const port of plate.ports) if (port.used) boxes.set(port.id, port.box);
  const cables = new Map<string, Cable>();
  for (const id of boxes.keys()) {
    const cable = cableAt(network, id);
    if (cable !== null) cables.set(cable.id, cable);
  }
  const sorted = [...cables.values()].sort((a, b) => (a.label < b.label ? -1 : 1));
  return sorted.map((cable, order): ElevationCable => {
    const here = [...endsOf(network, cable, 'a'), ...endsOf(network, cable, 'b')].flatMap((id): End[] => {
      const box = id === null ? undefined : boxes.get(id);
      return id === null || box === undefined ? [] : [{ portId: id, box }];
    });
    const [first, ...others] = here;
    const pairs: End[][] =
      first === undefined ? [] : others.length === 0 ? [[first]] : others.map((other) => [first, other]);
    return {
      cableId: cable.id,
      d: pairs.map((pair) => way(scene, pair, order)).join(''),
      jacket: network.get('model', cable.typeId)?.jacket ?? null,
      spoken: spokenOf(network, cable),
      portIds: here.map((end) => end.portId),
    };
  });
}
