import { useRef, type ReactNode } from 'react';
import { AppendRow } from './AppendRow.tsx';
import { holds } from './gridBlocks.ts';
import { cellStyle, GridCell } from './GridCell.tsx';
import { HeadEdge, widerBy } from './HeadEdge.tsx';
import { Frame, HeadCell, HeadRow, Row, Why } from './gridParts.tsx';
import { useGridEdits } from './useGridEdits.ts';
import { gridKeys } from './gridKeys.ts';
import {
  useGridRows,
  type ColumnOrder,
  type GridColumn,
  type GridRow,
  type OwnOrder,
} from './useGridRows.ts';
import { useGridSpot } from './useGridSpot.ts';

export type { GridColumn, GridRow, OwnOrder } from './useGridRows.ts';

interface GridProps {
  label: string;
  columns: readonly GridColumn[];
  rows: readonly GridRow[];
  selectedId: string | null;
  onSelect: (id: string) => void;
  /** Takes what was typed; gives the reason when it cannot be kept. */
  onEdit?: (id: string, key: string, text: string) => string | null;
  /** Takes what is typed or pasted below the last row; gives the reason when it cannot be taken. */
  onAppend?: (text: string) => string | null;
  /** What can be typed there, such as "a name, or rows of a spreadsheet". */
  appends?: string;
  filter?: string;
  /** The order of the rows where it is kept elsewhere; otherwise the grid puts them in order itself. */
  order?: OwnOrder;
  /** Takes the width that a column is to have, where that is kept. */
  onWidth?: (key: string, width: number) => void;
  empty?: ReactNode;
}

const arrows: Readonly<Record<ColumnOrder['order'], string>> = {
  none: '',
  ascending: ' ↑',
  descending: ' ↓',
};

function Heads({
  columns,
  orderOf,
  onWidth,
}: {
  columns: readonly GridColumn[];
  orderOf: (key: string) => ColumnOrder;
  onWidth?: (key: string, width: number) => void;
}): ReactNode {
  return (
    <HeadRow role="row" aria-rowindex={1}>
      {columns.map((column) => {
        const { order, turn } = orderOf(column.key);
        return (
          <HeadCell key={column.key} role="columnheader" aria-sort={order} style={cellStyle(column)}>
            <button
              type="button"
              tabIndex={-1}
              data-worked={column.worked}
              title={column.worked === true ? 'Worked out: it cannot be typed in' : undefined}
              onClick={turn}
            >
              {`${column.label}${arrows[order]}`}
            </button>
            {onWidth !== undefined && (
              <HeadEdge width={column.width} onWidth={(width) => onWidth(column.key, width)} />
            )}
          </HeadCell>
        );
      })}
    </HeadRow>
  );
}

/**
 * Rows and columns that work like a spreadsheet: arrows, type to edit, Enter and Tab, copy and paste of blocks,
 * sorting by the heads. Only what is in view is in the document. A value that cannot be kept stays, marked, with the
 * reason; the rest is saved.
 */
export function Grid({
  label,
  columns,
  rows,
  selectedId,
  onSelect,
  onEdit,
  onAppend,
  appends = '',
  filter = '',
  order,
  onWidth,
  empty,
}: GridProps): ReactNode {
  const listed = useGridRows(columns, rows, filter, selectedId, order);
  const { shown, virtual } = listed;
  const at = useGridSpot(listed, columns.length);
  const edits = useGridEdits(columns, shown, at, onEdit, onAppend);
  const below = useRef<HTMLInputElement>(null);
  const editable = onEdit !== undefined;
  const why = edits.wrongAt(shown[at.spot.row]?.id ?? '', columns[at.spot.column]?.key ?? '')?.why;
  return (
    <>
      <Frame
        ref={listed.scroller}
        role="grid"
        tabIndex={-1}
        aria-label={label}
        aria-rowcount={shown.length + 1}
        aria-colcount={columns.length}
        onKeyDown={gridKeys({
          ...{ columns, shown, at, edits, editable, onSelect },
          onBelow: () => below.current?.focus(),
          onWider:
            onWidth === undefined ? null : (column, by) => onWidth(column.key, widerBy(column.width, by)),
        })}
        onCopy={edits.onCopy}
        onPaste={edits.onPaste}
      >
        <div role="rowgroup">
          <Heads columns={columns} orderOf={listed.orderOf} onWidth={onWidth} />
        </div>
        {shown.length === 0 && empty}
        <div
          role="rowgroup"
          style={{
            height: virtual.getTotalSize(),
            position: 'relative',
            minWidth: columns.reduce((sum, column) => sum + column.width, 0),
          }}
        >
          {virtual.getVirtualItems().map(({ index, start }) => {
            const row = shown[index];
            if (row === undefined) return null;
            return (
              <Row
                key={row.id}
                role="row"
                aria-rowindex={index + 2}
                aria-selected={row.id === selectedId}
                data-heading={row.heading}
                style={{ transform: `translateY(${start}px)` }}
              >
                {columns.map((column, across) => {
                  const here = { row: index, column: across };
                  const open = edits.editing?.id === row.id && edits.editing.key === column.key;
                  return (
                    <GridCell
                      key={column.key}
                      column={column}
                      row={row}
                      at={here}
                      focusable={at.spot.row === index && at.spot.column === across}
                      chosen={at.isBlock && holds(at.block, here)}
                      editable={editable && column.editable === true && row.heading === undefined}
                      wrong={edits.wrongAt(row.id, column.key)}
                      typed={open ? (edits.editing?.text ?? '') : null}
                      onType={edits.type}
                      onBlur={edits.onBlur}
                      onPress={(extend) => {
                        at.focusSpot(here, extend);
                        if (!extend && row.heading === undefined) onSelect(row.id);
                      }}
                      onOpen={() => edits.begin(null)}
                    />
                  );
                })}
              </Row>
            );
          })}
        </div>
      </Frame>
      {onAppend !== undefined && (
        <AppendRow
          input={below}
          hint={appends}
          onAppend={onAppend}
          onUp={() => at.focusSpot({ row: shown.length - 1, column: 0 })}
        />
      )}
      {why !== undefined && <Why role="alert">{why}</Why>}
    </>
  );
}
