import { waysBetween, portWhat, type CircuitWish, type JoinWish } from '@visograph/core/cabling';
import {
  circuitKinds,
  isFree,
  modelTitle,
  portsOf,
  readSpeed,
  speedText,
  type Cable,
  type Circuit,
  type Network,
  type Port,
} from '@visograph/core/model';
import { profilesFor, settingText, switches } from '@visograph/core/switching';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { Choice, Picker, type Option } from '../../kit/choice.tsx';
import { Field } from '../../kit/controls.tsx';
import type { LineAsk } from './lineAsk.ts';

const Ends = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
`;

/** Where the subnet of a line comes from, and how long it is: taken when the field is left or with Enter. */
function Subnet({
  from,
  length,
  onChange,
}: {
  from: string;
  length: number;
  onChange: (fields: { linksFrom?: string; length?: number }) => void;
}): ReactNode {
  const [pool, setPool] = useState(from);
  const [digits, setDigits] = useState(String(length));
  const keep = (): void => {
    const number = Number(digits.replace('/', ''));
    if (pool.trim() !== from || number !== length) onChange({ linksFrom: pool.trim(), length: number });
  };
  return (
    <Ends
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
      }}
    >
      <Field label="Subnet from" mono value={pool} onChange={setPool} onBlur={keep} />
      <Field label="Length" mono value={digits} onChange={setDigits} onBlur={keep} />
    </Ends>
  );
}

/** The profile that the ports of the switches at a line take their VLANs from. */
function Vlans({
  network,
  ask,
  onChange,
}: {
  network: Network;
  ask: LineAsk & { sort: 'switched' };
  onChange: (profileId: string | null) => void;
}): ReactNode {
  const [a, b] = [network.get('device', ask.wish.aDeviceId), network.get('device', ask.wish.bDeviceId)];
  const profiles = useMemo(
    () => (a === null || b === null ? { all: [], usual: null } : profilesFor(network, a, b)),
    [network, a, b],
  );
  if (a === null || b === null || !(switches(network, a) || switches(network, b))) return null;
  const usual = switches(network, a) && switches(network, b) ? 'trunk, all VLANs' : 'access, VLAN 1';
  const now = ask.how.profileId === undefined ? (profiles.usual?.id ?? null) : ask.how.profileId;
  return (
    <Choice
      label="VLANs"
      value={now ?? 'none'}
      options={[
        ...profiles.all.map((row) => ({ id: row.id, text: row.name, detail: settingText(row) })),
        { id: 'none', text: 'no profile', detail: usual },
      ]}
      onChange={(id) => onChange(id === 'none' ? null : id)}
    />
  );
}

const portsFor = (network: Network, own: Port | null, deviceId: string): Option[] =>
  portsOf(network, deviceId)
    .filter((port) => port.role !== 'console' && (port.id === own?.id || isFree(network, port.id)))
    .map((port) => ({ id: port.id, text: port.name, detail: portWhat(network, port) }));
const nameOf = (network: Network, port: Port): string => network.get('device', port.deviceId)?.name ?? '';

/** Ports of both ends, as they are and might be. */
function Ports({
  network,
  a,
  b,
  onChange,
}: {
  network: Network;
  a: Port;
  b: Port | null;
  onChange: (fields: { aPortId?: string; bPortId?: string }) => void;
}): ReactNode {
  return (
    <Ends>
      <Picker
        label={`Port of ${nameOf(network, a)}`}
        value={a.id}
        options={portsFor(network, a, a.deviceId)}
        onChange={(id) => id !== null && id !== a.id && onChange({ aPortId: id })}
      />
      {b !== null && (
        <Picker
          label={`Port of ${nameOf(network, b)}`}
          value={b.id}
          options={portsFor(network, b, b.deviceId)}
          onChange={(id) => id !== null && id !== b.id && onChange({ bPortId: id })}
        />
      )}
    </Ends>
  );
}

/** What of a cable that was pulled can be otherwise. */
export function CableFields({
  network,
  ask,
  cable,
  ends: [a, b],
  onAsk,
}: {
  network: Network;
  ask: Exclude<LineAsk, { sort: 'circuit' }>;
  cable: Cable;
  ends: readonly [Port, Port];
  onAsk: (ask: LineAsk) => void;
}): ReactNode {
  const types = useMemo(() => waysBetween(network, a, b), [network, a, b]);
  const change = (fields: Partial<JoinWish>): void => onAsk({ ...ask, wish: { ...ask.wish, ...fields } });
  return (
    <>
      {ask.sort === 'routed' && (
        <Subnet
          key={`${ask.how.linksFrom}/${ask.how.length}`}
          from={ask.how.linksFrom}
          length={ask.how.length}
          onChange={(fields) => onAsk({ ...ask, how: { ...ask.how, ...fields } })}
        />
      )}
      {ask.sort === 'switched' && (
        <Vlans network={network} ask={ask} onChange={(profileId) => onAsk({ ...ask, how: { profileId } })} />
      )}
      <Ports network={network} a={a} b={b} onChange={change} />
      <Choice
        label="Cable"
        value={cable.typeId}
        options={types.map((way) => ({
          id: way.type.id,
          text: modelTitle(way.type),
          detail: way.reason,
        }))}
        onChange={(typeId) => change({ typeId, aPortId: a.id, bPortId: b.id })}
      />
    </>
  );
}

/** What of a circuit that was pulled can be otherwise: each is taken when its field is left or with Enter. */
export function CircuitFields({
  network,
  wish,
  circuit,
  ends: [a, b],
  onWish,
}: {
  network: Network;
  wish: CircuitWish;
  circuit: Circuit;
  ends: readonly [Port, Port | null];
  onWish: (wish: CircuitWish) => void;
}): ReactNode {
  const [number, setNumber] = useState(circuit.number);
  const [provider, setProvider] = useState(circuit.provider ?? '');
  const [bandwidth, setBandwidth] = useState(
    circuit.bandwidthBps === null ? '' : speedText(circuit.bandwidthBps),
  );
  const bps = bandwidth.trim() === '' ? null : readSpeed(bandwidth);
  const unread = bandwidth.trim() !== '' && bps === null;
  const keep = (): void => {
    const name = provider.trim() === '' ? null : provider.trim();
    const same =
      number.trim() === circuit.number && name === circuit.provider && bps === circuit.bandwidthBps;
    if (same || unread || number.trim() === '') return;
    // The end that lies in the network of a provider carries its name.
    const outside = 'provider' in wish.a || 'provider' in wish.b;
    const renamed = (end: CircuitWish['a']): CircuitWish['a'] =>
      'provider' in end && name !== null ? { provider: name } : end;
    onWish({
      ...wish,
      a: renamed(wish.a),
      b: renamed(wish.b),
      number: number.trim(),
      provider: outside ? null : name,
      bandwidthBps: bps,
    });
  };
  return (
    <>
      <Ends
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep();
        }}
      >
        <Field label="Circuit number" mono value={number} onChange={setNumber} onBlur={keep} />
        <Field label="Provider" value={provider} onChange={setProvider} onBlur={keep} />
        <Field
          label="Bandwidth"
          mono
          value={bandwidth}
          onChange={setBandwidth}
          onBlur={keep}
          placeholder="1G"
          error={unread ? 'Write it as 100M or 1G' : null}
        />
        <Choice
          label="Kind"
          value={circuit.kind}
          options={circuitKinds.map((kind) => ({ id: kind, text: kind }))}
          onChange={(kind) => onWish({ ...wish, kind })}
        />
      </Ends>
      <Ports network={network} a={a} b={b} onChange={(fields) => onWish({ ...wish, ...fields })} />
    </>
  );
}
