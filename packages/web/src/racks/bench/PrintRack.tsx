import type { Rack } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import { addressOf } from '../../data/api.ts';
import { useProject } from '../../data/project.tsx';
import { useMeantQuery } from '../../data/shown.ts';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { useBench } from './bench.tsx';

const Panel = styled(Dialog)`
  width: 250px;
  padding: 12px;
  outline: none;
  display: grid;
  gap: 9px;
`;

/** The drawing of a rack as a file, with the colours and labels that are shown. */
export function PrintRack({ rack }: { rack: Rack }): ReactNode {
  const { project } = useProject();
  const bench = useBench();
  const meant = useMeantQuery();
  const svg = addressOf('GET /projects/:project/racks/:rack/svg', {
    params: { project: project.id, rack: rack.id },
    query: {
      ...meant,
      colour: bench.colour,
      fact: bench.fact ?? undefined,
      cables: bench.cables ? '1' : undefined,
    },
  });
  return (
    <Panel aria-label="Print the rack">
      <Hint>{`Front and rear of ${rack.name}, with the colours and labels that are shown.`}</Hint>
      <Button onPress={() => window.location.assign(svg)}>Save SVG</Button>
    </Panel>
  );
}
