import { type Sheet } from '@visograph/core/model';
import {
  dragScene,
  overlap,
  snapToOthers,
  type Box,
  type Guide,
  type Plate,
  type Point,
  type Scene,
} from '@visograph/core/sheets';
import {
  applyNodeChanges,
  Background,
  BackgroundVariant,
  Panel,
  ReactFlow,
  useReactFlow,
  useStore,
  useStoreApi,
  ViewportPortal,
  type NodeChange,
} from '@xyflow/react';
import '@xyflow/react/dist/base.css';
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { isTyping } from '../../kit/isTyping.ts';
import { Button } from '../../kit/controls.tsx';
import { useTheme } from '../../theme/theme.tsx';
import { farAbove, farBelow, FarLayer } from './FarLayer.tsx';
import { LinkLayer, type LinkActs } from './LinkLayer.tsx';
import { MiniMap } from './MiniMap.tsx';
import { Peers, usePeers } from './Peers.tsx';
import { movedBy, type Moved } from './moved.ts';
import { useGradually } from './useGradually.ts';
import { useRegion } from './useRegion.ts';
import {
  Acts,
  markIdOf,
  markNodeId,
  nodesOf,
  nodeTypes,
  type NodeActs,
  type SheetNode,
} from './sheetNodes.tsx';

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
  .react-flow__node-container,
  .react-flow__node.enclosure {
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
  .react-flow__node-mark svg.chosen {
    outline: 1px dashed ${({ theme }) => theme.accent};
    outline-offset: 4px;
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
const Lines = styled.svg`
  position: absolute;
  top: 0;
  left: 0;
  overflow: visible;
  pointer-events: none;
  z-index: 7;
`;

/** Plates and links that a very large sheet mounts at one frame; a sheet of fewer plates mounts all in view at once. */
const mountedEach = 40;
const mountedAtOnce = 600;
/** Milliseconds after the last arrow key until a move by keys is kept. */
const nudgePause = 350;

interface Props {
  sheetId: string;
  scene: Scene;
  /** What "fit all" brings into view: the drawing, and the paper where its edges are shown. */
  fitTo: Box;
  /** Own groups of the sheet: one moves, all move. */
  groups: Sheet['groups'];
  canEdit: boolean;
  /** Plates lit because they are selected elsewhere, or on the run that is traced. */
  lit: ReadonlySet<string>;
  litLink: (link: Scene['links'][number]) => boolean;
  heldLink: Scene['links'][number] | null;
  linkActs: LinkActs;
  onChosen: (ids: readonly string[]) => void;
  onMoved: (moved: Moved) => void;
  onOpenPlate: (plate: Plate) => void;
  onPickPlate: (plate: Plate) => void;
  onPickMark: (id: string) => void;
  onOpenMark: (id: string) => void;
  onPickNothing: () => void;
  onOpenContainer: (id: string) => void;
  onLink: (from: string, to: string) => void;
  onRename: (plate: Plate, name: string) => void;
  onResize: (markId: string, box: Box) => void;
  onCorners: (markId: string, points: Point[]) => void;
  onDropModel: (modelId: string, at: Point) => void;
  /** Ids that are to be chosen, after things were added. */
  wanted: readonly string[] | null;
  children?: ReactNode;
}

function ZoomPanel({ onFit }: { onFit: () => void }): ReactNode {
  const flow = useReactFlow();
  const zoom = useStore((state) => state.transform[2]);
  return (
    <Zoom>
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

function GuideLines({ guides }: { guides: readonly Guide[] }): ReactNode {
  const { tokens } = useTheme();
  if (guides.length === 0) return null;
  return (
    <ViewportPortal>
      <Lines width={1} height={1} aria-hidden="true">
        {guides.map(({ axis, at, from, to }) => (
          <path
            key={axis}
            d={axis === 'x' ? `M${at} ${from - 12}V${to + 12}` : `M${from - 12} ${at}H${to + 12}`}
            stroke={tokens.accent}
            strokeWidth={1}
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </Lines>
    </ViewportPortal>
  );
}

/** The drawing surface: pan with the wheel or by dragging, zoom, choose, drag plates, places and marks. */
export function SheetCanvas(props: Props): ReactNode {
  const { sheetId, scene, fitTo, groups, canEdit, lit, onChosen, onMoved, wanted } = props;
  const { tokens } = useTheme();
  const { sync } = useProject();
  const flow = useReactFlow<SheetNode>();
  const [moved, setMoved] = useState<ReadonlyMap<string, Point>>(new Map());
  const [guides, setGuides] = useState<readonly Guide[]>([]);
  const [renaming, setRenaming] = useState<string | null>(null);
  const [pulled, setPulled] = useState<{ from: string; to: Point } | null>(null);
  const live = useMemo(() => (moved.size === 0 ? scene : dragScene(scene, moved)), [scene, moved]);
  const large = scene.plates.length > farAbove;
  const far = useStore((state) => large && state.transform[2] < farBelow);
  /** Nothing is mounted before it is known what is in view, and how large. */
  const [fitted, setFitted] = useState(false);
  const huge = scene.plates.length > mountedAtOnce;
  const { box: region, stale } = useRegion(large && !far, huge);
  const [nodes, setNodes] = useState<SheetNode[]>(() => nodesOf(scene, canEdit, lit));
  const dragging = useRef(false);
  useEffect(() => {
    if (dragging.current) return;
    setMoved(new Map());
    setNodes((before) => {
      const selected = new Set(before.filter((node) => node.selected).map((node) => node.id));
      return nodesOf(scene, canEdit, lit).map((node) =>
        selected.has(node.id) ? { ...node, selected: true } : node,
      );
    });
  }, [scene, canEdit, lit]);
  /** What was added is chosen once, when it is there. */
  const given = useRef<readonly string[] | null>(null);
  useEffect(() => {
    if (wanted === null || given.current === wanted) return;
    const ids = new Set(wanted);
    const there = [
      ...scene.plates.map((plate) => plate.id),
      ...scene.marks.map((mark) => markNodeId(mark.id)),
    ];
    if (!there.some((id) => ids.has(id))) return;
    given.current = wanted;
    setNodes((before) => before.map((node) => ({ ...node, selected: ids.has(node.id) })));
  }, [wanted, scene]);
  const nearNodes = useMemo(() => {
    if (far || !fitted || (huge && region === null)) return [];
    if (region === null) return nodes;
    return nodes.filter(
      (node) =>
        node.selected === true ||
        overlap({ ...node.position, width: node.width ?? 0, height: node.height ?? 0 }, region),
    );
  }, [nodes, far, fitted, region, huge]);
  const shownNodes = useGradually(nearNodes, huge ? mountedEach : null);
  const chosenIds = useMemo(() => nodes.filter((node) => node.selected).map((node) => node.id), [nodes]);
  const chosenKey = chosenIds.join('\n');
  useEffect(() => onChosen(chosenKey === '' ? [] : chosenKey.split('\n')), [chosenKey, onChosen]);

  const peers = usePeers(sheetId);
  const at = useRef<Point | null>(null);
  const tell = useCallback(() => {
    const selection = (chosenKey === '' ? [] : chosenKey.split('\n')).map((id) => markIdOf(id) ?? id);
    sync.presence.tell({ sheetId, at: at.current, selection });
  }, [chosenKey, sheetId, sync]);
  useEffect(tell, [tell]);
  useEffect(() => () => sync.presence.tell({ sheetId: null, at: null, selection: [] }), [sync]);

  const fitAll = useCallback(() => {
    const { x, y, width, height } = fitTo;
    return flow.fitBounds({ x, y, width, height }, { padding: 0.02 }).then(async () => {
      if (flow.getZoom() <= 1.1) return;
      await flow.zoomTo(1.1);
      await flow.setCenter(x + width / 2, y + height / 2, { zoom: 1.1 });
    });
  }, [flow, fitTo]);
  const fitChosen = useCallback(() => {
    const ids = new Set([...lit, ...chosenIds.map((id) => markIdOf(id) ?? id)]);
    const boxes = [...scene.plates, ...scene.marks].filter((one) => ids.has(one.id)).map((one) => one.box);
    if (boxes.length === 0) return void fitAll();
    const [left, top] = [Math.min(...boxes.map((box) => box.x)), Math.min(...boxes.map((box) => box.y))];
    const right = Math.max(...boxes.map((box) => box.x + box.width));
    const bottom = Math.max(...boxes.map((box) => box.y + box.height));
    void flow
      .fitBounds({ x: left, y: top, width: right - left, height: bottom - top }, { padding: 0.6 })
      .then(() => {
        if (flow.getZoom() > 1.4) void flow.setCenter((left + right) / 2, (top + bottom) / 2, { zoom: 1.4 });
      });
  }, [flow, scene, lit, chosenIds, fitAll]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (isTyping(event.target) || event.ctrlKey || event.altKey || event.metaKey) return;
      if (event.key === '0') void fitAll();
      if (event.key.toLowerCase() === 'f') fitChosen();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [fitAll, fitChosen]);

  // What is selected elsewhere, by searching or in the rows, is brought into view.
  const store = useStoreApi();
  useEffect(() => {
    const box = scene.plates.find((plate) => lit.has(plate.id))?.box;
    const { transform, width, height } = store.getState();
    const [x, y, zoom] = transform;
    if (box === undefined || lit.size !== 1 || width === 0) return;
    const [left, top] = [box.x * zoom + x, box.y * zoom + y];
    const seen = left + box.width * zoom > 0 && top + box.height * zoom > 0 && left < width && top < height;
    if (!seen) void flow.setCenter(box.x + box.width / 2, box.y + box.height / 2, { zoom });
    // Only a new selection moves the view, not every new scene.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [[...lit].join(' ')]);

  const onDrag = useCallback(
    (_event: unknown, node: SheetNode, dragged: SheetNode[]) => {
      dragging.current = true;
      const now = movedBy(scene, dragged.length > 0 ? dragged : [node], groups);
      setMoved(now.plates);
      const others = scene.plates.filter((plate) => !now.plates.has(plate.id)).map((plate) => plate.box);
      const box = { ...node.position, width: node.width ?? 0, height: node.height ?? 0 };
      setGuides(node.type === 'plate' && now.plates.size === 1 ? snapToOthers(box, others, 1).guides : []);
      if (now.plates.size + now.marks.size > dragged.length)
        setNodes((before) =>
          before.map((one) => {
            if (one.id === node.id || dragged.some(({ id }) => id === one.id)) return one;
            const to = now.plates.get(one.id) ?? now.marks.get(markIdOf(one.id) ?? '');
            return to === undefined ? one : { ...one, position: to };
          }),
        );
    },
    [scene, groups],
  );
  const onDragStop = useCallback(
    (_event: unknown, node: SheetNode, dragged: SheetNode[]) => {
      dragging.current = false;
      setGuides([]);
      const now = movedBy(scene, dragged.length > 0 ? dragged : [node], groups);
      const boxes = new Map([...scene.plates, ...scene.marks].map((one) => [one.id, one.box]));
      const really = [...now.plates, ...now.marks].some(([id, to]) => {
        const box = boxes.get(id);
        return (
          box !== undefined &&
          (Math.round(box.x) !== Math.round(to.x) || Math.round(box.y) !== Math.round(to.y))
        );
      });
      if (really) onMoved(now);
      else setMoved(new Map());
    },
    [onMoved, scene, groups],
  );
  /** Arrow keys move chosen plates by a step of the lattice. */
  const nudged = useRef<Map<string, Point>>(new Map());
  const onNodesChange = useCallback((changes: NodeChange<SheetNode>[]) => {
    setNodes((before) => applyNodeChanges(changes, before));
    if (dragging.current) return;
    for (const change of changes)
      if (change.type === 'position' && change.position !== undefined && change.dragging !== true)
        nudged.current.set(change.id, change.position);
  }, []);
  const settle = useCallback(() => {
    if (nudged.current.size === 0) return;
    const ids = nudged.current;
    nudged.current = new Map();
    onMoved(
      movedBy(
        scene,
        nodes.filter((node) => ids.has(node.id)),
        groups,
      ),
    );
  }, [onMoved, scene, nodes, groups]);

  // Steps that follow each other at once are one move, and one undo.
  const soon = useRef<ReturnType<typeof setTimeout> | null>(null);
  const settleSoon = (): void => {
    if (soon.current !== null) clearTimeout(soon.current);
    soon.current = setTimeout(() => latest.current(), nudgePause);
  };
  const latest = useRef(settle);
  useEffect(() => {
    latest.current = settle;
  }, [settle]);

  const beginLink = useCallback(
    (from: string): void => {
      const move = (event: PointerEvent): void =>
        setPulled({
          from,
          to: flow.screenToFlowPosition({ x: event.clientX, y: event.clientY }, { snapToGrid: false }),
        });
      const up = (event: PointerEvent): void => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', up);
        setPulled(null);
        const target = document
          .elementsFromPoint(event.clientX, event.clientY)
          .map((element) => element.closest<HTMLElement>('.react-flow__node-plate')?.dataset['id'])
          .find((id) => id !== undefined && id !== from);
        if (target !== undefined) props.onLink(from, target);
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', up);
    },
    [flow, props],
  );
  const acts = useMemo<NodeActs>(
    () => ({
      canEdit,
      rename: props.onRename,
      renaming,
      setRenaming,
      resize: props.onResize,
      corners: props.onCorners,
      beginLink,
    }),
    [canEdit, props.onRename, props.onResize, props.onCorners, renaming, beginLink],
  );
  const plateById = useMemo(() => new Map(scene.plates.map((plate) => [plate.id, plate])), [scene]);
  const pulledFrom = pulled === null ? undefined : plateById.get(pulled.from)?.box;
  return (
    <Canvas
      onKeyUp={(event) => event.key.startsWith('Arrow') && settleSoon()}
      onKeyDown={(event) => {
        // Any other key, such as that of undo, finds the move already kept.
        if (!event.key.startsWith('Arrow')) settle();
        if (event.key !== 'Enter' && event.key !== ' ') return;
        const id =
          event.target instanceof HTMLElement && event.target.classList.contains('react-flow__node')
            ? event.target.dataset['id']
            : undefined;
        const plate = plateById.get(id ?? '');
        const markId = markIdOf(id ?? '');
        if (plate !== undefined) props.onPickPlate(plate);
        else if (markId !== null) props.onPickMark(markId);
      }}
      onPointerMove={(event) => {
        at.current = flow.screenToFlowPosition({ x: event.clientX, y: event.clientY }, { snapToGrid: false });
        tell();
      }}
      onPointerLeave={() => {
        at.current = null;
        tell();
      }}
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes('application/x-visograph-model')) event.preventDefault();
      }}
      onDrop={(event) => {
        const modelId = event.dataTransfer.getData('application/x-visograph-model');
        if (modelId === '') return;
        event.preventDefault();
        props.onDropModel(modelId, flow.screenToFlowPosition({ x: event.clientX, y: event.clientY }));
      }}
    >
      <Acts value={acts}>
        {large && fitted && (
          <FarLayer
            scene={far ? live : scene}
            lit={lit}
            shown={far || stale || shownNodes.length < nearNodes.length}
          />
        )}
        <ReactFlow<SheetNode>
          nodes={shownNodes as SheetNode[]}
          edges={[]}
          nodeTypes={nodeTypes}
          onNodesChange={onNodesChange}
          onNodeDrag={onDrag}
          onNodeDragStop={onDragStop}
          onSelectionDrag={(event, dragged) => dragged[0] !== undefined && onDrag(event, dragged[0], dragged)}
          onSelectionDragStop={(event, dragged) =>
            dragged[0] !== undefined && onDragStop(event, dragged[0], dragged)
          }
          onNodeClick={(event, node) => {
            if (event.shiftKey || event.ctrlKey || event.metaKey) return;
            if (node.type === 'plate') props.onPickPlate(node.data.plate);
            if (node.type === 'mark') props.onPickMark(node.data.mark.id);
          }}
          onNodeDoubleClick={(_event, node) => {
            if (node.type === 'container' && node.data.container.form === 'place')
              props.onOpenContainer(node.data.container.id);
            if (node.type === 'mark') props.onOpenMark(node.data.mark.id);
            if (node.type !== 'plate') return;
            if (node.data.plate.form === 'device' && canEdit) setRenaming(node.id);
            else props.onOpenPlate(node.data.plate);
          }}
          onPaneClick={props.onPickNothing}
          onInit={() => void fitAll().then(() => setFitted(true))}
          minZoom={0.05}
          maxZoom={3}
          snapToGrid
          snapGrid={[8, 8]}
          panOnScroll
          zoomOnDoubleClick={false}
          nodesConnectable={false}
          deleteKeyCode={null}
          multiSelectionKeyCode={['Shift', 'Control', 'Meta']}
          elevateNodesOnSelect={false}
          proOptions={{ hideAttribution: true }}
          aria-label="Sheet"
        >
          {!far && <Background variant={BackgroundVariant.Dots} gap={24} size={1} color={tokens.rule} />}
          {!far && fitted && !(huge && region === null) && (
            <LinkLayer
              scene={live}
              region={region}
              each={huge ? mountedEach : null}
              lit={props.litLink}
              held={canEdit && moved.size === 0 ? props.heldLink : null}
              acts={props.linkActs}
            />
          )}
          <GuideLines guides={guides} />
          {pulled !== null && pulledFrom !== undefined && (
            <ViewportPortal>
              <Lines width={1} height={1} aria-hidden="true">
                <path
                  d={`M${pulledFrom.x + pulledFrom.width} ${pulledFrom.y + pulledFrom.height / 2}L${pulled.to.x} ${pulled.to.y}`}
                  stroke={tokens.accent}
                  strokeWidth={2}
                  strokeDasharray="5 4"
                />
              </Lines>
            </ViewportPortal>
          )}
          <Peers peers={peers} scene={scene} />
          {props.children}
          <Panel position="bottom-left">
            <ZoomPanel onFit={() => void fitAll()} />
          </Panel>
          <Panel position="bottom-right">
            <MiniMap scene={scene} />
          </Panel>
        </ReactFlow>
      </Acts>
    </Canvas>
  );
}
