import {
  addPlace,
  addRack,
  childPlaces,
  deletePlace,
  devicesInScope,
  placeKinds,
  placePath,
  racksIn,
  type Place,
} from '@visograph/core';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Button, Choice, Field } from '../kit/controls.tsx';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from './parts.tsx';
import { RowHistory } from './RowHistory.tsx';

const Adding = styled.form`
  display: flex;
  gap: 8px;
  align-items: flex-end;
  margin-bottom: 8px;
`;

/** Adds places and racks inside a place; inside none, a site. */
export function AddInside({ placeId }: { placeId: string | null }): ReactNode {
  const { view, commit } = useProject();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<Place['kind']>(placeId === null ? 'site' : 'room');
  const [rackName, setRackName] = useState('');
  const [units, setUnits] = useState('42');
  const { network } = view;
  return (
    <Card title={placeId === null ? 'Add a site' : 'Add inside'}>
      <Adding
        onSubmit={(event) => {
          event.preventDefault();
          if (commit(addPlace(network, { name, kind, parentId: placeId, code: null })).ok) setName('');
        }}
      >
        <Field label="Place" value={name} onChange={setName} required />
        <Choice
          label="Kind"
          value={kind}
          width={92}
          options={placeKinds.map((one) => ({ id: one, text: one }))}
          onChange={(next) => setKind(placeKinds.find((one) => one === next) ?? 'room')}
        />
        <Button type="submit">Add place</Button>
      </Adding>
      {placeId !== null && (
        <Adding
          onSubmit={(event) => {
            event.preventDefault();
            if (commit(addRack(network, { name: rackName, placeId, units: Number(units) })).ok)
              setRackName('');
          }}
        >
          <Field label="Rack" value={rackName} onChange={setRackName} mono required />
          <Field label="Units" value={units} onChange={setUnits} mono width={56} required />
          <Button type="submit">Add rack</Button>
        </Adding>
      )}
    </Card>
  );
}

export function PlaceRecord({ place }: { place: Place }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const racks = racksIn(network, [place.id]);
  const inside = childPlaces(network, place.id);
  const empty = racks.length === 0 && inside.length === 0 && devicesInScope(network, place.id).length === 0;
  return (
    <>
      <Head>
        <h2>{place.name}</h2>
        <p>{`${place.kind} · ${placePath(network, place.parentId).replaceAll('/', ' › ') || 'All sites'}`}</p>
        {canEdit && empty && (
          <div>
            <Button
              onPress={() => {
                if (commit(deletePlace(network, place)).ok) select(null);
              }}
            >
              Delete place
            </Button>
          </div>
        )}
      </Head>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="place" row={place} field="name" optional={false} />
          <ChosenFact kind="place" row={place} field="kind" options={placeKinds} />
          <EditableFact kind="place" row={place} field="code" />
          <EditableFact kind="place" row={place} field="notes" />
          <dt>Devices</dt>
          <dd>{devicesInScope(network, place.id).length}</dd>
        </Facts>
      </Card>
      {racks.length > 0 && (
        <Card title="Racks">
          {racks.map((rack) => (
            <div key={rack.id}>
              <Goto to={{ kind: 'rack', id: rack.id }}>{rack.name}</Goto>
            </div>
          ))}
        </Card>
      )}
      {canEdit && <AddInside placeId={place.id} />}
      <RowHistory rowId={place.id} />
    </>
  );
}
