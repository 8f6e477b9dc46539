import { pulledInCloud, type CloudEnd, type CloudPull } from '@visograph/core/cloud';
import type { Device, Network, Place } from '@visograph/core/model';
import type { Plate, Scene } from '@visograph/core/sheets';
import { useCallback, useMemo, useState } from 'react';
import { useProject } from '../../data/project.tsx';
import type { SheetActs } from '../useSheetActs.ts';
import type { Lines, OpenEnd } from './useLines.ts';

/** What a plate of a sheet of clouds is as an end of a line: a device, or the subnet that a bar stands for. */
export function cloudEndOf({ picks, deviceIds }: Pick<Plate, 'picks' | 'deviceIds'>): CloudEnd | null {
  if (picks?.kind === 'cloudSubnet') return { subnetId: picks.id };
  const [deviceId] = deviceIds;
  return deviceId === undefined || deviceIds.length !== 1 ? null : { deviceId };
}

const isThere = (network: Network, end: CloudEnd): boolean =>
  'subnetId' in end
    ? network.get('cloudSubnet', end.subnetId) !== null
    : network.get('device', end.deviceId) !== null;

/**
 * Lines that are pulled on a sheet of clouds: what they come to is done at once, as one step, and undone as one. A
 * tunnel to the premises is asked about first.
 */
export function useCloudLines(scene: Scene, acts: SheetActs): Lines {
  const { view, sync, canEdit } = useProject();
  const { network } = view;
  const [end, setEnd] = useState<OpenEnd | null>(null);
  const [premises, setPremises] = useState<{ place: Place; device: Device } | null>(null);
  const plateOf = useCallback((id: string | null) => scene.plates.find((plate) => plate.id === id), [scene]);
  const refuse = useCallback((text: string) => sync.announce({ tone: 'bad', text }), [sync]);
  const pullOf = useCallback(
    (fromId: string | undefined, toId: string | null): CloudPull => {
      const [from, to] = [plateOf(fromId ?? null), plateOf(toId)];
      const ends = [from, to].map((plate) => (plate === undefined ? null : cloudEndOf(plate)));
      const shut = [from, to].find((_, at) => ends[at] === null);
      const [a, b] = ends;
      if (a == null || b == null)
        return {
          ok: false,
          why: `${shut?.name ?? 'It'} stands for several or for none: open it, then pull to one of them.`,
        };
      if (!isThere(network, a) || !isThere(network, b)) return { ok: false, why: 'It is no longer there.' };
      return pulledInCloud(network, a, b);
    },
    [network, plateOf],
  );
  const doIt = useCallback(
    (pull: CloudPull): void => {
      if (!pull.ok) return refuse(pull.why);
      setEnd(null);
      if ('premises' in pull) {
        const place = network.get('place', pull.premises.placeId);
        const device = network.get('device', pull.premises.deviceId);
        return place === null || device === null ? undefined : setPremises({ place, device });
      }
      if (pull.attempt.ok) acts.commit(pull.attempt.set);
      return undefined;
    },
    [network, acts, refuse],
  );
  const [fromId] = end?.from.plateIds ?? [];
  /** Where the line that is open may end. */
  const choices = useMemo(
    () =>
      fromId === undefined
        ? []
        : scene.plates.flatMap((plate) => {
            const pull = cloudEndOf(plate) === null ? null : pullOf(fromId, plate.id);
            return pull?.ok === true ? [{ id: plate.id, text: plate.name, detail: pull.says }] : [];
          }),
    [fromId, scene, pullOf],
  );
  return {
    line: null,
    end,
    models: [],
    choices,
    choose: (id) => doIt(pullOf(fromId, id)),
    premises,
    leavePremises: () => setPremises(null),
    preview: (from, over) => {
      if (plateOf(over) === undefined) return { text: 'let go on what it is to be joined to', ok: true };
      const pull = pullOf(from.plateIds[0], over);
      return pull.ok ? { text: `let go: ${pull.says}`, ok: true } : { text: pull.why, ok: false };
    },
    letGo: (from, over) => {
      if (!canEdit) return;
      if (plateOf(over) === undefined)
        return refuse('A line in a cloud ends on a plate: let go on a gateway, a subnet or an instance.');
      doIt(pullOf(from.plateIds[0], over));
    },
    joinTo: () => undefined,
    joinNew: () => undefined,
    askEnd: (plateIds) => {
      const [plate] = plateIds.map(plateOf);
      if (!canEdit || plate === undefined) return;
      const at = { x: plate.box.x + plate.box.width / 2, y: plate.box.y + plate.box.height };
      setEnd({ from: { plateIds: [plate.id], portId: null, at }, at: null, among: null });
    },
    otherwise: () => null,
    keep: () => setEnd(null),
    takeBack: () => setEnd(null),
  };
}
