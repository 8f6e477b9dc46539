import {
  formed,
  lineSize,
  nameSize,
  nearestFree,
  snapToOthers,
  tabWidth,
  up,
  type Box,
  type Formation,
  type Point,
  type Scene,
} from '@visograph/core/sheets';
import { nextDeviceName } from '@visograph/core/racks';
import { modelTitle, type Network } from '@visograph/core/model';
import { measureText } from '@visograph/drawing';
import { useReactFlow } from '@xyflow/react';
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type PointerEvent as ReactPointerEvent,
} from 'react';

/** What is in hand: so many of a model, how they are put down, and whether they are joined. */
export interface Stamp {
  modelId: string;
  count: number;
  formation: Formation;
  joined: boolean;
}

/** Where what is in hand would stand. */
export interface StampGhost {
  boxes: Box[];
  name: string;
  guides: ReturnType<typeof snapToOthers>['guides'];
}

const slackPx = 5;

/** How large a new plate will be: as wide as its name and model, with one line below the name. */
export function newPlateSize(
  network: Network,
  modelId: string,
  placeId: string | null,
): { width: number; height: number } {
  const model = network.get('model', modelId);
  const name = model?.role == null ? '' : nextDeviceName(network, placeId, model.role, model.id);
  const text = Math.max(
    measureText(name, 'textStrong', nameSize),
    measureText(model === null ? '' : modelTitle(model), 'mono', lineSize),
  );
  return { width: up(Math.max(112, text + tabWidth + 24) / 2) * 2, height: 40 };
}

export interface Stamping {
  stamp: Stamp | null;
  ghost: StampGhost | null;
  take: (stamp: Stamp | null) => void;
  carry: (event: ReactPointerEvent, stamp: Stamp) => void;
  putInMiddle: (stamp: Stamp) => void;
  /** The pointer is over the sheet, in pixels of the window; null: it has left. */
  hover: (client: Point | null) => void;
  putAt: (client: Point) => void;
}

/**
 * A model in hand: it follows the pointer over the sheet, lines up with its neighbours, never ends on another plate,
 * and is put down as often as the sheet is pressed, until Escape.
 *
 * @param put draws it with its middle at a point of the sheet
 */
export function useStamp(
  scene: Scene | null,
  network: Network,
  scopeId: string | null,
  put: (stamp: Stamp, at: Point) => void,
): Stamping {
  const { screenToFlowPosition } = useReactFlow();
  const [stamp, setStamp] = useState<Stamp | null>(null);
  const [at, setAt] = useState<Point | null>(null);
  /** Where the middle goes: one alone lines up with its neighbours when it is near a line with them. */
  const lined = useCallback(
    (what: Stamp, { x, y }: Point): Point => {
      if (what.count !== 1) return { x, y };
      const { width, height } = newPlateSize(network, what.modelId, scopeId);
      const taken = (scene?.plates ?? []).map((plate) => plate.box);
      const to = snapToOthers({ x: x - width / 2, y: y - height / 2, width, height }, taken, 6).at;
      return { x: to.x + width / 2, y: to.y + height / 2 };
    },
    [network, scene, scopeId],
  );
  const now = useRef({ put, lined });
  useEffect(() => {
    now.current = { put, lined };
  });
  const sheetPoint = useCallback(
    ({ x, y }: Point): Point => screenToFlowPosition({ x, y }, { snapToGrid: false }),
    [screenToFlowPosition],
  );
  const take = useCallback((next: Stamp | null): void => {
    setStamp(next);
    if (next === null) setAt(null);
  }, []);

  const carry = useCallback(
    (event: ReactPointerEvent, carried: Stamp): void => {
      if (event.button !== 0) return;
      const from = { x: event.clientX, y: event.clientY };
      let far = false;
      const over = ({ clientX, clientY }: PointerEvent): boolean =>
        document.elementFromPoint(clientX, clientY)?.closest('[data-sheet]') != null;
      const move = (next: PointerEvent): void => {
        far ||= Math.hypot(next.clientX - from.x, next.clientY - from.y) > slackPx;
        if (!far) return;
        setStamp(carried);
        setAt(over(next) ? sheetPoint({ x: next.clientX, y: next.clientY }) : null);
      };
      const end = (last: PointerEvent): void => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', end);
        window.removeEventListener('pointercancel', end);
        if (!far) return;
        take(null);
        if (last.type === 'pointerup' && over(last))
          now.current.put(
            carried,
            now.current.lined(carried, sheetPoint({ x: last.clientX, y: last.clientY })),
          );
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', end);
      window.addEventListener('pointercancel', end);
    },
    [sheetPoint, take],
  );
  const putInMiddle = useCallback(
    (what: Stamp): void => {
      const board = document.querySelector('[data-sheet]')?.getBoundingClientRect();
      if (board === undefined) return;
      now.current.put(what, sheetPoint({ x: board.x + board.width / 2, y: board.y + board.height / 2 }));
    },
    [sheetPoint],
  );
  useEffect(() => {
    if (stamp === null) return undefined;
    const key = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      event.preventDefault();
      take(null);
    };
    window.addEventListener('keydown', key, true);
    return () => window.removeEventListener('keydown', key, true);
  }, [stamp, take]);

  const ghost = useMemo((): StampGhost | null => {
    if (stamp === null || at === null) return null;
    const size = newPlateSize(network, stamp.modelId, scopeId);
    const taken = (scene?.plates ?? []).map((plate) => plate.box);
    const placed: Box[] = [];
    for (const spot of formed(stamp.formation, stamp.count, lined(stamp, at), size))
      placed.push({ ...nearestFree(size, spot, [...taken, ...placed]), ...size });
    const model = network.get('model', stamp.modelId);
    const name = model?.role == null ? '' : nextDeviceName(network, scopeId, model.role, model.id);
    const [only] = placed;
    const guides = stamp.count === 1 && only !== undefined ? snapToOthers(only, taken, 1).guides : [];
    return { boxes: placed, name, guides };
  }, [stamp, at, scene, network, scopeId, lined]);

  return {
    stamp,
    ghost,
    take,
    carry,
    putInMiddle,
    hover: (client) => setAt(client === null || stamp === null ? null : sheetPoint(client)),
    putAt: (client) => {
      if (stamp !== null) put(stamp, lined(stamp, sheetPoint(client)));
    },
  };
}
