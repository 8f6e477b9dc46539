import { addKit, kitContents, kitText } from '@visograph/core/catalogue';
import { nameField, type Device, type Rack } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Button } from '../../kit/controls.tsx';
import { TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';

const newKit = z.object({ name: trimmed(nameField('Kit')) });

interface Props {
  racks: readonly Rack[];
  devices?: readonly Device[];
}

function KeepForm({ racks, devices = [], onDone }: Props & { onDone: () => void }): ReactNode {
  const { view, sync } = useProject();
  const form = useSchemaForm(newKit, { name: `Like ${racks[0]?.name ?? devices[0]?.name ?? ''}` });
  const { make } = useFormActs(form);
  const contents = kitContents(view.network, racks, devices);
  const keep = ({ name }: { name: string }): void =>
    make(addKit(name, contents), () => {
      onDone();
      sync.announce({ tone: 'ok', text: `Kept ${name}: place it again from the catalogue.` });
    });
  return (
    <Form
      label="Keep as kit"
      form={form}
      action="Keep kit"
      onSend={keep}
      beside={
        <Button onPress={onDone} preventFocusOnPress>
          Cancel
        </Button>
      }
    >
      <TextIn name="name" autoFocus />
      <Hint>{kitText(contents)}</Hint>
    </Form>
  );
}

/** Keeps racks and devices, with the cables among them, under a name, to be placed again. */
export function KeepKit(props: Props): ReactNode {
  const [asking, setAsking] = useState(false);
  if (asking) return <KeepForm {...props} onDone={() => setAsking(false)} />;
  return <Button onPress={() => setAsking(true)}>Keep as kit …</Button>;
}
