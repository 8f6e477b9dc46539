import { kitText, placeKit, removeKit } from '@visograph/core/catalogue';
import { byName, noted, placePath, type Kit } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { ToPartsList } from '../purchase/ToPartsList.tsx';
import { useDo } from '../data/useDo.ts';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { Button } from '../kit/controls.tsx';
import { ChoiceIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Empty, Hint } from '../kit/panel/panels.tsx';

const List = styled.ul`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 6px 16px;
  > li {
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    padding: 9px 0;
  }
  header {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  header > span {
    flex: 1;
  }
  form {
    margin-top: 8px;
  }
`;
const inNewRacks = 'new';

const placing = z.object({
  placeId: noted(z.string('is not chosen'), { label: 'In' }),
  rackId: noted(z.string(), { label: 'Into' }),
});

function PlaceKitForm({ kit, onDone }: { kit: Kit; onDone: () => void }): ReactNode {
  const { network } = useProject().view;
  const { scopeId, go } = useWhereabouts();
  const form = useSchemaForm(placing, {
    ...(scopeId === null ? {} : { placeId: scopeId }),
    rackId: inNewRacks,
  });
  const { act } = useFormActs(form);
  const placeId = form.control.watch('placeId');
  const racks = placeId === undefined ? [] : network.find('racksByPlace', placeId).sort(byName);
  return (
    <Form
      label={`Place ${kit.name}`}
      form={form}
      row
      action="Place kit"
      onSend={({ placeId, rackId }) => {
        const placed = placeKit(network, kit, { placeId, rackId: rackId === inNewRacks ? null : rackId });
        act(placed.attempt, () => {
          onDone();
          const [first] = placed.rackIds;
          if (first !== undefined)
            go({
              section: 'places',
              scopeId: placeId,
              rackId: first,
              selection: { kind: 'rack', id: first },
            });
        });
      }}
      beside={
        <Button $tone="quiet" onPress={onDone}>
          Cancel
        </Button>
      }
    >
      <ChoiceIn
        name="placeId"
        search
        width={280}
        autoFocus
        options={[...network.all('place')].map((one) => ({
          id: one.id,
          text: placePath(network, one.id).replaceAll('/', ' › '),
          detail: one.kind,
        }))}
      />
      {kit.contents.racks.length > 0 && (
        <ChoiceIn
          name="rackId"
          search
          width={150}
          options={[
            { id: inNewRacks, text: 'new racks' },
            ...racks.map((rack) => ({ id: rack.id, text: rack.name })),
          ]}
        />
      )}
    </Form>
  );
}

/** Kits that were kept: placed again with new names and labels. */
export function KitList(): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const act = useDo();
  const [open, setOpen] = useState<string | null>(null);
  const kits = [...network.all('kit')].sort(byName);
  if (kits.length === 0)
    return (
      <Empty title="No kits yet">
        Open the record of a rack and choose “Keep as kit”: its devices and the cables among them can then be
        placed again, with new names and labels.
      </Empty>
    );
  return (
    <List aria-label="Kits">
      {kits.map((kit) => (
        <li key={kit.id}>
          <header>
            <strong>{kit.name}</strong>
            <span>
              <Hint>{kitText(kit.contents)}</Hint>
            </span>
            {canEdit && (
              <>
                <Button onPress={() => setOpen(open === kit.id ? null : kit.id)}>Place …</Button>
                <ToPartsList kitId={kit.id} />
                <Button $tone="quiet" onPress={() => act(removeKit(network, kit))}>
                  Delete
                </Button>
              </>
            )}
          </header>
          {open === kit.id && <PlaceKitForm kit={kit} onDone={() => setOpen(null)} />}
        </li>
      ))}
    </List>
  );
}
