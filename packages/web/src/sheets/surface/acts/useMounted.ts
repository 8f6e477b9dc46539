import { overlap, type Box } from '@visograph/core/sheets';
import { useStore } from '@xyflow/react';
import { useMemo, useState } from 'react';
import { farAbove, farBelow } from '../FarLayer.tsx';
import type { SheetNode } from '../sheetNodes.tsx';
import { useGradually } from './useGradually.ts';
import { useRegion } from './useRegion.ts';

/** Plates and links that a very large sheet mounts at one frame; a sheet of fewer plates mounts all in view at once. */
const mountedEach = 40;
const mountedAtOnce = 600;

interface Mounted {
  /** The nodes to mount: those in view and around it. */
  shown: readonly SheetNode[];
  /** What is in view of a large sheet; null of others. */
  region: Box | null;
  /** So many at a frame, or null for all at once. */
  each: number | null;
  /** The drawing is far away: it is painted as a whole. */
  far: boolean;
  /** Painted as a whole beneath what is mounted, until that is complete; null where it never is. */
  painted: 'beneath' | 'shown' | null;
  /** Links can be drawn: it is known what is in view. */
  ready: boolean;
  onFitted: () => void;
}

/** What of a sheet is mounted: all of a small one, what is in view of a large one, and nothing from far away. */
export function useMounted(nodes: readonly SheetNode[], plates: number): Mounted {
  const large = plates > farAbove;
  const huge = plates > mountedAtOnce;
  const far = useStore((state) => large && state.transform[2] < farBelow);
  /** Nothing is mounted before it is known what is in view, and how large. */
  const [fitted, setFitted] = useState(false);
  const { box: region, stale } = useRegion(large && !far, huge);
  const near = useMemo(() => {
    if (far || !fitted || (huge && region === null)) return [];
    if (region === null) return nodes;
    return nodes.filter(
      (node) =>
        node.selected === true ||
        overlap({ ...node.position, width: node.width ?? 0, height: node.height ?? 0 }, region),
    );
  }, [nodes, far, fitted, region, huge]);
  const each = huge ? mountedEach : null;
  const shown = useGradually(near, each);
  const incomplete = far || stale || shown.length < near.length;
  return {
    shown,
    region,
    each,
    far,
    painted: large && fitted ? (incomplete ? 'shown' : 'beneath') : null,
    ready: !far && fitted && !(huge && region === null),
    onFitted: () => setFitted(true),
  };
}
