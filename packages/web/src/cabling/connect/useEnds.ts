import { bEnds, type BEnd } from '@visograph/core/cabling';
import { isFree, portsOf, type Device, type Network, type Port } from '@visograph/core/model';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useWhereabouts } from '../../data/location.ts';
import type { Dock } from '../../data/workspace.tsx';

export type ConnectWish = Extract<Dock, { form: 'connect' }>;

/** The port that is offered first: an uplink, then any that carries data. */
function firstFree(ends: readonly BEnd[], preferUplink: boolean): Port | null {
  const free = ends.filter((end) => end.refused === null).map((end) => end.port);
  const wanted = preferUplink
    ? (free.find((port) => port.role === 'uplink') ??
      free.find((port) => port.role === 'network' || port.role === 'panel'))
    : undefined;
  return wanted ?? free[0] ?? null;
}

export interface End {
  deviceId: string | null;
  device: Device | null;
  port: Port | null;
  ends: BEnd[];
  setDevice: (id: string | null) => void;
  setPort: (id: string | null) => void;
}

/**
 * The two ends of the connection being made: devices, ports, and which ports can be chosen. Choices stay when the
 * other end changes. A port picked on a drawing or in the record while the dock is open becomes the end that is
 * still missing, the B end first.
 */
export function useEnds(network: Network, dock: ConnectWish): { a: End; b: End } {
  const { selection } = useWhereabouts();
  const [aDeviceId, setADevice] = useState(dock.aDeviceId);
  const [bDeviceId, setBDevice] = useState<string | null>(
    network.get('port', dock.bPortId)?.deviceId ?? dock.bDeviceId ?? null,
  );
  const [aPortId, setAPort] = useState(dock.aPortId);
  const [bPortId, setBPort] = useState(dock.bPortId);
  const [seen, setSeen] = useState(selection);
  // Connecting selects nothing by itself: only a new choice of the person counts.
  const changed = seen?.id !== selection?.id || seen?.kind !== selection?.kind;
  if (changed) {
    setSeen(selection);
    const picked = selection?.kind === 'port' ? network.get('port', selection.id) : null;
    const device = selection?.kind === 'device' ? selection.id : picked?.deviceId;
    if (device !== undefined && aDeviceId === null) {
      setADevice(device);
      setAPort(picked?.id ?? null);
    } else if (device !== undefined && (device !== aDeviceId || (picked !== null && picked.id !== aPortId))) {
      if (device !== aDeviceId || bDeviceId !== null || picked !== null) {
        setBDevice(device);
        setBPort(picked?.id ?? null);
      }
    }
  }
  const aEnds = useMemo(
    () => (aDeviceId === null ? [] : bEnds(network, null, portsOf(network, aDeviceId))),
    [network, aDeviceId],
  );
  const chosenA = network.get('port', aPortId);
  const aPort =
    chosenA !== null && chosenA.deviceId === aDeviceId && isFree(network, chosenA.id)
      ? chosenA
      : firstFree(aEnds, true);
  const ends = useMemo(
    () => (bDeviceId === null ? [] : bEnds(network, aPort, portsOf(network, bDeviceId))),
    [network, bDeviceId, aPort],
  );
  const bPort =
    ends.find((end) => end.port.id === bPortId && end.refused === null)?.port ?? firstFree(ends, false);
  return {
    a: {
      deviceId: aDeviceId,
      device: network.get('device', aDeviceId),
      port: aPort,
      ends: aEnds,
      setDevice: (id) => {
        setADevice(id);
        setAPort(null);
      },
      setPort: setAPort,
    },
    b: {
      deviceId: bDeviceId,
      device: network.get('device', bDeviceId),
      port: bPort,
      ends,
      setDevice: (id) => {
        setBDevice(id);
        setBPort(null);
      },
      setPort: setBPort,
    },
  };
}

/** Puts the focus into the field of the device that is still missing. */
export function useFirstFocus(dock: ConnectWish): React.RefObject<HTMLFormElement | null> {
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    const wanted = dock.aDeviceId === null ? 0 : 1;
    form.current?.querySelectorAll<HTMLInputElement>('input[role="combobox"]')[wanted]?.focus();
  }, [dock]);
  return form;
}
