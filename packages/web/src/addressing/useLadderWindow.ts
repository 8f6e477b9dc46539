import type { LadderWindow } from '@visograph/core/addressing';
import { useEffect, useMemo, useState, type RefObject } from 'react';

const all: LadderWindow = { from: 0, width: 1 };
/** The deepest zoom: a share of the space that fills the picture. */
const closest = 1 / 65_536;

const within = ({ from, width }: LadderWindow): LadderWindow => {
  const wide = Math.min(1, Math.max(closest, width));
  return { width: wide, from: Math.min(1 - wide, Math.max(0, from)) };
};

interface Seen {
  of: string;
  seen: LadderWindow;
}

/**
 * What part of a space is looked at: the wheel pans, with Ctrl or upright it zooms about the pointer. `drawn` is the
 * part that was worked out, in steps, so that panning works nothing out.
 */
export function useLadderWindow(
  drawing: RefObject<SVGSVGElement | null>,
  of: string,
  room: number,
  gutter: number,
): { seen: LadderWindow; drawn: LadderWindow; zoomed: boolean; whole: () => void } {
  const [state, setState] = useState<Seen>({ of, seen: all });
  const seen = state.of === of ? state.seen : all;
  useEffect(() => {
    const svg = drawing.current;
    if (svg === null) return;
    let next: LadderWindow | null = null;
    let frame = 0;
    const onWheel = (event: WheelEvent): void => {
      const upright = Math.abs(event.deltaY) > Math.abs(event.deltaX);
      const zooms = event.ctrlKey || event.metaKey;
      const now = next ?? seen;
      // Upright turns of the wheel scroll the page until somebody has zoomed in.
      if (upright && !zooms && now.width === 1) return;
      event.preventDefault();
      const at = (event.clientX - svg.getBoundingClientRect().left - gutter) / room;
      if (zooms) {
        const width = now.width * Math.exp(event.deltaY * 0.004);
        const wide = within({ from: 0, width }).width;
        next = within({ from: now.from + at * (now.width - wide), width: wide });
      } else {
        const by = upright ? event.deltaY : event.deltaX;
        next = within({ ...now, from: now.from + (by / room) * now.width });
      }
      if (frame === 0)
        frame = requestAnimationFrame(() => {
          frame = 0;
          if (next !== null) setState({ of, seen: next });
        });
    };
    svg.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      svg.removeEventListener('wheel', onWheel);
      cancelAnimationFrame(frame);
    };
  }, [drawing, of, room, gutter, seen]);
  // Worked out in steps of half a window and of doubled zooms.
  const depth = 2 ** Math.floor(Math.log2(seen.width));
  const step = Math.floor(seen.from / (depth / 2));
  const drawn = useMemo(
    (): LadderWindow => (depth >= 1 ? all : { width: depth * 2, from: Math.max(0, step * (depth / 2)) }),
    [depth, step],
  );
  return { seen, drawn, zoomed: seen.width < 1, whole: () => setState({ of, seen: all }) };
}
