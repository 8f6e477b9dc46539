import { type Sheet } from '@visograph/core/model';
import { placeOnSheet, type DrawingPlan, type Scene } from '@visograph/core/sheets';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';
import type { SheetActs } from '../useSheetActs.ts';
import { RoleMark } from '../../kit/panel/panels.tsx';

const Frame = styled.section`
  position: absolute;
  right: 10px;
  top: 8px;
  z-index: 5;
  width: 196px;
  max-height: 46%;
  overflow: auto;
  padding: 7px 9px 9px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  font-size: 12px;
  h2 {
    font-size: 12px;
    margin: 2px 0 4px;
  }
  li {
    display: flex;
    gap: 6px;
    align-items: center;
    min-height: 24px;
    > span:nth-child(2) {
      flex: 1;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    button {
      height: 20px;
      padding: 0 6px;
      font-size: 12px;
    }
  }
`;

/** Devices of the scope that are not on the sheet: new ones that wait to be placed, and those left out by hand. */
export function Tray({
  sheet,
  plan,
  scene,
  acts,
}: {
  sheet: Sheet;
  plan: DrawingPlan;
  scene: Scene;
  acts: Pick<SheetActs, 'bringBack'>;
}): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  if (plan.waiting.length + plan.away.length === 0) return null;
  const place = (ids: readonly string[]): void => {
    const left = scene.box.x + 24;
    const below = scene.box.y + scene.box.height + 32;
    const spots = new Map(
      ids.map((id, at) => [id, { x: left + (at % 6) * 176, y: below + Math.floor(at / 6) * 80 }]),
    );
    commit(placeOnSheet(network, sheet, spots));
  };
  return (
    <Frame aria-label="Not on the sheet">
      {plan.waiting.length > 0 && (
        <>
          <h2>{`Not on the sheet yet · ${plan.waiting.length}`}</h2>
          {canEdit && plan.waiting.length > 1 && (
            <Button onPress={() => place(plan.waiting.map((one) => one.id))}>Place all</Button>
          )}
          <ul>
            {plan.waiting.slice(0, 60).map(({ id, name, role }) => (
              <li key={id}>
                <RoleMark role={role} />
                <span>{name}</span>
                {canEdit && <Button onPress={() => place([id])}>Place</Button>}
              </li>
            ))}
          </ul>
        </>
      )}
      {plan.away.length > 0 && (
        <>
          <h2>{`Left out · ${plan.away.length}`}</h2>
          <ul>
            {plan.away.slice(0, 60).map(({ id, name, role }) => (
              <li key={id}>
                <RoleMark role={role} />
                <span>{name}</span>
                {canEdit && <Button onPress={() => acts.bringBack([id])}>Put back</Button>}
              </li>
            ))}
          </ul>
        </>
      )}
    </Frame>
  );
}
