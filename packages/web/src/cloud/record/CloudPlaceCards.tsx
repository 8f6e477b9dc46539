import { addHub, addZoneTo, hubsIn, publicAddressesIn, zoneLosses } from '@visograph/core/cloud';
import { childPlaces, nameField, type Network, type Place } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useShown } from '../../data/shown.ts';
import { useWhereabouts } from '../../data/location.ts';
import { useFormActs } from '../../data/useFormActs.ts';
import { TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { FactLine, FactList } from '../../record/factList.tsx';
import { RowFacts } from '../../record/KindRecord.tsx';
import { ListFacts } from '../../record/ListFacts.tsx';
import { Card, Facts, Goto } from '../../record/parts.tsx';
import { Asked } from '../Asked.tsx';
import { KeepAddress } from '../KeepAddress.tsx';

const hubForm = z.object({ name: trimmed(nameField('Router', 80)) });
function NewHub({ region, close }: { region: Place; close: () => void }): ReactNode {
  const { network } = useProject().view;
  const { select } = useWhereabouts();
  const form = useSchemaForm(hubForm, { name: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label={`Add a router to ${region.name}`}
      form={form}
      action="Add router"
      onSend={({ name }) => {
        const attempt = addHub(network, region, name);
        act(attempt, () => {
          if (attempt.ok) select({ kind: 'device', id: attempt.deviceId });
          close();
        });
      }}
    >
      <TextIn name="name" autoFocus />
    </Form>
  );
}

const zoneForm = z.object({ name: trimmed(nameField('Zone', 80)) });
function NewZone({ region }: { region: Place }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(zoneForm, { name: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label={`Add a zone to ${region.name}`}
      form={form}
      row
      quiet
      action="Add zone"
      onSend={({ name }) => act(addZoneTo(network, region, name))}
    >
      <TextIn name="name" width={122} />
    </Form>
  );
}

function RegionCards({ place }: { place: Place }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const standsFor = (portId: string | null): string => {
    const port = network.get('port', portId);
    return port === null ? 'unused' : `${network.get('device', port.deviceId)?.name ?? ''} ${port.name}`;
  };
  return (
    <>
      <Card title="Zones">
        {childPlaces(network, place.id)
          .filter(({ kind }) => kind === 'zone')
          .map(({ id, name }) => (
            <div key={id}>
              <Goto to={{ kind: 'place', id }}>{name}</Goto>
            </div>
          ))}
        {canEdit && <NewZone key={place.id} region={place} />}
      </Card>
      <Card title="Routers of the region">
        <FactList>
          {hubsIn(network, place.id).map(({ id, name }) => (
            <FactLine key={id} label="" onRemove={null}>
              <Goto to={{ kind: 'device', id }}>{name}</Goto>
              <small>{` joins ${network.countOf('hubAttachmentsByHub', id)}`}</small>
            </FactLine>
          ))}
        </FactList>
        {canEdit && <Asked text="Add router">{(close) => <NewHub region={place} close={close} />}</Asked>}
      </Card>
      <Card title="Public addresses">
        <FactList>
          {publicAddressesIn(network, place.id).map((row) => (
            <FactLine key={row.id} label="" onRemove={null}>
              <Goto to={{ kind: 'publicAddress', id: row.id }}>{row.address}</Goto>
              <small>{` ${standsFor(row.portId)}, ${row.hold}`}</small>
            </FactLine>
          ))}
        </FactList>
        {canEdit && <KeepAddress key={place.id} place={place} row />}
      </Card>
    </>
  );
}

const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

/** What a lost zone means for a network, zone by zone. */
function ZonesCard({ place }: { place: Place }): ReactNode {
  const network = useShown();
  const losses = useMemo(() => zoneLosses(network, place.id), [network, place.id]);
  if (losses.length === 0) return null;
  return (
    <Card title="If a zone is lost">
      <Facts>
        {losses.map(({ zoneId, gone, missed, cutOff, withoutTarget }) => (
          <ZoneFact
            key={zoneId}
            name={network.get('place', zoneId)?.name ?? ''}
            text={[
              gone.length === 0 ? 'nothing stands in it alone' : `${many(gone.length, 'instance')} gone`,
              ...(missed.length > 0
                ? [`nothing else does the work of ${missed.map(({ name }) => name).join(', ')}`]
                : gone.length > 0
                  ? ['all of it done elsewhere']
                  : []),
              ...(cutOff.length > 0 ? [`no way out for ${cutOff.map(({ name }) => name).join(', ')}`] : []),
              ...withoutTarget.map(({ name }) => `${name} has no target left`),
            ].join('; ')}
          />
        ))}
      </Facts>
    </Card>
  );
}
const ZoneFact = ({ name, text }: { name: string; text: string }): ReactNode => (
  <>
    <dt>{name}</dt>
    <dd>{text}</dd>
  </>
);

const besideOf = (network: Network, place: Place) =>
  place.kind === 'account'
    ? ({ kind: 'cloudAccount', row: network.findOne('cloudAccountByPlace', place.id) } as const)
    : place.kind === 'network'
      ? ({ kind: 'virtualNetwork', row: network.findOne('virtualNetworkByPlace', place.id) } as const)
      : null;

/** What a place of a cloud is besides a place: an account, a region or a virtual network. */
export function CloudPlaceCards({ place }: { place: Place }): ReactNode {
  const { network } = useProject().view;
  const beside = besideOf(network, place);
  return (
    <>
      {beside !== null && (
        <Card title={beside.kind === 'cloudAccount' ? 'Account' : 'Virtual network'}>
          {beside.row === null ? (
            <Hint>Nothing is said of it yet.</Hint>
          ) : (
            <RowFacts kind={beside.kind} row={beside.row} />
          )}
        </Card>
      )}
      {beside?.row != null && <ListFacts kind={beside.kind} row={beside.row} />}
      {place.kind === 'region' && <RegionCards place={place} />}
      {place.kind === 'network' && <ZonesCard place={place} />}
    </>
  );
}
