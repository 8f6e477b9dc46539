import type { KeyboardEvent } from 'react';
import { moveFor } from './gridBlocks.ts';
import type { GridEdits } from './useGridEdits.ts';
import type { GridColumn, GridRow } from './useGridRows.ts';
import type { GridSpot } from './useGridSpot.ts';

interface Keyed {
  columns: readonly GridColumn[];
  shown: readonly GridRow[];
  at: GridSpot;
  edits: GridEdits;
  /** Whether anything can be typed here. */
  editable: boolean;
  onSelect: (id: string) => void;
  /** Makes a column wider or narrower; null where that is not kept. */
  onWider: ((column: GridColumn, by: number) => void) | null;
  /** Goes to what is below the last row. */
  onBelow: () => void;
}

/** Whether a key is a letter that is typed, not a command. */
const isLetter = ({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean =>
  key.length === 1 && !ctrlKey && !metaKey && !altKey;

/** While a cell is open: Enter and Tab keep and go on, Escape gives up, all else is its own. */
function onTyping(event: KeyboardEvent, { spot }: GridSpot, edits: GridEdits): void {
  if (event.key === 'Enter') edits.finish({ row: spot.row + 1, column: spot.column });
  else if (event.key === 'Tab')
    edits.finish({ row: spot.row, column: spot.column + (event.shiftKey ? -1 : 1) });
  else if (event.key === 'Escape') edits.giveUp();
  else return;
  event.preventDefault();
  event.stopPropagation();
}

/**
 * The keys of a grid: moves, Enter and F2 open a cell, a letter begins one, space selects the row, Ctrl D fills down, Alt Shift and an
 * arrow make the column wider or narrower.
 */
export const gridKeys =
  ({ columns, shown, at, edits, editable, onSelect, onWider, onBelow }: Keyed) =>
  (event: KeyboardEvent): void => {
    if (edits.editing !== null) return onTyping(event, at, edits);
    const row = shown[at.spot.row];
    const typed = editable && columns[at.spot.column]?.editable === true && row?.heading === undefined;
    const move = moveFor(event.key, at.spot, at.end, event.ctrlKey);
    const column = columns[at.spot.column];
    const sideways = event.key === 'ArrowLeft' || event.key === 'ArrowRight';
    if (sideways && event.altKey && event.shiftKey && onWider !== null && column !== undefined)
      onWider(column, event.key === 'ArrowLeft' ? -16 : 16);
    else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'd') edits.fillDown();
    else if (event.key === 'ArrowDown' && !event.shiftKey && at.spot.row === shown.length - 1) onBelow();
    else if (move !== null) at.focusSpot(move, event.shiftKey);
    else if ((event.key === 'Enter' || event.key === 'F2') && typed) edits.begin(null);
    else if (event.key === 'Enter' || event.key === 'F2' || event.key === ' ') {
      if (row !== undefined && row.heading === undefined) onSelect(row.id);
    } else if (typed && isLetter(event)) {
      event.stopPropagation();
      edits.begin(event.key);
    } else return;
    event.preventDefault();
  };
