import type { Sheet } from '@visograph/core/model';
import {
  alike,
  inSheetOrder,
  leastAlike,
  type DrawingPlan,
  type Plate,
  type Scene,
} from '@visograph/core/sheets';
import { useMemo, useState, type ReactNode } from 'react';
import { Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Choice } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { planFor } from '../useScene.ts';
import type { Tidying } from '../useTidying.ts';

const Panel = styled(Dialog)`
  width: 340px;
  max-height: min(560px, 78vh);
  overflow: auto;
  padding: 10px 12px 12px;
  outline: none;
  display: flex;
  flex-direction: column;
  gap: 6px;
  h2 {
    font-size: 12px;
    margin-top: 4px;
    color: ${({ theme }) => theme.inkSoft};
  }
  ul {
    display: flex;
    flex-direction: column;
    gap: 4px;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
  }
  li > span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: flex-end;
`;
/** So many sheets are compared, in their own order. */
const mostCompared = 40;

interface Props {
  sheet: Sheet;
  plan: DrawingPlan;
  scene: Scene;
  plates: readonly Plate[];
  tidying: Tidying;
  /** Plates stand where somebody put them. */
  arranged: boolean;
  /** Plates stand where they stood before something changed. */
  held: boolean;
}

/** Lays out afresh what is wanted, or as on another sheet; each is looked at before it is taken over. */
export function TidyPanel({ sheet, plan, scene, plates, tidying, arranged, held }: Props): ReactNode {
  const { network } = useProject().view;
  const places = scene.containers.filter(({ plateIds }) => plateIds.length > 0);
  const [placeId, setPlaceId] = useState(places[0]?.id ?? null);
  const like = useMemo(
    () =>
      inSheetOrder(network.all('sheet'))
        .filter(({ id, projection }) => id !== sheet.id && projection === sheet.projection)
        .slice(0, mostCompared)
        .map((other) => ({ other, share: alike(planFor(network, other).graph, plan.graph) }))
        .filter(({ share }) => share >= leastAlike)
        .sort((a, b) => b.share - a.share),
    [network, sheet, plan],
  );
  return (
    <Panel aria-label="Tidy">
      {({ close }) => {
        const doAndClose = (act: () => void) => (): void => {
          act();
          close();
        };
        const place = places.find(({ id }) => id === placeId);
        return (
          <>
            <h2>Lay out afresh</h2>
            <Line>
              <Button isDisabled={!arranged && !held} onPress={doAndClose(tidying.all)}>
                The whole sheet
              </Button>
              {plates.length > 0 && (
                <Button onPress={doAndClose(() => tidying.some(plates))}>
                  {plates.length === 1 ? (plates[0]?.name ?? '') : `The ${plates.length} chosen plates`}
                </Button>
              )}
            </Line>
            {places.length > 0 && (
              <Line>
                <Choice
                  label="One place"
                  width={200}
                  value={placeId ?? ''}
                  options={places.map(({ id, title }) => ({ id, text: title }))}
                  onChange={setPlaceId}
                />
                <Button
                  isDisabled={place === undefined}
                  onPress={doAndClose(() =>
                    tidying.some(
                      scene.plates.filter(({ id }) => place?.plateIds.includes(id) === true),
                      place?.title,
                    ),
                  )}
                >
                  This place
                </Button>
              </Line>
            )}
            {!arranged && !held && (
              <Hint>Nothing was moved by hand on this sheet: it is laid out as well as it can be.</Hint>
            )}
            {held && (
              <>
                <Hint>
                  The plates stand where they stood before something changed. Printed, and when it is opened
                  again, the sheet is laid out afresh unless this is kept.
                </Hint>
                <Line>
                  <Button onPress={doAndClose(tidying.keep)}>Keep it as it stands</Button>
                </Line>
              </>
            )}
            <h2>Arrange like another sheet</h2>
            {like.length === 0 ? (
              <Hint>{`No other sheet of ${sheet.projection} has counterparts for half of these plates.`}</Hint>
            ) : (
              <ul>
                {like.map(({ other, share }) => (
                  <li key={other.id}>
                    <span title={other.name}>
                      {`${other.name} · ${Math.round(share * plan.graph.nodes.length)} of ${plan.graph.nodes.length} alike`}
                    </span>
                    <Button aria-label={`Like ${other.name}`} onPress={doAndClose(() => tidying.like(other))}>
                      Like this
                    </Button>
                  </li>
                ))}
              </ul>
            )}
          </>
        );
      }}
    </Panel>
  );
}
