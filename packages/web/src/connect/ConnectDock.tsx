import {
  applyChanges,
  bEnds,
  byName,
  cableAt,
  cableOffers,
  connect,
  estimateLength,
  modelTitle,
  nextCableLabel,
  nextFreePort,
  portsOf,
  whereIs,
  type BEnd,
  type Device,
  type Network,
  type Port,
} from '@visograph/core';
import { useEffect, useMemo, useRef, useState, type FormEvent, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import type { Dock } from '../data/workspace.tsx';
import { Button, Choice, Field, Keycap, Picker, type Option } from '../kit/controls.tsx';
import { ClosingHead, DockColumn, DockFrame, Trouble } from '../kit/dock.tsx';
import { Hint } from '../kit/panels.tsx';
import { PortPicker } from './PortPicker.tsx';

type ConnectWish = Extract<Dock, { form: 'connect' }>;

const isFree = (network: Network, port: Port): boolean => cableAt(network, port.id) === null;
const firstFree = (network: Network, deviceId: string | null, ends: readonly BEnd[] | null): Port | null => {
  if (ends !== null) return ends.find((end) => end.refused === null)?.port ?? null;
  if (deviceId === null) return null;
  const free = portsOf(network, deviceId).filter((port) => isFree(network, port));
  return (
    free.find((port) => port.role === 'uplink') ??
    free.find((port) => port.role === 'network' || port.role === 'passThrough') ??
    free[0] ??
    null
  );
};

const deviceOptions = (network: Network): Option[] =>
  [...network.all('device')]
    .filter((device) => network.countOf('portsByDevice', device.id) > 0)
    .sort(byName)
    .map((device) => ({ id: device.id, text: device.name, detail: whereIs(network, device) }));

/**
 * Connecting: A end, what fits, B end. The A end is what was selected; Enter anywhere connects, takes the next
 * label and steps both ends on to their next free ports. Choices stay when the other end changes.
 */
export function ConnectDock({ dock, onClose }: { dock: ConnectWish; onClose: () => void }): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const { selection } = useWhereabouts();
  const [aDeviceId, setADevice] = useState(dock.aDeviceId);
  const [bDeviceId, setBDevice] = useState<string | null>(
    network.get('port', dock.bPortId)?.deviceId ?? null,
  );
  const [aPortId, setAPort] = useState(dock.aPortId);
  const [bPortId, setBPort] = useState(dock.bPortId);
  const [typeId, setType] = useState<string | null>(null);
  const [label, setLabel] = useState<string | null>(null);
  const [length, setLength] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [done, setDone] = useState<string | null>(null);
  const form = useRef<HTMLFormElement>(null);

  useEffect(() => {
    const wanted = dock.aDeviceId === null ? 0 : 1;
    form.current?.querySelectorAll<HTMLInputElement>('input[role="combobox"]')[wanted]?.focus();
  }, [dock]);

  // A port picked on a drawing or in the record while the dock is open becomes the B end.
  const [seen, setSeen] = useState(selection);
  if (seen !== selection) {
    setSeen(selection);
    const picked = selection?.kind === 'port' ? network.get('port', selection.id) : null;
    const device = selection?.kind === 'device' ? selection.id : picked?.deviceId;
    if (device !== undefined && device !== aDeviceId) {
      if (aDeviceId === null) {
        setADevice(device);
        setAPort(picked?.id ?? null);
      } else {
        setBDevice(device);
        setBPort(picked?.id ?? null);
      }
    }
  }

  const a = network.get('device', aDeviceId);
  const b = network.get('device', bDeviceId);
  const chosenA = network.get('port', aPortId);
  const aPort =
    chosenA !== null && chosenA.deviceId === aDeviceId && isFree(network, chosenA)
      ? chosenA
      : firstFree(network, aDeviceId, null);
  const aEnds = useMemo<BEnd[]>(
    () =>
      aDeviceId === null
        ? []
        : portsOf(network, aDeviceId).map((port) => ({
            port,
            refused: cableAt(network, port.id)?.label ?? null,
          })),
    [network, aDeviceId],
  );
  const ends = useMemo(
    () => (bDeviceId === null || aPort === null ? [] : bEnds(network, aPort, portsOf(network, bDeviceId))),
    [network, bDeviceId, aPort],
  );
  const bPort =
    ends.find((end) => end.port.id === bPortId && end.refused === null)?.port ??
    firstFree(network, bDeviceId, ends);
  const needed = a !== null && b !== null ? estimateLength(network, a, b) : null;
  const offers =
    aPort !== null && bPort !== null ? cableOffers(network, aPort, bPort, needed?.metres ?? null) : [];
  const offer = offers.find((one) => one.type.id === typeId) ?? offers[0] ?? null;
  const project = [...network.all('project')][0];
  const proposedLabel = aPort === null ? '' : nextCableLabel(network, aPort.id, project?.labelDigits ?? 5);
  const shownLabel = label ?? proposedLabel;
  const shownLength = length ?? (offer?.lengthM === null || offer === null ? '' : String(offer.lengthM));
  const options = useMemo(() => deviceOptions(network), [network]);
  const noEnd = b !== null && aPort !== null && bPort === null;

  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (aPort === null || bPort === null)
      return setTrouble(
        aPort === null ? 'Choose a free port for the A end.' : 'Choose a free, matching port for the B end.',
      );
    const metres = shownLength.trim() === '' ? null : Number(shownLength.replace(',', '.'));
    if (metres !== null && !Number.isFinite(metres))
      return setTrouble(`“${shownLength}” is not a length in metres.`);
    const set = connect(network, {
      aPortId: aPort.id,
      bPortId: bPort.id,
      label: shownLabel,
      typeId: offer?.type.id ?? null,
      lengthM: metres,
    });
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return setTrouble(tried.problems[0]?.message ?? 'It cannot be connected.');
    if (!commit(set).ok) return;
    setTrouble(null);
    setDone(set.sentence);
    setLabel(null);
    setLength(null);
    setAPort(nextFreePort(tried.network, aPort)?.id ?? null);
    setBPort(nextFreePort(tried.network, bPort)?.id ?? null);
  };
  const endText = (device: Device | null, port: Port | null): string =>
    device === null ? 'not chosen yet' : `${device.name} ${port?.name ?? 'no free port'}`;
  return (
    <DockFrame
      as="form"
      ref={form}
      aria-label="Connect"
      onSubmit={submit}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented) onClose();
        const list = event.target instanceof HTMLElement && event.target.closest('[role="listbox"]') !== null;
        if (event.key === 'Enter' && list && !event.defaultPrevented) form.current?.requestSubmit();
      }}
    >
      <DockColumn>
        <h2>{aPort === null ? 'A end' : `A end · ${aPort.name}`}</h2>
        <Picker
          label="A device"
          options={options}
          value={aDeviceId}
          onChange={(id) => {
            setADevice(id);
            setAPort(null);
          }}
        />
        {a !== null && (
          <PortPicker label="A port" ends={aEnds} value={aPort?.id ?? null} onChange={setAPort} />
        )}
      </DockColumn>
      <DockColumn $shaded>
        <h2>{needed === null ? 'What fits' : `What fits at ${needed.metres.toFixed(1)} m`}</h2>
        {offer === null ? (
          <Hint>
            {noEnd
              ? `${b?.name ?? ''} has no free port that matches ${aPort?.name ?? ''}.`
              : 'Choose both ends: cables that fit are listed here.'}
          </Hint>
        ) : (
          <>
            <Choice
              label="Cable type"
              value={offer.type.id}
              options={offers.map((one) => ({
                id: one.type.id,
                text: modelTitle(one.type),
                detail: one.lengthM === null ? undefined : `${one.lengthM} m`,
              }))}
              onChange={setType}
            />
            <div style={{ display: 'flex', gap: 8 }}>
              <Field label="Label" value={shownLabel} onChange={setLabel} mono required />
              <Field label="Length (m)" value={shownLength} onChange={setLength} mono width={84} />
            </div>
            <Hint>{[offer.reason, needed?.arithmetic].filter(Boolean).join(' · ')}</Hint>
          </>
        )}
        {trouble !== null && <Trouble role="alert">{trouble}</Trouble>}
        {trouble === null && done !== null && <Hint role="status">{done}</Hint>}
      </DockColumn>
      <DockColumn>
        <ClosingHead onClose={onClose}>{bPort === null ? 'B end' : `B end · ${bPort.name}`}</ClosingHead>
        <Picker
          label="B device"
          options={options.filter((option) => option.id !== aDeviceId)}
          value={bDeviceId}
          onChange={(id) => {
            setBDevice(id);
            setBPort(null);
          }}
        />
        {b !== null && (
          <PortPicker label="B port" ends={ends} value={bPort?.id ?? null} onChange={setBPort} />
        )}
        <Button
          type="submit"
          $tone="primary"
          isDisabled={aPort === null || bPort === null}
          style={{ flex: 'none' }}
        >
          {aPort !== null && bPort !== null ? `Connect as ${shownLabel}` : endText(b, bPort)}
          <Keycap>Enter</Keycap>
        </Button>
      </DockColumn>
    </DockFrame>
  );
}
