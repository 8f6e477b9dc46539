import { type Change, type ChangeSet } from '@visograph/core/change';
import { editRow, type Attempt } from '@visograph/core/commands';
import {
  isPlaced,
  placeOfDevice,
  type Device,
  type Mark,
  type MarkForm,
  type Sheet,
} from '@visograph/core/model';
import { standIn } from '@visograph/core/racks';
import {
  addMark,
  align,
  bringBack,
  changeMark,
  collapsePlace,
  copyMarks,
  copyOnSheet,
  distribute,
  drawDevices,
  gather,
  leaveOut,
  mirror,
  containerAt,
  placeAt,
  placeOnSheet,
  removeMarks,
  sameSize,
  scatter,
  setItems,
  snap,
  setLink,
  straighten,
  type Alignment,
  type Box,
  type CopiedOnSheet,
  type CopyGround,
  type DrawingPlan,
  type DrawWish,
  type Plate,
  type Point,
  type Scene,
  type SceneLink,
  type SheetCopyWish,
} from '@visograph/core/sheets';
import { useMemo } from 'react';
import { useProject } from '../data/project.tsx';
import { newPlateSize } from './draw/useStamp.ts';
import type { SlidLabel } from './surface/LinkLayer.tsx';
import type { Moved } from './surface/acts/moved.ts';

/** Marks and devices as they were copied, for this window and all its sheets. */
let clipboard: { marks: Mark[]; deviceIds: string[]; at: Map<string, Box> } | null = null;
export const copied = (): typeof clipboard => clipboard;

const pasteStep = 32;
/** Where plates stand, by the first device of each. */
const standing = (plates: readonly Plate[]): Map<string, Box> =>
  new Map(plates.flatMap(({ deviceIds: [id], box }) => (id === undefined ? [] : [[id, box] as const])));

export interface SheetActs {
  keepMoved: (moved: Moved, what?: string) => void;
  arrange: (
    how: Alignment | 'spreadX' | 'spreadY' | 'mirrorX' | 'mirrorY' | 'sameSize' | 'straighten',
    plates: readonly Plate[],
    markIds: readonly string[],
  ) => void;
  lock: (plates: readonly Plate[], markIds: readonly string[], locked: boolean) => void;
  leave: (plates: readonly Plate[]) => void;
  /** Puts devices back that were left out. */
  bringBack: (deviceIds: readonly string[]) => void;
  collapse: (placeId: string, collapsed: boolean) => void;
  rename: (plate: Plate, name: string) => void;
  slide: (link: SceneLink, label: SlidLabel, by: Point) => void;
  bend: (link: SceneLink, bends: Point[]) => void;
  insert: (form: MarkForm, at: Point, fields?: Partial<Mark>) => string | null;
  resize: (markId: string, box: Box) => void;
  corners: (markId: string, points: readonly Point[]) => void;
  removeMarks: (ids: readonly string[]) => void;
  /** Devices of a model to be put on the sheet; null where they cannot be: then it was told why. */
  drawing: (wish: Omit<DrawWish, 'placeId' | 'rackId'>) => { set: ChangeSet; deviceIds: string[] } | null;
  draw: (wish: Omit<DrawWish, 'placeId' | 'rackId'>) => string[];
  copy: (plates: readonly Plate[], markIds: readonly string[]) => void;
  pasteMarks: () => string[];
  pasteDevices: () => string[];
  /** What duplicating plates comes to, to be looked at first and committed. */
  duplicated: (plates: readonly Plate[], wish: SheetCopyWish) => CopiedOnSheet;
  /** Draws the devices of several plates as one, or those of one plate one by one. */
  gather: (plates: readonly Plate[]) => void;
  scatter: (plate: Plate) => void;
  commit: (set: ChangeSet) => boolean;
}

