import { addBgpSession, addRoute, deleteBgpSession, deleteRoute } from '@visograph/core/addressing';
import { countField, noted, type Device } from '@visograph/core/model';
import { idleText, isRouter, routeTable, vrfsOf } from '@visograph/core/routing';
import { useMemo, useState, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useShown } from '../../data/shown.ts';
import { useFormActs } from '../../data/useFormActs.ts';
import { Choice } from '../../kit/choice.tsx';
import { NumberIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { FactLine, FactList, useActs } from '../../record/factList.tsx';
import { Card, EditableFact, Facts } from '../../record/parts.tsx';

const given = (label: string) => noted(z.string().trim().min(1, 'is empty'), { label });
const newRoute = z.object({ prefix: given('Route to'), via: given('Next hop, port, discard') });
const newSession = z.object({
  neighbour: given('BGP neighbour'),
  remoteAs: countField('Its AS', 1, 4_294_967_294),
});
interface Adding {
  device: Device;
  vrfId: string | null;
}

function AddRoute({ device, vrfId }: Adding): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(newRoute, { prefix: '', via: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add a route"
      form={form}
      row
      quiet
      action="Add route"
      onSend={(route) => act(addRoute(network, device, { vrfId, ...route }))}
    >
      <TextIn name="prefix" mono width={124} />
      <TextIn name="via" mono width={124} />
    </Form>
  );
}

function AddSession({ device, vrfId }: Adding): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(newSession, { neighbour: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add a BGP session"
      form={form}
      row
      quiet
      action="Add session"
      onSend={(session) => act(addBgpSession(network, device, { vrfId, ...session }))}
    >
      <TextIn name="neighbour" mono width={124} />
      <NumberIn name="remoteAs" width={124} />
    </Form>
  );
}

/** Routes of a router: what it knows and why, its static routes and its sessions. */
export function RoutesCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const shown = useShown();
  const { why, act } = useActs();
  const vrfs = vrfsOf(network, device.id);
  const [vrf, setVrf] = useState<string | null>(null);
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
          <AddRoute device={device} vrfId={vrfId} />
          <AddSession device={device} vrfId={vrfId} />
        </>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}
