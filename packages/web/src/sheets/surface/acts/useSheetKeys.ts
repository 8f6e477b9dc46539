import type { Plate, Scene, SceneLink } from '@visograph/core/sheets';
import { useMemo, useState } from 'react';
import { useKeysHere } from '../../../kit/useKeysHere.ts';
import { copied, type SheetActs } from '../../useSheetActs.ts';
import type { useFacts } from '../../facts/useFacts.ts';
import { markNodeId } from '../sheetNodes.tsx';

export interface OnKeys {
  /** What is asked before it is done. */
  asking: 'delete' | 'paste' | null;
  setAsking: (asking: 'delete' | 'paste' | null) => void;
  /** It is asked how often what is chosen is to be there. */
  duplicating: boolean;
  setDuplicating: (asked: boolean) => void;
  /** Opens the facts of what is chosen: devices, else the line that is held. */
  editFacts: () => void;
}

/** The keys of a sheet, and what they ask. */
export function useSheetKeys(
  scene: Scene,
  acts: SheetActs,
  {
    chosen,
    plates,
    markIds,
    heldLink,
    facts,
    canEdit,
    choose,
    onShow,
    onPalette,
  }: {
    chosen: readonly string[];
    plates: readonly Plate[];
    markIds: readonly string[];
    heldLink: SceneLink | null;
    facts: Pick<ReturnType<typeof useFacts>, 'openPlates' | 'openLink'>;
    canEdit: boolean;
    choose: (ids: readonly string[]) => void;
    onShow: () => void;
    /** Null: nothing is put on this sheet. */
    onPalette: (() => void) | null;
  },
): OnKeys {
  const [asking, setAsking] = useState<OnKeys['asking']>(null);
  const [duplicating, setDuplicating] = useState(false);
  const paste = (): void => {
    const marks = acts.pasteMarks();
    if (marks.length > 0) choose(marks.map(markNodeId));
    if ((copied()?.deviceIds.length ?? 0) > 0) setAsking('paste');
  };
  const editFacts = (): void => {
    const own = plates.filter((plate) => plate.deviceIds.length > 0 && plate.form !== 'place');
    if (own.length > 0) facts.openPlates(own.map(({ id }) => id));
    else if (heldLink !== null) facts.openLink(heldLink, 'middle');
  };
  const keys = useMemo(
    (): Record<string, () => void> => ({
      '.': onShow,
      m: () => onPalette?.(),
      ...(canEdit
        ? {
            Delete: () => chosen.length > 0 && setAsking('delete'),
            d: editFacts,
            'Ctrl+c': () => acts.copy(plates, markIds),
            'Ctrl+v': paste,
            'Ctrl+d': () => plates.length > 0 && setDuplicating(true),
            'Ctrl+a': () =>
              choose([
                ...scene.plates.map((plate) => plate.id),
                ...scene.marks.map((mark) => markNodeId(mark.id)),
              ]),
          }
        : {}),
    }),
    // What is asked by name above reads nothing that is not listed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [canEdit, onPalette === null, chosen, acts, plates, markIds, scene, heldLink],
  );
  useKeysHere(keys);
  return { asking, setAsking, duplicating, setDuplicating, editFacts };
}
