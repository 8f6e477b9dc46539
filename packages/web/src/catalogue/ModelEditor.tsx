import { keepModel, modelProblems } from '@visograph/core/catalogue';
import {
  grouped,
  airflows,
  media,
  modelTitle,
  rackParts,
  roleCodes,
  roles,
  type CatalogueModel,
  type Slot,
} from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Button, Field } from '../kit/controls.tsx';
import { DateEntry, dateOf } from '../kit/DateEntry.tsx';
import { Hint, Work, WorkHead } from '../kit/panel/panels.tsx';
import { ModelFace } from './ModelFace.tsx';
import { PictureField } from './PictureField.tsx';
import { OpticsEditor } from './OpticsEditor.tsx';
import { PortGroupsEditor } from './PortGroupsEditor.tsx';
import { CableTypeEditor } from './CableTypeEditor.tsx';
import { LicencesEditor } from './LicencesEditor.tsx';

const Faces = styled.div`
  flex: none;
  display: flex;
  gap: 18px;
  flex-wrap: wrap;
  padding: 10px 16px;
  max-height: 40%;
  overflow: auto;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  figure {
    margin: 0;
  }
  figcaption {
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const Form = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 4px 16px 24px;
  h2 {
    color: ${({ theme }) => theme.inkSoft};
    margin: 14px 0 6px;
  }
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-end;
  label {
    white-space: nowrap;
  }
`;
const Check = styled.label`
  display: flex;
  gap: 6px;
  align-items: center;
  height: 28px;
`;
const Wrong = styled.ul`
  flex: none;
  padding: 7px 16px;
  color: ${({ theme }) => theme.bad};
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
`;

type Amount = 'massKg' | 'typicalPowerW' | 'maxPowerW' | 'capacityW' | 'poeBudgetW' | 'poeClass';
const forms: Record<CatalogueModel['form'], string> = {
  device: 'hardware model',
  module: 'module',
  transceiver: 'transceiver',
  cable: 'cable type',
};

interface Props {
  start: CatalogueModel;
  onDone: (keptId: string | null) => void;
}

