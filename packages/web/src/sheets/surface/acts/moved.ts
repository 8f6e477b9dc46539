import type { SheetGroup } from '@visograph/core/model';
import type { Box, Point, Scene } from '@visograph/core/sheets';
import type { SheetNode } from '../sheetNodes.tsx';

/** Where plates and marks have been put, by their ids. */
export interface Moved {
  plates: ReadonlyMap<string, Point>;
  marks: ReadonlyMap<string, Point>;
}

const inside = (outer: Box, box: Box): boolean =>
  box.x >= outer.x &&
  box.y >= outer.y &&
  box.x + box.width <= outer.x + outer.width &&
  box.y + box.height <= outer.y + outer.height;

/** What moves along with a dragged container or enclosure: what stands in it. */
function heldBy(scene: Scene, node: SheetNode): { plates: string[]; marks: string[]; from: Point } | null {
  if (node.type === 'container') {
    const { box, plateIds } = node.data.container;
    return { plates: plateIds, marks: [], from: box };
  }
  if (node.type !== 'mark' || node.data.mark.form !== 'enclosure') return null;
  const { box, id } = node.data.mark;
  return {
    plates: scene.plates.filter((plate) => inside(box, plate.box)).map((plate) => plate.id),
    marks: scene.marks.filter((mark) => mark.id !== id && inside(box, mark.box)).map((mark) => mark.id),
    from: box,
  };
}

/**
 * Where everything is that is being dragged: the contents of containers and enclosures move with them, and so do the
 * others of an own group, except those that are locked.
 */
export function movedBy(
  scene: Scene,
  dragged: readonly SheetNode[],
  groups: readonly Pick<SheetGroup, 'members'>[],
): Moved {
  const plates = new Map<string, Point>();
  const marks = new Map<string, Point>();
  const boxes = new Map([...scene.plates, ...scene.marks].map((one) => [one.id, one.box]));
  for (const node of dragged) {
    const held = heldBy(scene, node);
    if (node.type === 'plate') plates.set(node.id, node.position);
    if (node.type === 'mark') marks.set(node.data.mark.id, node.position);
    if (held === null) continue;
    const by = { x: node.position.x - held.from.x, y: node.position.y - held.from.y };
    for (const [ids, into] of [
      [held.plates, plates],
      [held.marks, marks],
    ] as const)
      for (const id of ids) {
        const box = boxes.get(id);
        if (box !== undefined && !into.has(id)) into.set(id, { x: box.x + by.x, y: box.y + by.y });
      }
  }
  for (const { members } of groups) {
    const held = new Set(members);
    const inGroup = {
      plates: scene.plates.filter((plate) => plate.subjects.some((id) => held.has(id))),
      marks: scene.marks.filter((mark) => held.has(mark.id)),
    };
    const led = [
      ...inGroup.plates.map(({ id, box }) => ({ box, to: plates.get(id) })),
      ...inGroup.marks.map(({ id, box }) => ({ box, to: marks.get(id) })),
    ].find(({ to }) => to !== undefined);
    if (led?.to === undefined) continue;
    const by = { x: led.to.x - led.box.x, y: led.to.y - led.box.y };
    for (const [ones, into] of [
      [inGroup.plates, plates],
      [inGroup.marks, marks],
    ] as const)
      for (const { id, box, locked } of ones)
        if (!locked && !into.has(id)) into.set(id, { x: box.x + by.x, y: box.y + by.y });
  }
  return { plates, marks };
}

/** Where all plates of a scene stand, by the device or place that keeps it. */
export const standing = (scene: Scene): Map<string, Point> =>
  new Map(
    scene.plates.flatMap(({ subjects, box }) =>
      subjects.slice(0, 1).map((subject): [string, Point] => [subject, { x: box.x, y: box.y }]),
    ),
  );
