import { useMemo, useRef, type Dispatch, type SetStateAction } from 'react';
import type { SheetNode } from '../sheetNodes.tsx';

interface Keys {
  shiftKey: boolean;
  ctrlKey: boolean;
  metaKey: boolean;
}
/** Whether a press adds to what is chosen, or takes from it. */
export const isAdding = ({ shiftKey, ctrlKey, metaKey }: Keys): boolean => shiftKey || ctrlKey || metaKey;

/**
 * Adds what is pressed with a key to what was chosen before, or takes it out. The surface knows of the key only when it
 * has drawn anew: pressed sooner it would choose that one alone.
 */
export function useAddTo(
  chosenIds: readonly string[],
  setNodes: Dispatch<SetStateAction<SheetNode[]>>,
): {
  press: (event: Keys & { target: EventTarget }) => void;
  click: (id: string) => void;
  /** The press on the node ended beside it, where the surface is about to let go of all that was chosen. */
  clickBeside: (id: string, adding: boolean) => void;
  /** On which node the last press began. */
  pressed: () => string | null;
} {
  const now = useRef(chosenIds);
  now.current = chosenIds;
  const before = useRef<readonly string[]>([]);
  const began = useRef<string | null>(null);
  return useMemo(() => {
    const choose = (wanted: ReadonlySet<string>): void =>
      setNodes((nodes) => nodes.map((node) => ({ ...node, selected: wanted.has(node.id) })));
    const added = (id: string): Set<string> => {
      const wanted = new Set(before.current);
      if (!wanted.delete(id)) wanted.add(id);
      return wanted;
    };
    return {
      press: (event) => {
        if (isAdding(event)) before.current = now.current;
        const node =
          event.target instanceof Element ? event.target.closest<HTMLElement>('.react-flow__node') : null;
        began.current = node?.dataset['id'] ?? null;
      },
      pressed: () => began.current,
      click: (id) => choose(added(id)),
      clickBeside: (id, adding) => {
        const wanted = adding ? added(id) : new Set([id]);
        queueMicrotask(() => choose(wanted));
      },
    };
  }, [setNodes]);
}
