import { dragScene, type Container, type Plate, type Point, type Scene } from '@visograph/core';
import { ContainerShape, LinkShape, PlateShape, roundedPath, type Detail } from '@visograph/drawing';
import {
  applyNodeChanges,
  Background,
  BackgroundVariant,
  Panel,
  ReactFlow,
  useReactFlow,
  useStore,
  ViewportPortal,
  type Node,
  type NodeChange,
  type NodeProps,
} from '@xyflow/react';
import '@xyflow/react/dist/base.css';
import { memo, useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhereabouts } from '../data/location.ts';
import { Button } from '../kit/controls.tsx';
import { useTraced } from '../trace/useTraced.ts';
import { useTheme } from '../theme/theme.tsx';

type PlateNode = Node<{ plate: Plate; chosen: boolean }, 'plate'>;

/** Below these zooms text cannot be read: first lines and labels go, then names. */
const namesOnlyBelow = 0.55;
const tabsOnlyBelow = 0.16;
const detailAt = (zoom: number): Detail =>
  zoom < tabsOnlyBelow ? 'tab' : zoom < namesOnlyBelow ? 'name' : 'full';
type ContainerNode = Node<{ container: Container }, 'container'>;
type SheetNode = PlateNode | ContainerNode;

const Canvas = styled.div`
  position: absolute;
  inset: 0;
  .react-flow__node {
    cursor: default;
    outline: none;
  }
  .react-flow__node:focus-visible {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: 3px;
    border-radius: 3px;
  }
  .react-flow__node-container {
    pointer-events: none !important;
  }
  .container-title {
    position: absolute;
    inset: 0 0 auto 0;
    height: 24px;
    pointer-events: all;
    cursor: move;
  }
  .react-flow__node svg {
    display: block;
    overflow: visible;
  }
  .react-flow__selection,
  .react-flow__nodesselection-rect {
    background: transparent;
    border: 1px dashed ${({ theme }) => theme.accent};
  }
  .react-flow__pane {
    cursor: default;
  }
`;
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
const LinkLayer = styled.svg`
  position: absolute;
  top: 0;
  left: 0;
  overflow: visible;
  pointer-events: none;
  z-index: 1;
  .hit {
    pointer-events: stroke;
    cursor: default;
  }
`;

const PlateView = memo(function PlateView({ data }: NodeProps<PlateNode>): ReactNode {
  const { tokens } = useTheme();
  const detail = useStore((state) => detailAt(state.transform[2]));
  return (
    <svg width={data.plate.box.width} height={data.plate.box.height} aria-hidden="true">
      <PlateShape plate={data.plate} tokens={tokens} selected={data.chosen} detail={detail} />
    </svg>
  );
});

const ContainerView = memo(function ContainerView({ data }: NodeProps<ContainerNode>): ReactNode {
  const { tokens } = useTheme();
  return (
    <>
      <svg width={data.container.box.width} height={data.container.box.height} aria-hidden="true">
        <ContainerShape container={data.container} tokens={tokens} />
      </svg>
      <div className="container-title" />
    </>
  );
});

const nodeTypes = { plate: PlateView, container: ContainerView };

interface Props {
  scene: Scene;
  canEdit: boolean;
  /** Plates were put somewhere by hand, by plate id. */
  onMoved: (positions: ReadonlyMap<string, Point>) => void;
}

function nodesOf(scene: Scene, canEdit: boolean, chosen: ReadonlySet<string>): SheetNode[] {
  const size = (box: { width: number; height: number }) => ({
    width: box.width,
    height: box.height,
    measured: { width: box.width, height: box.height },
  });
  return [
    ...scene.containers.map((container): ContainerNode => ({
      id: `place:${container.id}`,
      type: 'container',
      position: { x: container.box.x, y: container.box.y },
      data: { container },
      ...size(container.box),
      zIndex: -1,
      selectable: false,
      focusable: false,
      draggable: canEdit,
      dragHandle: '.container-title',
      ariaLabel: container.title,
      ariaRole: 'group',
    })),
    ...scene.plates.map((plate): PlateNode => ({
      id: plate.id,
      type: 'plate',
      position: { x: plate.box.x, y: plate.box.y },
      data: { plate, chosen: chosen.has(plate.id) },
      ...size(plate.box),
      zIndex: 2,
      draggable: canEdit,
      ariaLabel: plate.spoken,
      ariaRole: 'button',
    })),
  ];
}

