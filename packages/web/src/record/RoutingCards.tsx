import {
  addBgpSession,
  addInterface,
  addRedundancy,
  addRoute,
  configuredForms,
  deleteInterface,
  editRow,
  isArea,
  isRouter,
  ospfCost,
  ospfNetworks,
  portsOf,
  remove,
  routeTable,
  vrfsOf,
  type Attempt,
  type ConfiguredForm,
  type Device,
  type Ospf,
  type Port,
} from '@visograph/core';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Button, Choice, Field, Picker } from '../kit/controls.tsx';
import { Hint } from '../kit/panels.tsx';
import { Tick } from '../kit/Tick.tsx';
import { mono } from '../theme/mono.ts';
import { Card, EditableFact, Facts, Goto } from './parts.tsx';

const List = styled.ul`
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
  max-height: 260px;
  overflow: auto;
  li {
    display: flex;
    gap: 4px 8px;
    align-items: center;
    min-height: 22px;
    ${mono}
    font-size: 12.5px;
  }
  li > span:first-child {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  small {
    font-family: 'Atkinson Hyperlegible Next', sans-serif;
    color: ${({ theme }) => theme.inkSoft};
  }
  button {
    height: 22px;
    padding: 0 6px;
  }
`;
const Fields = styled.form`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: flex-end;
  margin-top: 6px;
`;

/** What an act of a card came to: the reason stands below it until the next. */
function useActs(): { why: string | null; act: (attempt: Attempt, done?: () => void) => void } {
  const { commit } = useProject();
  const [why, setWhy] = useState<string | null>(null);
  return {
    why,
    act: (attempt, done) => {
      setWhy(attempt.ok ? null : attempt.why);
      if (attempt.ok && commit(attempt.set).ok) done?.();
    },
  };
}

const formNames: Record<ConfiguredForm, string> = {
  vlan: 'VLAN interface',
  subinterface: 'subinterface',
  aggregate: 'aggregate',
  loopback: 'loopback',
  tunnel: 'tunnel',
};

