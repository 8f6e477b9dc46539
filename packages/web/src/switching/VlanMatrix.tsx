import { type Vlan } from '@visograph/core/model';
import { vlanMarks, type MatrixCell, type MatrixRow, type VlanMark } from '@visograph/core/switching';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent, type ReactNode } from 'react';
import { styled, useTheme } from 'styled-components';
import { mono } from '../theme/mono.ts';

const rowHeight = 28;
const headWidth = 316;
const cellWidth = 51;

const Scroll = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  position: relative;
`;
const HeadRow = styled.div`
  position: sticky;
  top: 0;
  z-index: 2;
  display: flex;
  background: ${({ theme }) => theme.band};
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  width: max-content;
  min-width: 100%;
  > div {
    width: ${cellWidth}px;
    flex: none;
    padding: 4px 2px;
    text-align: center;
    ${mono}
    font-size: 12px;
    font-weight: 600;
  }
  > div:first-child {
    width: ${headWidth}px;
    padding-left: 12px;
    text-align: left;
    position: sticky;
    left: 0;
    background: inherit;
  }
  i {
    display: block;
    height: 3px;
    margin: 2px 8px 0;
  }
`;
const Row = styled.div`
  position: absolute;
  left: 0;
  display: flex;
  height: ${rowHeight}px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  > [role='rowheader'] {
    width: ${headWidth}px;
    flex: none;
    padding: 0 12px;
    line-height: ${rowHeight - 1}px;
    position: sticky;
    left: 0;
    z-index: 1;
    background: ${({ theme }) => theme.ground};
    ${mono}
    font-size: 12.5px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    cursor: default;
    small {
      color: ${({ theme }) => theme.inkSoft};
      font-size: inherit;
    }
  }
  > [role='gridcell'] {
    width: ${cellWidth}px;
    flex: none;
    display: flex;
    align-items: center;
    justify-content: center;
    gap: 3px;
    user-select: none;
    cursor: default;
    border-left: 1px solid ${({ theme }) => theme.rule};
  }
  > [role='gridcell']:focus {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: -2px;
  }
  > [data-painted] {
    background: ${({ theme }) => theme.accentWash};
  }
  > [data-differs] {
    background: color-mix(in srgb, ${({ theme }) => theme.warn} 16%, transparent);
  }
`;
const Chip = styled.span<{ $colour: string; $mark: VlanMark }>`
  ${mono}
  font-size: 12px;
  line-height: 16px;
  min-width: 18px;
  text-align: center;
  border-radius: 2px;
  color: ${({ theme, $mark }) => ($mark === '-' ? theme.inkSoft : theme.ink)};
  border: 1px solid ${({ $colour, $mark }) => ($mark === 'U' ? $colour : 'transparent')};
  background: ${({ $colour, $mark }) =>
    $mark === 'T' ? `color-mix(in srgb, ${$colour} 24%, transparent)` : 'transparent'};
  box-shadow: ${({ $colour, $mark }) => ($mark === 'T' ? `inset 0 -2px ${$colour}` : 'none')};
