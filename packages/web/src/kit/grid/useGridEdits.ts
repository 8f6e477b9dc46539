import { useRef, useState, type ClipboardEvent } from 'react';
import {
  copiedText,
  filledDown,
  keptAfter,
  pastedBelow,
  pastedEdits,
  spotKey,
  type CellEdit,
  type Wrong,
} from './gridEdits.ts';
import type { Spot } from './gridBlocks.ts';
import type { GridColumn, GridRow } from './useGridRows.ts';
import type { GridSpot } from './useGridSpot.ts';

export interface GridEdits {
  /** The cell that is typed into, with what was typed. */
  editing: CellEdit | null;
  type: (text: string) => void;
  /** Opens the cell that has the focus: with a text in place of its own, or as it is. */
  begin: (text: string | null) => void;
  /** Keeps what was typed and goes on to a cell; null: stays. */
  finish: (move: Spot | null) => void;
  giveUp: () => void;
  /** The focus left the cell by itself. */
  onBlur: () => void;
  /** What could not be kept in a cell, with the reason. */
  wrongAt: (id: string, key: string) => Wrong | undefined;
  fillDown: () => void;
  onCopy: (event: ClipboardEvent) => void;
  onPaste: (event: ClipboardEvent) => void;
}

/** Typing into cells, pasting and filling; a value that cannot be kept stays where it was typed, with the reason. */
export function useGridEdits(
  columns: readonly GridColumn[],
  shown: readonly GridRow[],
  { spot, block, focusSpot }: GridSpot,
  onEdit: ((id: string, key: string, text: string) => string | null) | undefined,
  onAppend?: (text: string) => string | null,
): GridEdits {
  const [editing, setEditing] = useState<CellEdit | null>(null);
  const [wrong, setWrong] = useState<ReadonlyMap<string, Wrong>>(new Map());
  /** The edit was kept or given up already: losing the focus then keeps nothing again. */
  const settled = useRef(false);
  const keep = (edits: readonly CellEdit[]): void => {
    if (onEdit !== undefined) setWrong(keptAfter(wrong, shown, edits, onEdit));
  };
  const close = (move: Spot | null): void => {
    settled.current = true;
    setEditing(null);
    focusSpot(move ?? spot);
  };
  return {
    editing,
    type: (text) => setEditing((before) => before && { ...before, text }),
    begin: (text) => {
      const [row, column] = [shown[spot.row], columns[spot.column]];
      if (row === undefined || row.heading !== undefined) return;
      if (column?.editable !== true || onEdit === undefined) return;
      settled.current = false;
      const kept = wrong.get(spotKey(row.id, column.key))?.text;
      setEditing({ id: row.id, key: column.key, text: text ?? kept ?? String(row.cells[column.key] ?? '') });
    },
    finish: (move) => {
      if (editing !== null) keep([editing]);
      close(move);
    },
    giveUp: () => close(null),
    onBlur: () => {
      if (settled.current || editing === null) return;
      keep([editing]);
      setEditing(null);
    },
    wrongAt: (id, key) => wrong.get(spotKey(id, key)),
    fillDown: () => keep(filledDown(columns, shown, block)),
    onCopy: (event) => {
      if (editing !== null) return;
      event.clipboardData.setData('text/plain', copiedText(columns, shown, block));
      event.preventDefault();
    },
    onPaste: (event) => {
      if (editing !== null || onEdit === undefined) return;
      event.preventDefault();
      const text = event.clipboardData.getData('text/plain');
      keep(pastedEdits(columns, shown, spot, text));
      const below = onAppend === undefined ? null : pastedBelow(columns, shown, spot, text);
      if (below !== null) onAppend?.(below);
    },
  };
}
