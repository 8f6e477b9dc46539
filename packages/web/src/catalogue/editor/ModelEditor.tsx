import { keepModel, modelProblems } from '@visograph/core/catalogue';
import { keysOf, modelSchema, modelTitle, type CatalogueModel } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Button } from '../../kit/controls.tsx';
import { TextIn } from '../../kit/form/fields.tsx';
import { FormArea, Send, Trouble } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Work, WorkHead } from '../../kit/panel/panels.tsx';
import { ModelFace } from '../ModelFace.tsx';
import { PictureField } from '../PictureField.tsx';
import { CableTypeEditor } from './CableTypeEditor.tsx';
import { BuyingFields, NameFields, SizeFields } from './FactFields.tsx';
import { LicencesEditor } from './LicencesEditor.tsx';
import { OpticsEditor } from './OpticsEditor.tsx';
import { Line } from './parts.tsx';
import { PortGroupsEditor } from './PortGroupsEditor.tsx';
import { SlotsEditor } from './SlotsEditor.tsx';

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
const Area = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  > form {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
`;
const Fields = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 4px 16px 24px;
  h2 {
    color: ${({ theme }) => theme.inkSoft};
    margin: 14px 0 6px;
  }
`;
const Wrong = styled.ul`
  flex: none;
  padding: 7px 16px;
  color: ${({ theme }) => theme.bad};
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
`;

const forms: Record<CatalogueModel['form'], string> = {
  device: 'hardware model',
  module: 'module',
  transceiver: 'transceiver',
  cable: 'cable type',
};
/** Edited as a whole, not as one field: what is wrong in them is told above all, as they stand. */
const parts: ReadonlySet<string> = new Set([
  ...['portGroups', 'slots', 'licences', 'optics', 'opticStrands', 'ends', 'legsA', 'legsB', 'strands'],
  ...['jacket', 'stockLengthsM', 'stockPricesMinor', 'picture', 'symbol'],
]);

interface Props {
  start: CatalogueModel;
  onDone: (keptId: string | null) => void;
}

/** A model being made or changed, with its faces drawn as it will look, and what is wrong with it as it stands. */
export function ModelEditor({ start, onDone }: Props): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(modelSchema, start);
  const { make } = useFormActs(form);
  const model = form.control.watch();
  const wrong = useMemo(
    () =>
      modelProblems(network, model)
        .filter(({ field }) => field === null || parts.has(field))
        .map(({ message }) => message),
    [network, model],
  );
  const put = (change: Partial<CatalogueModel>): void => {
    for (const field of keysOf<keyof CatalogueModel>(change))
      form.control.setValue(field, { ...model, ...change }[field], { shouldDirty: true });
  };
  const isNew = network.get('model', model.id) === null;
  const isHardware = model.form === 'device' || model.form === 'module';
  return (
    <Work aria-label="Model editor">
      <Area>
        <FormArea
          label={isNew ? `New ${forms[model.form]}` : modelTitle(start)}
          form={form}
          onSend={(kept) => make(keepModel(network, kept), () => onDone(kept.id))}
        >
          <WorkHead>
            <h1>{isNew ? `New ${forms[model.form]}` : modelTitle(start)}</h1>
            <div>
              <Button onPress={() => onDone(null)}>Cancel</Button>
              <Send>{isNew ? 'Add model' : 'Keep changes'}</Send>
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
          {wrong.length > 0 && (
            <Wrong role="alert">
              {[...new Set(wrong)].slice(0, 4).map((message) => (
                <li key={message}>{message}</li>
              ))}
            </Wrong>
          )}
          <Fields>
            <Trouble />
            <h2>What it is</h2>
            <NameFields form={model.form} />
            {isHardware && (
              <>
                <h2>Size and power</h2>
                <SizeFields model={model} />
                <h2>Ports</h2>
                <PortGroupsEditor groups={model.portGroups} onChange={(portGroups) => put({ portGroups })} />
              </>
            )}
            {model.form === 'device' && (
              <>
                <h2>Slots</h2>
                <SlotsEditor
                  slots={model.slots}
                  modelName={model.name}
                  onChange={(slots) => put({ slots })}
                />
              </>
            )}
            {model.form === 'cable' && <CableTypeEditor model={model} onChange={put} />}
            {model.form === 'transceiver' && <OpticsEditor model={model} onChange={put} />}
            <h2>Buying and support</h2>
            <BuyingFields currency={model.currency} />
            <h2>Licences it needs</h2>
            <LicencesEditor licences={model.licences} onChange={(licences) => put({ licences })} />
            <h2>Picture and notes</h2>
            <Line>
              <PictureField
                what="picture"
                alt={`Picture of ${model.name}`}
                value={model.picture}
                onChange={(picture) => put({ picture })}
              />
            </Line>
            <h2>Symbol on plates</h2>
            <Line>
              <PictureField
                what="symbol"
                alt={`Symbol of ${model.name}`}
                value={model.symbol}
                onChange={(symbol) => put({ symbol })}
                height={40}
              />
            </Line>
            <TextIn name="notes" nullable />
          </Fields>
        </FormArea>
      </Area>
    </Work>
  );
}
