import { applyChanges, type Change } from '@visograph/core/change';
import {
  lineEnds,
  lineOtherwise,
  lineSort,
  modelsAtEnd,
  takeLineBack,
  type CircuitEnd,
} from '@visograph/core/cabling';
import {
  isFree,
  type CatalogueModel,
  type Device,
  type Network,
  type Place,
  type Sheet,
} from '@visograph/core/model';
import { drawnAs, type Plate, type Point, type Scene } from '@visograph/core/sheets';
import { useCallback, useMemo, useState } from 'react';
import { useProject } from '../../data/project.tsx';
import type { Option } from '../../kit/choice.tsx';
import type { SheetActs } from '../useSheetActs.ts';
import {
  askFor,
  endOfPlate,
  lineText,
  makeLine,
  makeLines,
  type LineAsk,
  type LineManner,
} from './lineAsk.ts';
import type { PullFrom } from './usePulling.ts';

/** A line that has just been pulled: it can be made otherwise, kept, or taken back. */
export interface OpenLine {
  /** The same for as long as it is made otherwise. */
  key: string;
  ask: LineAsk;
  made: readonly Change[];
  /** What was made along with it: a new device at its end. */
  along: readonly Change[];
  /** Cables or circuits. */
  lineIds: readonly string[];
}
/** The far end of a line is asked for: what can stand there. */
export interface OpenEnd {
  from: PullFrom;
  /** Where it was let go; null: it was asked by a key, so that it may be any device. */
  at: Point | null;
  /** Devices of the plate that it was let go over, where it stands for several. */
  among: readonly string[] | null;
}

export interface Lines {
  line: OpenLine | null;
  end: OpenEnd | null;
  /** What letting go over a plate would come to: said beside the pointer. */
  preview: (from: PullFrom, over: string | null) => { text: string; ok: boolean };
  letGo: (from: PullFrom, over: string | null, at: Point) => void;
  /** Joins the plates of a line that is open to a device, place or provider, or to a new device of a model. */
  joinTo: (to: CircuitEnd) => void;
  joinNew: (modelId: string) => void;
  askEnd: (plateIds: readonly string[], portId?: string | null) => void;
  /** Makes the line that is open otherwise; gives why not. */
  otherwise: (ask: LineAsk) => string | null;
  keep: () => void;
  takeBack: () => void;
  /** Models that can stand at the end that is open. */
  models: readonly CatalogueModel[];
  /** Plates at which the open line may end, with what it comes to; null: any device may be looked for. */
  choices: readonly Option[] | null;
  choose: (plateId: string) => void;
  /** A tunnel to the premises that is asked about. */
  premises: { place: Place; device: Device } | null;
  leavePremises: () => void;
}

const devicesOf = (network: Network, plate: Plate | undefined): Device[] =>
  (plate?.deviceIds ?? []).flatMap((id) => network.get('device', id) ?? []);

const sameEnd = (a: CircuitEnd, b: CircuitEnd): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Lines that are pulled on a sheet: previewed, made at once, made otherwise, taken back. What a line is follows from
 * the sheet: a cable, a routed link, a link with its VLANs, a circuit.
 *
 * @param onDrawn a device was drawn at the end of one
 */
