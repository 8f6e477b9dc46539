import { addKit, kitContents, kitText } from '@visograph/core/catalogue';
import { type Device, type Rack } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panels.tsx';

/** Keeps racks and devices, with the cables among them, under a name, to be placed again. */
export function KeepKit({
  racks,
  devices = [],
}: {
  racks: readonly Rack[];
  devices?: readonly Device[];
}): ReactNode {
  const { view, commit, sync } = useProject();
  const [name, setName] = useState<string | null>(null);
  if (name === null)
    return (
      <Button onPress={() => setName(`Like ${racks[0]?.name ?? devices[0]?.name ?? ''}`)}>
        Keep as kit …
      </Button>
    );
  const contents = kitContents(view.network, racks, devices);
  return (
    <form
      aria-label="Keep as kit"
      onSubmit={(event) => {
        event.preventDefault();
        if (!commit(addKit(name, contents)).ok) return;
        setName(null);
        sync.announce({ tone: 'ok', text: `Kept ${name}: place it again from the catalogue.` });
      }}
    >
      <Field label="Kit" value={name} onChange={setName} autoFocus required />
      <Hint>{kitText(contents)}</Hint>
      <div>
        <Button type="submit" $tone="primary">
          Keep kit
        </Button>
      </div>
    </form>
  );
}
