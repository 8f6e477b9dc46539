import type { Sheet } from '@visograph/core/model';
import type { Point, Scene } from '@visograph/core/sheets';
import { applyNodeChanges, type NodeChange } from '@xyflow/react';
import { useCallback, useEffect, useRef, type Dispatch, type RefObject, type SetStateAction } from 'react';
import { movedBy, type Moved } from './moved.ts';
import type { SheetNode } from '../sheetNodes.tsx';

/** Milliseconds after the last arrow key until a move by keys is kept. */
const nudgePause = 350;

/** Moves by the arrow keys: steps that follow each other at once are one move, and one undo. */
export function useNudges(
  scene: Scene,
  groups: Sheet['groups'],
  { nodes, setNodes }: { nodes: readonly SheetNode[]; setNodes: Dispatch<SetStateAction<SheetNode[]>> },
  dragging: RefObject<boolean>,
  onMoved: (moved: Moved) => void,
): {
  onNodesChange: (changes: NodeChange<SheetNode>[]) => void;
  /** Keeps what was moved, now. */
  settle: () => void;
  settleSoon: () => void;
} {
  const nudged = useRef<Map<string, Point>>(new Map());
  const onNodesChange = useCallback(
    (changes: NodeChange<SheetNode>[]) => {
      setNodes((before) => applyNodeChanges(changes, before));
      if (dragging.current) return;
      for (const change of changes)
        if (change.type === 'position' && change.position !== undefined && change.dragging !== true)
          nudged.current.set(change.id, change.position);
    },
    [dragging, setNodes],
  );
  const settle = useCallback(() => {
    if (nudged.current.size === 0) return;
    const ids = nudged.current;
    nudged.current = new Map();
    const steps = nodes.filter((node) => ids.has(node.id));
    onMoved(movedBy(scene, steps, groups));
  }, [onMoved, scene, nodes, groups]);
  const latest = useRef(settle);
  useEffect(() => {
    latest.current = settle;
  }, [settle]);
  const soon = useRef<ReturnType<typeof setTimeout> | null>(null);
  const settleSoon = useCallback(() => {
    if (soon.current !== null) clearTimeout(soon.current);
    soon.current = setTimeout(() => latest.current(), nudgePause);
  }, []);
  return { onNodesChange, settle, settleSoon };
}
