import type { Device, Network } from '@visograph/core/model';
import {
  boxAround,
  unkeptLines,
  type Box,
  type Plate,
  type Point,
  type Scene,
  type SceneLink,
} from '@visograph/core/sheets';
import { useCallback, useState } from 'react';
import type { LinkPart } from './LinkFacts.tsx';
import type { PlateFact } from './PlateFacts.tsx';

/** Facts that are being edited on a sheet: of plates, or of a link. */
export type OpenFacts =
  | { of: 'plates'; ids: readonly string[]; fact: PlateFact | null }
  | { of: 'link'; cableIds: readonly string[]; part: LinkPart };

/** What a panel of facts is about as it is drawn now, where it stands, and what it is not to cover. */
export type FactsShown = { at: Point; avoid: readonly Box[] } & (
  | { of: 'plates'; plates: readonly Plate[]; fact: PlateFact | null }
  | { of: 'link'; link: SceneLink; part: LinkPart }
);

/** Whether something of a link is edited where it is drawn: not of what is worked out. */
export const hasFacts = ({ kind }: Pick<SceneLink, 'kind'>): boolean =>
  kind === 'port' || !unkeptLines.some((one) => one === kind);

const middle = (points: readonly Point[]): Point => points[Math.floor(points.length / 2)] ?? { x: 0, y: 0 };

/** Where a part of a link is drawn. */
export const partAt = (link: SceneLink, part: LinkPart): Point =>
  part === 'middle' ? middle(link.points) : link[part].at;

function shownOf(open: OpenFacts | null, scene: Scene): FactsShown | null {
  if (open === null) return null;
  if (open.of === 'plates') {
    const plates = scene.plates.filter(({ id }) => open.ids.includes(id));
    if (plates.length === 0) return null;
    const around = boxAround(plates.map(({ box }) => box));
    const at = { x: around.x + around.width, y: around.y + around.height / 2 };
    return { of: 'plates', plates, fact: open.fact, at, avoid: plates.map(({ box }) => box) };
  }
  const link = scene.links.find(({ cableIds }) => cableIds.some((id) => open.cableIds.includes(id)));
  if (link === undefined) return null;
  const ends = scene.plates.filter(({ id }) => id === link.a.plateId || id === link.b.plateId);
  return {
    of: 'link',
    link,
    part: open.part,
    at: partAt(link, open.part),
    avoid: ends.map(({ box }) => box),
  };
}

const within = ({ x, y, width, height }: Box, at: Point): boolean =>
  at.x >= x && at.x <= x + width && at.y >= y && at.y <= y + height;

/** The label of a link at a point of the sheet; null where none stands. */
export function labelAt(scene: Pick<Scene, 'links'>, at: Point): { link: SceneLink; part: LinkPart } | null {
  for (const link of scene.links)
    for (const [part, label] of [
      ['a', link.a.label],
      ['b', link.b.label],
      ['middle', link.label],
    ] as const)
      if (label !== null && within(label.box, at)) return { link, part };
  return null;
}

/** Which fact of a device a line of its plate says; null where it is none of those that are edited there. */
export function factOfLine(
  network: Network,
  device: Device | null,
  line: string | undefined,
): PlateFact | null {
  if (line === undefined || device === null) return null;
  const model = network.get('model', device.modelId)?.name;
  if (model !== undefined && line.includes(model)) return 'model';
  if (/\d+\.\d+\.\d+\.\d+|[0-9a-f]*:[0-9a-f:]+/i.test(line)) return 'address';
  return 'place';
}

/** Facts that are edited where they are drawn: which ones, and how that begins and ends. */
export function useFacts(scene: Scene): {
  facts: FactsShown | null;
  openPlates: (ids: readonly string[], fact?: PlateFact | null) => void;
  openLink: (link: SceneLink, part: LinkPart) => void;
  close: () => void;
} {
  const [open, setOpen] = useState<OpenFacts | null>(null);
  return {
    facts: shownOf(open, scene),
    openPlates: useCallback((ids, fact = null) => setOpen({ of: 'plates', ids, fact }), []),
    openLink: useCallback((link, part) => setOpen({ of: 'link', cableIds: link.cableIds, part }), []),
    close: useCallback(() => setOpen(null), []),
  };
}
