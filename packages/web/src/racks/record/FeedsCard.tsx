import { editRow } from '@visograph/core/commands';
import { type Feed, type Rack } from '@visograph/core/model';
import { usableW } from '@visograph/core/racks';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button, Choice, Field } from '../../kit/controls.tsx';
import { Hint, Mono } from '../../kit/panels.tsx';
import { Card } from '../../record/parts.tsx';

const Row = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  min-height: 28px;
`;
const Form = styled.form`
  display: flex;
  gap: 6px;
  align-items: flex-end;
  margin-top: 6px;
`;

/** The feeds of a rack: what each may carry continuously, worked out from volts, amps and phases. */
export function FeedsCard({ rack }: { rack: Rack }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const next = ['A', 'B', 'C', 'D', 'E', 'F'].find(
    (letter) => !rack.feeds.some((feed) => feed.name === letter),
  );
  const [name, setName] = useState<string | null>(null);
  const [amps, setAmps] = useState('16');
  const [phases, setPhases] = useState<1 | 3>(1);
  const keep = (feeds: Feed[]): boolean => commit(editRow(network, 'rack', rack, { feeds })).ok;
  return (
    <Card title="Power feeds">
      {rack.feeds.length === 0 && <Hint>None stated: power is not checked against a limit.</Hint>}
      {rack.feeds.map((feed) => (
        <Row key={feed.name}>
          <Mono>{`${feed.name}  ${feed.volts} V × ${feed.amps} A × ${feed.phases}`}</Mono>
          <Hint>{`${Math.round(usableW(feed))} W at ${feed.derating * 100} %`}</Hint>
          {canEdit && (
            <Button
              $tone="quiet"
              aria-label={`Remove feed ${feed.name}`}
              onPress={() => keep(rack.feeds.filter((one) => one.name !== feed.name))}
            >
              Remove
            </Button>
          )}
        </Row>
      ))}
      {canEdit && (
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            const feed = { name: name ?? next ?? 'A', volts: 230, amps: Number(amps), phases, derating: 0.8 };
            if (keep([...rack.feeds, feed])) setName(null);
          }}
        >
          <Field label="Feed" value={name ?? next ?? ''} onChange={setName} width={48} mono required />
          <Field label="Amps" value={amps} onChange={setAmps} width={56} mono required />
          <Choice
            label="Phases"
            width={62}
            value={String(phases)}
            options={[1, 3].map((count) => ({ id: String(count), text: String(count) }))}
            onChange={(count) => setPhases(count === '3' ? 3 : 1)}
          />
          <Button type="submit">Add feed</Button>
        </Form>
      )}
    </Card>
  );
}
