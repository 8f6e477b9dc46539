import { speedText } from '../../model/values/speed.ts';
import type { Cable } from '../../model/kinds/lines/cable.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt, endsOf, portTitle } from '../../model/network/ports.ts';
import type { ElevationFace, ElevationScene } from './elevation.ts';
import { railWidth, sideWidth } from './elevation.ts';
import type { Box } from '../../sheets/scene/scene.ts';
import { metresText } from '../../model/values/numbers.ts';

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

/** Cables by face, where an elevation is to show them. */
export interface WithCables {
  cables?: Record<'front' | 'rear', ElevationCable[]>;
}

/** Lanes of the vertical manager, from the inner edge of a rail outwards: beside the unit numbers, not on them. */
const laneOffsets = [20, 22, 24, 4, 2, 21, 23];

interface End {
  portId: string;
  box: Box;
  /** The lower edge of the device it sits in: cables lie below names and ports, not across them. */
  edge: number;
  /** On a strip at the side, which is drawn on both faces. */
  side: boolean;
}

function spokenOf(network: Network, cable: Cable): string {
  const type = network.get('model', cable.typeId);
  const ends = [cable.aPortId, cable.bPortId].map((id) => portTitle(network, id).replace(':', ' ') || 'open');
  const speed = network.get('port', cable.aPortId)?.speedBps ?? null;
  return [
    `${cable.label}: ${ends.join(' – ')}`,
    type === null ? null : modelTitle(type),
    cable.lengthM === null ? null : metresText(cable.lengthM),
    speed === null ? null : speedText(speed),
  ]
    .filter(Boolean)
    .join(' · ');
}

const round = (value: number): number => Math.round(value * 10) / 10;

/** From a port down to the lower edge of its device, along it to the side, over the manager, and back likewise. */
function way(scene: ElevationScene, ends: readonly End[], order: number): string {
  const { inner } = scene;
  const lane = order % laneOffsets.length;
  const offset = Math.min(railWidth - 1, laneOffsets[lane] ?? 3);
  const fan = (order % 3) * 0.9 - 0.9;
  const points = ends.map(({ box, edge }) => ({
    x: round(box.x + box.width / 2),
    y: round(box.y + box.height / 2),
    edge: round(edge + fan),
  }));
  const [first, second] = points;
  if (first === undefined) return '';
  // Ports stand on the right two thirds of a face: the nearer manager is counted from their middle.
  const middle = inner.x + inner.width * 0.62;
  const mean = second === undefined ? first.x : (first.x + second.x) / 2;
  const side = round(mean < middle ? inner.x - offset : inner.x + inner.width + offset);
  if (second === undefined)
    return `M${first.x} ${first.y}V${first.edge}H${side}V${round(-sideWidth / 2 - lane * 1.5)}`;
  // Neighbours in one row are joined directly, in a shallow loop below it.
  if (Math.abs(first.y - second.y) < 6 && Math.abs(first.x - second.x) < inner.width / 3)
    return `M${first.x} ${first.y}C${first.x} ${first.y + 14} ${second.x} ${second.y + 14} ${second.x} ${second.y}`;
  return `M${first.x} ${first.y}V${first.edge}H${side}V${second.edge}H${second.x}V${second.y}`;
}

/** An elevation with the cables on both its faces, as an export draws it. */
export const withCables = (network: Network, scene: ElevationScene): ElevationScene & WithCables => ({
  ...scene,
  cables: {
    front: scene.faces.flatMap((face) =>
      face.face === 'front' ? elevationCables(network, scene, face) : [],
    ),
    rear: scene.faces.flatMap((face) => (face.face === 'rear' ? elevationCables(network, scene, face) : [])),
  },
});

/** The cables on one face of a rack, in the order of their labels. Power cables are left to the rear. */
export function elevationCables(
  network: Network,
  scene: ElevationScene,
  face: ElevationFace,
): ElevationCable[] {
  const boxes = new Map<string, Omit<End, 'portId'>>();
  for (const plate of face.plates)
    for (const port of plate.ports) {
      if (!port.used) continue;
      const edge = plate.form === 'side' ? port.box.y + port.box.height / 2 : plate.box.y + plate.box.height;
      boxes.set(port.id, { box: port.box, edge, side: plate.form === 'side' });
    }
  const cables = new Map<string, Cable>();
  for (const id of boxes.keys()) {
    const cable = cableAt(network, id);
    if (cable !== null) cables.set(cable.id, cable);
  }
  const sorted = [...cables.values()].sort((a, b) => (a.label < b.label ? -1 : 1));
  return sorted.flatMap((cable, order): ElevationCable[] => {
    const here = [...endsOf(network, cable, 'a'), ...endsOf(network, cable, 'b')].flatMap((id): End[] => {
      const spot = id === null ? undefined : boxes.get(id);
      return id === null || spot === undefined ? [] : [{ portId: id, ...spot }];
    });
    const [first, ...others] = here;
    // What leaves a side strip for gear on the other face is drawn there.
    if (first?.side === true && others.length === 0) return [];
    const pairs: End[][] =
      first === undefined ? [] : others.length === 0 ? [[first]] : others.map((other) => [first, other]);
    return [
      {
        cableId: cable.id,
        d: pairs.map((pair) => way(scene, pair, order)).join(''),
        jacket: network.get('model', cable.typeId)?.jacket ?? null,
        spoken: spokenOf(network, cable),
        portIds: here.map((end) => end.portId),
      },
    ];
  });
}
