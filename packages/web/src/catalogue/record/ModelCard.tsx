import { modelTitle, type Device } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Card, Goto } from '../../record/parts.tsx';
import { ModelChoice } from './ModelChoice.tsx';

/** The model of a device; choosing another shows what becomes of its cables before anything is changed. */
export function ModelCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const [open, setOpen] = useState(false);
  const model = network.get('model', device.modelId);
  const devices = useMemo(() => [device], [device]);
  return (
    <Card title="Model">
      {model === null ? (
        <Hint>No model: nothing is known of its size, power and ports.</Hint>
      ) : (
        <Goto to={{ kind: 'model', id: model.id }}>{modelTitle(model)}</Goto>
      )}
      {canEdit && !open && (
        <div>
          <Button $tone="quiet" onPress={() => setOpen(true)}>
            Change model …
          </Button>
        </div>
      )}
      {open && <ModelChoice devices={devices} onClose={() => setOpen(false)} />}
    </Card>
  );
}
