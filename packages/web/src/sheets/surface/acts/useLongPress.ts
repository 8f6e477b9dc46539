import { useEffect, useRef, type RefObject } from 'react';

/** A finger that rests for so long, without moving further than this, means more than a tap. */
const restMs = 500;
const slackPx = 10;

/**
 * A finger that rests on something does what pressing it twice does with a mouse. The tap that its lifting would be is
 * swallowed then.
 *
 * @param act told where and on what; false: nothing is to be done there
 */
export function useLongPress(
  frame: RefObject<HTMLElement | null>,
  act: (at: { x: number; y: number }, target: Element) => boolean,
): void {
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    const { current } = frame;
    if (current === null) return undefined;
    let timer: ReturnType<typeof setTimeout> | null = null;
    let start = { x: 0, y: 0 };
    let fingers = 0;
    let fired = false;
    const drop = (): void => {
      if (timer !== null) clearTimeout(timer);
      timer = null;
    };
    const down = (event: PointerEvent): void => {
      if (event.pointerType !== 'touch') return;
      fingers++;
      drop();
      fired = false;
      const { target } = event;
      if (fingers > 1 || !(target instanceof Element)) return;
      start = { x: event.clientX, y: event.clientY };
      timer = setTimeout(() => {
        timer = null;
        fired = latest.current(start, target);
      }, restMs);
    };
    const move = (event: PointerEvent): void => {
      if (Math.hypot(event.clientX - start.x, event.clientY - start.y) > slackPx) drop();
    };
    const up = (event: PointerEvent): void => {
      if (event.pointerType === 'touch') fingers = Math.max(0, fingers - 1);
      drop();
    };
    const swallow = (event: Event): void => {
      if (!fired) return;
      fired = false;
      event.stopPropagation();
      event.preventDefault();
    };
    const noMenu = (event: Event): void => {
      if (timer !== null || fired) event.preventDefault();
    };
    current.addEventListener('pointerdown', down, true);
    window.addEventListener('pointermove', move, true);
    window.addEventListener('pointerup', up, true);
    window.addEventListener('pointercancel', up, true);
    current.addEventListener('click', swallow, true);
    current.addEventListener('contextmenu', noMenu);
    return () => {
      drop();
      current.removeEventListener('pointerdown', down, true);
      window.removeEventListener('pointermove', move, true);
      window.removeEventListener('pointerup', up, true);
      window.removeEventListener('pointercancel', up, true);
      current.removeEventListener('click', swallow, true);
      current.removeEventListener('contextmenu', noMenu);
    };
  }, [frame]);
}