export function useLines(
  sheet: Sheet,
  scene: Scene,
  acts: SheetActs,
  onDrawn: (deviceIds: string[]) => void,
): Lines {
  const { view, sync, canEdit } = useProject();
  const { network } = view;
  const [line, setLine] = useState<OpenLine | null>(null);
  const [end, setEnd] = useState<OpenEnd | null>(null);
  const [said, setSaid] = useState<LineManner>({ routed: null, provider: null });
  const plateOf = useCallback((id: string | null) => scene.plates.find((plate) => plate.id === id), [scene]);
  const refuse = useCallback((text: string) => sync.announce({ tone: 'bad', text }), [sync]);

  const asksFor = useCallback(
    (from: PullFrom, to: CircuitEnd): LineAsk[] =>
      from.plateIds.flatMap((id) => {
        const plate = plateOf(id);
        const near = plate === undefined ? null : endOfPlate(plate);
        // Let go over one of those that are chosen, the others are joined to it.
        if (near === null || (sameEnd(near, to) && from.plateIds.length > 1)) return [];
        return [askFor(network, sheet, [near, to], from.portId, said)];
      }),
    [network, plateOf, sheet, said],
  );
  /** Why nothing can be joined to a plate; null where something can. */
  const shut = useCallback((from: PullFrom, plate: Plate): string | null => {
    const one = plate.form === 'place' || plate.deviceIds.length === 1;
    if (from.plateIds.length === 1 && from.plateIds[0] === plate.id && one)
      return `${plate.name} cannot be connected to itself: let go on another plate.`;
    if (plate.locked) return `${plate.name} is locked on this sheet. Unlock it first.`;
    if (endOfPlate(plate) === null) return `${plate.name} is no device: a cable needs a port at both ends.`;
    return null;
  }, []);
  const openLine = useCallback(
    (
      asks: readonly LineAsk[],
      made: readonly Change[],
      lineIds: readonly string[],
      along: readonly Change[],
    ) => {
      const [ask] = asks;
      const only = ask !== undefined && asks.length === 1;
      setLine(only ? { ask, key: lineIds[0] ?? '', made, along, lineIds } : null);
    },
    [],
  );
  const commitJoined = useCallback(
    (asks: readonly LineAsk[]): void => {
      const made = makeLines(network, asks);
      if (!made.ok) return refuse(made.why);
      if (!acts.commit({ changes: made.changes, sentence: made.sentence })) return;
      setEnd(null);
      openLine(
        asks,
        made.made,
        made.lines.map((one) => one.lineId),
        [],
      );
    },
    [network, acts, refuse, openLine],
  );
  /** The devices among which the end of a line over a plate is chosen; none where the plate is one end. */
  const among = useCallback(
    (plate: Plate): Device[] => {
      const devices = plate.form === 'place' ? [] : devicesOf(network, plate);
      return devices.length > 1 ? devices : [];
    },
    [network],
  );

  const preview: Lines['preview'] = useCallback(
    (from, over) => {
      const plate = plateOf(over);
      if (plate === undefined) return { text: 'let go for what stands at the other end', ok: true };
      const why = shut(from, plate);
      const to = endOfPlate(plate);
      if (why !== null || to === null) return { text: why ?? '', ok: false };
      if (among(plate).length > 0) return { text: `let go to choose one of ${plate.name}`, ok: true };
      const made = makeLines(network, asksFor(from, to));
      if (!made.ok) return { text: made.why, ok: false };
      const [first] = made.lines;
      const text =
        from.plateIds.length > 1 || first === undefined
          ? `${made.lines.length} lines`
          : lineText(made.network, first, made.lines.length);
      return { text: `let go on ${plate.name}: ${text}`, ok: true };
    },
    [network, plateOf, shut, asksFor, among],
  );
  const letGo: Lines['letGo'] = useCallback(
    (from, over, at) => {
      if (!canEdit) return;
      const plate = plateOf(over);
      if (plate === undefined) {
        setLine(null);
        return setEnd({ from, at, among: null });
      }
      const why = shut(from, plate);
      if (why !== null) return refuse(why);
      const several = among(plate);
      if (several.length > 0) return setEnd({ from, at, among: several.map(({ id }) => id) });
      const to = endOfPlate(plate);
      if (to !== null) commitJoined(asksFor(from, to));
    },
    [canEdit, plateOf, shut, refuse, commitJoined, asksFor, among],
  );

  const far = useMemo(() => {
    // A circuit from a place leads to a place or a provider: nothing new is put at its end.
    if (end === null || sheet.projection === 'sites') return [];
    const port = network.get('port', end.from.portId);
    if (port !== null) return [port];
    return end.from.plateIds.flatMap((id) =>
      devicesOf(network, plateOf(id)).flatMap((device) =>
        lineEnds(network, device, lineSort(device, device), device).filter((one) => isFree(network, one.id)),
      ),
    );
  }, [end, network, plateOf, sheet.projection]);
  const models = useMemo(
    () =>
      end === null
        ? []
        : modelsAtEnd(network, far).filter(({ role }) => role !== null && drawnAs(sheet.projection, role)),
    [end, network, far, sheet.projection],
  );

  return {
    line,
    end,
    preview,
    letGo,
    models,
    choices: null,
    choose: () => undefined,
    premises: null,
    leavePremises: () => undefined,
    joinTo: (to) => {
      if (end !== null) commitJoined(asksFor(end.from, to));
    },
    joinNew: (modelId) => {
      if (end === null) return;
      const [from] = end.from.plateIds.map(plateOf);
      const below =
        from === undefined
          ? { x: 0, y: 0 }
          : { x: from.box.x + from.box.width / 2, y: from.box.y + from.box.height + 112 };
      const drawn = acts.drawing({ modelId, at: end.at ?? below });
      if (drawn === null) return;
      const [deviceId] = drawn.deviceIds;
      const staged = applyChanges(network, drawn.set.changes);
      if (deviceId === undefined || !staged.ok) return;
      const asks = asksFor(end.from, { deviceId });
      const made = makeLines(staged.network, asks);
      if (!made.ok) return refuse(made.why);
      const changes = [...drawn.set.changes, ...made.changes];
      if (!acts.commit({ changes, sentence: `${drawn.set.sentence} and joined it` })) return;
      onDrawn([deviceId]);
      setEnd(null);
      openLine(
        asks,
        made.made,
        made.lines.map((one) => one.lineId),
        drawn.set.changes,
      );
    },
    askEnd: (plateIds, portId = null) => {
      const [plate] = plateIds.map(plateOf);
      if (!canEdit || plate === undefined) return;
      const at = { x: plate.box.x + plate.box.width / 2, y: plate.box.y + plate.box.height };
      setLine(null);
      setEnd({ from: { plateIds, portId, at }, at: null, among: null });
    },
    otherwise: (ask) => {
      if (line === null) return null;
      const made = lineOtherwise(network, line.made, (without) => makeLine(without, ask));
      if (!made.ok) return made.why;
      if (made.changes.length > 0 && !acts.commit({ changes: made.changes, sentence: made.sentence }))
        return null;
      if (ask.sort === 'routed') setSaid({ ...said, routed: ask.how });
      if (ask.sort === 'circuit') setSaid({ ...said, provider: ask.wish.provider ?? null });
      setLine({ ...line, ask, made: made.made, lineIds: made.lines.map((one) => one.lineId) });
      return null;
    },
    keep: () => {
      setLine(null);
      setEnd(null);
    },
    takeBack: () => {
      if (line === null) return setEnd(null);
      const back = takeLineBack(network, [...line.along, ...line.made]);
      if (back.ok) acts.commit(back.set);
      else refuse(back.why);
      setLine(null);
    },
  };
}
