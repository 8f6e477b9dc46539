import {
  childPlaces,
  placeChain,
  placesWithin,
  racksIn,
  type Network,
  type Place,
} from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject, useWhoCan } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useRecordShown } from '../data/recordShown.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button } from '../kit/controls.tsx';
import { DeviceChips } from '../kit/DeviceChips.tsx';
import { Empty, Work, WorkHead } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';
import { CapacityTable } from './CapacityTable.tsx';
import { ImportPlaces } from './ImportPlaces.tsx';
import { PlaceFigures } from './PlaceFigures.tsx';
import { PlaceCard } from './PlaceCard.tsx';
import { PlaceTree } from './PlaceTree.tsx';
import { SmallRack } from './SmallRack.tsx';

const Body = styled.div`
  display: flex;
  flex: 1;
  min-height: 0;
  min-width: 0;
`;
const Scroll = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 14px 16px 24px;
  h2 {
    color: ${({ theme }) => theme.inkSoft};
    margin: 0 0 8px;
  }
  section + section {
    margin-top: 22px;
  }
`;
const Cards = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(276px, 1fr));
  gap: 10px;
`;
const RackRow = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 18px;
  align-items: flex-end;
  button {
    font: inherit;
    display: block;
    background: none;
    border: 0;
    padding: 4px;
    border-radius: 3px;
    color: ${({ theme }) => theme.ink};
    text-align: left;
  }
  button:hover,
  button[aria-pressed='true'] {
    background: ${({ theme }) => theme.accentWash};
  }
  button[aria-pressed='true'] {
    outline: 2px solid ${({ theme }) => theme.accent};
  }
  svg {
    display: block;
    margin-bottom: 6px;
  }
  small {
    ${mono}
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;

/** A site of many rooms shows the racks of the first of them; the others are one step down. */
const mostGroups = 8;

/** "Ground › Data room": the way from a place down to one inside it. */
function pathBelow(network: Network, id: string, from: string | null): string {
  const chain = placeChain(network, id);
  const start = chain.findIndex((one) => one.id === from);
  return chain
    .slice(start + 1)
    .map((one) => one.name)
    .join(' › ');
}

/** A place: what is inside it, its racks as small elevations, devices that are not in a rack. */
export function PlaceView({ place }: { place: Place | null }): ReactNode {
  const { view, canEdit } = useProject();
  const whoCan = useWhoCan();
  const { network } = view;
  const { go } = useWhereabouts();
  const { setDock } = useWorkspace();
  const record = useRecordShown();
  const [asTable, setAsTable] = useState(false);
  const [picked, setPicked] = useState<readonly string[]>([]);
  const [importing, setImporting] = useState(false);
  const inside = childPlaces(network, place?.id ?? null);
  const racks = place === null ? [] : racksIn(network, [place.id]);
  const loose =
    place === null
      ? []
      : network
          .find('devicesByPlace', place.id)
          .filter((device) => device.rackId === null)
          .sort((a, b) => (a.name < b.name ? -1 : 1));
  const rackGroups = useMemo(
    () =>
      place === null
        ? []
        : [...placesWithin(network, place.id)]
            .flatMap((id) => network.get('place', id) ?? [])
            .map((one) => ({ place: one, racks: racksIn(network, [one.id]) }))
            .filter((group) => group.racks.length > 0)
            .slice(0, mostGroups),
    [network, place],
  );
  const nothing = inside.length === 0 && racks.length === 0 && loose.length === 0;
  const racksWithin =
    place === null ? network.count('rack') : racksIn(network, placesWithin(network, place.id)).length;
  return (
    <Body>
      {!asTable && <PlaceTree />}
      <Work>
        <WorkHead>
          <h1>{place?.name ?? 'All sites'}</h1>
          <p>{place === null ? `${inside.length} ${inside.length === 1 ? 'site' : 'sites'}` : place.kind}</p>
          <div>
            {picked.length > 0 && (
              <Button
                $tone="primary"
                onPress={() => {
                  const [first, ...rest] = picked;
                  const holder = network.get('rack', first ?? null)?.placeId;
                  if (first !== undefined && holder !== undefined)
                    go({
                      scopeId: holder,
                      rackId: first,
                      beside: rest,
                      selection: { kind: 'rack', id: first },
                    });
                }}
              >
                {`Open ${picked.length} ${picked.length === 1 ? 'rack' : 'racks'}`}
              </Button>
            )}
            {racksWithin > 0 && (
              <Button aria-pressed={asTable} onPress={() => setAsTable(!asTable)}>
                Capacity
              </Button>
            )}
            {canEdit && <Button onPress={() => setImporting(true)}>Import …</Button>}
            {canEdit && place !== null && (
              <Button
                onPress={() => setDock({ form: 'addDevice', rackId: racks[0]?.id ?? null, unit: null })}
              >
                Add device
              </Button>
            )}
          </div>
        </WorkHead>
        <ImportPlaces open={importing} onOpenChange={setImporting} />
        {asTable ? (
          <CapacityTable place={place} />
        ) : (
          <Scroll>
            {racksWithin > 0 && (
              <section>
                <PlaceFigures place={place} />
              </section>
            )}
            {nothing && (
              <Empty title={place === null ? 'No sites yet' : `Nothing in ${place.name} yet`}>
                {canEdit
                  ? 'Add a place or a rack in the record at the right, or import a project file from the menu at the upper right.'
                  : whoCan('add places and racks')}
                {canEdit && <Button onPress={record.show}>Show the record</Button>}
              </Empty>
            )}
            {rackGroups.map(({ place: holder, racks: inPlace }) => (
              <section key={holder.id}>
                <h2>
                  {holder.id === place?.id ? 'Racks' : pathBelow(network, holder.id, place?.id ?? null)}
                </h2>
                <RackRow>
                  {inPlace.map((rack) => (
                    <li key={rack.id}>
                      <SmallRack
                        rack={rack}
                        picked={picked.includes(rack.id)}
                        onPick={() =>
                          setPicked(
                            picked.includes(rack.id)
                              ? picked.filter((id) => id !== rack.id)
                              : [...picked, rack.id],
                          )
                        }
                        onOpen={() =>
                          go({
                            scopeId: holder.id,
                            rackId: rack.id,
                            selection: { kind: 'rack', id: rack.id },
                          })
                        }
                      />
                    </li>
                  ))}
                </RackRow>
              </section>
            ))}
            {inside.length > 0 && (
              <section>
                <h2>{place === null ? 'Sites' : 'Inside'}</h2>
                <Cards>
                  {inside.map((child) => (
                    <li key={child.id}>
                      <PlaceCard
                        place={child}
                        onOpen={() =>
                          go({ scopeId: child.id, rackId: null, selection: { kind: 'place', id: child.id } })
                        }
                      />
                    </li>
                  ))}
                </Cards>
              </section>
            )}
            {loose.length > 0 && (
              <section>
                <h2>Not in a rack</h2>
                <DeviceChips devices={loose} />
              </section>
            )}
          </Scroll>
        )}
      </Work>
    </Body>
  );
}
