import { kitText, placeKit } from '@visograph/core/catalogue';
import { byName, placePath, type Kit } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Picker } from '../kit/choice.tsx';
import { Button } from '../kit/controls.tsx';
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
    display: flex;
    gap: 8px;
    align-items: flex-end;
    margin-top: 8px;
  }
`;
const inNewRacks = 'new';

function PlaceKitForm({ kit, onDone }: { kit: Kit; onDone: () => void }): ReactNode {
  const { view, commit, sync } = useProject();
  const { network } = view;
  const { scopeId, go } = useWhereabouts();
  const [placeId, setPlace] = useState<string | null>(scopeId);
  const [rackId, setRack] = useState<string | null>(inNewRacks);
  const racks = placeId === null ? [] : network.find('racksByPlace', placeId).sort(byName);
  const place = (): void => {
    if (placeId === null) return;
    const placed = placeKit(network, kit, { placeId, rackId: rackId === inNewRacks ? null : rackId });
    if (!placed.attempt.ok) return sync.announce({ tone: 'bad', text: placed.attempt.why });
    if (!commit(placed.attempt.set).ok) return;
    onDone();
    const [first] = placed.rackIds;
    if (first !== undefined)
      go({ section: 'places', scopeId: placeId, rackId: first, selection: { kind: 'rack', id: first } });
  };
  return (
    <form
      aria-label={`Place ${kit.name}`}
      onSubmit={(event) => {
        event.preventDefault();
        place();
      }}
    >
      <Picker
        label="In"
        width={280}
        options={[...network.all('place')].map((one) => ({
          id: one.id,
          text: placePath(network, one.id).replaceAll('/', ' › '),
          detail: one.kind,
        }))}
        value={placeId}
        onChange={setPlace}
        autoFocus
      />
      {kit.contents.racks.length > 0 && (
        <Picker
          label="Into"
          width={150}
          options={[
            { id: inNewRacks, text: 'new racks' },
            ...racks.map((rack) => ({ id: rack.id, text: rack.name })),
          ]}
          value={rackId}
          onChange={setRack}
        />
      )}
      <Button type="submit" $tone="primary" isDisabled={placeId === null}>
        Place kit
      </Button>
      <Button $tone="quiet" onPress={onDone}>
        Cancel
      </Button>
    </form>
  );
}

/** Kits that were kept: placed again with new names and labels. */
export function KitList(): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const [placing, setPlacing] = useState<string | null>(null);
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
                <Button onPress={() => setPlacing(placing === kit.id ? null : kit.id)}>Place …</Button>
                <Button
                  $tone="quiet"
                  onPress={() =>
                    commit({
                      changes: [{ op: 'delete', kind: 'kit', id: kit.id, before: kit }],
                      sentence: `Deleted the kit ${kit.name}`,
                    })
                  }
                >
                  Delete
                </Button>
              </>
            )}
          </header>
          {placing === kit.id && <PlaceKitForm kit={kit} onDone={() => setPlacing(null)} />}
        </li>
      ))}
    </List>
  );
}
