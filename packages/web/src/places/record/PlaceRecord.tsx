import { editRow } from '@visograph/core/commands';
import {
  devicesInScope,
  isCloudPlace,
  placeKinds,
  placePath,
  racksIn,
  type Place,
} from '@visograph/core/model';
import type { ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Choice } from '../../kit/choice.tsx';
import { AddInside } from '../../racks/record/AddInside.tsx';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from '../../record/parts.tsx';
import { CloudPlaceCards } from '../../cloud/record/CloudPlaceCards.tsx';
import { PathwaysCard } from '../../cabling/record/PathwaysCard.tsx';
import { PlaceActions } from './PlaceActions.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';

export function PlaceRecord({ place }: { place: Place }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const inCloud = isCloudPlace(network, place.id);
  const racks = racksIn(network, [place.id]);
  return (
    <>
      <Head>
        <h2>{place.name}</h2>
        <p>{`${place.kind} · ${placePath(network, place.parentId).replaceAll('/', ' › ') || 'All sites'}`}</p>
        {canEdit && (
          <div>
            <PlaceActions place={place} />
          </div>
        )}
      </Head>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="place" row={place} field="name" optional={false} />
          <ChosenFact kind="place" row={place} field="kind" options={placeKinds} />
          <EditableFact kind="place" row={place} field="code" />
          <EditableFact kind="place" row={place} field="address" />
          <EditableFact kind="place" row={place} field="latitude" numeric />
          <EditableFact kind="place" row={place} field="longitude" numeric />
          {!inCloud && <NumberingFact place={place} />}
          {!inCloud && <EditableFact kind="place" row={place} field="trayHeightM" numeric />}
          {place.parentId !== null && !inCloud && (
            <>
              <EditableFact kind="place" row={place} field="eastM" numeric />
              <EditableFact kind="place" row={place} field="northM" numeric />
              <EditableFact kind="place" row={place} field="levelM" numeric />
            </>
          )}
          <EditableFact kind="place" row={place} field="contacts" />
          <EditableFact kind="place" row={place} field="notes" />
          <dt>Devices</dt>
          <dd>{devicesInScope(network, place.id).length}</dd>
        </Facts>
      </Card>
      {inCloud ? <CloudPlaceCards place={place} /> : <PathwaysCard place={place} />}
      {racks.length > 0 && (
        <Card title="Racks">
          {racks.map((rack) => (
            <div key={rack.id}>
              <Goto to={{ kind: 'rack', id: rack.id }}>{rack.name}</Goto>
            </div>
          ))}
        </Card>
      )}
      {canEdit && !inCloud && <AddInside placeId={place.id} />}
      <RowHistory rowId={place.id} />
    </>
  );
}

/** Which numbering of VLANs holds here and in what is inside: its own, or that of the place around it. */
function NumberingFact({ place }: { place: Place }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const numberings = [...network.all('vlanNumbering')];
  if (numberings.length === 0) return null;
  return (
    <>
      <dt>VLAN numbering</dt>
      <dd>
        <Choice
          label="VLAN numbering"
          hideLabel
          width={150}
          value={place.vlanNumberingId ?? 'around'}
          options={[
            { id: 'around', text: place.parentId === null ? 'none' : 'as around it', disabled: !canEdit },
            ...numberings.map((numbering) => ({
              id: numbering.id,
              text: numbering.name,
              disabled: !canEdit,
            })),
          ]}
          onChange={(id) =>
            void commit(editRow(network, 'place', place, { vlanNumberingId: id === 'around' ? null : id }))
          }
        />
      </dd>
    </>
  );
}
