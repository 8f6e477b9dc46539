import type { Scene } from '@visograph/core/sheets';
import {
  useEffect,
  useMemo,
  useRef,
  useState,
  type Dispatch,
  type RefObject,
  type SetStateAction,
} from 'react';
import { markNodeId, nodesOf, type SheetNode } from '../sheetNodes.tsx';

interface SheetNodes {
  nodes: SheetNode[];
  setNodes: Dispatch<SetStateAction<SheetNode[]>>;
  /** Ids of the nodes that are chosen. */
  chosenIds: string[];
}

/** The nodes of a scene: made anew with each scene, what is chosen stays chosen. While something is dragged they stay. */
export function useSheetNodes(
  scene: Scene,
  { canEdit, lit, wanted }: { canEdit: boolean; lit: ReadonlySet<string>; wanted: readonly string[] | null },
  dragging: RefObject<boolean>,
  onChosen: (ids: readonly string[]) => void,
): SheetNodes {
  const [nodes, setNodes] = useState<SheetNode[]>(() => nodesOf(scene, canEdit, lit));
  useEffect(() => {
    if (dragging.current) return;
    setNodes((before) => {
      const selected = new Set(before.filter((node) => node.selected).map((node) => node.id));
      return nodesOf(scene, canEdit, lit).map((node) =>
        selected.has(node.id) ? { ...node, selected: true } : node,
      );
    });
  }, [scene, canEdit, lit, dragging]);
  /** What was added is chosen once, when it is there. */
  const given = useRef<readonly string[] | null>(null);
  useEffect(() => {
    if (wanted === null || given.current === wanted) return;
    const ids = new Set(wanted);
    const there = [
      ...scene.plates.map((plate) => plate.id),
      ...scene.marks.map((mark) => markNodeId(mark.id)),
    ];
    if (ids.size > 0 && !there.some((id) => ids.has(id))) return;
    given.current = wanted;
    setNodes((before) => before.map((node) => ({ ...node, selected: ids.has(node.id) })));
  }, [wanted, scene]);
  const chosenIds = useMemo(() => nodes.filter((node) => node.selected).map((node) => node.id), [nodes]);
  const chosenKey = chosenIds.join('\n');
  useEffect(() => onChosen(chosenKey === '' ? [] : chosenKey.split('\n')), [chosenKey, onChosen]);
  return { nodes, setNodes, chosenIds };
}
