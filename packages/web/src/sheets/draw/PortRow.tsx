import { freeText, portRow, type RowPort } from '@visograph/core/cabling';
import type { Device, Network } from '@visograph/core/model';
import { overlap, type Box, type Point, type Side } from '@visograph/core/sheets';
import { useStore } from '@xyflow/react';
import { useEffect, useMemo, useRef, useState, type PointerEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { mono } from '../../theme/mono.ts';

const Row = styled.div<{ $side: Side }>`
  position: absolute;
  z-index: 9;
  display: flex;
  flex-direction: ${({ $side }) => ({ top: 'column-reverse', bottom: 'column', left: 'row-reverse', right: 'row' })[$side]};
  align-items: ${({ $side }) => ($side === 'top' || $side === 'bottom' ? 'center' : 'flex-start')};
  gap: 3px;
  padding: 1px;
  touch-action: none;
  cursor: crosshair;
  > div {
    display: grid;
    grid-auto-flow: ${({ $side }) => ($side === 'top' || $side === 'bottom' ? 'row' : 'column')};
    gap: 2px;
  }
  button {
    width: 11px;
    height: 11px;
    padding: 0;
    border: 1.5px solid ${({ theme }) => theme.ink};
    border-radius: 2px;
    background: ${({ theme }) => theme.surface};
    cursor: crosshair;
    touch-action: none;
  }
  /* A finger needs more than a pointer. */
  @media (pointer: coarse) {
    > div {
      gap: 5px;
    }
    button {
      width: 24px;
      height: 24px;
    }
    p {
      line-height: 24px;
      padding: 0 10px;
    }
  }
  button.taken {
    background: ${({ theme }) => theme.ink};
    cursor: default;
  }
  button:hover:not(.taken) {
    border-color: ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.accentWash};
  }
  p {
    ${mono}
    font-size: 11px;
    line-height: 15px;
    padding: 0 5px;
    border-radius: 2px;
    white-space: nowrap;
    color: ${({ theme }) => theme.inkSoft};
    background: ${({ theme }) => theme.ground};
  }
`;

/** Ports beside each other in a row, and rows at most: more of them say so in words. */
const mostAcross = 24;
const mostDown = 6;
const mostShown = 48;

/** The side of a box that a point is nearest to, from within or from around it. */
export function facing(box: Box, at: Point): Side {
  const dx = (at.x - box.x - box.width / 2) / box.width;
  const dy = (at.y - box.y - box.height / 2) / box.height;
  if (Math.abs(dy) >= Math.abs(dx)) return dy < 0 ? 'top' : 'bottom';
  return dx < 0 ? 'left' : 'right';
}

/** The middle of a side: where a line leaves that was pulled out of the row there. */
export const sideMiddle = (box: Box, side: Side): Point => ({
  x: side === 'left' ? box.x : side === 'right' ? box.x + box.width : box.x + box.width / 2,
  y: side === 'top' ? box.y : side === 'bottom' ? box.y + box.height : box.y + box.height / 2,
});

/** What a row takes up beside its plate, in pixels: the ports and a line of words. */
const rowPx = { high: 34, wide: 130 };
/** One port of it with the room beside it. */
const portPx = 13;
const sides: readonly Side[] = ['bottom', 'top', 'right', 'left'];

/** The side that was asked for, or the one across where the row would lie beyond the edge of the view. */
export function withinView(
  side: Side,
  box: Box,
  { x, y, zoom }: { x: number; y: number; zoom: number },
  view: { width: number; height: number },
): Side {
  const [top, bottom] = [box.y * zoom + y, (box.y + box.height) * zoom + y];
  const [left, right] = [box.x * zoom + x, (box.x + box.width) * zoom + x];
  if (side === 'bottom' && bottom + rowPx.high > view.height) return 'top';
  if (side === 'top' && top - rowPx.high < 0) return 'bottom';
  if (side === 'left' && left - rowPx.wide < 0) return 'right';
  if (side === 'right' && right + rowPx.wide > view.width) return 'left';
  return side;
}

/** Where a row lies in pixels of the view. */
function rowBox(
  side: Side,
  box: Box,
  { x, y, zoom }: { x: number; y: number; zoom: number },
  wide: number,
): Box {
  const middle = sideMiddle(box, side);
  const at = { x: middle.x * zoom + x, y: middle.y * zoom + y };
  if (side === 'top') return { x: at.x - wide / 2, y: at.y - rowPx.high, width: wide, height: rowPx.high };
  if (side === 'bottom') return { x: at.x - wide / 2, y: at.y, width: wide, height: rowPx.high };
  const left = side === 'left' ? at.x - rowPx.wide : at.x;
  return { x: left, y: at.y - rowPx.high / 2, width: rowPx.wide, height: rowPx.high };
}

/** The side that was asked for, or else the first at which the row lies over no other plate; that one where there is none. */
export function besideOthers(
  side: Side,
  box: Box,
  others: readonly Box[],
  view: { x: number; y: number; zoom: number },
  wide: number,
): Side {
  const onView = others.map((other) => ({
    x: other.x * view.zoom + view.x,
    y: other.y * view.zoom + view.y,
    width: other.width * view.zoom,
    height: other.height * view.zoom,
  }));
  const isFree = (one: Side): boolean => {
    const own = rowBox(one, box, view, wide);
    return !onView.some((other) => overlap(own, other));
  };
  return [side, ...sides].find(isFree) ?? side;
}

interface Props {
  network: Network;
  /** Of its plate. */
  name: string;
  /** Null: a place, whose circuits end at whatever stands in it. */
  device: Device | null;
  /** What is pulled out of it, where it has no ports of its own. */
  says: string;
  box: Box;
  /** The other plates, which it must not lie over. */
  others: readonly Box[];
  side: Side;
  power: boolean;
  onPull: (event: PointerEvent, portId: string | null, at: Point) => void;
  onEnter: () => void;
  onLeave: () => void;
}

/** The ports of a plate along the side that faces the pointer: free ones open, with what they take; lines are pulled out of them. */
export function PortRow({
  network,
  name,
  device,
  says,
  box,
  others,
  side: wished,
  power,
  onPull,
  onEnter,
  onLeave,
}: Props): ReactNode {
  const [x, y, zoom] = useStore((state) => state.transform);
  const height = useStore((state) => state.height);
  const width = useStore((state) => state.width);
  const [over, setOver] = useState<RowPort | null>(null);
  // A row that goes while the pointer is over it is told of no leaving.
  const left = useRef(onLeave);
  useEffect(() => {
    left.current = onLeave;
  });
  useEffect(() => () => left.current(), []);
  const row = useMemo(
    () => (device === null ? [] : portRow(network, device, power)),
    [network, device, power],
  );
  const shown = row.slice(0, mostShown);
  const wide = Math.max(rowPx.wide, Math.min(mostAcross, shown.length) * portPx);
  const side = withinView(
    besideOthers(wished, box, others, { x, y, zoom }, wide),
    box,
    { x, y, zoom },
    { width, height },
  );
  const level = side === 'top' || side === 'bottom';
  const across = Math.min(level ? mostAcross : mostDown, Math.max(1, shown.length));
  const at = sideMiddle(box, side);
  const shift = { top: '-50%, -100%', bottom: '-50%, 0', left: '-100%, -50%', right: '0, -50%' }[side];
  const said =
    over === null
      ? device === null
        ? says
        : freeText(row)
      : [over.name, over.what, over.taken === null ? '' : `holds ${over.taken}`].filter(Boolean).join(' · ');
  const tracks = level ? 'gridTemplateColumns' : 'gridTemplateRows';
  return (
    <Row
      $side={side}
      className="nodrag nopan nowheel"
      data-pull={name}
      aria-hidden="true"
      style={{ left: at.x * zoom + x, top: at.y * zoom + y, transform: `translate(${shift})` }}
      onPointerEnter={onEnter}
      onPointerLeave={onLeave}
      onPointerDown={(event) => onPull(event, null, at)}
    >
      {shown.length > 0 && (
        <div style={{ [tracks]: `repeat(${across}, auto)` }}>
          {shown.map((port) => (
            <button
              key={port.id}
              type="button"
              tabIndex={-1}
              data-port={port.name}
              className={port.taken === null ? undefined : 'taken'}
              onPointerEnter={() => setOver(port)}
              onPointerLeave={() => setOver(null)}
              onPointerDown={(event) => {
                event.stopPropagation();
                if (port.taken === null) onPull(event, port.id, at);
              }}
            />
          ))}
        </div>
      )}
      <p>{said}</p>
    </Row>
  );
}
