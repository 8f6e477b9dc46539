import { withBundlesOpen, type Scene, type SceneBundle, type SceneLink } from '@visograph/core/sheets';
import { useStore } from '@xyflow/react';
import { useCallback, useMemo, useState } from 'react';

/** From this zoom on lanes can be told apart: bundles open by themselves. */
const openFrom = 1.2;

export interface Bundles {
  /** The scene with those in lanes that are open. */
  shown: Scene;
  /** Links of the bundle under the pointer, or of the one that is chosen. */
  litLink: (link: SceneLink) => boolean;
  isLit: (bundle: SceneBundle) => boolean;
  chosen: SceneBundle | null;
  /** All are open at this zoom. */
  allOpen: boolean;
  isOpen: (bundle: SceneBundle) => boolean;
  choose: (id: string | null) => void;
  hover: (id: string | null) => void;
  toggle: (id: string) => void;
}

/** Which bundles of a sheet are open, chosen, and looked at. */
export function useBundles(scene: Scene): Bundles {
  const allOpen = useStore((state) => state.transform[2] >= openFrom);
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const [chosenId, choose] = useState<string | null>(null);
  const [hovered, hover] = useState<string | null>(null);
  const isOpen = useCallback(
    (bundle: SceneBundle): boolean => allOpen || bundle.open || opened.has(bundle.id),
    [allOpen, opened],
  );
  const shown = useMemo(() => withBundlesOpen(scene, isOpen), [scene, isOpen]);
  const chosen = scene.bundles.find(({ id }) => id === chosenId) ?? null;
  const lit = useMemo(() => {
    const of = new Set([chosenId, hovered]);
    return new Set(scene.bundles.flatMap(({ id, linkIds }) => (of.has(id) ? linkIds : [])));
  }, [scene, chosenId, hovered]);
  const litLink = useCallback(({ id }: SceneLink): boolean => lit.has(id), [lit]);
  const toggle = useCallback(
    (id: string): void =>
      setOpened((before) => {
        const after = new Set(before);
        if (!after.delete(id)) after.add(id);
        return after;
      }),
    [],
  );
  const isLit = ({ id }: SceneBundle): boolean => id === chosenId || id === hovered;
  return { shown, litLink, isLit, chosen, allOpen, isOpen, choose, hover, toggle };
}
