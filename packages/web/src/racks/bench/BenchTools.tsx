import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';
import { useBench } from './bench.tsx';

const Line = styled.div`
  flex: none;
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
  padding: 4px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.ground};
  > span {
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
  button {
    height: 24px;
    padding: 0 8px;
    font-size: 12.5px;
  }
  button[aria-pressed='true'] {
    border-color: ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.accentWash};
  }
`;

interface Props {
  wide: boolean;
  roomful: number;
  onWide: (wide: boolean) => void;
}

/** The line above the racks: how many are drawn, and what can be asked about them. */
export function BenchTools({ wide, roomful, onWide }: Props): ReactNode {
  const { canEdit } = useProject();
  const bench = useBench();
  const toggle = (panel: NonNullable<typeof bench.panel>): void => {
    bench.setPlan(null);
    bench.setDeadFeed(null);
    bench.setPanel(bench.panel === panel ? null : panel);
  };
  return (
    <Line>
      {canEdit && (
        <Button aria-pressed={bench.gearOpen} onPress={() => bench.setGearOpen(!bench.gearOpen)}>
          Gear
        </Button>
      )}
      {roomful > 1 && (
        <Button aria-pressed={wide} onPress={() => onWide(!wide)}>{`All ${roomful} racks`}</Button>
      )}
      <Button aria-pressed={bench.panel === 'where'} onPress={() => toggle('where')}>
        Where it fits
      </Button>
      <Button aria-pressed={bench.panel === 'feeds'} onPress={() => toggle('feeds')}>
        If a feed fails
      </Button>
      {canEdit && (
        <Button aria-pressed={bench.panel === 'fit'} onPress={() => toggle('fit')}>
          Fit for me
        </Button>
      )}
    </Line>
  );
}
