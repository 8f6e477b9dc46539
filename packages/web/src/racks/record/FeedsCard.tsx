import { editRow } from '@visograph/core/commands';
import { grouped, feedSchema, noted, type Feed, type Rack } from '@visograph/core/model';
import { usableW } from '@visograph/core/racks';
import { useEffect, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Button } from '../../kit/controls.tsx';
import { ChoiceIn, NumberIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint, Mono } from '../../kit/panel/panels.tsx';
import { Card } from '../../record/parts.tsx';

const Row = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  min-height: 28px;
`;
const newFeed = feedSchema
  .pick({ name: true, amps: true })
  .extend({ phases: noted(z.enum(['1', '3']), { label: 'Phases' }) });
const letters = ['A', 'B', 'C', 'D', 'E', 'F'];

/** The feeds of a rack: what each may carry continuously, worked out from volts, amps and phases. */
export function FeedsCard({ rack }: { rack: Rack }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const next = letters.find((letter) => !rack.feeds.some((feed) => feed.name === letter)) ?? '';
  const form = useSchemaForm(newFeed, { name: next, amps: 16, phases: '1' });
  const { make } = useFormActs(form);
  const { setValue } = form.control;
  useEffect(() => setValue('name', next), [setValue, next]);
  const kept = (feeds: Feed[]) => editRow(network, 'rack', rack, { feeds });
  return (
    <Card title="Power feeds">
      {rack.feeds.length === 0 && <Hint>None stated: power is not checked against a limit.</Hint>}
      {rack.feeds.map((feed) => (
        <Row key={feed.name}>
          <Mono>{`${feed.name}  ${feed.volts} V × ${feed.amps} A × ${feed.phases}`}</Mono>
          <Hint>{`${grouped(Math.round(usableW(feed)))} W at ${feed.derating * 100} %`}</Hint>
          {canEdit && (
            <Button
              $tone="quiet"
              aria-label={`Remove feed ${feed.name}`}
              onPress={() => void commit(kept(rack.feeds.filter((one) => one.name !== feed.name)))}
            >
              Remove
            </Button>
          )}
        </Row>
      ))}
      {canEdit && (
        <Form
          label="Add a feed"
          form={form}
          row
          quiet
          action="Add feed"
          onSend={({ phases, ...feed }) =>
            make(
              kept([...rack.feeds, { ...feed, volts: 230, phases: phases === '3' ? 3 : 1, derating: 0.8 }]),
            )
          }
        >
          <TextIn name="name" width={48} mono />
          <NumberIn name="amps" width={72} />
          <ChoiceIn name="phases" width={62} options={['1', '3'].map((id) => ({ id, text: id }))} />
        </Form>
      )}
    </Card>
  );
}
