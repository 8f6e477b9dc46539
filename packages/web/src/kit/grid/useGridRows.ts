import {
  columnFilteringFeature,
  createFilteredRowModel,
  createSortedRowModel,
  filterFn_includesString,
  globalFilteringFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';
import { compareNames } from '@visograph/core/model';
import type { Cell, TableRow } from '@visograph/core/report';
import { useEffect, useMemo, useRef, useState, type ReactNode, type RefObject } from 'react';
import { rowHeight } from './gridParts.tsx';

export interface GridColumn {
  key: string;
  label: string;
  width: number;
  numeric?: boolean;
  text?: boolean;
  editable?: boolean;
  /** A figure with a unit: thousands are parted. Numbers that name something are none. */
  figure?: boolean;
  /** It follows from other facts: nobody types it in. Told where some columns of a grid can be typed in. */
  worked?: boolean;
  /** Draws the value where that is better seen than read; what is copied and filtered stays the text. */
  draw?: (value: Cell, cells: TableRow) => ReactNode;
}
export interface GridRow {
  id: string;
  readonly cells: TableRow;
  /** A heading over the rows below it, so deep within others; its first cell reaches as far as there is room. */
  heading?: number;
  /** Columns that say what stands above them: shown empty. */
  readonly repeats?: ReadonlySet<string>;
}
/** An order that is kept elsewhere: rows come in it, and a press on a head asks for another. */
export interface OwnOrder {
  of: (key: string) => ColumnOrder['order'];
  turn: (key: string) => void;
}
const noRows: GridRow[] = [];

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

/** How the head of a column sorts, and what pressing it does next: up, down, as the rows came. */
export interface ColumnOrder {
  order: 'ascending' | 'descending' | 'none';
  turn: () => void;
}

export interface GridRows {
  /** The rows as they are shown: filtered and in order. */
  shown: readonly GridRow[];
  orderOf: (key: string) => ColumnOrder;
  virtual: Virtualizer<HTMLDivElement, Element>;
  scroller: RefObject<HTMLDivElement | null>;
}

/** The rows of a grid filtered and sorted, of which those in view are in the document; a new selection comes into view. */
export function useGridRows(
  columns: readonly GridColumn[],
  rows: readonly GridRow[],
  filter: string,
  selectedId: string | null,
  own?: OwnOrder,
): GridRows {
  const [sorting, setSorting] = useState<SortingState>([]);
  const scroller = useRef<HTMLDivElement>(null);
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
  const data = useMemo(() => (own === undefined ? [...rows] : noRows), [rows, own]);
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
  const model = table.getRowModel().rows;
  const isOwn = own !== undefined;
  const shown = useMemo(() => (isOwn ? rows : model.map(({ original }) => original)), [isOwn, rows, model]);
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
  const [sorted] = sorting;
  const orderOf = (key: string): ColumnOrder => {
    if (own !== undefined) return { order: own.of(key), turn: () => own.turn(key) };
    const order = sorted?.id !== key ? 'none' : sorted.desc ? 'descending' : 'ascending';
    const next: SortingState = order === 'descending' ? [] : [{ id: key, desc: order === 'ascending' }];
    return { order, turn: () => setSorting(next) };
  };
  return { shown, orderOf, virtual, scroller };
}
