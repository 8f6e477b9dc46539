import { modelTitle, type Device, type Slot } from '@visograph/core/model';
import { insertModule, modulesFor, takeOutModule } from '@visograph/core/racks';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Choice } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint, Mono } from '../../kit/panel/panels.tsx';
import { Card } from '../../record/parts.tsx';

const Row = styled.div`
  display: grid;
  grid-template-columns: 78px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  min-height: 30px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`;
const Why = styled.p`
  color: ${({ theme }) => theme.bad};
  margin: 4px 0;
`;

function SlotRow({ device, slot }: { device: Device; slot: Slot }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const [why, setWhy] = useState<string | null>(null);
  const module = network
    .find('modulesByDevice', device.id)
    .find((one) => one.slot.toLowerCase() === slot.name.toLowerCase());
  const model = network.get('model', module?.modelId ?? null);
  return (
    <>
      <Row>
        <Mono>{slot.name}</Mono>
        {module !== undefined ? (
          <span>{model === null ? 'module' : modelTitle(model)}</span>
        ) : canEdit ? (
          <Choice
            label={`Module for ${slot.name}`}
            hideLabel
            value={null}
            options={modulesFor(network, device, slot.name).map((one) => ({
              id: one.id,
              text: modelTitle(one),
            }))}
            onChange={(id) => {
              const chosen = network.get('model', id);
              if (chosen !== null) commit(insertModule(network, device, slot.name, chosen));
            }}
          />
        ) : (
          <Hint>empty</Hint>
        )}
        {module !== undefined && canEdit && (
          <Button
            $tone="quiet"
            aria-label={`Take out ${slot.name}`}
            onPress={() => {
              const attempt = takeOutModule(network, module);
              setWhy(attempt.ok ? null : attempt.why);
              if (attempt.ok) commit(attempt.set);
            }}
          >
            Take out
          </Button>
        )}
      </Row>
      {why !== null && <Why role="alert">{why}</Why>}
    </>
  );
}

/** The slots of a device and what sits in them. */
export function SlotsCard({ device }: { device: Device }): ReactNode {
  const { view } = useProject();
  const slots = view.network.get('model', device.modelId)?.slots ?? [];
  if (slots.length === 0) return null;
  const filled = view.network.countOf('modulesByDevice', device.id);
  return (
    <Card title={`Slots · ${filled} of ${slots.length} filled`}>
      {slots.map((slot) => (
        <SlotRow key={slot.name} device={device} slot={slot} />
      ))}
    </Card>
  );
}
