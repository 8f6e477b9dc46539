import type { Device } from '@visograph/core/model';
import { plateFacts } from '@visograph/core/racks';
import { colourings, isColourBy, ownFieldNames } from '@visograph/core/sheets';
import type { ReactNode } from 'react';
import { Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import { Choice } from '../../kit/choice.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { useBench } from './bench.tsx';

const Panel = styled(Dialog)`
  width: 250px;
  padding: 12px;
  outline: none;
  display: grid;
  gap: 9px;
`;

const colourLabels: Record<(typeof colourings)[number], string> = {
  role: 'Role',
  status: 'Status',
  model: 'Model',
  place: 'Place',
  feedState: 'Power state',
  power: 'Power drawn',
  age: 'Age',
  support: 'End of support',
  warranty: 'End of warranty',
  contract: 'End of contract',
};
const facesLabels = { both: 'Front and rear', front: 'Front alone', rear: 'Rear alone' };
const factLabels = { model: 'Model', serial: 'Serial', power: 'Power', notes: 'Notes' };

/** What the drawings of the racks show: faces, colours, what stands beside a name, cables. */
export function ShowRacks({ devices }: { devices: readonly Device[] }): ReactNode {
  const bench = useBench();
  const own = ownFieldNames(devices);
  return (
    <Panel aria-label="What the racks show">
      <Choice
        label="Faces"
        value={bench.faces}
        options={Object.entries(facesLabels).map(([id, text]) => ({ id, text }))}
        onChange={(next) => bench.setFaces(next === 'front' || next === 'rear' ? next : 'both')}
      />
      <Choice
        label="Colour by"
        value={bench.colour}
        options={[
          ...colourings.map((id) => ({ id: id, text: colourLabels[id] })),
          ...own.map((name) => ({ id: `own:${name}`, text: name })),
        ]}
        onChange={(next) => next !== null && isColourBy(next) && bench.setColour(next)}
      />
      <Choice
        label="Beside the name"
        value={bench.fact ?? 'none'}
        options={[
          { id: 'none', text: 'Nothing' },
          ...plateFacts.map((id) => ({ id: id, text: factLabels[id] })),
        ]}
        onChange={(next) => bench.setFact(plateFacts.find((one) => one === next) ?? null)}
      />
      <Tick isSelected={bench.cables} onChange={bench.setCables}>
        Cables between the racks
      </Tick>
    </Panel>
  );
}