/** Ports of a device that are only configured: added and taken out. */
export function InterfacesCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { why, act } = useActs();
  const [form, setForm] = useState<ConfiguredForm>('vlan');
  const [vid, setVid] = useState('');
  const [parentId, setParent] = useState<string | null>(null);
  const [members, setMembers] = useState<readonly string[]>([]);
  const ports = network.find('logicalPortsByDevice', device.id).sort((a, b) => (a.name < b.name ? -1 : 1));
  const physical = portsOf(network, device.id).filter((port) => port.role === 'network');
  if (!canEdit && ports.length === 0) return null;
  const over = [...physical, ...ports.filter((port) => port.form === 'aggregate')];
  const numbered = form === 'vlan' || form === 'subinterface';
  return (
    <Card title="Configured ports">
      <List aria-label="Configured ports">
        {ports.map((port) => (
          <li key={port.id}>
            <span>
              <Goto to={{ kind: 'port', id: port.id }}>{port.name}</Goto>{' '}
              <small>{port.form === 'physical' ? '' : formNames[port.form]}</small>
            </span>
            {canEdit && (
              <Button
                $tone="quiet"
                aria-label={`Take out ${port.name}`}
                onPress={() => act(deleteInterface(network, port))}
              >
                ×
              </Button>
            )}
          </li>
        ))}
      </List>
      {canEdit && (
        <Fields
          onSubmit={(event) => {
            event.preventDefault();
            const made = addInterface(network, device, {
              form,
              vid: numbered && vid.trim() !== '' ? Number(vid) : null,
              parent: network.get('port', parentId),
              members: members.flatMap((id) => network.get('port', id) ?? []),
            });
            act(made, () => {
              setVid('');
              setMembers([]);
            });
          }}
        >
          <Choice
            label="New port"
            width={124}
            value={form}
            options={configuredForms.map((id) => ({ id, text: formNames[id] }))}
            onChange={(id) => setForm(configuredForms.find((one) => one === id) ?? 'vlan')}
          />
          {numbered && <Field label="VLAN" mono width={60} value={vid} onChange={setVid} />}
          {(form === 'subinterface' || form === 'tunnel') && (
            <Picker
              label="Over"
              width={110}
              value={parentId}
              options={over.map((port) => ({ id: port.id, text: port.name }))}
              onChange={setParent}
            />
          )}
          {form === 'aggregate' && (
            <Picker
              label={members.length === 0 ? 'Members' : `${members.length} chosen, more`}
              width={130}
              value={null}
              options={physical
                .filter((port) => port.aggregateId === null && !members.includes(port.id))
                .map((port) => ({ id: port.id, text: port.name }))}
              onChange={(id) => id !== null && setMembers([...members, id])}
            />
          )}
          <Button type="submit">Add port</Button>
        </Fields>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

/** Routes of a router: what it knows and why, its static routes and its sessions. */
export function RoutesCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { why, act } = useActs();
  const vrfs = vrfsOf(network, device.id);
  const [vrf, setVrf] = useState<string | null>(null);
  const [prefix, setPrefix] = useState('');
  const [via, setVia] = useState('');
  const [neighbour, setNeighbour] = useState('');
  const [remoteAs, setRemoteAs] = useState('');
  const named = vrf ?? vrfs.at(-1) ?? 'global';
  const vrfId = named === 'global' ? null : named;
  const table = useMemo(() => routeTable(network, device.id, vrfId), [network, device.id, vrfId]);
  if (!isRouter(network, device) && network.countOf('routesByDevice', device.id) === 0) return null;
  const sessions = network.find('bgpSessionsByDevice', device.id).filter((one) => one.vrfId === vrfId);
  const hops = (route: (typeof table.routes)[number]): string =>
    route.nextHops.length === 0
      ? 'discarded'
      : route.nextHops
          .map((hop) => [hop.via, network.get('port', hop.portId)?.name].filter(Boolean).join(' on '))
          .join(', ');
  return (
    <Card title={`Routes · ${table.routes.length}`}>
      <Facts>
        <dt>VRF</dt>
        <dd>
          <Choice
            label="VRF"
            hideLabel
            width={130}
            value={named}
            options={[
              ...[...network.all('vrf')].map((one) => ({ id: one.id, text: one.name })),
              { id: 'global', text: 'global table' },
            ]}
            onChange={setVrf}
          />
        </dd>
        <EditableFact kind="device" row={device} field="routerId" />
        <EditableFact kind="device" row={device} field="asNumber" numeric />
      </Facts>
      <List aria-label="Route table">
        {table.routes.map((route) => {
          const row = network.get('route', route.routeId);
          return (
            <li key={route.text} title={route.why}>
              <span>
                {route.text}{' '}
                <small>{`${route.source}, ${hops(route)}${route.metric > 0 ? `, cost ${route.metric}` : ''}`}</small>
              </span>
              {canEdit && row !== null && (
                <Button
                  $tone="quiet"
                  aria-label={`Delete the route to ${route.text}`}
                  onPress={() =>
                    act({
                      ok: true,
                      set: {
                        changes: [remove('route', row)],
                        sentence: `Deleted the route of ${device.name} to ${route.text}`,
                      },
                    })
                  }
                >
                  ×
                </Button>
              )}
            </li>
          );
        })}
        {table.idle.map(({ route, why: reason }) => (
          <li key={route.id}>
            <span>
              {route.prefix} <small>{`not used: ${reason}`}</small>
            </span>
            {canEdit && (
              <Button
                $tone="quiet"
                aria-label={`Delete the route to ${route.prefix}`}
                onPress={() =>
                  act({
                    ok: true,
                    set: {
                      changes: [remove('route', route)],
                      sentence: `Deleted the route of ${device.name} to ${route.prefix}`,
                    },
                  })
                }
              >
                ×
              </Button>
            )}
          </li>
        ))}
        {sessions.map((session) => (
          <li key={session.id}>
            <span>
              {session.neighbour} <small>{`BGP session, AS ${session.remoteAs}`}</small>
            </span>
            {canEdit && (
              <Button
                $tone="quiet"
                aria-label={`Delete the session with ${session.neighbour}`}
                onPress={() =>
                  act({
                    ok: true,
                    set: {
                      changes: [remove('bgpSession', session)],
                      sentence: `Deleted the BGP session of ${device.name} with ${session.neighbour}`,
                    },
                  })
                }
              >
                ×
              </Button>
            )}
          </li>
        ))}
      </List>
      {canEdit && (
        <>
          <Fields
            onSubmit={(event) => {
              event.preventDefault();
              act(addRoute(network, device, { vrfId, prefix, via }), () => {
                setPrefix('');
                setVia('');
              });
            }}
          >
            <Field label="Route to" mono width={124} value={prefix} onChange={setPrefix} />
            <Field label="Next hop, port, discard" mono width={124} value={via} onChange={setVia} />
            <Button type="submit">Add route</Button>
          </Fields>
          <Fields
            onSubmit={(event) => {
              event.preventDefault();
              act(addBgpSession(network, device, { vrfId, neighbour, remoteAs: Number(remoteAs) }), () => {
                setNeighbour('');
                setRemoteAs('');
              });
            }}
          >
            <Field label="BGP neighbour" mono width={124} value={neighbour} onChange={setNeighbour} />
            <Field label="Its AS" mono width={124} value={remoteAs} onChange={setRemoteAs} />
            <Button type="submit">Add session</Button>
          </Fields>
        </>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

const newOspf: Ospf = { area: '0', cost: null, passive: false, network: 'broadcast' };

/** How a port with addresses takes part in OSPF, and in groups that share an address. */
export function PortRoutingCard({ port }: { port: Port }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { why, act } = useActs();
  const shared = network.find('redundanciesByPort', port.id);
  const shown = `${port.id} ${JSON.stringify(port.ospf)}`;
  const [from, setFrom] = useState(shown);
  const [area, setArea] = useState(port.ospf?.area ?? '');
  const [cost, setCost] = useState(port.ospf?.cost == null ? '' : String(port.ospf.cost));
  const [group, setGroup] = useState('');
  const [virtual, setVirtual] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  if (from !== shown) {
    setFrom(shown);
    setArea(port.ospf?.area ?? '');
    setCost(port.ospf?.cost == null ? '' : String(port.ospf.cost));
    setWrong(null);
  }
  if (network.countOf('addressesByPort', port.id) === 0 && port.ospf === null) return null;
  const set = (ospf: Ospf | null): void => void commit(editRow(network, 'port', port, { ospf }));
  const keep = (): void => {
    if (area.trim() === '') return set(null);
    if (!isArea(area.trim())) return setWrong(`Area “${area.trim()}” is neither a number nor like 0.0.0.1.`);
    const number = cost.trim() === '' ? null : Number(cost);
    if (number !== null && (!Number.isInteger(number) || number < 1 || number > 65535))
      return setWrong(`Cost “${cost.trim()}” is not a number from 1 to 65535.`);
    setWrong(null);
    set({ ...(port.ospf ?? newOspf), area: area.trim(), cost: number });
  };
  const touched =
    area.trim() !== (port.ospf?.area ?? '') ||
    cost.trim() !== (port.ospf?.cost == null ? '' : String(port.ospf.cost));
  const { ospf } = port;
  return (
    <Card title="Routing">
      <Fields
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Field label="OSPF area" mono width={80} value={area} onChange={setArea} />
        <Field
          label={`Cost${ospf === null ? '' : `, now ${ospfCost(network, port)}`}`}
          mono
          width={96}
          value={cost}
          onChange={setCost}
        />
        {canEdit && touched && (
          <Button type="submit" $tone="primary">
            Keep
          </Button>
        )}
      </Fields>
      {ospf !== null && (
        <>
          <Tick
            isSelected={ospf.passive}
            isDisabled={!canEdit}
            onChange={(passive) => set({ ...ospf, passive })}
          >
            Passive: tells the subnet, has no neighbours
          </Tick>
          <Choice
            label="Network type"
            width={150}
            value={ospf.network}
            options={ospfNetworks.map((id) => ({ id, text: id, disabled: !canEdit }))}
            onChange={(id) =>
              set({ ...ospf, network: ospfNetworks.find((one) => one === id) ?? 'broadcast' })
            }
          />
        </>
      )}
      <List aria-label="Shared addresses">
        {shared.map((part) => (
          <li key={part.id}>
            <span>
              {part.virtual} <small>{`shared, group ${part.group}, priority ${part.priority}`}</small>
            </span>
            {canEdit && (
              <Button
                $tone="quiet"
                aria-label={`Leave group ${part.group}`}
                onPress={() =>
                  act({
                    ok: true,
                    set: {
                      changes: [remove('redundancy', part)],
                      sentence: `Took ${port.name} out of group ${part.group}`,
                    },
                  })
                }
              >
                ×
              </Button>
            )}
          </li>
        ))}
      </List>
      {canEdit && (
        <Fields
          onSubmit={(event) => {
            event.preventDefault();
            act(addRedundancy(network, port, { group: Number(group), virtual }), () => {
              setGroup('');
              setVirtual('');
            });
          }}
        >
          <Field label="VRRP group" mono width={80} value={group} onChange={setGroup} />
          <Field label="Shared address" mono width={124} value={virtual} onChange={setVirtual} />
          <Button type="submit" isDisabled={group === '' || virtual === ''}>
            Add to group
          </Button>
        </Fields>
      )}
      {(wrong ?? why) !== null && <Hint role="alert">{wrong ?? why}</Hint>}
    </Card>
  );
}
