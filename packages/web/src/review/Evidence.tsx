import { evidenceOf, type Finding } from '@visograph/core/check';
import type { Network, Rack } from '@visograph/core/model';
import { elevationScene } from '@visograph/core/racks';
import type { Scene } from '@visograph/core/sheets';
import { diagramBox, Diagram, Elevation, elevationSize } from '@visograph/drawing';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { askSmall } from '../sheets/list/smallScenes.ts';
import { useTheme } from '../theme/theme.tsx';

const Frame = styled.figure`
  flex: none;
  margin: 0;
  width: 100%;
  max-width: 560px;
  min-height: 60px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  overflow: hidden;
  svg {
    display: block;
    width: 100%;
    max-height: 230px;
  }
`;
/** Around the drawing, in its own units. */
const margin = 14;
/** A drawing of few plates is not blown up. */
const leastWidth = 460;

/** The devices that a finding concerns, with what joins them, in the projection that shows it. */
function Devices({ network, finding }: { network: Network; finding: Finding }): ReactNode {
  const { tokens } = useTheme();
  const drawing = useMemo(() => evidenceOf(network, finding), [network, finding]);
  const [scene, setScene] = useState<Scene | null>(null);
  useEffect(
    () => (drawing === null ? undefined : askSmall(drawing.network, drawing.sheet, setScene)),
    [drawing],
  );
  if (drawing === null) return null;
  if (scene === null) return <Frame />;
  const box = diagramBox(scene);
  const width = Math.max(leastWidth, box.width + 2 * margin);
  const view = [box.x - (width - box.width) / 2, box.y - margin, width, box.height + 2 * margin];
  return (
    <Frame>
      <svg
        viewBox={view.join(' ')}
        role="img"
        aria-label={`${drawing.devices} ${drawing.devices === 1 ? 'device' : 'devices'}, drawn`}
      >
        <Diagram scene={scene} tokens={tokens} />
      </svg>
    </Frame>
  );
}

function RackDrawn({ network, rack }: { network: Network; rack: Rack }): ReactNode {
  const { tokens } = useTheme();
  const scene = useMemo(() => elevationScene(network, rack), [network, rack]);
  const { width, height } = elevationSize(scene);
  return (
    <Frame>
      <svg
        viewBox={[-margin, -margin, width + 2 * margin, height + 2 * margin].join(' ')}
        style={{ maxHeight: 380 }}
        role="img"
        aria-label={`Elevation of ${rack.name}`}
      >
        <Elevation scene={scene} tokens={tokens} />
      </svg>
    </Frame>
  );
}

/** What a finding concerns, drawn: a rack as its elevation, devices as on a sheet of their own. */
export function Evidence({ network, finding }: { network: Network; finding: Finding }): ReactNode {
  const [first] = finding.subjects;
  const rack = first?.kind === 'rack' ? network.get('rack', first.id) : null;
  return rack === null ? (
    <Devices network={network} finding={finding} />
  ) : (
    <RackDrawn network={network} rack={rack} />
  );
}
