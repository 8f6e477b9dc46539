import {
  createFilteredRowModel,
  createSortedRowModel,
  filterFn_includesString,
  globalFilteringFeature,
  columnFilteringFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { compareNames } from '@visograph/core/model';
import { type TableRow } from '@visograph/core/report';
import {
  useEffect,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
  type ReactNode,
} from 'react';
import { styled } from 'styled-components';
import { mono } from '../../theme/mono.ts';
import {
  blockOf,
  countOn,
  holds,
  moveFor,
  pastedCells,
  within,
  type Block,
  type Spot,
} from './gridBlocks.ts';

export interface GridColumn {
  key: string;
  label: string;
  width: number;
  numeric?: boolean;
  text?: boolean;
  editable?: boolean;
}
export interface GridRow {
  id: string;
  cells: TableRow;
}
interface GridProps {
  label: string;
  columns: readonly GridColumn[];
  rows: readonly GridRow[];
  selectedId: string | null;
  onSelect: (id: string) => void;
  /** Takes what was typed; gives the reason when it cannot be kept. */
  onEdit?: (id: string, key: string, text: string) => string | null;
  filter?: string;
  empty?: ReactNode;
}

const rowHeight = 28;

const features = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  globalFilteringFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
  filterFns: { includesString: filterFn_includesString },
  sortFns: {
    number: (a, b, columnId) => Number(a.getValue(columnId) ?? -1) - Number(b.getValue(columnId) ?? -1),
    human: (a, b, columnId) =>
      compareNames(String(a.getValue(columnId) ?? ''), String(b.getValue(columnId) ?? '')),
  },
});

const Frame = styled.div`
  flex: 1;
  min-height: 0;
  min-width: 0;
  overflow: auto;
  background: ${({ theme }) => theme.surface};
  outline: none;
`;
const HeadRow = styled.div`
  display: flex;
  position: sticky;
  top: 0;
  z-index: 2;
  height: 26px;
  background: ${({ theme }) => theme.band};
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`;
const HeadCell = styled.div`
  display: flex;
  min-width: 0;
  button {
    flex: 1;
    font: inherit;
    font-weight: 600;
    color: ${({ theme }) => theme.inkSoft};
    text-align: inherit;
    border: 0;
    background: none;
    padding: 0 7px;
    white-space: nowrap;
  }
`;
const Row = styled.div`
  position: absolute;
  left: 0;
  width: 100%;
  display: flex;
  height: ${rowHeight}px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  &[aria-selected='true'] {
    background: ${({ theme }) => theme.accentWash};
  }
`;
const CellBox = styled.div<{ $text?: boolean; $wrong?: boolean; $block?: boolean }>`
  min-width: 0;
  padding: 0 7px;
  line-height: ${rowHeight - 1}px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  outline-offset: -2px;
  ${({ $text }) => ($text === true ? '' : mono)}
  ${({ $text }) => ($text === true ? '' : 'font-size: 12px;')}
  ${({ theme, $wrong }) => ($wrong === true ? `box-shadow: inset 0 0 0 2px ${theme.bad};` : '')}
  ${({ theme, $block }) => ($block === true ? `background: ${theme.accentWash};` : '')}
  &:focus {
    outline: 2px solid ${({ theme }) => theme.accent};
  }
  input {
    font: inherit;
    color: inherit;
    width: 100%;
    height: 24px;
    border: 0;
    padding: 0;
    outline: none;
    background: ${({ theme }) => theme.surface};
  }
`;
const Why = styled.p`
  flex: none;
  padding: 6px 12px;
  color: ${({ theme }) => theme.bad};
  border-top: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
`;

