import { countField, nameField, placeKinds, type Place } from '@visograph/core/model';
import { addPlace, addPlaces, addRack } from '@visograph/core/places';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Choice } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { NumberIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { Card } from '../../record/parts.tsx';

const newPlace = z.object({ name: trimmed(nameField('Place')) });
const newRack = z.object({ name: trimmed(nameField('Rack')), units: countField('Units', 1, 60, 'U') });

const Adding = styled.div`
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
  const [kind, setKind] = useState<Place['kind']>(placeId === null ? 'site' : 'room');
  const [names, setNames] = useState<string | null>(null);
  const { network } = view;
  const place = useSchemaForm(newPlace, { name: '' });
  const rack = useSchemaForm(newRack, { name: '', units: 42 });
  const [placeActs, rackActs] = [useFormActs(place), useFormActs(rack)];
  const addOne = ({ name }: { name: string }): void =>
    placeActs.make(addPlace(network, { name, kind, parentId: placeId, code: null }));
  const addOneRack = (wish: { name: string; units: number }): void => {
    if (placeId !== null) rackActs.make(addRack(network, { ...wish, placeId }));
  };
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
        <div
          onPaste={(event) => {
            const text = event.clipboardData.getData('text/plain');
            if (!text.trim().includes('\n')) return;
            event.preventDefault();
            setNames(text);
          }}
        >
          <Form label="Add a place" form={place} row quiet action="Add place" onSend={addOne}>
            <TextIn name="name" width={124} />
            {kinds}
          </Form>
        </div>
      ) : (
        <div>
          <Names
            aria-label="Names, one a line"
            value={names}
            autoFocus
            onChange={(event) => setNames(event.target.value)}
          />
          <Adding>
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
        <Form label="Add a rack" form={rack} row quiet action="Add rack" onSend={addOneRack}>
          <TextIn name="name" mono width={124} />
          <NumberIn name="units" width={72} />
        </Form>
      )}
      {names !== null && <Hint>Paste a column of a spreadsheet: every line becomes a place.</Hint>}
    </Card>
  );
}
