import { mostParallel } from '@visograph/core/cabling';
import { metresText, modelTitle, speedText, type Network } from '@visograph/core/model';
import type { Box, Point } from '@visograph/core/sheets';
import { settingText } from '@visograph/core/switching';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { Button, Keycap } from '../../kit/controls.tsx';
import { Hint, Mono } from '../../kit/panel/panels.tsx';
import { Afloat } from './Afloat.tsx';
import type { LineAsk } from './lineAsk.ts';
import { CableFields, CircuitFields } from './LineFields.tsx';
import type { Lines, OpenLine } from './useLines.ts';

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

/** A line that is there in words: its ends, what each has, and what it is. */
interface Told {
  ends: string;
  /** Addresses or VLANs of both ends; null where the sheet has none. */
  each: string | null;
  what: string;
}
function toldLine(network: Network, { ask, lineIds }: OpenLine): Told | null {
  const [lineId = ''] = lineIds;
  const cable = network.get('cable', lineId);
  const circuit = network.get('circuit', lineId);
  const row = cable ?? circuit;
  if (row === null) return null;
  const ports = [network.get('port', row.aPortId), network.get('port', row.bPortId)];
  const title = (at: 0 | 1): string => {
    const port = ports[at] ?? null;
    if (port === null) return circuit?.provider ?? 'open';
    return `${network.get('device', port.deviceId)?.name ?? ''} ${port.name}`;
  };
  const ends = `${title(0)} – ${title(1)}`;
  if (circuit !== null) {
    const bandwidth = circuit.bandwidthBps === null ? 'bandwidth not known' : speedText(circuit.bandwidthBps);
    const provider = circuit.provider ?? 'no provider named';
    return { ends, each: null, what: [circuit.kind, circuit.number, provider, bandwidth].join(' · ') };
  }
  const each = ports.map((port) => {
    if (port === null) return '';
    if (ask.sort === 'switched') return port.mode === null ? '' : settingText(port);
    return network.find('addressesByPort', port.id)[0]?.address ?? 'no address';
  });
  const type = network.get('model', cable?.typeId ?? null);
  const optics = ports.flatMap((port) => network.get('model', port?.transceiverId ?? null)?.name ?? []);
  const said = [...new Set(each.filter((text) => text !== ''))];
  return {
    ends,
    each: ask.sort === 'routed' ? each.join(' – ') : ask.sort === 'switched' ? said.join(' – ') : null,
    what: [
      type === null ? 'cable not known yet' : modelTitle(type),
      ...new Set(optics),
      `label ${cable?.label ?? ''}`,
      cable?.lengthM == null ? 'length when placed' : metresText(cable.lengthM),
    ].join(' · '),
  };
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
  const told = toldLine(network, line);
  const { ask } = line;
  const [lineId = ''] = line.lineIds;
  const cable = network.get('cable', lineId);
  const circuit = network.get('circuit', lineId);
  const a = network.get('port', (cable ?? circuit)?.aPortId ?? null);
  const b = network.get('port', (cable ?? circuit)?.bPortId ?? null);
  if (told === null || a === null) return null;
  const change = (next: LineAsk): void => setWhy(lines.otherwise(next));
  const count = ask.sort === 'circuit' ? null : (ask.wish.count ?? 1);
  const inParallel = (next: number): void => {
    if (ask.sort !== 'circuit' && next >= 1 && next <= mostParallel)
      change({ ...ask, wish: { ...ask.wish, count: next } });
  };
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
        if (!own || by === 0 || count === null) return;
        event.preventDefault();
        event.stopPropagation();
        inParallel(count + by);
      }}
    >
      <Mono>{told.ends}</Mono>
      {told.each !== null && told.each !== '' && <Mono>{told.each}</Mono>}
      <Hint>{told.what}</Hint>
      {open && cable !== null && b !== null && ask.sort !== 'circuit' && (
        <CableFields network={network} ask={ask} cable={cable} ends={[a, b]} onAsk={change} />
      )}
      {open && circuit !== null && ask.sort === 'circuit' && (
        <CircuitFields
          key={line.key}
          network={network}
          wish={ask.wish}
          circuit={circuit}
          ends={[a, b]}
          onWish={(wish) => change({ sort: 'circuit', wish })}
        />
      )}
      {why !== null && <Wrong role="alert">{why}</Wrong>}
      <Foot>
        {count !== null && (
          <span className="count" role="group" aria-label="In parallel">
            <Button aria-label="One less" isDisabled={count <= 1} onPress={() => inParallel(count - 1)}>
              −
            </Button>
            <output>{`× ${count}`}</output>
            <Button aria-label="One more" onPress={() => inParallel(count + 1)}>
              +
            </Button>
          </span>
        )}
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
