import { routedLine, type RoutedWish } from '@visograph/core/addressing';
import { applyChanges, diffOf, type Change } from '@visograph/core/change';
import {
  joinAll,
  joinDevices,
  lineEnds,
  lineOtherwise,
  lineSort,
  modelsAtEnd,
  takeLineBack,
  type JoinAttempt,
  type JoinedLine,
  type JoinWish,
} from '@visograph/core/cabling';
import {
  compareNames,
  isFree,
  modelTitle,
  type CatalogueModel,
  type Device,
  type Network,
  type Sheet,
} from '@visograph/core/model';
import { drawnAs, type Plate, type Point, type Scene } from '@visograph/core/sheets';
import { useCallback, useMemo, useState } from 'react';
import { useProject } from '../../data/project.tsx';
import type { SheetActs } from '../useSheetActs.ts';
import type { PullFrom } from './usePulling.ts';

/** Where subnets of links come from while there is no pool yet. */
const usualPool = '10.0.0.0/24';

/** A line that has just been pulled: it can be made otherwise, kept, or taken back. */
export interface OpenLine {
  /** The same for as long as it is made otherwise. */
  key: string;
  wish: JoinWish;
  /** On a sheet of routing: where its subnet comes from. */
  routed: RoutedWish | null;
  made: readonly Change[];
  /** What was made along with it: a new device at its end. */
  along: readonly Change[];
  cableIds: readonly string[];
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
  /** Joins the plates of a line that is open to a device, or to a new one of a model. */
  joinTo: (deviceId: string) => void;
  joinNew: (modelId: string) => void;
  askEnd: (plateIds: readonly string[], portId?: string | null) => void;
  /** Makes the line that is open otherwise; gives why not. */
  otherwise: (wish: JoinWish, routed?: RoutedWish) => string | null;
  keep: () => void;
  takeBack: () => void;
  /** Models that can stand at the end that is open. */
  models: readonly CatalogueModel[];
}

/** As many lines of two routers as are wished, each with a subnet, as one step. */
function routedAll(network: Network, wishes: readonly JoinWish[], how: RoutedWish): JoinAttempt {
  let last: JoinAttempt = { ok: false, why: 'Choose what is to be joined first.' };
  let staged = network;
  const made: Change[] = [];
  const lines: JoinedLine[] = [];
  for (const wish of wishes) {
    last = routedLine(staged, wish, how);
    if (!last.ok) return last;
    staged = last.network;
    made.push(...last.changes);
    lines.push(...last.lines);
  }
  if (!last.ok) return last;
  const changes = diffOf(network, staged, made);
  return { ...last, changes, made: changes, lines, network: staged };
}

/** "gi1/2 to gi1/1, Cat 6A RJ45, C-00003": what joins, as it would be or is. */
export function lineText(network: Network, cableId: string | null, count: number): string {
  const cable = network.get('cable', cableId);
  if (cable === null) return '';
  const port = (id: string | null): string => {
    const [address] = network.find('addressesByPort', id ?? '');
    return [network.get('port', id)?.name, address?.address].filter(Boolean).join(' ');
  };
  const type = network.get('model', cable.typeId);
  return [
    `${port(cable.aPortId)} to ${port(cable.bPortId)}`,
    type === null ? 'cable not known yet' : modelTitle(type),
    count > 1 ? `${cable.label} and ${count - 1} more` : cable.label,
  ].join(', ');
}

const devicesOf = (network: Network, plate: Plate | undefined): Device[] =>
  (plate?.deviceIds ?? []).flatMap((id) => network.get('device', id) ?? []);

