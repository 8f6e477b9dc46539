import { cablingRules } from '@visograph/core/cabling';
import { editRow } from '@visograph/core/commands';
import { cablingRulesSchema, noted, singleModeLosses } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useFormActs } from '../data/useFormActs.ts';
import { ChoiceIn, NumberIn } from '../kit/form/fields.tsx';
import { FormArea, Send, Trouble } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';

const { shape } = cablingRulesSchema;
const rules = z.object({
  slackM: noted(shape.slackM, { label: 'Slack per end, m' }),
  sideM: noted(shape.sideM, { label: 'Face to manager, m' }),
  trayRiseM: noted(shape.trayRiseM, { label: 'Rack top to tray, m' }),
  rackPitchM: noted(shape.rackPitchM, { label: 'Rack to rack, m' }),
  detour: noted(shape.detour, { label: 'Straight line ×' }),
  connectorLossDb: noted(shape.connectorLossDb, { label: 'Mated pair, dB' }),
  spliceLossDb: noted(shape.spliceLossDb, { label: 'Splice, dB' }),
  singleModeLoss: noted(z.enum(singleModeLosses), { label: 'Single-mode fibre by' }),
});
const figures = Object.keys(rules.shape).filter((name) => name !== 'singleModeLoss');
const Area = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 8px;
  align-items: end;
`;

/** What lengths and losses are worked out with, for the whole project. */
export function RulesForm(): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const [project] = [...network.all('project')];
  const { labelScheme, ...now } = cablingRules(network);
  const form = useSchemaForm(rules, now, now);
  const { make } = useFormActs(form);
  return (
    <FormArea
      label="Lengths and losses"
      form={form}
      readOnly={!canEdit}
      onSend={(cabling) => {
        if (project === undefined) return;
        const edit = editRow(network, 'project', project, { cabling: { ...cabling, labelScheme } });
        make({ ...edit, sentence: 'Changed what cable lengths and losses are worked out with' });
      }}
    >
      <Area>
        {figures.map((name) => (
          <NumberIn key={name} name={name} />
        ))}
        <ChoiceIn
          name="singleModeLoss"
          width={170}
          options={singleModeLosses.map((id) => ({ id, text: id }))}
        />
        <Send quiet disabled={!canEdit || !form.control.formState.isDirty}>
          Keep
        </Send>
        <Trouble />
      </Area>
    </FormArea>
  );
}