/** A model being made or changed, with its faces drawn as it will look, and what is wrong with it as it stands. */
export function ModelEditor({ start, onDone }: Props): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const [model, setModel] = useState(start);
  const [numbers, setNumbers] = useState<Record<string, string>>({});
  const problems = useMemo(() => modelProblems(network, model), [network, model]);
  const unread = Object.entries(numbers).filter(
    ([, text]) => text !== '' && !Number.isFinite(Number(text.replace(',', '.'))),
  );
  const messages = [
    ...new Set([
      ...unread.map(([field, text]) => `${field}: “${text}” is not a number.`),
      ...problems.map((one) => one.message),
    ]),
  ];
  const set = (change: Partial<CatalogueModel>): void => setModel({ ...model, ...change });
  const amount = (field: Amount | 'units' | 'inletsNeeded', label: string, width = 84): ReactNode => (
    <Field
      label={label}
      mono
      width={width}
      value={numbers[label] ?? (model[field] === null ? '' : String(model[field]))}
      onChange={(text) => {
        setNumbers({ ...numbers, [label]: text });
        const value = Number(text.replace(',', '.'));
        if (Number.isFinite(value))
          set({
            [field]: text.trim() === '' && field !== 'units' && field !== 'inletsNeeded' ? null : value,
          });
      }}
    />
  );
  const text = (
    field: 'maker' | 'partNumber' | 'moduleFamily' | 'currency',
    label: string,
    width: number,
  ): ReactNode => (
    <Field
      label={label}
      width={width}
      value={model[field] ?? ''}
      onChange={(value) => set({ [field]: value === '' ? null : value })}
    />
  );
  const day = (field: 'endOfSale' | 'endOfSupport', label: string): ReactNode => (
    <DateEntry
      label={label}
      value={dateOf(model[field])}
      onChange={(date) => set({ [field]: date?.toString() ?? null })}
    />
  );
  const slot = (at: number, change: Partial<Slot>): void =>
    set({ slots: model.slots.map((one, index) => (index === at ? { ...one, ...change } : one)) });
  const isNew = network.get('model', model.id) === null;
  const keep = (): void => {
    if (commit(keepModel(network, model)).ok) onDone(model.id);
  };
  const isHardware = model.form === 'device' || model.form === 'module';
  return (
    <Work aria-label="Model editor">
      <WorkHead>
        <h1>{isNew ? `New ${forms[model.form]}` : modelTitle(start)}</h1>
        <div>
          <Button onPress={() => onDone(null)}>Cancel</Button>
          <Button $tone="primary" isDisabled={messages.length > 0} onPress={keep}>
            {isNew ? 'Add model' : 'Keep changes'}
          </Button>
        </div>
      </WorkHead>
      {isHardware && (
        <Faces aria-label="Faces">
          {(['front', 'rear'] as const).map((face) => (
            <figure key={face}>
              <figcaption>{face === 'front' ? 'Front' : 'Rear'}</figcaption>
              <ModelFace model={model} face={face} width={380} maxHeight={170} />
            </figure>
          ))}
        </Faces>
      )}
      {messages.length > 0 && (
        <Wrong role="alert">
          {messages.slice(0, 4).map((message) => (
            <li key={message}>{message}</li>
          ))}
        </Wrong>
      )}
      <Form>
        <h2>What it is</h2>
        <Line>
          {text('maker', 'Maker', 120)}
          <Field
            label="Name"
            value={model.name}
            onChange={(name) => set({ name })}
            width={190}
            required
            autoFocus
          />
          {text('partNumber', 'Part number', 130)}
          {model.form === 'device' && (
            <Choice
              label="Role"
              width={150}
              value={model.role}
              options={roleCodes.map((role) => ({ id: role, text: roles[role].label, detail: role }))}
              onChange={(next) => set({ role: roleCodes.find((role) => role === next) ?? 'XX' })}
            />
          )}
          {model.form === 'device' && (
            <Choice
              label="Rack part"
              width={100}
              value={model.part ?? 'none'}
              options={['none', ...rackParts].map((part) => ({ id: part, text: part }))}
              onChange={(next) => set({ part: rackParts.find((part) => part === next) ?? null })}
            />
          )}
          {model.form === 'module' && text('moduleFamily', 'Fits slots of family', 170)}
          {model.form === 'cable' && (
            <Choice
              label="Medium"
              width={120}
              value={model.medium}
              options={media.map((medium) => ({ id: medium, text: medium }))}
              onChange={(next) => set({ medium: media.find((medium) => medium === next) ?? null })}
            />
          )}
        </Line>
        {isHardware && (
          <>
            <h2>Size and power</h2>
            <Line>
              {model.form === 'device' && amount('units', 'Units', 60)}
              {amount('massKg', 'Mass, kg')}
              {amount('typicalPowerW', 'Typical, W')}
              {amount('maxPowerW', 'Maximum, W')}
              {amount('capacityW', 'Passes on, W', 90)}
              {amount('inletsNeeded', 'Inlets needed', 90)}
              <Choice
                label="Airflow"
                width={126}
                value={model.airflow ?? 'not known'}
                options={['not known', ...airflows].map((one) => ({ id: one, text: one }))}
                onChange={(next) => set({ airflow: airflows.find((one) => one === next) ?? null })}
              />
              {amount('poeBudgetW', 'PoE budget, W', 94)}
              {amount('poeClass', 'PoE class drawn', 100)}
            </Line>
            {model.form === 'device' && (
              <Line>
                <Check>
                  <input
                    type="checkbox"
                    checked={model.fillsBothFaces}
                    onChange={(event) => set({ fillsBothFaces: event.target.checked })}
                  />
                  Fills both faces
                </Check>
                <Check>
                  <input
                    type="checkbox"
                    checked={model.halfWidth}
                    onChange={(event) => set({ halfWidth: event.target.checked })}
                  />
                  Half width
                </Check>
                {model.maxPowerW !== null && (
                  <Hint>{`Heat ${grouped(model.maxPowerW * 3.412142)} BTU/h at most`}</Hint>
                )}
              </Line>
            )}
            <h2>Ports</h2>
            <PortGroupsEditor groups={model.portGroups} onChange={(portGroups) => set({ portGroups })} />
          </>
        )}
        {model.form === 'device' && (
          <>
            <h2>Slots</h2>
            {model.slots.map((one, at) => (
              <Line key={at} role="group" aria-label={`Slot ${at + 1}`}>
                <Field
                  label="Slot"
                  value={one.name}
                  onChange={(name) => slot(at, { name })}
                  width={110}
                  mono
                />
                <Field
                  label="Takes family"
                  value={one.family}
                  onChange={(family) => slot(at, { family })}
                  width={170}
                />
                <Choice
                  label="Face"
                  width={76}
                  value={one.face}
                  options={['front', 'rear'].map((face) => ({ id: face, text: face }))}
                  onChange={(next) => slot(at, { face: next === 'rear' ? 'rear' : 'front' })}
                />
                <Button
                  $tone="quiet"
                  onPress={() => set({ slots: model.slots.filter((_, index) => index !== at) })}
                >
                  Remove
                </Button>
              </Line>
            ))}
            <div style={{ marginTop: 6 }}>
              <Button
                onPress={() =>
                  set({
                    slots: [
                      ...model.slots,
                      {
                        name: `slot ${model.slots.length + 1}`,
                        family: model.slots.at(-1)?.family ?? `${model.name} module`,
                        face: 'front',
                      },
                    ],
                  })
                }
              >
                Add slot
              </Button>
            </div>
          </>
        )}
        {model.form === 'cable' && <CableTypeEditor model={model} onChange={set} />}
        {model.form === 'transceiver' && <OpticsEditor model={model} onChange={set} />}
        <h2>Buying and support</h2>
        <Line>
          <Field
            label="List price"
            mono
            width={100}
            value={numbers['List price'] ?? (model.priceMinor === null ? '' : String(model.priceMinor / 100))}
            onChange={(value) => {
              setNumbers({ ...numbers, 'List price': value });
              const price = Number(value.replace(',', '.'));
              if (Number.isFinite(price))
                set({
                  priceMinor: value.trim() === '' ? null : Math.round(price * 100),
                  currency: model.currency ?? 'EUR',
                });
            }}
          />
          {text('currency', 'Currency', 76)}
          {day('endOfSale', 'End of sale')}
          {day('endOfSupport', 'End of support')}
        </Line>
        <h2>Licences it needs</h2>
        <LicencesEditor licences={model.licences} onChange={(licences) => set({ licences })} />
        <h2>Picture and notes</h2>
        <Line>
          <PictureField
            what="picture"
            alt={`Picture of ${model.name}`}
            value={model.picture}
            onChange={(picture) => set({ picture })}
          />
        </Line>
        <h2>Symbol on plates</h2>
        <Line>
          <PictureField
            what="symbol"
            alt={`Symbol of ${model.name}`}
            value={model.symbol}
            onChange={(symbol) => set({ symbol })}
            height={40}
          />
        </Line>
        <Field
          label="Notes"
          value={model.notes ?? ''}
          onChange={(notes) => set({ notes: notes === '' ? null : notes })}
        />
      </Form>
    </Work>
  );
}
