import { findFreePorts, type PortWish } from '@visograph/core/cabling';
import { connectorNames, connectors, placePath, speedText, whereIs, modelTitle } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Choice, Picker } from '../kit/choice.tsx';
import { Field } from '../kit/controls.tsx';
import { ViewedGrid } from '../views/ViewedGrid.tsx';
import { Empty } from '../kit/panel/panels.tsx';

const Ask = styled.div`
  flex: none;
  display: flex;
  gap: 8px;
  align-items: end;
  flex-wrap: wrap;
  padding: 8px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.ground};
`;
const speeds = [null, 1e9, 2.5e9, 5e9, 1e10, 2.5e10, 4e10, 1e11] as const;
const columns = [
  { key: 'device', label: 'Device', width: 120 },
  { key: 'port', label: 'Port', width: 74 },
  { key: 'connector', label: 'Connector', width: 96, text: true },
  { key: 'speed', label: 'Speed', width: 60 },
  { key: 'transceiver', label: 'Transceiver', width: 130, text: true },
  { key: 'at', label: 'Where', width: 110, text: true },
  { key: 'where', label: 'How near', width: 130, text: true },
];
const yesNo = [
  { id: 'no', text: 'no' },
  { id: 'yes', text: 'yes' },
];

/** The free-port finder: what kind, how many, near which place; the nearest first. */
export function FreePorts(): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const { scopeId, selection, select } = useWhereabouts();
  const [count, setCount] = useState('20');
  const [connector, setConnector] = useState<string | null>('any');
  const [speed, setSpeed] = useState<string | null>('any');
  const [optic, setOptic] = useState<string | null>('no');
  const [apart, setApart] = useState<string | null>('no');
  const [poe, setPoe] = useState<string | null>('any');
  const [near, setNear] = useState<string | null>(scopeId);
  const places = useMemo(
    () =>
      [...network.all('place')].map((place) => ({
        id: place.id,
        text: place.name,
        detail: placePath(network, place.parentId),
      })),
    [network],
  );
  const wish: PortWish = {
    count: Math.max(1, Math.min(500, Math.floor(Number(count)) || 1)),
    connector: connectorNames.find((name) => name === connector) ?? null,
    speedBps: speed === 'any' ? null : Number(speed),
    withOptic: optic === 'yes',
    poeClass: poe === 'any' ? null : Number(poe),
    differentDevices: apart === 'yes',
    nearPlaceId: near,
    panels: false,
  };
  const found = findFreePorts(network, wish);
  const rows = found.map(({ port, device, where }) => {
    const model = network.get('model', port.transceiverId);
    return {
      id: port.id,
      cells: {
        device: device.name,
        port: port.name,
        connector: port.connector === null ? null : connectors[port.connector].label,
        speed: port.speedBps === null ? null : speedText(port.speedBps),
        transceiver: model === null ? null : modelTitle(model),
        at: whereIs(network, device),
        where,
      },
    };
  });
  return (
    <>
      <Ask>
        <Field label="How many" value={count} onChange={setCount} mono width={70} />
        <Choice
          label="Connector"
          width={130}
          value={connector}
          options={[
            { id: 'any', text: 'any' },
            ...connectorNames
              .filter((name) => ['copper', 'cage', 'fibre', 'coax'].includes(connectors[name].family))
              .map((name) => ({ id: name, text: connectors[name].label })),
          ]}
          onChange={setConnector}
        />
        <Choice
          label="At least"
          width={84}
          value={speed}
          options={speeds.map((bps) => ({
            id: bps === null ? 'any' : String(bps),
            text: bps === null ? 'any' : speedText(bps),
          }))}
          onChange={setSpeed}
        />
        <Choice label="With optic" width={84} value={optic} options={yesNo} onChange={setOptic} />
        <Choice
          label="PoE class"
          width={84}
          value={poe}
          options={['any', '3', '4', '5', '6', '7', '8'].map((id) => ({ id, text: id }))}
          onChange={setPoe}
        />
        <Choice label="Different devices" width={112} value={apart} options={yesNo} onChange={setApart} />
        <Picker label="Near" options={places} value={near} onChange={setNear} width={190} />
      </Ask>
      <ViewedGrid
        view="free-ports"
        schedule="free-ports"
        label="Free ports"
        columns={columns}
        rows={rows}
        selectedId={selection?.kind === 'port' ? selection.id : null}
        onSelect={(id) => select({ kind: 'port', id })}
        empty={<Empty title="No free port suits that">Ask for a slower port, or leave out a wish.</Empty>}
      />
    </>
  );
}
