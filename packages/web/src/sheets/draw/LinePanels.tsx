import type { Network } from '@visograph/core/model';
import type { Box, Point, Scene } from '@visograph/core/sheets';
import { useMemo, useState, type ReactNode } from 'react';
import { JoinPanel } from '../../cloud/JoinPanel.tsx';
import { JoinTo } from './JoinTo.tsx';
import { LinePanel } from './LinePanel.tsx';
import type { Lines, OpenLine } from './useLines.ts';

/** Around a plate, for the row of its ports. */
const rowRoom = 36;
/** Plates that a panel at a line could cover are no further away, in sheet units. */
const nearLine = 1600;

interface LinePlace {
  at: Point;
  /** What its panel is not to cover: the plates that it joins least of all, then any other. */
  avoid: readonly Box[];
}

/** Where a line that has just been pulled is drawn; null until it is. */
function placeOfLine(line: OpenLine | null, scene: Scene): LinePlace | null {
  if (line === null) return null;
  const ids = new Set([...line.lineIds, ...line.made.map((change) => change.id)]);
  const drawn = scene.links.find((link) => link.cableIds.some((id) => ids.has(id)));
  const points = drawn?.points ?? [];
  const at = points[Math.floor(points.length / 2)];
  if (drawn === undefined || at === undefined) return null;
  const ends = scene.plates.filter(({ id }) => id === drawn.a.plateId || id === drawn.b.plateId);
  const near = scene.plates.filter(({ box }) => Math.hypot(box.x - at.x, box.y - at.y) < nearLine);
  const withRow = ({ x, y, width, height }: Box): Box => ({
    x: x - rowRoom,
    y: y - rowRoom,
    width: width + 2 * rowRoom,
    height: height + 2 * rowRoom,
  });
  return { at, avoid: [...ends, ...ends, ...near].map(({ box }) => withRow(box)) };
}

/** The panels of lines: what can stand at an end that is open, and what was chosen for the line just pulled. */
export function LinePanels({
  lines,
  network,
  scene,
}: {
  lines: Lines;
  network: Network;
  scene: Scene;
}): ReactNode {
  const { line, end, premises } = lines;
  const now = useMemo(() => placeOfLine(line, scene), [line, scene]);
  // While it is drawn otherwise its panel stays where it was.
  const [place, setPlace] = useState(now);
  if (line === null ? place !== null : now !== null && now !== place) setPlace(line === null ? null : now);
  const from = scene.plates.filter(({ id }) => end?.from.plateIds.includes(id));
  return (
    <>
      {end !== null && (
        <JoinTo
          lines={lines}
          network={network}
          from={from.map(({ name }) => name).join(', ')}
          plates={scene.plates}
          fromPlates={from}
        />
      )}
      {premises !== null && (
        <JoinPanel place={premises.place} device={premises.device} onClose={lines.leavePremises} />
      )}
      {line !== null && place !== null && (
        <LinePanel
          key={line.key}
          line={line}
          lines={lines}
          network={network}
          at={place.at}
          avoid={place.avoid}
        />
      )}
    </>
  );
}
