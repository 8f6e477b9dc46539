import { type Device } from '@visograph/core/model';
import { plateFacts } from '@visograph/core/racks';
import { colourings, isColourBy, ownFieldNames, type ColourBy } from '@visograph/core/sheets';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button, Choice } from '../../kit/controls.tsx';
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

const colourLabels: Record<(typeof colourings)[number], string> = {
  role: 'By role',
  status: 'By status',
  model: 'By model',
  place: 'By place',
  feedState: 'By power state',
  power: 'By power drawn',
  age: 'By age',
  support: 'By end of support',
};
const facesLabels = { both: 'Both faces', front: 'Front', rear: 'Rear' };
const factLabels = { model: 'model', serial: 'serial', power: 'power', notes: 'notes' };

interface Props {
  devices: readonly Device[];
  wide: boolean;
  roomful: number;
  onWide: (wide: boolean) => void;
}

/** The line above the racks: what is shown, and what can be asked about them. */
export function BenchTools({ devices, wide, roomful, onWide }: Props): ReactNode {
  const { canEdit } = useProject();
  const bench = useBench();
  const own = ownFieldNames(devices);
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
      <Choice
        label="Faces"
        hideLabel
        width={112}
        value={bench.faces}
        options={Object.entries(facesLabels).map(([id, text]) => ({ id, text }))}
        onChange={(next) => bench.setFaces(next === 'front' || next === 'rear' ? next : 'both')}
      />
      <Choice
        label="Colour"
        hideLabel
        width={134}
        value={bench.colour}
        options={[
          ...colourings.map((id) => ({ id: id, text: colourLabels[id] })),
          ...own.map((name) => ({ id: `own:${name}`, text: `By ${name}` })),
        ]}
        onChange={(next) => next !== null && isColourBy(next) && bench.setColour(next satisfies ColourBy)}
      />
      <Choice
        label="Beside the name"
        hideLabel
        width={98}
        value={bench.fact ?? 'none'}
        options={[
          { id: 'none', text: 'Name only' },
          ...plateFacts.map((id) => ({ id: id, text: `With ${factLabels[id]}` })),
        ]}
        onChange={(next) => bench.setFact(plateFacts.find((one) => one === next) ?? null)}
      />
      <Button aria-pressed={bench.cables} onPress={() => bench.setCables(!bench.cables)}>
        Cables
      </Button>
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
