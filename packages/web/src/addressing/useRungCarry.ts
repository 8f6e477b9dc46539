import { mergePrefix, renumber, splitPrefix } from '@visograph/core/addressing';
import { type Attempt } from '@visograph/core/commands';
import {
  formatPrefix,
  parsePrefix,
  sizeOf,
  type IpPrefix,
  type Network,
  type Prefix,
} from '@visograph/core/model';
import { useState, type PointerEvent as ReactPointerEvent } from 'react';
import { useProject } from '../data/project.tsx';
import { rowHeight } from './RungShape.tsx';

interface Carried {
  id: string;
  dx: number;
  dy: number;
  x: number;
  /** What letting go would do. */
  text: string | null;
}

/** Movements below this many pixels are a press. */
const still = 5;
const turn = rowHeight * 0.6;

/** Where a prefix would lie that is carried by so many pixels, on its own boundary. */
function carriedTo(row: Prefix, outer: IpPrefix, dx: number, pixelsOfAll: number): IpPrefix | null {
  const prefix = parsePrefix(row.prefix);
  if (prefix === null) return null;
  const size = sizeOf(prefix);
  const share = Math.round((dx / pixelsOfAll) * 1e9);
  const by = (sizeOf(outer) * BigInt(share)) / 1_000_000_000n;
  const steps = (by + (by < 0n ? -size / 2n : size / 2n)) / size;
  return { ...prefix, value: prefix.value + steps * size };
}

/** Carrying a block of the ladder: along the space it moves with all its hosts, down it splits, up it joins its neighbour. */
export function useRungCarry(
  network: Network,
  outer: IpPrefix,
  pixelsOfAll: number,
  canEdit: boolean,
): { carried: Carried | null; why: string | null; hold: (event: ReactPointerEvent, row: Prefix) => void } {
  const { commit, sync } = useProject();
  const [carried, setCarried] = useState<Carried | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const attemptFor = (row: Prefix, dx: number, dy: number): { text: string; attempt: Attempt } | null => {
    if (dy > turn && Math.abs(dx) < dy)
      return { text: `split ${row.prefix}`, attempt: splitPrefix(network, row) };
    if (dy < -turn && Math.abs(dx) < -dy)
      return { text: `join ${row.prefix} with its neighbour`, attempt: mergePrefix(network, row) };
    const to = carriedTo(row, outer, dx, pixelsOfAll);
    if (to === null || to.value < 0n || formatPrefix(to) === row.prefix) return null;
    const moved = renumber(network, row, formatPrefix(to));
    return {
      text: `${row.prefix} to ${formatPrefix(to)}`,
      attempt: moved.ok ? moved.attempt : moved,
    };
  };
  const hold = (event: ReactPointerEvent, row: Prefix): void => {
    if (!canEdit || event.button !== 0) return;
    const [x, y] = [event.clientX, event.clientY];
    const frame = event.currentTarget.ownerDocument.defaultView ?? window;
    const left = event.currentTarget.closest('svg')?.getBoundingClientRect().left ?? 0;
    const move = (next: PointerEvent): void => {
      const [dx, dy] = [next.clientX - x, next.clientY - y];
      if (Math.abs(dx) + Math.abs(dy) < still) return;
      const wish = attemptFor(row, dx, dy);
      const text = wish === null ? null : wish.attempt.ok ? wish.text : `${wish.text}: not possible`;
      setCarried({ id: row.id, dx, dy, x: next.clientX - left, text });
    };
    const up = (last: PointerEvent): void => {
      frame.removeEventListener('pointermove', move);
      frame.removeEventListener('pointerup', up);
      setCarried(null);
      const [dx, dy] = [last.clientX - x, last.clientY - y];
      const wish = Math.abs(dx) + Math.abs(dy) < still ? null : attemptFor(row, dx, dy);
      if (wish === null) return;
      setWhy(wish.attempt.ok ? null : wish.attempt.why);
      if (wish.attempt.ok && commit(wish.attempt.set).ok)
        sync.announce({ tone: 'ok', text: `${wish.attempt.set.sentence}. Ctrl+Z brings it back.` });
    };
    frame.addEventListener('pointermove', move);
    frame.addEventListener('pointerup', up);
  };
  return { carried, why, hold };
}
