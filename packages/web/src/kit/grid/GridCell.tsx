import type { ReactNode } from 'react';
import { figureText } from './drawn.tsx';
import type { Wrong } from './gridEdits.ts';
import { CellBox } from './gridParts.tsx';
import type { GridColumn, GridRow } from './useGridRows.ts';

interface Props {
  column: GridColumn;
  row: GridRow;
  /** Where it stands among the rows and columns that are shown. */
  at: { row: number; column: number };
  /** It is the one that Tab comes to. */
  focusable: boolean;
  chosen: boolean;
  editable: boolean;
  wrong: Wrong | undefined;
  /** What is typed into it; null where it is not open. */
  typed: string | null;
  onType: (text: string) => void;
  onBlur: () => void;
  onPress: (extend: boolean) => void;
  onOpen: () => void;
}

export const cellStyle = ({ width, numeric }: GridColumn) => ({
  flex: `${width} 0 ${width}px`,
  textAlign: numeric === true ? ('right' as const) : ('left' as const),
});

/** One cell: its value, or what was typed and could not be kept, or the field that is typed into. */
export function GridCell({
  column,
  row,
  at,
  focusable,
  chosen,
  editable,
  wrong,
  typed,
  onType,
  onBlur,
  onPress,
  onOpen,
}: Props): ReactNode {
  const value = row.cells[column.key] ?? '';
  const repeats = wrong === undefined && row.repeats?.has(column.key) === true;
  const figure = column.figure === true && typeof value === 'number' ? figureText(value) : value;
  const shown = wrong?.text ?? figure;
  const isDrawn = wrong === undefined && column.draw !== undefined && row.heading === undefined;
  const drawn = isDrawn ? column.draw?.(value, row.cells) : shown;
  return (
    <CellBox
      role="gridcell"
      aria-colindex={at.column + 1}
      aria-invalid={wrong !== undefined}
      aria-readonly={!editable}
      $text={column.text}
      $wrong={wrong !== undefined}
      $block={chosen}
      tabIndex={focusable ? 0 : -1}
      title={String(shown)}
      data-spot={`${at.row}/${at.column}`}
      style={cellStyle(column)}
      onClick={(event) => onPress(event.shiftKey)}
      onDoubleClick={onOpen}
    >
      {typed === null ? (
        !repeats && drawn
      ) : (
        <input
          aria-label={column.label}
          autoFocus
          value={typed}
          onChange={(event) => onType(event.target.value)}
          onBlur={onBlur}
        />
      )}
    </CellBox>
  );
}
