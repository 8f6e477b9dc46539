import { useReactFlow, type Viewport } from '@xyflow/react';
import { useCallback, useEffect, useRef, type RefObject } from 'react';
import { useWorkspace } from '../../../data/workspace.tsx';
import { openingView, type RackSpot } from '../benchLayout.ts';

const isWithin = (box: DOMRect, { x, y }: { x: number; y: number }): boolean =>
  x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;

/** What of the racks is in view: their gear, until somebody pans or zooms; and the place of a device being added. */
export function useRackView(
  spots: readonly RackSpot[],
  frame: RefObject<HTMLDivElement | null>,
): { fit: () => void; onByHand: () => void } {
  const flow = useReactFlow();
  const { ghost, dock } = useWorkspace();
  const latest = useRef(spots);
  useEffect(() => {
    latest.current = spots;
  }, [spots]);
  const rackKey = spots.map((spot) => `${spot.rack.id}${spot.width}`).join();
  const fit = useCallback(() => void flow.fitView({ padding: 0.03, maxZoom: 1.15 }), [flow]);
  const open = useCallback(() => {
    const { clientWidth: width = 0, clientHeight: height = 0 } = frame.current ?? {};
    if (width > 0 && height > 0) void flow.setViewport(openingView(latest.current, { width, height }));
  }, [flow, frame]);
  /** Panned or zoomed by hand: then another size of the work area moves nothing. */
  const byHand = useRef(false);
  useEffect(() => {
    byHand.current = false;
    const frameId = requestAnimationFrame(open);
    return () => cancelAnimationFrame(frameId);
  }, [rackKey, open]);
  useEffect(() => {
    if (frame.current === null) return;
    const element = frame.current;
    let { clientWidth } = element;
    let pointer: { x: number; y: number } | null = null;
    let waiting = false;
    const openLater = (): void => {
      if (!byHand.current) requestAnimationFrame(open);
    };
    const observer = new ResizeObserver(([entry]) => {
      const width = entry?.contentRect.width ?? clientWidth;
      // Nothing moves away under the hand: the record that a press opens waits until the pointer has left.
      if (Math.abs(width - clientWidth) > 2) {
        waiting = pointer !== null && isWithin(element.getBoundingClientRect(), pointer);
        if (!waiting) openLater();
      }
      clientWidth = width;
    });
    const follow = ({ clientX: x, clientY: y }: PointerEvent): void => {
      pointer = { x, y };
    };
    const leave = (): void => {
      pointer = null;
      if (waiting) openLater();
      waiting = false;
    };
    observer.observe(element);
    element.addEventListener('pointermove', follow);
    element.addEventListener('pointerdown', follow);
    element.addEventListener('pointerleave', leave);
    // What is chosen by keys is looked at, not pointed at; a key held for a press is no such key.
    const key = (event: KeyboardEvent): void => {
      if (!['Shift', 'Control', 'Meta', 'Alt'].includes(event.key)) leave();
    };
    window.addEventListener('keydown', key);
    return () => {
      observer.disconnect();
      element.removeEventListener('pointermove', follow);
      element.removeEventListener('pointerdown', follow);
      element.removeEventListener('pointerleave', leave);
      window.removeEventListener('keydown', key);
    };
  }, [open, frame]);

  // The ghost of a device being added comes into view when the dock covers its place.
  const ghostUnit = ghost?.unit ?? null;
  useEffect(() => {
    if (ghost === null || frame.current === null) return;
    const spot = spots.find((one) => one.rack.id === ghost.rackId);
    const face = spot?.faces[0];
    if (spot === undefined || face === undefined) return;
    const y = face.y + (spot.rack.numbering === 'up' ? spot.rack.units - ghost.unit : ghost.unit - 1) * 16;
    const { x, y: top, zoom }: Viewport = flow.getViewport();
    const seen = y * zoom + top;
    const { clientHeight } = frame.current;
    if (seen < 10 || seen > clientHeight - 60)
      void flow.setViewport({ x, y: clientHeight / 2 - y * zoom, zoom });
    // Only another place moves the view.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [ghost?.rackId, ghostUnit, dock?.form]);

  return { fit, onByHand: () => (byHand.current = true) };
}