/** The drawing surface: pan with the wheel or by dragging, zoom, choose, drag plates and whole places. */
export function SheetCanvas({ scene, canEdit, onMoved }: Props): ReactNode {
  const { tokens } = useTheme();
  const { selection, select } = useWhereabouts();
  const traced = useTraced();
  const flow = useReactFlow();
  const zoom = useStore((state) => state.transform[2]);
  const [moved, setMoved] = useState<ReadonlyMap<string, Point>>(new Map());
  const live = useMemo(() => (moved.size === 0 ? scene : dragScene(scene, moved)), [scene, moved]);
  const chosen = useMemo(() => {
    const { kind, id } = selection ?? { kind: null, id: '' };
    return new Set(
      scene.plates
        .filter(
          (plate) =>
            (kind === 'device' && plate.deviceIds.includes(id)) ||
            plate.deviceIds.some((deviceId) => traced.has(deviceId)),
        )
        .map((plate) => plate.id),
    );
  }, [scene, selection, traced]);
  const [nodes, setNodes] = useState<SheetNode[]>(() => nodesOf(scene, canEdit, chosen));
  const dragging = useRef(false);
  useEffect(() => {
    if (!dragging.current) {
      setMoved(new Map());
      setNodes((before) => {
        const selected = new Set(before.filter((node) => node.selected).map((node) => node.id));
        return nodesOf(scene, canEdit, chosen).map((node) => ({ ...node, selected: selected.has(node.id) }));
      });
    }
  }, [scene, canEdit, chosen]);

  const fitAll = useCallback(() => void flow.fitView({ padding: 0.04, maxZoom: 1.1 }), [flow]);
  const fitChosen = useCallback(() => {
    const ids = [...chosen].map((id) => ({ id }));
    void flow.fitView({ nodes: ids.length === 0 ? undefined : ids, padding: 0.4, maxZoom: 1.4 });
  }, [flow, chosen]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const typing =
        event.target instanceof HTMLElement && ['INPUT', 'TEXTAREA'].includes(event.target.tagName);
      if (typing || event.ctrlKey || event.altKey || event.metaKey) return;
      if (event.key === '0') fitAll();
      if (event.key.toLowerCase() === 'f') fitChosen();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [fitAll, fitChosen]);

  const onNodesChange = useCallback(
    (changes: NodeChange<SheetNode>[]) => setNodes((before) => applyNodeChanges(changes, before)),
    [],
  );
  /** Where the dragged nodes are now; a dragged place takes its plates along. */
  const positionsOf = useCallback(
    (dragged: readonly SheetNode[]): Map<string, Point> => {
      const positions = new Map<string, Point>();
      for (const node of dragged) {
        if (node.type === 'plate') positions.set(node.id, node.position);
        else {
          const { box, plateIds } = node.data.container;
          for (const plate of scene.plates) {
            if (!plateIds.includes(plate.id)) continue;
            positions.set(plate.id, {
              x: plate.box.x + node.position.x - box.x,
              y: plate.box.y + node.position.y - box.y,
            });
          }
        }
      }
      return positions;
    },
    [scene],
  );
  const onDrag = useCallback(
    (_event: unknown, node: SheetNode, dragged: SheetNode[]) => {
      dragging.current = true;
      const positions = positionsOf(dragged.length > 0 ? dragged : [node]);
      setMoved(positions);
      if (node.type === 'container') {
        setNodes((before) =>
          before.map((one) =>
            positions.has(one.id) ? { ...one, position: positions.get(one.id) ?? one.position } : one,
          ),
        );
      }
    },
    [positionsOf],
  );
  const onDragStop = useCallback(
    (_event: unknown, node: SheetNode, dragged: SheetNode[]) => {
      dragging.current = false;
      const positions = positionsOf(dragged.length > 0 ? dragged : [node]);
      const really = [...positions].some(([id, at]) => {
        const box = scene.plates.find((plate) => plate.id === id)?.box;
        return (
          box !== undefined &&
          (Math.round(box.x) !== Math.round(at.x) || Math.round(box.y) !== Math.round(at.y))
        );
      });
      if (really) onMoved(positions);
      else setMoved(new Map());
    },
    [positionsOf, onMoved, scene],
  );
  /** Arrow keys move chosen plates by a step of the lattice. */
  const nudged = useRef<Map<string, Point>>(new Map());
  const onNudge = useCallback(
    (changes: NodeChange<SheetNode>[]) => {
      onNodesChange(changes);
      if (dragging.current) return;
      for (const change of changes) {
        if (change.type === 'position' && change.position !== undefined && change.dragging !== true)
          nudged.current.set(change.id, change.position);
      }
    },
    [onNodesChange],
  );
  const settle = useCallback(() => {
    if (nudged.current.size === 0) return;
    const positions = nudged.current;
    nudged.current = new Map();
    onMoved(positions);
  }, [onMoved]);
  const choosePlate = (plate: Plate): void => {
    const [only] = plate.deviceIds;
    if (only !== undefined) select({ kind: 'device', id: only });
  };
  const cableId = selection?.kind === 'cable' || selection?.kind === 'circuit' ? selection.id : null;
  return (
    <Canvas
      onKeyUp={(event) => event.key.startsWith('Arrow') && settle()}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        const id =
          event.target instanceof HTMLElement
            ? event.target.closest<HTMLElement>('.react-flow__node')?.dataset['id']
            : undefined;
        const plate = scene.plates.find((one) => one.id === id);
        if (plate !== undefined) choosePlate(plate);
      }}
    >
      <ReactFlow<SheetNode>
        nodes={nodes}
        edges={[]}
        nodeTypes={nodeTypes}
        onNodesChange={onNudge}
        onNodeDrag={onDrag}
        onNodeDragStop={onDragStop}
        onNodeClick={(_event, node) => node.type === 'plate' && choosePlate(node.data.plate)}
        onPaneClick={() => select(null)}
        fitView
        fitViewOptions={{ padding: 0.04, maxZoom: 1.1 }}
        minZoom={0.1}
        maxZoom={3}
        snapToGrid
        snapGrid={[8, 8]}
        panOnScroll
        zoomOnDoubleClick={false}
        nodesConnectable={false}
        deleteKeyCode={null}
        elevateNodesOnSelect={false}
        proOptions={{ hideAttribution: true }}
        aria-label="Sheet"
      >
        <Background variant={BackgroundVariant.Dots} gap={24} size={1} color={tokens.rule} />
        <ViewportPortal>
          <LinkLayer width={1} height={1} aria-hidden="true">
            {live.links.map((link) => {
              const selected =
                (cableId !== null && link.cableIds.includes(cableId)) ||
                link.cableIds.some((id) => traced.has(id)) ||
                (traced.size === 0 && (chosen.has(link.a.plateId) || chosen.has(link.b.plateId)));
              return (
                <g key={link.id} data-link={link.id}>
                  <LinkShape
                    link={link}
                    tokens={tokens}
                    selected={selected}
                    labels={selected || detailAt(zoom) === 'full'}
                  />
                  <path
                    className="hit"
                    d={roundedPath(link.points)}
                    fill="none"
                    stroke="transparent"
                    strokeWidth={10}
                    onClick={() => select({ kind: link.kind, id: link.cableIds[0] ?? '' })}
                  >
                    <title>{link.spoken}</title>
                  </path>
                </g>
              );
            })}
          </LinkLayer>
        </ViewportPortal>
        <Panel position="bottom-left">
          <Zoom>
            <Button aria-label="Zoom out" onPress={() => void flow.zoomOut()}>
              −
            </Button>
            <Button aria-label="Fit all" onPress={fitAll}>{`${Math.round(zoom * 100)} %`}</Button>
            <Button aria-label="Zoom in" onPress={() => void flow.zoomIn()}>
              +
            </Button>
          </Zoom>
        </Panel>
      </ReactFlow>
    </Canvas>
  );
}