`;

const inWords: Record<VlanMark, string> = { U: 'untagged', T: 'tagged', '-': 'not carried' };

/** One cell that is to be set. */
export interface Painted {
  row: MatrixRow;
  vid: number;
  mark: VlanMark;
}
interface Props {
  label: string;
  rows: readonly MatrixRow[];
  vlans: readonly Vlan[];
  canEdit: boolean;
  onPaint: (cells: readonly Painted[]) => void;
  onPick: (row: MatrixRow) => void;
}

const marksOf = (cell: MatrixCell): readonly VlanMark[] =>
  cell.mark === null ? (cell.ends ?? []) : [cell.mark];
const asMark = (text: string): VlanMark | null => {
  const wanted = text.trim().toUpperCase().replace('–', '-');
  return wanted === '' ? '-' : (vlanMarks.find((mark) => mark === wanted) ?? null);
};

/**
 * VLANs as columns, switches or links as rows. A press sets or takes away a tag, dragging paints; U, T and - are typed,
 * a block of them can be pasted.
 */
export function VlanMatrix({ label, rows, vlans, canEdit, onPaint, onPick }: Props): ReactNode {
  const scroll = useRef<HTMLDivElement>(null);
  const tokens = useTheme();
  const [at, setAt] = useState<[row: number, column: number]>([0, 0]);
  const [painting, setPainting] = useState<{ mark: VlanMark; cells: ReadonlyMap<string, Painted> } | null>(
    null,
  );
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => rowHeight,
    overscan: 12,
  });
  /** The same at once: a quick press is let go before it is drawn. */
  const held = useRef<typeof painting>(null);
  useEffect(() => {
    const up = (): void => {
      if (held.current === null) return;
      const { cells } = held.current;
      held.current = null;
      setPainting(null);
      onPaint([...cells.values()]);
    };
    window.addEventListener('pointerup', up);
    return () => window.removeEventListener('pointerup', up);
  }, [onPaint]);
  const focusOn = (row: number, column: number): void => {
    const next: [number, number] = [
      Math.max(0, Math.min(rows.length - 1, row)),
      Math.max(0, Math.min(vlans.length - 1, column)),
    ];
    setAt(next);
    virtual.scrollToIndex(next[0]);
    const focus = (): boolean => {
      const cell = scroll.current?.querySelector<HTMLElement>(`[data-at="${next.join('/')}"]`);
      cell?.focus();
      return cell !== null && cell !== undefined;
    };
    // At once, so that a key that follows is for the new cell; a row that is not mounted yet comes with the next frame.
    if (!focus()) requestAnimationFrame(focus);
  };
  const onKey = (event: KeyboardEvent, row: number, column: number): void => {
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      return focusOn(row + (step[0] ?? 0), column + (step[1] ?? 0));
    }
    if (event.ctrlKey || event.metaKey || event.altKey || !canEdit) return;
    const cleared = event.key === 'Delete' || event.key === 'Backspace';
    const mark = cleared ? '-' : event.key.length === 1 ? asMark(event.key) : null;
    const [one, vlan] = [rows[row], vlans[column]];
    if (mark === null || one === undefined || vlan === undefined || event.key === ' ') return;
    event.preventDefault();
    event.stopPropagation();
    onPaint([{ row: one, vid: vlan.vid, mark }]);
  };
  const onPaste = (event: ClipboardEvent): void => {
    if (!canEdit) return;
    event.preventDefault();
    const block = event.clipboardData.getData('text').replace(/\r/g, '').replace(/\n$/, '').split('\n');
    const cells = block.flatMap((line, down) =>
      line.split('\t').flatMap((text, along): Painted[] => {
        const [row, vlan, mark] = [rows[at[0] + down], vlans[at[1] + along], asMark(text)];
        return row === undefined || vlan === undefined || mark === null ? [] : [{ row, vid: vlan.vid, mark }];
      }),
    );
    onPaint(cells);
  };
  const paint = (row: MatrixRow, vid: number, mark: VlanMark): void => {
    const cells = new Map(held.current?.cells ?? []).set(`${row.id} ${vid}`, { row, vid, mark });
    held.current = { mark, cells };
    setPainting(held.current);
  };
  return (
    <Scroll
      ref={scroll}
      role="grid"
      aria-label={label}
      aria-rowcount={rows.length + 1}
      aria-colcount={vlans.length + 1}
      onPaste={onPaste}
    >
      <HeadRow role="row" aria-rowindex={1}>
        <div role="columnheader">{label}</div>
        {vlans.map((vlan) => (
          <div key={vlan.id} role="columnheader" title={vlan.name}>
            {vlan.vid}
            <i style={{ background: tokens.set[vlan.colour] }} />
          </div>
        ))}
      </HeadRow>
      <div
        style={{
          height: virtual.getTotalSize(),
          position: 'relative',
          width: headWidth + vlans.length * cellWidth,
          minWidth: '100%',
        }}
      >
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index];
          if (row === undefined) return null;
          return (
            <Row key={row.id} role="row" aria-rowindex={item.index + 2} style={{ top: item.start }}>
              <div role="rowheader" onClick={() => onPick(row)} title={`${row.label} – ${row.detail}`}>
                {row.label} <small>{`– ${row.detail}`}</small>
              </div>
              {row.cells.map((cell, column) => {
                const vlan = vlans[column];
                const painted = painting?.cells.get(`${row.id} ${cell.vid}`);
                const marks = painted === undefined ? marksOf(cell) : [painted.mark];
                const [first = '-'] = marks;
                const position = `${item.index}/${column}`;
                return (
                  <div
                    key={cell.vid}
                    role="gridcell"
                    data-at={position}
                    tabIndex={at[0] === item.index && at[1] === column ? 0 : -1}
                    aria-label={`VLAN ${cell.vid}, ${row.label}: ${marks.map((mark) => inWords[mark]).join(' at one end, ')}`}
                    data-painted={painted === undefined ? undefined : ''}
                    data-differs={marks.length > 1 ? '' : undefined}
                    onFocus={() => setAt([item.index, column])}
                    onKeyDown={(event) => onKey(event, item.index, column)}
                    onPointerDown={(event) => {
                      if (!canEdit || event.button !== 0) return;
                      paint(row, cell.vid, marks.length === 1 && first !== '-' ? '-' : 'T');
                    }}
                    onPointerEnter={() => {
                      if (held.current !== null) paint(row, cell.vid, held.current.mark);
                    }}
                  >
                    {marks.map((mark, which) => (
                      <Chip
                        key={which}
                        $mark={mark}
                        $colour={tokens.set[vlan?.colour ?? 0] ?? tokens.inkSoft}
                      >
                        {mark === '-' ? '·' : mark}
                      </Chip>
                    ))}
                    {cell.ends === null && cell.count > 1 && painted === undefined && (
                      <small>{cell.count}</small>
                    )}
                  </div>
                );
              })}
            </Row>
          );
        })}
      </div>
    </Scroll>
  );
}
