import { useState } from 'react';
import { blockOf, within, type Block, type Spot } from './gridBlocks.ts';
import type { GridRows } from './useGridRows.ts';

export interface GridSpot {
  spot: Spot;
  /** How many rows and columns there are. */
  end: { rows: number; columns: number };
  /** The cells between the one that has the focus and the one that the block was begun at. */
  block: Block;
  /** Whether a block is chosen, not one cell alone. */
  isBlock: boolean;
  /** Puts the focus on a cell, or as near to it as there is one; `extend` makes the block reach to it. */
  focusSpot: (next: Spot, extend?: boolean) => void;
}

/** The cell that has the focus, and the block that reaches from another one to it. */
export function useGridSpot({ shown, virtual, scroller }: GridRows, columns: number): GridSpot {
  const [spot, setSpot] = useState<Spot>({ row: 0, column: 0 });
  const [anchor, setAnchor] = useState<Spot | null>(null);
  const end = { rows: shown.length, columns };
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
  return { spot, end, block: blockOf(anchor ?? spot, spot), isBlock: anchor !== null, focusSpot };
}
