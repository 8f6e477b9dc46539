import {
  Background,
  BackgroundVariant,
  Panel,
  ReactFlow,
  useReactFlow,
  useStore,
  type Node,
  type ReactFlowProps,
} from '@xyflow/react';
import '@xyflow/react/dist/base.css';
import { useMemo, useRef, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';
import { Button } from '../controls.tsx';
import { useKeysHere } from '../useKeysHere.ts';

const Zoom = styled.div`
  display: flex;
  gap: 4px;
  background: ${({ theme }) => theme.surface};
  border-radius: 3px;
  button {
    min-width: 28px;
    padding: 0 7px;
  }
`;
const Frame = styled.div`
  position: absolute;
  inset: 0;
  .react-flow__node svg {
    display: block;
    overflow: visible;
  }
  .panned .react-flow__viewport {
    will-change: transform;
  }
`;

/** How large the drawing is, and the ways to change it. */
function ZoomPanel({ onFit }: { onFit: () => void }): ReactNode {
  const flow = useReactFlow();
  const zoom = useStore((state) => state.transform[2]);
  return (
    <Zoom role="group" aria-label="Zoom">
      <Button aria-label="Zoom out" onPress={() => void flow.zoomOut()}>
        −
      </Button>
      <Button aria-label="Fit all" onPress={onFit}>{`${Math.round(zoom * 100)} %`}</Button>
      <Button aria-label="Zoom in" onPress={() => void flow.zoomIn()}>
        +
      </Button>
    </Zoom>
  );
}

/** What every drawing does alike: our own keys alone, no handles, no attribution line. */
const alike = {
  edges: [],
  minZoom: 0.04,
  maxZoom: 3,
  zoomOnDoubleClick: false,
  nodesConnectable: false,
  deleteKeyCode: null,
  proOptions: { hideAttribution: true },
} satisfies Partial<ReactFlowProps>;

interface Props<N extends Node> extends Omit<ReactFlowProps<N>, keyof typeof alike> {
  /** Brings all into view: by its button and by the key 0. */
  onFit: () => void;
  /** Brings what is chosen into view: by the key F. */
  onFitChosen: () => void;
  /** Panned or zoomed by hand, not by the application. */
  onByHand?: () => void;
  /** Without the dots behind the drawing. */
  plain?: boolean;
}

/**
 * The surface that every drawing lies on: pan, zoom, fit, the keys 0 and F, dots, and the zoom line at the lower left.
 * What lies on it are nodes of React Flow; anything else is given as children.
 */
export function Surface<N extends Node>({
  onFit,
  onFitChosen,
  onByHand,
  plain = false,
  children,
  ...own
}: Props<N>): ReactNode {
  const { tokens } = useTheme();
  const frame = useRef<HTMLDivElement>(null);
  useKeysHere(useMemo(() => ({ '0': onFit, f: onFitChosen }), [onFit, onFitChosen]));
  return (
    <Frame ref={frame}>
      <ReactFlow<N>
        {...alike}
        {...own}
        edges={[]}
        onMoveStart={(event, viewport) => {
          if (event !== null) onByHand?.();
          // A layer of its own while it is dragged: not while it zooms, which would blur it.
          if (event?.type.startsWith('mouse') === true) frame.current?.classList.add('panned');
          own.onMoveStart?.(event, viewport);
        }}
        onMoveEnd={(event, viewport) => {
          frame.current?.classList.remove('panned');
          own.onMoveEnd?.(event, viewport);
        }}
      >
        {!plain && <Background variant={BackgroundVariant.Dots} gap={24} size={1} color={tokens.rule} />}
        {children}
        <Panel position="bottom-left">
          <ZoomPanel onFit={onFit} />
        </Panel>
      </ReactFlow>
    </Frame>
  );
}
