import { childPlaces, placeChain, type Place } from '@visograph/core/model';
import { movePlace, placeStates } from '@visograph/core/places';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import {
  Button,
  Collection,
  Tree,
  TreeItem,
  TreeItemContent,
  useDragAndDrop,
  type Key,
} from 'react-aria-components';
import { styled } from 'styled-components';
import { useFindings } from '../data/findings.ts';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { StateMark } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';

const Frame = styled.nav`
  flex: none;
  width: 216px;
  min-height: 0;
  overflow: auto;
  border-right: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
  padding: 6px 0 16px;
`;
interface Item {
  id: string;
  name: string;
  place: Place | null;
  inside: Item[];
}

const Rows = styled(Tree<Item>)`
  outline: none;
  [role='row'] {
    outline: none;
    cursor: default;
  }
  [role='row'][data-selected] {
    background: ${({ theme }) => theme.accentWash};
  }
  [role='row'][data-focus-visible] {
    box-shadow: inset 0 0 0 2px ${({ theme }) => theme.accent};
  }
  [role='row'][data-drop-target] {
    box-shadow: inset 0 0 0 2px ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.accentWash};
  }
`;
const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 5px;
  min-height: 25px;
  padding-right: 8px;
  > button {
    font: inherit;
    border: 0;
    padding: 0;
    width: 14px;
    flex: none;
    background: none;
    color: ${({ theme }) => theme.inkSoft};
    &[data-hidden] {
      visibility: hidden;
    }
  }
  > span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > button.found {
    width: 16px;
    padding: 0 3px;
  }
  > small {
    ${mono}
    font-size: 11px;
    color: ${({ theme }) => theme.inkSoft};
  }
  svg {
    width: 9px;
    height: 9px;
  }
`;

const everything = 'everything';

/** Every place in its tree, with the number of devices in it and the worst that was found there. */
export function PlaceTree(): ReactNode {
  const { view, canEdit, commit, sync } = useProject();
  const { network } = view;
  const { scopeId, go } = useWhereabouts();
  const judged = useFindings();
  const checked = judged?.network ?? network;
  const states = useMemo(() => placeStates(checked, judged?.review.open ?? []), [checked, judged]);
  const items = useMemo(() => {
    const itemOf = (place: Place): Item => ({
      id: place.id,
      name: place.name,
      place,
      inside: childPlaces(network, place.id).map(itemOf),
    });
    return [
      { id: everything, name: 'All sites', place: null, inside: [] },
      ...childPlaces(network, null).map(itemOf),
    ];
  }, [network]);
  const [expanded, setExpanded] = useState<Iterable<Key>>(() =>
    childPlaces(network, null).map((place) => place.id),
  );
  useEffect(() => {
    const chain = placeChain(network, scopeId).map((place) => place.id);
    setExpanded((before) => new Set([...before, ...chain]));
    // The way to the chosen place opens when another is chosen.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [scopeId]);
  const { dragAndDropHooks } = useDragAndDrop({
    isDisabled: !canEdit,
    getItems: (keys) =>
      [...keys].map((key) => ({ 'text/plain': network.get('place', String(key))?.name ?? '' })),
    getDropOperation: (target) =>
      target.type === 'item' && target.dropPosition === 'on' ? 'move' : 'cancel',
    onItemDrop: ({ target }) => {
      const dropped = [...dragged.current];
      for (const id of dropped) {
        const place = network.get('place', id);
        if (place === null) continue;
        const attempt = movePlace(network, place, target.key === everything ? null : String(target.key));
        if (attempt.ok) commit(attempt.set);
        else sync.announce({ tone: 'bad', text: attempt.why });
      }
    },
    onDragStart: ({ keys }) => {
      dragged.current = [...keys].map(String).filter((key) => key !== everything);
    },
  });
  const [dragged] = useState<{ current: string[] }>({ current: [] });
  const row = (item: Item): ReactNode => {
    const state = states.get(item.id);
    const devices = item.place === null ? network.count('device') : (state?.devices ?? 0);
    const worst = state?.worst ?? null;
    const spoken = `${item.name}, ${devices} devices${worst === null ? '' : `, ${state?.findings ?? 0} findings`}`;
    return (
      <TreeItem key={item.id} id={item.id} textValue={spoken}>
        <TreeItemContent>
          {({ level, hasChildItems, isExpanded }) => (
            <Line style={{ paddingLeft: 4 + (level - 1) * 13 }}>
              <Button slot="chevron" data-hidden={hasChildItems ? undefined : true}>
                {isExpanded ? '−' : '+'}
              </Button>
              <span>{item.name}</span>
              {worst !== null && (
                <Button
                  className="found"
                  aria-label={`Review ${item.name}: ${state?.findings ?? 0} to mend`}
                  onPress={() => go({ section: 'review', scopeId: item.id, rackId: null })}
                >
                  <StateMark state={worst} />
                </Button>
              )}
              <small>{devices}</small>
            </Line>
          )}
        </TreeItemContent>
        <Collection items={item.inside} dependencies={[states]}>
          {row}
        </Collection>
      </TreeItem>
    );
  };
  return (
    <Frame aria-label="Tree of places">
      <Rows
        aria-label="Places"
        items={items}
        dependencies={[states]}
        selectionMode="single"
        selectionBehavior="replace"
        selectedKeys={[scopeId ?? everything]}
        expandedKeys={expanded}
        onExpandedChange={setExpanded}
        onSelectionChange={(keys) => {
          const [key] = keys === 'all' ? [] : [...keys];
          if (key === undefined) return;
          const id = key === everything ? null : String(key);
          go({ scopeId: id, rackId: null, selection: id === null ? null : { kind: 'place', id } });
        }}
        dragAndDropHooks={dragAndDropHooks}
      >
        {row}
      </Rows>
    </Frame>
  );
}
