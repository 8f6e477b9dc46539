import { useRef, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useWorkspace } from '../../data/workspace.tsx';
import { Surface } from '../../kit/surface/Surface.tsx';
import { useFit } from '../../kit/surface/useFit.ts';
import { useBench } from './bench.tsx';
import type { RackSpot } from './benchLayout.ts';
import { Ghosts } from './Ghosts.tsx';
import { CarryNote, HoverNote } from './PointerNote.tsx';
import { RackNode, type RackNodeType } from './RackNode.tsx';
import type { useCarry } from './acts/useCarry.ts';
import { useHover } from './acts/useHover.ts';
import { usePlateActions } from './acts/usePlateActions.ts';
import { useRackNodes } from './acts/useRackNodes.ts';
import { useRackView } from './acts/useRackView.ts';

const Canvas = styled.div`
  position: absolute;
  inset: 0;
  touch-action: none;
  .react-flow__node {
    cursor: default;
    pointer-events: all !important;
  }
  .react-flow__pane {
    cursor: grab;
  }
  .plate,
  .free,
  .rack-name {
    outline: none;
    cursor: default;
  }
  .rack-name:hover,
  .rack-name:focus-visible {
    text-decoration: underline;
  }
  .plate:focus-visible > g > rect:first-child {
    stroke: ${({ theme }) => theme.accent};
    stroke-width: 3;
  }
  .free:hover > rect,
  .free:focus-visible > rect {
    fill: ${({ theme }) => theme.accentWash};
    stroke: ${({ theme }) => theme.accent};
    stroke-width: 1;
  }
`;
const nodeTypes = { rack: RackNode };

interface Props {
  spots: readonly RackSpot[];
  carrying: ReturnType<typeof useCarry>;
}

/** The racks on an endless surface: pan, zoom, choose, carry, and read what is plugged in where. */
export function RackSurface({ spots, carrying }: Props): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const { ghost, dock } = useWorkspace();
  const { chosen, setChosen, plan } = useBench();
  const frame = useRef<HTMLDivElement>(null);
  const { part } = useFit();
  const { hover, setHover, onPointerMove } = useHover(spots, carrying.carry !== null);
  const actions = usePlateActions(spots, carrying, setHover);
  const nodes = useRackNodes(spots, actions, hover !== null && 'portId' in hover ? hover.portId : null);
  const { fit, onByHand } = useRackView(spots, frame);
  /** The plates that are chosen, where they are drawn. */
  const fitChosen = (): void => {
    const boxes = spots.flatMap((spot) =>
      spot.faces.flatMap(({ face, x, y }) =>
        (spot.scene.faces.find((one) => one.face === face)?.plates ?? [])
          .filter((plate) => chosen.has(plate.deviceId))
          .map(({ box }) => ({ ...box, x: box.x + x, y: box.y + y })),
      ),
    );
    if (boxes.length === 0) return fit();
    onByHand();
    void part(boxes);
  };
  return (
    <Canvas ref={frame} data-bench onPointerMove={onPointerMove} onPointerLeave={() => setHover(null)}>
      <Surface<RackNodeType>
        nodes={nodes}
        nodeTypes={nodeTypes}
        onFit={fit}
        onFitChosen={fitChosen}
        onByHand={onByHand}
        nodesDraggable={false}
        elementsSelectable={false}
        onlyRenderVisibleElements
        selectionKeyCode={null}
        multiSelectionKeyCode={null}
        disableKeyboardA11y
        onPaneClick={() => setChosen(new Set())}
      >
        <Ghosts
          network={network}
          spots={spots}
          carry={carrying.carry}
          plan={plan}
          ghost={dock?.form === 'addDevice' ? ghost : null}
        />
      </Surface>
      {hover !== null && carrying.carry === null && <HoverNote network={network} hover={hover} />}
      {carrying.carry !== null && <CarryNote network={network} carry={carrying.carry} />}
    </Canvas>
  );
}