/**
 * Lines that are pulled on a sheet of cabling: previewed, made at once, made otherwise, taken back.
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
  /** Where the next subnet comes from on a sheet of routing: as it was last said. */
  const [said, setSaid] = useState<RoutedWish | null>(null);
  const how = useMemo((): RoutedWish | null => {
    if (sheet.projection !== 'routing') return null;
    const pools = [...network.all('prefix')]
      .filter((row) => row.role === 'pool' && row.vrfId === sheet.vrfId)
      .map((row) => row.prefix)
      .sort(compareNames);
    const { linksFrom = pools[0] ?? usualPool, length = 31 } = said ?? {};
    return { vrfId: sheet.vrfId, linksFrom, length };
  }, [sheet.projection, sheet.vrfId, network, said]);
  const joined = useCallback(
    (on: Network, wishes: readonly JoinWish[]): JoinAttempt =>
      how === null ? joinAll(on, wishes) : routedAll(on, wishes, how),
    [how],
  );
  const plateOf = useCallback((id: string | null) => scene.plates.find((plate) => plate.id === id), [scene]);
  const refuse = useCallback((text: string) => sync.announce({ tone: 'bad', text }), [sync]);

  const wishesFor = useCallback(
    (from: PullFrom, deviceId: string): JoinWish[] =>
      from.plateIds.flatMap((id) => {
        const [device] = devicesOf(network, plateOf(id));
        // Let go over one of those that are chosen, the others are joined to it.
        const itself = device?.id === deviceId && from.plateIds.length > 1;
        if (device === undefined || itself) return [];
        return [{ aDeviceId: device.id, bDeviceId: deviceId, aPortId: from.portId }];
      }),
    [network, plateOf],
  );
  /** Why nothing can be joined to a plate; null where something can. */
  const shut = useCallback((from: PullFrom, plate: Plate): string | null => {
    if (from.plateIds.length === 1 && from.plateIds[0] === plate.id && plate.deviceIds.length === 1)
      return `${plate.name} cannot be connected to itself: let go on another plate.`;
    if (plate.locked) return `${plate.name} is locked on this sheet. Unlock it first.`;
    if (plate.deviceIds.length === 0) return `${plate.name} is no device: a cable needs a port at both ends.`;
    return null;
  }, []);
  const commitJoined = useCallback(
    (wishes: readonly JoinWish[]): boolean => {
      const made = joined(network, wishes);
      if (!made.ok) {
        refuse(made.why);
        return false;
      }
      if (!acts.commit({ changes: made.changes, sentence: made.sentence })) return false;
      const [only] = wishes;
      setEnd(null);
      setLine(
        wishes.length === 1 && only !== undefined
          ? {
              wish: only,
              key: made.lines[0]?.cableId ?? '',
              routed: how,
              made: made.made,
              along: [],
              cableIds: made.lines.map((one) => one.cableId),
            }
          : null,
      );
      return true;
    },
    [network, acts, refuse, joined, how],
  );

  const preview: Lines['preview'] = useCallback(
    (from, over) => {
      const plate = plateOf(over);
      if (plate === undefined) return { text: 'let go for what stands at the other end', ok: true };
      const why = shut(from, plate);
      if (why !== null) return { text: why, ok: false };
      const [device, second] = devicesOf(network, plate);
      if (device === undefined) return { text: '', ok: false };
      if (second !== undefined) return { text: `let go to choose one of ${plate.name}`, ok: true };
      const wishes = wishesFor(from, device.id);
      const made = joined(network, wishes);
      if (!made.ok) return { text: made.why, ok: false };
      const [first] = made.lines;
      const said =
        wishes.length > 1
          ? `${wishes.length} lines`
          : lineText(made.network, first?.cableId ?? null, made.lines.length);
      return { text: `let go on ${plate.name}: ${said}`, ok: true };
    },
    [network, plateOf, shut, wishesFor, joined],
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
      const devices = devicesOf(network, plate);
      const [device] = devices;
      if (devices.length > 1) return setEnd({ from, at, among: devices.map(({ id }) => id) });
      if (device !== undefined) commitJoined(wishesFor(from, device.id));
    },
    [canEdit, plateOf, shut, refuse, network, commitJoined, wishesFor],
  );

  const far = useMemo(() => {
    if (end === null) return [];
    const port = network.get('port', end.from.portId);
    if (port !== null) return [port];
    return end.from.plateIds.flatMap((id) =>
      devicesOf(network, plateOf(id)).flatMap((device) =>
        lineEnds(network, device, lineSort(device, device), device).filter((one) => isFree(network, one.id)),
      ),
    );
  }, [end, network, plateOf]);
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
    joinTo: (deviceId) => {
      if (end !== null) commitJoined(wishesFor(end.from, deviceId));
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
      const wishes = wishesFor(end.from, deviceId);
      const made = joined(staged.network, wishes);
      if (!made.ok) return refuse(made.why);
      const changes = [...drawn.set.changes, ...made.changes];
      if (!acts.commit({ changes, sentence: `${drawn.set.sentence} and joined it` })) return;
      onDrawn([deviceId]);
      setEnd(null);
      const [only] = wishes;
      if (only !== undefined && wishes.length === 1)
        setLine({
          wish: only,
          key: made.lines[0]?.cableId ?? '',
          routed: how,
          made: made.made,
          along: drawn.set.changes,
          cableIds: made.lines.map((one) => one.cableId),
        });
    },
    askEnd: (plateIds, portId = null) => {
      const [plate] = plateIds.map(plateOf);
      if (!canEdit || plate === undefined) return;
      const at = { x: plate.box.x + plate.box.width / 2, y: plate.box.y + plate.box.height };
      setLine(null);
      setEnd({ from: { plateIds, portId, at }, at: null, among: null });
    },
    otherwise: (wish, routed) => {
      if (line === null) return null;
      const other = line.routed === null ? null : (routed ?? line.routed);
      const made = lineOtherwise(network, line.made, (without) =>
        other === null ? joinDevices(without, wish) : routedLine(without, wish, other),
      );
      if (!made.ok) return made.why;
      if (made.changes.length > 0 && !acts.commit({ changes: made.changes, sentence: made.sentence }))
        return null;
      setSaid(other);
      setLine({
        ...line,
        wish,
        routed: other,
        made: made.made,
        cableIds: made.lines.map((one) => one.cableId),
      });
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
