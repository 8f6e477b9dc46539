import type { Sheet } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhoCan } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';

const Note = styled.section`
  position: absolute;
  left: 50%;
  top: 38%;
  transform: translate(-50%, -50%);
  z-index: 4;
  max-width: 420px;
  text-align: center;
  pointer-events: none;
  color: ${({ theme }) => theme.inkSoft};
  h2 {
    font-size: 16px;
    color: ${({ theme }) => theme.ink};
    margin-bottom: 6px;
  }
  div {
    display: flex;
    gap: 8px;
    justify-content: center;
    margin-top: 12px;
    pointer-events: all;
  }
`;

interface Props {
  sheet: Sheet;
  canEdit: boolean;
  /** One of the ways to begin is open already. */
  open: boolean;
  onModels: () => void;
  onTyped: () => void;
}

/** What a sheet says on which nothing is drawn yet: how to begin. */
export function Blank({ sheet, canEdit, open, onModels, onTyped }: Props): ReactNode {
  const whoCan = useWhoCan();
  const cables = sheet.projection === 'cabling';
  const draws = cables || sheet.projection === 'routing';
  return (
    <Note aria-label="A blank sheet">
      <h2>{draws || !canEdit ? 'A blank sheet' : 'Nothing to draw here yet'}</h2>
      <p>
        {!canEdit
          ? whoCan('draw on it')
          : draws
            ? 'Drop devices on it and pull lines between them. Rooms, racks and addresses can come later.'
            : `What a sheet of ${sheet.projection} reads is not there yet: draw devices on its cabling sheet first.`}
      </p>
      {canEdit && draws && !open && (
        <div>
          <Button $tone="primary" onPress={onModels}>
            Drop devices
          </Button>
          {cables && <Button onPress={onTyped}>Type a topology</Button>}
        </div>
      )}
    </Note>
  );
}