interface Wrong {
  text: string;
  why: string;
}
const spotKey = (id: string, key: string): string => `${id}|${key}`;

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
  filter = '',
  empty,
}: GridProps): ReactNode {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [spot, setSpot] = useState<Spot>({ row: 0, column: 0 });
  const [anchor, setAnchor] = useState<Spot | null>(null);
  const [editing, setEditing] = useState<{ id: string; key: string; text: string } | null>(null);
  const [wrong, setWrong] = useState<ReadonlyMap<string, Wrong>>(new Map());
  const scroller = useRef<HTMLDivElement>(null);
  /** The edit was kept or given up already: losing the focus then keeps nothing again. */
  const settled = useRef(false);
  const definitions = useMemo(
    () =>
      columns.map((column): ColumnDef<typeof features, GridRow> => ({
        id: column.key,
        accessorFn: (row) => row.cells[column.key],
        sortFn: column.numeric === true ? 'number' : 'human',
        filterFn: 'includesString',
      })),
    [columns],
  );
  const data = useMemo(() => [...rows], [rows]);
  const table = useTable({
    features,
    columns: definitions,
    data,
    state: { sorting, globalFilter: filter },
    onSortingChange: setSorting,
    getRowId: (row) => row.id,
    globalFilterFn: 'includesString',
    getColumnCanGlobalFilter: () => true,
  });
  const shown = table.getRowModel().rows;
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    scrollPaddingStart: rowHeight,
    scrollPaddingEnd: rowHeight + 2,
  });

  const scrollTo = virtual.scrollToIndex;
  useEffect(() => {
    const at = selectedId === null ? -1 : shown.findIndex((row) => row.id === selectedId);
    if (at >= 0) requestAnimationFrame(() => scrollTo(at, { align: 'auto' }));
    // Only a new selection moves the rows, not a new sorting of them.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [selectedId]);

  const end = { rows: shown.length, columns: columns.length };
  const focusSpot = (next: Spot, extend = false): void => {
    const { row, column } = within(next, end);
    setAnchor(extend ? (anchor ?? spot) : null);
    setSpot({ row, column });
    virtual.scrollToIndex(row);
    const cell = (): HTMLElement | null | undefined =>
      scroller.current?.querySelector<HTMLElement>(`[data-spot="${row}/${column}"]`);
    if (cell() != null) return cell()?.focus();
    // Until the cell is drawn the frame itself hears the keys, so that none is lost.
    scroller.current?.focus();
    requestAnimationFrame(() => cell()?.focus());
  };
  const keep = (id: string, key: string, text: string): void => {
    const before = rows.find((row) => row.id === id)?.cells[key];
    const same = text === String(before ?? '');
    const why = same ? null : (onEdit?.(id, key, text) ?? null);
    const next = new Map(wrong);
    if (why === null) next.delete(spotKey(id, key));
    else next.set(spotKey(id, key), { text, why });
    setWrong(next);
  };
  const finish = (move: Spot | null): void => {
    settled.current = true;
    if (editing !== null) keep(editing.id, editing.key, editing.text);
    setEditing(null);
    focusSpot(move ?? spot);
  };
  const begin = (text: string | null): void => {
    const row = shown[spot.row];
    const column = columns[spot.column];
    if (row === undefined || column?.editable !== true || onEdit === undefined) return;
    settled.current = false;
    const kept = wrong.get(spotKey(row.id, column.key))?.text;
    setEditing({
      id: row.id,
      key: column.key,
      text: text ?? kept ?? String(row.original.cells[column.key] ?? ''),
    });
  };
  const block = (): Block => blockOf(anchor ?? spot, spot);
  const onCopy = (event: ClipboardEvent): void => {
    if (editing !== null) return;
    const area = block();
    const lines = shown.slice(area.rows[0], area.rows[1] + 1).map((row) =>
      columns
        .slice(area.columns[0], area.columns[1] + 1)
        .map((column) => String(row.original.cells[column.key] ?? ''))
        .join('\t'),
    );
    event.clipboardData.setData('text/plain', lines.join('\n'));
    event.preventDefault();
  };
  const onPaste = (event: ClipboardEvent): void => {
    if (editing !== null || onEdit === undefined) return;
    event.preventDefault();
    const next = new Map(wrong);
    pastedCells(event.clipboardData.getData('text/plain')).forEach((cells, down) =>
      cells.forEach((text, across) => {
        const row = shown[spot.row + down];
        const column = columns[spot.column + across];
        if (row === undefined || column?.editable !== true) return;
        const why = onEdit(row.id, column.key, text);
        if (why === null) next.delete(spotKey(row.id, column.key));
        else next.set(spotKey(row.id, column.key), { text, why });
      }),
    );
    setWrong(next);
  };
  /** Fills the chosen block from its first row, counting on; one cell alone takes what stands above it. */
  const fillDown = (): void => {
    if (onEdit === undefined) return;
    const { rows: chosenRows, columns: across } = block();
    const from = chosenRows[0] === chosenRows[1] ? chosenRows[0] - 1 : chosenRows[0];
    const first = shown[from];
    if (first === undefined) return;
    const next = new Map(wrong);
    for (let at = from + 1; at <= chosenRows[1]; at++)
      for (let column = across[0]; column <= across[1]; column++) {
        const [row, one] = [shown[at], columns[column]];
        if (row === undefined || one?.editable !== true) continue;
        const text = countOn(String(first.original.cells[one.key] ?? ''), at - from);
        const why = onEdit(row.id, one.key, text);
        if (why === null) next.delete(spotKey(row.id, one.key));
        else next.set(spotKey(row.id, one.key), { text, why });
      }
    setWrong(next);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (editing !== null) {
      if (event.key === 'Enter') finish({ row: spot.row + 1, column: spot.column });
      else if (event.key === 'Tab')
        finish({ row: spot.row, column: spot.column + (event.shiftKey ? -1 : 1) });
      else if (event.key === 'Escape') {
        settled.current = true;
        setEditing(null);
        focusSpot(spot);
      } else return;
      event.preventDefault();
      event.stopPropagation();
      return;
    }
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'd') {
      event.preventDefault();
      fillDown();
      return;
    }
    const move = moveFor(event.key, spot, end, event.ctrlKey);
    if (move !== null) {
      event.preventDefault();
      focusSpot(move, event.shiftKey);
    } else if (event.key === 'Enter' || event.key === 'F2') {
      event.preventDefault();
      const row = shown[spot.row];
      if (columns[spot.column]?.editable === true && onEdit !== undefined) begin(null);
      else if (row !== undefined) onSelect(row.id);
    } else if (event.key === ' ') {
      event.preventDefault();
      const row = shown[spot.row];
      if (row !== undefined) onSelect(row.id);
    } else if (
      event.key.length === 1 &&
      !event.ctrlKey &&
      !event.metaKey &&
      !event.altKey &&
      columns[spot.column]?.editable === true &&
      onEdit !== undefined
    ) {
      event.preventDefault();
      event.stopPropagation();
      begin(event.key);
    }
  };
  const area = block();
  const inBlock = (row: number, column: number): boolean => anchor !== null && holds(area, { row, column });
  const current = shown[spot.row];
  const why =
    current === undefined ? undefined : wrong.get(spotKey(current.id, columns[spot.column]?.key ?? ''))?.why;
  const sorted = sorting[0];
  return (
    <>
      <Frame
        ref={scroller}
        role="grid"
        tabIndex={-1}
        aria-label={label}
        aria-rowcount={shown.length + 1}
        aria-colcount={columns.length}
        onKeyDown={onKeyDown}
        onCopy={onCopy}
        onPaste={onPaste}
      >
        <div role="rowgroup">
          <HeadRow role="row" aria-rowindex={1}>
            {columns.map((column) => {
              const order = sorted?.id === column.key ? (sorted.desc ? 'descending' : 'ascending') : 'none';
              return (
                <HeadCell
                  key={column.key}
                  role="columnheader"
                  aria-sort={order}
                  style={{
                    flex: `${column.width} 0 ${column.width}px`,
                    textAlign: column.numeric === true ? 'right' : 'left',
                  }}
                >
                  <button
                    type="button"
                    tabIndex={-1}
                    onClick={() =>
                      setSorting(
                        order === 'ascending'
                          ? [{ id: column.key, desc: true }]
                          : order === 'descending'
                            ? []
                            : [{ id: column.key, desc: false }],
                      )
                    }
                  >
                    {`${column.label}${order === 'ascending' ? ' ↑' : order === 'descending' ? ' ↓' : ''}`}
                  </button>
                </HeadCell>
              );
            })}
          </HeadRow>
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
          {virtual.getVirtualItems().map((item) => {
            const row = shown[item.index];
            if (row === undefined) return null;
            return (
              <Row
                key={row.id}
                role="row"
                aria-rowindex={item.index + 2}
                aria-selected={row.id === selectedId}
                style={{ transform: `translateY(${item.start}px)` }}
              >
                {columns.map((column, at) => {
                  const bad = wrong.get(spotKey(row.id, column.key));
                  const isEditing = editing?.id === row.id && editing.key === column.key;
                  return (
                    <CellBox
                      key={column.key}
                      role="gridcell"
                      aria-colindex={at + 1}
                      aria-invalid={bad !== undefined}
                      aria-readonly={column.editable !== true || onEdit === undefined}
                      $text={column.text}
                      $wrong={bad !== undefined}
                      $block={inBlock(item.index, at)}
                      tabIndex={spot.row === item.index && spot.column === at ? 0 : -1}
                      title={String(bad?.text ?? row.original.cells[column.key] ?? '')}
                      data-spot={`${item.index}/${at}`}
                      style={{
                        flex: `${column.width} 0 ${column.width}px`,
                        textAlign: column.numeric === true ? 'right' : 'left',
                      }}
                      onClick={(event) => {
                        focusSpot({ row: item.index, column: at }, event.shiftKey);
                        if (!event.shiftKey) onSelect(row.id);
                      }}
                      onDoubleClick={() => begin(null)}
                    >
                      {isEditing ? (
                        <input
                          aria-label={column.label}
                          autoFocus
                          value={editing.text}
                          onChange={(event) => setEditing({ ...editing, text: event.target.value })}
                          onBlur={() => {
                            if (settled.current) return;
                            keep(editing.id, editing.key, editing.text);
                            setEditing(null);
                          }}
                        />
                      ) : (
                        (bad?.text ?? row.original.cells[column.key] ?? '')
                      )}
                    </CellBox>
                  );
                })}
              </Row>
            );
          })}
        </div>
      </Frame>
      {why !== undefined && <Why role="alert">{why}</Why>}
    </>
  );
}
