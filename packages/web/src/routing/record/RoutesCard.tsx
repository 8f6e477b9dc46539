import { addBgpSession, addRoute, deleteBgpSession, deleteRoute } from '@visograph/core/addressing';
import { type Device } from '@visograph/core/model';
import { idleText, isRouter, routeTable, vrfsOf } from '@visograph/core/routing';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useShown } from '../../data/shown.ts';
import { Button, Choice, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panels.tsx';
import { FactForm, FactLine, FactList, useActs } from '../../record/factList.tsx';
import { Card, EditableFact, Facts } from '../../record/parts.tsx';

/** Routes of a router: what it knows and why, its static routes and its sessions. */
export function RoutesCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const shown = useShown();
  const { why, act } = useActs();
  const vrfs = vrfsOf(network, device.id);
  const [vrf, setVrf] = useState<string | null>(null);
  const [prefix, setPrefix] = useState('');
  const [via, setVia] = useState('');
  const [neighbour, setNeighbour] = useState('');
  const [remoteAs, setRemoteAs] = useState('');
  const named = vrf ?? vrfs.at(-1) ?? 'global';
  const vrfId = named === 'global' ? null : named;
  const table = useMemo(() => routeTable(shown, device.id, vrfId), [shown, device.id, vrfId]);
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
      <FactList aria-label="Route table">
        {table.routes.map((route) => {
          const row = network.get('route', route.routeIds[0] ?? null);
          return (
            <FactLine
              key={route.text}
              title={route.why}
              label={`Delete the route to ${route.text}`}
              onRemove={canEdit && row !== null ? () => act(deleteRoute(network, row)) : null}
            >
              {route.text}{' '}
              <small>{`${route.source}, ${hops(route)}${route.metric > 0 ? `, cost ${route.metric}` : ''}`}</small>
            </FactLine>
          );
        })}
        {table.idle.map(({ route, reason }) => (
          <FactLine
            key={route.id}
            label={`Delete the route to ${route.prefix}`}
            onRemove={canEdit ? () => act(deleteRoute(network, route)) : null}
          >
            {route.prefix} <small>{`not used: ${idleText(reason)}`}</small>
          </FactLine>
        ))}
        {sessions.map((session) => (
          <FactLine
            key={session.id}
            label={`Delete the session with ${session.neighbour}`}
            onRemove={canEdit ? () => act(deleteBgpSession(network, session)) : null}
          >
            {session.neighbour} <small>{`BGP session, AS ${session.remoteAs}`}</small>
          </FactLine>
        ))}
      </FactList>
      {canEdit && (
        <>
          <FactForm
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
          </FactForm>
          <FactForm
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
          </FactForm>
        </>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}
