import type { Sheet } from '@visograph/core/model';
import { snapToOthers, type Guide, type Point, type Scene } from '@visograph/core/sheets';
import { useCallback, useEffect, useState, type Dispatch, type RefObject, type SetStateAction } from 'react';
import { movedBy, type Moved } from './moved.ts';
import { markIdOf, type SheetNode } from '../sheetNodes.tsx';

type Drag = (event: unknown, node: SheetNode, dragged: SheetNode[]) => void;
interface Dragging {
  /** Where plates are that are being dragged. */
  moved: ReadonlyMap<string, Point>;
  guides: readonly Guide[];
  onDrag: Drag;
  onDragStop: Drag;
}

/** Whether anything was put somewhere else, to a whole unit. */
export function reallyMoved(scene: Scene, now: Moved): boolean {
  const boxes = new Map([...scene.plates, ...scene.marks].map((one) => [one.id, one.box]));
  return [...now.plates, ...now.marks].some(([id, to]) => {
    const box = boxes.get(id);
    return (
      box !== undefined && (Math.round(box.x) !== Math.round(to.x) || Math.round(box.y) !== Math.round(to.y))
    );
  });
}

/** Dragging of nodes: what is in a container or group goes along, guides show what lines up, the drop is kept once. */
export function useDragging(
  scene: Scene,
  groups: Sheet['groups'],
  dragging: RefObject<boolean>,
  setNodes: Dispatch<SetStateAction<SheetNode[]>>,
  onMoved: (moved: Moved) => void,
): Dragging {
  const [moved, setMoved] = useState<ReadonlyMap<string, Point>>(new Map());
  const [guides, setGuides] = useState<readonly Guide[]>([]);
  useEffect(() => {
    if (!dragging.current) setMoved(new Map());
  }, [scene, dragging]);
  const onDrag = useCallback<Drag>(
    (_event, node, dragged) => {
      dragging.current = true;
      const now = movedBy(scene, dragged.length > 0 ? dragged : [node], groups);
      setMoved(now.plates);
      const others = scene.plates.filter((plate) => !now.plates.has(plate.id)).map((plate) => plate.box);
      const box = { ...node.position, width: node.width ?? 0, height: node.height ?? 0 };
      setGuides(node.type === 'plate' && now.plates.size === 1 ? snapToOthers(box, others, 1).guides : []);
      if (now.plates.size + now.marks.size > dragged.length)
        setNodes((before) =>
          before.map((one) => {
            if (one.id === node.id || dragged.some(({ id }) => id === one.id)) return one;
            const to = now.plates.get(one.id) ?? now.marks.get(markIdOf(one.id) ?? '');
            return to === undefined ? one : { ...one, position: to };
          }),
        );
    },
    [scene, groups, dragging, setNodes],
  );
  const onDragStop = useCallback<Drag>(
    (_event, node, dragged) => {
      dragging.current = false;
      setGuides([]);
      const now = movedBy(scene, dragged.length > 0 ? dragged : [node], groups);
      if (reallyMoved(scene, now)) onMoved(now);
      else setMoved(new Map());
    },
    [onMoved, scene, groups, dragging],
  );
  return { moved, guides, onDrag, onDragStop };
}
