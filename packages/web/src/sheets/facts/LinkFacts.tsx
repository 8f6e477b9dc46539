import { addressOffers, addressesOf, setPortAddress } from '@visograph/core/addressing';
import { moveEnd, portWhat } from '@visograph/core/cabling';
import { editRow } from '@visograph/core/commands';
import { cableAt, circuitAt, isFree, portsOf, type Port } from '@visograph/core/model';
import { endPorts, type Box, type Point, type Scene, type SceneLink } from '@visograph/core/sheets';
import { switches } from '@visograph/core/switching';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Choice, Picker } from '../../kit/choice.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { EditableFact, Facts, TypedFact } from '../../record/parts.tsx';
import { SwitchingCard } from '../../switching/record/SwitchingCard.tsx';
import { Afloat } from '../draw/Afloat.tsx';
import { useFirstField } from './useFirstField.ts';
import { useTaking } from './useTaking.ts';

/** Which of the labels of a link: at one of its ends, or in its middle. */
export type LinkPart = 'a' | 'b' | 'middle';

const Body = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
  max-height: 420px;
  overflow: auto;
  section {
    padding: 6px 0 0;
    border-bottom: 0;
  }
`;

/** The free ports that an end can be plugged into instead, with what they take. */
function Plugged({ port }: { port: Port }): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const [why, setWhy] = useState<string | null>(null);
  const cable = cableAt(network, port.id);
  const circuit = circuitAt(network, port.id);
  const line = cable ?? circuit;
  const side = line?.aPortId === port.id ? 'a' : line?.bPortId === port.id ? 'b' : null;
  if (line === null || side === null) return null;
  const options = portsOf(network, port.deviceId)
    .filter((one) => one.id === port.id || (one.role !== 'console' && isFree(network, one.id)))
    .map((one) => ({ id: one.id, text: one.name, detail: portWhat(network, one) }));
  const move = (id: string): void => {
    const to = network.get('port', id);
    if (to === null || id === port.id) return;
    const field = side === 'a' ? 'aPortId' : 'bPortId';
    const attempt =
      cable === null
        ? circuit === null
          ? null
          : { ok: true as const, set: editRow(network, 'circuit', circuit, { [field]: id }) }
        : moveEnd(network, cable, side, to);
    if (attempt === null) return;
    setWhy(attempt.ok ? null : attempt.why);
    if (attempt.ok) commit(attempt.set);
  };
  return (
    <>
      <dt>Plugged into</dt>
      <dd>
        <Picker
          label="Plugged into"
          hideLabel
          value={port.id}
          options={options}
          onChange={(id) => id !== null && move(id)}
        />
        {why !== null && <Hint role="alert">{why}</Hint>}
      </dd>
    </>
  );
}

/** What is written at one end of a link: the name of its port, what it is plugged into, its address, its VLANs. */
function EndFacts({ ports }: { ports: readonly Port[] }): ReactNode {
  const { network } = useProject().view;
  const take = useTaking();
  const [chosen, setChosen] = useState<string | null>(null);
  // Plugged into another port, it is that one which is spoken of.
  const port = ports.find(({ id }) => id === chosen) ?? ports[0];
  if (port === undefined) return null;
  const device = network.get('device', port.deviceId);
  if (device === null) return null;
  const switched = port.mode === 'access' || port.mode === 'trunk';
  const carriesPower = port.role === 'powerIn' || port.role === 'powerOut';
  const passive = carriesPower || port.leadsToId !== null;
  return (
    <>
      <strong>{`${device.name} ${port.name}`}</strong>
      {ports.length > 1 && (
        <Choice
          label="Port"
          hideLabel
          value={port.id}
          options={ports.map((one) => ({ id: one.id, text: one.name }))}
          onChange={setChosen}
        />
      )}
      <Facts>
        <TypedFact
          label="Port name"
          shown={port.name}
          keep={(name) =>
            name.trim() === ''
              ? 'Give a value.'
              : take({ ok: true, set: editRow(network, 'port', port, { name: name.trim() }) })
          }
        />
        <Plugged port={port} />
        {!switched && !passive && port.aggregateId === null && (
          <TypedFact
            label="Address"
            shown={addressesOf(network, port.id)[0]?.address ?? ''}
            keep={(text) => take(setPortAddress(network, port, text))}
            offers={addressOffers(network, port).map(({ address, why }) => ({ value: address, text: why }))}
          />
        )}
      </Facts>
      {!passive && (switched || switches(network, device)) && <SwitchingCard port={port} />}
    </>
  );
}

/** More lines of one bundle are edited in the grid of cables. */
const mostLines = 8;

/** What is written along a link: its label and length, its number and provider, the name of its subnet. */
function LineFacts({ ids }: { ids: readonly string[] }): ReactNode {
  const { network } = useProject().view;
  const rest = ids.length - mostLines;
  return (
    <Facts>
      {ids.slice(0, mostLines).map((id) => {
        const cable = network.get('cable', id);
        const circuit = network.get('circuit', id);
        const prefix = network.get('prefix', id);
        return (
          <div key={id} style={{ display: 'contents' }}>
            {cable !== null && (
              <>
                <EditableFact kind="cable" row={cable} field="label" optional={false} />
                <EditableFact kind="cable" row={cable} field="lengthM" numeric />
              </>
            )}
            {circuit !== null && (
              <>
                <EditableFact kind="circuit" row={circuit} field="number" optional={false} />
                <EditableFact kind="circuit" row={circuit} field="provider" />
                <EditableFact kind="circuit" row={circuit} field="bandwidthBps" numeric />
              </>
            )}
            {prefix !== null && (
              <>
                <dt>Subnet</dt>
                <dd>{prefix.prefix}</dd>
                <EditableFact kind="prefix" row={prefix} field="name" />
              </>
            )}
          </div>
        );
      })}
      {rest > 0 && <Hint>{`${rest} more are edited among the cables.`}</Hint>}
    </Facts>
  );
}

interface Props {
  link: SceneLink;
  part: LinkPart;
  scene: Scene;
  at: Point;
  avoid: readonly Box[];
  onClose: () => void;
}

/** The facts of a link, edited where they are drawn. */
export function LinkFacts({ link, part, scene, at, avoid, onClose }: Props): ReactNode {
  const { network } = useProject().view;
  const frame = useFirstField(link.kind === 'prefix' || link.kind === 'port' ? 'Address' : /./);
  const end = part === 'middle' ? null : link[part];
  const plate = scene.plates.find(({ id }) => id === end?.plateId);
  const ports = endPorts(network, link, plate?.deviceIds ?? []);
  return (
    <Afloat at={at} avoid={avoid} label="Facts of the link" onEscape={onClose}>
      <Body ref={frame}>{end === null ? <LineFacts ids={link.cableIds} /> : <EndFacts ports={ports} />}</Body>
    </Afloat>
  );
}
