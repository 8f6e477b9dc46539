import { mostParallel, portWhat, waysBetween } from '@visograph/core/cabling';
import { isFree, modelTitle, portsOf, type Network, type Port } from '@visograph/core/model';
import type { Box, Point } from '@visograph/core/sheets';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { Choice, Picker, type Option } from '../../kit/choice.tsx';
import { Button, Field, Keycap } from '../../kit/controls.tsx';
import { Hint, Mono } from '../../kit/panel/panels.tsx';
import { Afloat } from './Afloat.tsx';
import type { Lines, OpenLine } from './useLines.ts';

const Ends = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
`;
const Foot = styled.div`
  display: flex;
  gap: 6px;
  align-items: center;
  .count {
    display: flex;
    align-items: center;
    gap: 2px;
    margin-right: auto;
    white-space: nowrap;
    button {
      width: 26px;
      padding: 0;
    }
  }
  output {
    min-width: 34px;
    text-align: center;
  }
`;
const Wrong = styled.p`
  color: ${({ theme }) => theme.bad};
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

interface Props {
  line: OpenLine;
  lines: Lines;
  network: Network;
  at: Point;
  /** The plates that it joins: it is not to cover them. */
  avoid: readonly Box[];
}

/** Beside a line that has just been pulled: what was chosen for it, each to be changed; Enter keeps, Escape undoes. */
export function LinePanel({ line, lines, network, at, avoid }: Props): ReactNode {
  const [why, setWhy] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const cable = network.get('cable', line.cableIds[0] ?? null);
  const [a, b] = [network.get('port', cable?.aPortId ?? null), network.get('port', cable?.bPortId ?? null)];
  const { wish } = line;
  const count = wish.count ?? 1;
  const change = (fields: Partial<typeof wish>): void => setWhy(lines.otherwise({ ...wish, ...fields }));
  const portsFor = (own: Port | null, deviceId: string): Option[] =>
    portsOf(network, deviceId)
      .filter((port) => port.role !== 'console' && (port.id === own?.id || isFree(network, port.id)))
      .map((port) => ({ id: port.id, text: port.name, detail: portWhat(network, port) }));
  const types = useMemo(() => (a === null || b === null ? [] : waysBetween(network, a, b)), [network, a, b]);
  if (cable === null || a === null || b === null) return null;
  const type = network.get('model', cable.typeId);
  const name = (id: string): string => network.get('device', id)?.name ?? '';
  const addressOf = (portId: string): string =>
    network.find('addressesByPort', portId)[0]?.address ?? 'no address';
  const optics = [a, b].flatMap((port) => network.get('model', port.transceiverId)?.name ?? []);
  const length = cable.lengthM === null ? 'length when placed' : `${cable.lengthM} m`;
  return (
    <Afloat
      at={at}
      avoid={avoid}
      label="The line just pulled"
      takesFocus
      onEscape={lines.takeBack}
      onKey={(event) => {
        const own = event.target === event.currentTarget;
        if (event.key === 'Enter' && own) lines.keep();
        const by = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
        if (!own || by === 0) return;
        event.preventDefault();
        event.stopPropagation();
        if (count + by >= 1 && count + by <= mostParallel) change({ count: count + by });
      }}
    >
      <Mono>{`${name(a.deviceId)} ${a.name} – ${name(b.deviceId)} ${b.name}`}</Mono>
      {line.routed !== null && <Mono>{[a, b].map((port) => addressOf(port.id)).join(' – ')}</Mono>}
      <Hint>
        {[
          type === null ? 'cable not known yet' : modelTitle(type),
          ...new Set(optics),
          `label ${cable.label}`,
          length,
        ].join(' · ')}
      </Hint>
      {open && (
        <>
          {line.routed !== null && (
            <Subnet
              key={`${line.routed.linksFrom}/${line.routed.length}`}
              from={line.routed.linksFrom}
              length={line.routed.length}
              onChange={(fields) =>
                line.routed !== null && setWhy(lines.otherwise(wish, { ...line.routed, ...fields }))
              }
            />
          )}
          <Ends>
            <Picker
              label={`Port of ${name(a.deviceId)}`}
              value={a.id}
              options={portsFor(a, a.deviceId)}
              onChange={(id) => id !== null && id !== a.id && change({ aPortId: id })}
            />
            <Picker
              label={`Port of ${name(b.deviceId)}`}
              value={b.id}
              options={portsFor(b, b.deviceId)}
              onChange={(id) => id !== null && id !== b.id && change({ bPortId: id })}
            />
          </Ends>
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
      )}
      {why !== null && <Wrong role="alert">{why}</Wrong>}
      <Foot>
        <span className="count" role="group" aria-label="In parallel">
          <Button aria-label="One less" isDisabled={count <= 1} onPress={() => change({ count: count - 1 })}>
            −
          </Button>
          <output>{`× ${count}`}</output>
          <Button aria-label="One more" onPress={() => change({ count: count + 1 })}>
            +
          </Button>
        </span>
        {!open && <Button onPress={() => setOpen(true)}>Change …</Button>}
        <Button onPress={lines.takeBack}>
          Undo<Keycap>Esc</Keycap>
        </Button>
        <Button $tone="primary" onPress={lines.keep}>
          Keep<Keycap>Enter</Keycap>
        </Button>
      </Foot>
    </Afloat>
  );
}