/** What a person can do on a sheet, as change sets. */
export function useSheetActs(sheet: Sheet, plan: DrawingPlan, scene: Scene | null): SheetActs {
  const { view, commit: send, sync } = useProject();
  const { network } = view;
  return useMemo(() => {
    const commit = (set: ChangeSet): boolean => send(set).ok;
    const attempt = (tried: Attempt): boolean => {
      if (tried.ok) return commit(tried.set);
      sync.announce({ tone: 'bad', text: tried.why.replace(/\.?$/, '.') });
      return false;
    };
    const plates = scene?.plates ?? [];
    const marksOf = (ids: readonly string[]): Mark[] =>
      ids.map((id) => network.get('mark', id)).filter((mark) => mark !== null);

    /** The first plate put somewhere by hand fixes all others where they are: nothing moves by itself from then on. */
    const positions = (moved: ReadonlyMap<string, Point>): Map<string, Point> => {
      const result = new Map<string, Point>();
      for (const plate of plates) {
        const at = moved.get(plate.id) ?? (plan.arranged ? undefined : plate.box);
        const subject = plate.subjects[0];
        if (at !== undefined && subject !== undefined) result.set(subject, { x: at.x, y: at.y });
      }
      return result;
    };
    /** The same while all plates stay where they stand. */
    const still = (tried: Attempt): Attempt =>
      tried.ok
        ? {
            ok: true,
            set: {
              ...tried.set,
              changes: [...placeOnSheet(network, sheet, positions(new Map())).changes, ...tried.set.changes],
            },
          }
        : tried;
    /** Devices that are not placed yet and were let go over a container: they stand in its rack or place from then on. */
    const landed = (moved: ReadonlyMap<string, Point>): Attempt | null => {
      const places = new Map<string, Device[]>();
      for (const plate of plates) {
        const at = moved.get(plate.id);
        const device = network.get('device', plate.deviceIds[0] ?? null);
        if (at === undefined || plate.form !== 'device' || device === null || isPlaced(device)) continue;
        const middle = { x: at.x + plate.box.width / 2, y: at.y + plate.box.height / 2 };
        const containerId = containerAt(scene?.containers ?? [], middle);
        const stands = network.get('rack', containerId) ?? network.get('place', containerId);
        if (stands !== null && containerId !== null)
          places.set(containerId, [...(places.get(containerId) ?? []), device]);
      }
      const [first] = places;
      return first === undefined ? null : standIn(network, first[1], first[0]);
    };
    const ground = (at: ReadonlyMap<string, Box>): CopyGround => ({
      at,
      taken: plates.map(({ box }) => box),
      fixed: positions(new Map()),
    });
    const keepMoved: SheetActs['keepMoved'] = (moved, verb = 'Moved') => {
      const changes: Change[] = [];
      if (moved.plates.size > 0)
        changes.push(...placeOnSheet(network, sheet, positions(moved.plates)).changes);
      for (const [id, at] of moved.marks) {
        const mark = network.get('mark', id);
        if (mark === null) continue;
        const box = scene?.marks.find((one) => one.id === id)?.box;
        // A line stands where its corners stand: it is moved by as much as its box.
        const from = mark.points.length > 0 && box !== undefined ? box : mark;
        const to = { x: mark.x + Math.round(at.x - from.x), y: mark.y + Math.round(at.y - from.y) };
        changes.push(...changeMark(sheet, mark, to).changes);
      }
      const placed = landed(moved.plates);
      if (placed?.ok === true) changes.push(...placed.set.changes);
      // The plate stays where it was put; that it is not placed is said.
      else if (placed !== null) sync.announce({ tone: 'bad', text: placed.why });
      const names = plates.filter((plate) => moved.plates.has(plate.id)).map((plate) => plate.name);
      const count = names.length + moved.marks.size;
      const what =
        count === 1
          ? (names[0] ?? network.get('mark', [...moved.marks.keys()][0] ?? '')?.form ?? '')
          : moved.marks.size === 0
            ? `${names.length} plates`
            : `${count} things`;
      const sentence = `${verb} ${what} on sheet ${sheet.name}`;
      commit({ changes, sentence: placed?.ok === true ? placed.set.sentence : sentence });
    };
    const items = (of: readonly Plate[], fields: object, verb: string): void =>
      void commit(
        setItems(
          network,
          sheet,
          new Map(of.flatMap((plate) => plate.subjects.slice(0, 1).map((id) => [id, fields] as const))),
          (what) => `${verb} ${what} on sheet ${sheet.name}`,
        ),
      );
    const drawing: SheetActs['drawing'] = (wish) => {
      const placeId = placeAt(network, sheet, scene?.containers ?? [], wish.at);
      const made = drawDevices(
        network,
        sheet,
        { ...wish, placeId, rackId: containerAt(scene?.containers ?? [], wish.at) },
        {
          taken: plates.map((plate) => plate.box),
          fixed: positions(new Map()),
          size: newPlateSize(network, wish.modelId, placeId),
        },
      );
      if (made.attempt.ok) return { set: made.attempt.set, deviceIds: made.deviceIds };
      sync.announce({ tone: 'bad', text: made.attempt.why });
      return null;
    };
    return {
      commit,
      keepMoved,
      arrange: (how, chosen, markIds) => {
        const boxes = new Map<string, Box>(chosen.map((plate) => [plate.id, plate.box]));
        for (const mark of scene?.marks ?? []) if (markIds.includes(mark.id)) boxes.set(mark.id, mark.box);
        if (how === 'sameSize') return items(chosen, sameSize(boxes), 'Made the same size:');
        let moved: Map<string, Point>;
        if (how === 'spreadX' || how === 'spreadY') moved = distribute(boxes, how === 'spreadX' ? 'x' : 'y');
        else if (how === 'mirrorX' || how === 'mirrorY') moved = mirror(boxes, how === 'mirrorX' ? 'x' : 'y');
        else if (how === 'straighten') {
          const [first, second] = chosen;
          moved =
            first === undefined || second === undefined
              ? new Map()
              : new Map([[second.id, straighten(first.box, second.box)]]);
        } else moved = align(boxes, how);
        const own = new Set(markIds);
        keepMoved(
          {
            plates: new Map([...moved].filter(([id]) => !own.has(id))),
            marks: new Map([...moved].filter(([id]) => own.has(id))),
          },
          'Arranged',
        );
      },
      lock: (chosen, markIds, locked) => {
        const set = setItems(
          network,
          sheet,
          new Map(chosen.flatMap((plate) => plate.subjects.slice(0, 1).map((id) => [id, { locked }]))),
          (what) => `${locked ? 'Locked' : 'Unlocked'} ${what} on sheet ${sheet.name}`,
        );
        const marks = marksOf(markIds).flatMap((mark) => changeMark(sheet, mark, { locked }).changes);
        commit({
          changes: [...set.changes, ...marks],
          sentence:
            chosen.length > 0
              ? set.sentence
              : `${locked ? 'Locked' : 'Unlocked'} ${marks.length} marks on sheet ${sheet.name}`,
        });
      },
      leave: (chosen) =>
        void commit(
          leaveOut(
            network,
            sheet,
            chosen.flatMap((plate) => plate.subjects),
            positions(new Map()),
          ),
        ),
      bringBack: (ids) => void commit(bringBack(network, sheet, ids, positions(new Map()))),
      collapse: (placeId, collapsed) => {
        const box = scene?.containers.find(({ id }) => id === placeId)?.box;
        const at =
          !collapsed || box === undefined
            ? {}
            : { at: { x: snap(box.x + box.width / 2 - 64), y: snap(box.y + box.height / 2 - 32) } };
        commit(collapsePlace(network, sheet, placeId, collapsed, { standing: positions(new Map()), ...at }));
      },
      rename: (plate, name) => {
        const device = network.get('device', plate.deviceIds[0] ?? null);
        if (device !== null) commit(editRow(network, 'device', device, { name }));
      },
      slide: (link, label, by) => {
        const now = plan.links.get(link.line.id)?.[label] ?? { x: 0, y: 0 };
        const to = { x: Math.round(now.x + by.x), y: Math.round(now.y + by.y) };
        commit(setLink(network, sheet, link.line, { [label]: to }, 'Slid a label of'));
      },
      bend: (link, bends) =>
        void commit(setLink(network, sheet, link.line, { bends }, bends.length === 0 ? 'Let go' : 'Bent')),
      insert: (form, at, fields = {}) => {
        const set = addMark(sheet, form, { x: Math.round(at.x), y: Math.round(at.y), ...fields });
        return commit(set) ? set.markId : null;
      },
      resize: (markId, box) => {
        const mark = network.get('mark', markId);
        if (mark === null) return;
        const { x, y, width, height } = box;
        const fields = {
          x: Math.round(x),
          y: Math.round(y),
          width: Math.round(width),
          height: Math.round(height),
        };
        commit(changeMark(sheet, mark, fields, 'Resized'));
      },
      corners: (markId, points) => {
        const mark = network.get('mark', markId);
        if (mark === null) return;
        const own = points.map(({ x, y }) => ({ x: Math.round(x - mark.x), y: Math.round(y - mark.y) }));
        commit(changeMark(sheet, mark, { points: own }, 'Reshaped'));
      },
      removeMarks: (ids) => void commit(removeMarks(sheet, marksOf(ids))),
      drawing,
      draw: (wish) => {
        const drawn = drawing(wish);
        return drawn !== null && commit(drawn.set) ? drawn.deviceIds : [];
      },
      copy: (chosen, markIds) => {
        const devices = chosen.filter(({ form }) => form !== 'place');
        clipboard = {
          marks: marksOf(markIds),
          deviceIds: devices.flatMap((plate) => plate.deviceIds),
          at: standing(devices),
        };
        const count = clipboard.marks.length + clipboard.deviceIds.length;
        if (count > 0)
          sync.announce({ tone: 'ok', text: `Copied ${count} ${count === 1 ? 'thing' : 'things'}.` });
      },
      pasteMarks: () => {
        if (clipboard === null || clipboard.marks.length === 0) return [];
        const set = copyMarks(sheet, clipboard.marks, { x: pasteStep, y: pasteStep });
        return commit(set) ? set.markIds : [];
      },
      pasteDevices: () => {
        if (clipboard === null) return [];
        const devices = clipboard.deviceIds
          .map((id) => network.get('device', id))
          .filter((device) => device !== null);
        const wish = {
          times: 1,
          step: { x: 2 * pasteStep, y: 3 * pasteStep },
          toOthers: false,
          addresses: false,
        };
        const made = copyOnSheet(network, sheet, devices, wish, ground(clipboard.at));
        return attempt(made.attempt) ? made.deviceIds : [];
      },
      duplicated: (chosen, wish) => {
        const devices = chosen
          .filter(({ form }) => form !== 'place')
          .flatMap((plate) => plate.deviceIds)
          .flatMap((id) => network.get('device', id) ?? []);
        return copyOnSheet(network, sheet, devices, wish, ground(standing(chosen)));
      },
      gather: (chosen) => {
        const devices = chosen
          .flatMap((plate) => plate.deviceIds)
          .flatMap((id) => network.get('device', id) ?? []);
        attempt(still(gather(sheet, devices)));
      },
      scatter: (plate) => void attempt(still(scatter(sheet, plate.id, plate.deviceIds))),
    };
  }, [network, sheet, plan, scene, send, sync]);
}

/** Where a device's place is, for a plate that stands for one device. */
export const placeIdOf = (
  network: ReturnType<typeof useProject>['view']['network'],
  plate: Plate,
): string | null => {
  const device = network.get('device', plate.deviceIds[0] ?? null);
  return device === null ? null : placeOfDevice(network, device);
};
