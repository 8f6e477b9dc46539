import { useEffect } from 'react';
import { useParams } from 'react-router';
import { useNarrow } from '../kit/useNarrow.ts';
import { useWhereabouts } from './location.ts';
import { recordManners, useWorkspace, type RecordManner } from './workspace.tsx';

export interface RecordShown {
  shown: boolean;
  /** Beside a drawing or a schedule: it comes with what is chosen and leaves with it. */
  comesAndGoes: boolean;
  /** It lies over the work area, on a window no wider than a tablet's. */
  drawer: boolean;
  manner: RecordManner;
  /** Shows or hides it: by the key and by its button. */
  toggle: () => void;
  show: () => void;
  /** Whether it stays beside a drawing on which nothing is chosen. */
  setStays: (stays: boolean) => void;
}

/**
 * Whether the record is there. A drawing, a schedule and a parts list has the window to itself until something on it is chosen; in other sections
 * the record stands beside the rows. What the person set holds from then on; with nothing chosen on a drawing it is
 * only looked at.
 */
export function useRecordShown(): RecordShown {
  const { recordManner: manner, setRecordManner, recordPeeked: peeked, setRecordPeeked } = useWorkspace();
  const { section, selection, rackId, select } = useWhereabouts();
  const drawer = useNarrow();
  const { sheet } = useParams();
  const onDrawing =
    (section === 'sheets' && sheet !== undefined) || (section === 'places' && rackId !== null);
  const comesAndGoes =
    drawer ||
    section === 'start' ||
    section === 'sheets' ||
    section === 'schedules' ||
    section === 'parts' ||
    onDrawing;
  const alone = comesAndGoes && selection === null;
  // A drawer would cover what is drawn on: there it comes when it is asked for.
  const asked = alone || (drawer && onDrawing);
  const shown = asked ? peeked || (manner === 'stays' && !drawer) : manner !== 'closed';
  // What was only looked at leaves as soon as something else is the matter.
  useEffect(() => {
    setRecordPeeked(false);
  }, [alone, sheet, rackId, setRecordPeeked]);
  const show = (): void => {
    if (asked) setRecordPeeked(true);
    else setRecordManner(manner === 'closed' ? recordManners[0] : manner);
  };
  return {
    shown,
    comesAndGoes,
    drawer,
    manner,
    show,
    toggle: () => {
      if (!shown) return show();
      setRecordPeeked(false);
      // A drawer is put away with what it is about: the next thing chosen brings it again.
      if (drawer) return onDrawing ? undefined : select(null);
      if (!alone) setRecordManner('closed');
      else if (manner === 'stays') setRecordManner(recordManners[0]);
    },
    setStays: (stays) => setRecordManner(stays ? 'stays' : recordManners[0]),
  };
}
