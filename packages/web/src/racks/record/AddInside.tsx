import { placeKinds, type Place } from '@visograph/core/model';
import { addPlace, addPlaces, addRack } from '@visograph/core/places';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button, Choice, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panels.tsx';
import { Card } from '../../record/parts.tsx';

const Adding = styled.form`
  display: flex;
  gap: 8px;
  align-items: flex-end;
  margin-bottom: 8px;
`;
const Names = styled.textarea`
  font: inherit;
  width: 100%;
  min-height: 84px;
  padding: 5px 8px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.ink};
  margin-bottom: 6px;
`;
const kindOf = (text: string | null): Place['kind'] => placeKinds.find((one) => one === text) ?? 'room';

/** Adds places and racks inside a place; inside none, a site. A pasted column of names adds many at once. */
export function AddInside({ placeId }: { placeId: string | null }): ReactNode {
  const { view, commit, sync } = useProject();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<Place['kind']>(placeId === null ? 'site' : 'room');
  const [names, setNames] = useState<string | null>(null);
  const [rackName, setRackName] = useState('');
  const [units, setUnits] = useState('42');
  const { network } = view;
  const addMany = (): void => {
    const attempt = addPlaces(network, placeId, kind, (names ?? '').split(/\r?\n/));
    if (!attempt.ok) return sync.announce({ tone: 'bad', text: attempt.why });
    if (!commit(attempt.set).ok) return;
    setNames(null);
    if (attempt.left.length > 0)
      sync.announce({ tone: 'ok', text: `There already: ${attempt.left.slice(0, 6).join(', ')}.` });
  };
  const kinds = (
    <Choice
      label="Kind"
      value={kind}
      width={92}
      options={placeKinds.map((one) => ({ id: one, text: one }))}
      onChange={(next) => setKind(kindOf(next))}
    />
  );
  return (
    <Card title={placeId === null ? 'Add a site' : 'Add inside'}>
      {names === null ? (
        <Adding
          onSubmit={(event) => {
            event.preventDefault();
            if (commit(addPlace(network, { name, kind, parentId: placeId, code: null })).ok) setName('');
          }}
          onPaste={(event) => {
            const text = event.clipboardData.getData('text/plain');
            if (!text.trim().includes('\n')) return;
            event.preventDefault();
            setNames(text);
          }}
        >
          <Field label="Place" value={name} onChange={setName} required />
          {kinds}
          <Button type="submit">Add place</Button>
        </Adding>
      ) : (
        <div>
          <Names
            aria-label="Names, one a line"
            value={names}
            autoFocus
            onChange={(event) => setNames(event.target.value)}
          />
          <Adding as="div">
            {kinds}
            <Button $tone="primary" onPress={addMany}>
              Add all
            </Button>
            <Button $tone="quiet" onPress={() => setNames(null)}>
              Cancel
            </Button>
          </Adding>
        </div>
      )}
      {names === null && (
        <Button $tone="quiet" onPress={() => setNames('')}>
          Several at once …
        </Button>
      )}
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
      {names !== null && <Hint>Paste a column of a spreadsheet: every line becomes a place.</Hint>}
    </Card>
  );
}
