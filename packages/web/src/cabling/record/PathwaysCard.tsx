import { create, remove, applyChanges } from '@visograph/core/change';
import { newId, pathwayKinds, placePath, type Pathway, type Place } from '@visograph/core/model';
import { useMemo, useState, type FormEvent, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button, Choice, Field, Picker } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panels.tsx';
import { Card, Goto } from '../../record/parts.tsx';

/** The ways for cables from a place to others: lengths between rooms are worked out along them. */
export function PathwaysCard({ place }: { place: Place }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const [adding, setAdding] = useState(false);
  const [name, setName] = useState('');
  const [kind, setKind] = useState<string | null>('tray');
  const [toId, setTo] = useState<string | null>(null);
  const [length, setLength] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const pathways = network.find('pathwaysByPlace', place.id);
  const places = useMemo(
    () =>
      [...network.all('place')]
        .filter((one) => one.id !== place.id)
        .map((one) => ({ id: one.id, text: one.name, detail: placePath(network, one.parentId) })),
    [network, place.id],
  );
  const add = (event: FormEvent): void => {
    event.preventDefault();
    if (toId === null) return setWrong('Choose the place it leads to.');
    const row: Pathway = {
      id: newId(),
      name: name.trim(),
      kind: pathwayKinds.find((one) => one === kind) ?? 'tray',
      aPlaceId: place.id,
      bPlaceId: toId,
      lengthM: Number(length.replace(',', '.')),
      notes: null,
    };
    const set = { changes: [create('pathway', row)], sentence: `Added the pathway ${row.name}` };
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return setWrong(tried.problems[0]?.message ?? 'It cannot be added.');
    if (!commit(set).ok) return;
    setAdding(false);
    setName('');
    setLength('');
    setWrong(null);
  };
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
      {adding && (
        <form onSubmit={add} style={{ display: 'grid', gap: 6, marginTop: 6 }}>
          <Field label="Name" value={name} onChange={setName} required autoFocus />
          <Choice
            label="Kind"
            value={kind}
            options={pathwayKinds.map((one) => ({ id: one, text: one }))}
            onChange={setKind}
          />
          <Picker label="To" options={places} value={toId} onChange={setTo} />
          <Field
            label="Length (m)"
            value={length}
            onChange={(text) => {
              setLength(text);
              setWrong(null);
            }}
            mono
            required
            error={wrong}
          />
          <div style={{ display: 'flex', gap: 6 }}>
            <Button type="submit" $tone="primary">
              Add pathway
            </Button>
            <Button onPress={() => setAdding(false)}>Cancel</Button>
          </div>
        </form>
      )}
    </Card>
  );
}
