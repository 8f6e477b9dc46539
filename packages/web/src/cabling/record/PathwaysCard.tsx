import { create, remove } from '@visograph/core/change';
import { newId, noted, pathwayKinds, pathwaySchema, placePath, type Place } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Button } from '../../kit/controls.tsx';
import { ChoiceIn, NumberIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { Card, Goto } from '../../record/parts.tsx';

const { name, kind, lengthM } = pathwaySchema.shape;
const newPathway = z.object({ name, kind, lengthM, toId: noted(z.uuid('is not chosen'), { label: 'To' }) });

/** A way to another place: its kind, where it leads, how long it is. */
function AddPathway({ place, onDone }: { place: Place; onDone: () => void }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(newPathway, { name: '', kind: 'tray', toId: '' });
  const { make } = useFormActs(form);
  const places = useMemo(
    () =>
      [...network.all('place')]
        .filter((one) => one.id !== place.id)
        .map((one) => ({ id: one.id, text: one.name, detail: placePath(network, one.parentId) })),
    [network, place.id],
  );
  return (
    <Form
      label="Add a pathway"
      form={form}
      action="Add pathway"
      beside={
        <Button onPress={onDone} preventFocusOnPress>
          Cancel
        </Button>
      }
      onSend={({ toId, ...way }) =>
        make(
          {
            changes: [
              create('pathway', { ...way, id: newId(), aPlaceId: place.id, bPlaceId: toId, notes: null }),
            ],
            sentence: `Added the pathway ${way.name}`,
          },
          onDone,
        )
      }
    >
      <TextIn name="name" autoFocus />
      <ChoiceIn name="kind" options={pathwayKinds.map((one) => ({ id: one, text: one }))} />
      <ChoiceIn name="toId" search options={places} />
      <NumberIn name="lengthM" />
    </Form>
  );
}

/** The ways for cables from a place to others: lengths between rooms are worked out along them. */
export function PathwaysCard({ place }: { place: Place }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const [adding, setAdding] = useState(false);
  const pathways = network.find('pathwaysByPlace', place.id);
  return (
    <Card title="Pathways">
      {pathways.length === 0 && <Hint>None: lengths to other rooms follow the straight line.</Hint>}
      {pathways.map((pathway) => {
        const other = pathway.aPlaceId === place.id ? pathway.bPlaceId : pathway.aPlaceId;
        return (
          <div key={pathway.id} style={{ display: 'flex', gap: 8, alignItems: 'baseline' }}>
            <span>{`${pathway.name}, ${pathway.kind}, ${pathway.lengthM} m to`}</span>
            <Goto to={{ kind: 'place', id: other }}>{network.get('place', other)?.name ?? ''}</Goto>
            {canEdit && (
              <Button
                $tone="quiet"
                aria-label={`Delete the pathway ${pathway.name}`}
                style={{ height: 20, padding: '0 4px' }}
                onPress={() =>
                  void commit({
                    changes: [remove('pathway', pathway)],
                    sentence: `Deleted the pathway ${pathway.name}`,
                  })
                }
              >
                Delete
              </Button>
            )}
          </div>
        );
      })}
      {canEdit && !adding && (
        <Button style={{ marginTop: 6 }} onPress={() => setAdding(true)}>
          Add pathway
        </Button>
      )}
      {adding && <AddPathway place={place} onDone={() => setAdding(false)} />}
    </Card>
  );
}
