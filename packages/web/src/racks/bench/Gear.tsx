import { modelWords } from '@visograph/core/catalogue';
import {
  byName,
  devicesIn,
  devicesNotPlaced,
  modelTitle,
  placeChain,
  placesWithin,
  roles,
  type CatalogueModel,
  type Device,
  type Network,
  type Rack,
} from '@visograph/core/model';
import { useMemo, useState, type PointerEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useWorkspace } from '../../data/workspace.tsx';
import { Field } from '../../kit/controls.tsx';
import { Hint, RoleMark } from '../../kit/panel/panels.tsx';
import type { Cargo } from './acts/useCarry.ts';

const Panel = styled.aside`
  flex: none;
  width: 206px;
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-right: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
  > div {
    padding: 8px 10px;
  }
  h2 {
    padding: 8px 10px 4px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const List = styled.ul`
  flex: 1 1 0;
  min-height: 60px;
  overflow: auto;
  padding: 0 6px 6px;
  &.short {
    flex: 0 1 auto;
    max-height: 34%;
  }
`;
const Item = styled.button`
  font: inherit;
  font-size: 12.5px;
  width: 100%;
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto;
  gap: 6px;
  align-items: baseline;
  text-align: left;
  border: 1px solid transparent;
  border-radius: 3px;
  background: none;
  color: ${({ theme }) => theme.ink};
  padding: 2px 4px;
  cursor: grab;
  touch-action: none;
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    font-size: 11px;
    color: ${({ theme }) => theme.inkSoft};
  }
  &:hover,
  &:focus-visible {
    border-color: ${({ theme }) => theme.accent};
  }
`;
const mostListed = 80;

/** Devices that stand in no rack, in the room of these racks and the places around it within the site, and what is not placed yet. */
export function unracked(network: Network, racks: readonly Rack[]): Device[] {
  const site = placeChain(network, racks[0]?.placeId ?? null)[0];
  if (site === undefined) return [];
  const room = racks[0]?.placeId;
  const near = (device: Device): number => (device.placeId === room ? 0 : device.placeId === null ? 2 : 1);
  return [...devicesIn(network, placesWithin(network, site.id)), ...devicesNotPlaced(network)]
    .filter((device) => {
      const model = network.get('model', device.modelId);
      const rackable = device.units > 0 || ['PD', 'CA', 'UP'].includes(device.role);
      return device.rackId === null && rackable && model?.form !== 'cable';
    })
    .sort((a, b) => near(a) - near(b) || byName(a, b));
}

interface Props {
  racks: readonly Rack[];
  begin: (event: PointerEvent, cargo: Cargo) => void;
}

/** What can be put into the racks: devices that stand in none, and the whole catalogue. Letting go here takes out. */
export function Gear({ racks, begin }: Props): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const { setDock } = useWorkspace();
  const [text, setText] = useState('');
  const models = useMemo(
    () =>
      [...network.all('model')]
        .filter((model) => model.form === 'device' && !model.retired)
        .map((model) => ({
          model,
          title: modelTitle(model),
          words: modelWords(model, roles[model.role ?? 'XX'].label),
        }))
        .sort((a, b) => byName({ name: a.title }, { name: b.title })),
    [network],
  );
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = models.filter(({ words: all }) => words.every((word) => all.includes(word)));
  const loose = unracked(network, racks);
  const add = (model: CatalogueModel): void =>
    setDock({ form: 'addDevice', rackId: racks[0]?.id ?? null, unit: null, modelId: model.id });
  return (
    <Panel aria-label="Gear" data-outside>
      <h2>{`In no rack · ${loose.length}`}</h2>
      {loose.length === 0 ? (
        <div>
          <Hint>Drag a device here to take it out of its rack.</Hint>
        </div>
      ) : (
        <List className="short" aria-label="In no rack">
          {loose.map((device) => (
            <li key={device.id}>
              <Item
                type="button"
                onPointerDown={(event) =>
                  begin(event, { form: 'devices', devices: [device], grabbed: device, grab: { x: 0, y: 6 } })
                }
                onClick={() => select({ kind: 'device', id: device.id })}
              >
                <RoleMark role={device.role} />
                <span>{device.name}</span>
                <small>{`${device.units} U`}</small>
              </Item>
            </li>
          ))}
        </List>
      )}
      <h2>Catalogue</h2>
      <div style={{ paddingTop: 0 }}>
        <Field label="Find gear" value={text} onChange={setText} />
      </div>
      <List aria-label="Models">
        {found.slice(0, mostListed).map(({ model, title }) => (
          <li key={model.id}>
            <Item
              type="button"
              title={`${title}: drag it into a rack, or press Enter`}
              onPointerDown={(event) => begin(event, { form: 'model', model })}
              onClick={() => add(model)}
            >
              <RoleMark role={model.role ?? 'XX'} />
              <span>{title}</span>
              <small>{`${model.units} U`}</small>
            </Item>
          </li>
        ))}
        {found.length === 0 && (
          <li>
            <Hint>{`No model has “${text}” in its name, number, role or ports.`}</Hint>
          </li>
        )}
        {found.length > mostListed && (
          <li>
            <Hint>{`${found.length - mostListed} more: type to narrow them.`}</Hint>
          </li>
        )}
      </List>
    </Panel>
  );
}
