import type { Sheet } from '@visograph/core/model';
import {
  dragScene,
  isThin,
  type Box,
  type Plate,
  type Point,
  type Scene,
  type SceneBundle,
  type SceneLink,
} from '@visograph/core/sheets';
import { Panel, useReactFlow, useStore } from '@xyflow/react';
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  type MouseEvent,
  type ReactNode,
  type SyntheticEvent,
} from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Surface } from '../../kit/surface/Surface.tsx';
import { useFit } from '../../kit/surface/useFit.ts';
import { labelAt } from '../facts/useFacts.ts';
import { FarLayer } from './FarLayer.tsx';
import { BundleLayer } from './BundleLayer.tsx';
import { LinkLayer, type LinkActs } from './LinkLayer.tsx';
import { MiniMap } from './MiniMap.tsx';
import { Peers, usePeers } from './Peers.tsx';
import type { Moved } from './acts/moved.ts';
import { PortRow } from '../draw/PortRow.tsx';
import { PullNote } from '../draw/PullNote.tsx';
import { StampGhosts } from '../draw/StampGhosts.tsx';
import type { Pullable } from '../draw/useDrawing.ts';
import { useFacingRow } from '../draw/useFacingRow.ts';
import type { Lines } from '../draw/useLines.ts';
import { usePulling } from '../draw/usePulling.ts';
import type { Stamping } from '../draw/useStamp.ts';
import { GuideLines, PulledLine } from './SheetLines.tsx';
import {
  Acts,
  containerNodeId,
  detailAt,
  labelsAt,
  markIdOf,
  nodeTypes,
  type NodeActs,
  type Renaming,
  type SheetNode,
} from './sheetNodes.tsx';
import { isAdding, useAddTo } from './acts/useAddTo.ts';
import { useBundles, type Bundles } from './acts/useBundles.ts';
import { useDragging } from './acts/useDragging.ts';
import { useFollowing } from './acts/useFollowing.ts';
import { useLongPress } from './acts/useLongPress.ts';
import { movementMs, useMovement } from './acts/useMovement.ts';
import { useMounted } from './acts/useMounted.ts';
import { useNudges } from './acts/useNudges.ts';
import { useSheetNodes } from './acts/useSheetNodes.ts';
import { useTelling } from './acts/useTelling.ts';

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
  &[data-moving] .react-flow__node {
    transition: transform ${movementMs}ms ease-out;
  }
  &[data-moving] .react-flow__node.dragging {
    transition: none;
  }
  &[data-moving] .sheet-links {
    animation: lead ${movementMs}ms ease-in;
  }
  @keyframes lead {
    from {
      opacity: 0.2;
    }
    to {
      opacity: 1;
    }
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
  &[data-stamping] .react-flow__pane,
  &[data-stamping] .react-flow__node {
    cursor: crosshair;
  }
`;
/** The line below the name of a plate at a height of the sheet, from 0; null: the name itself. */
export function lineAt({ box, lines }: Pick<Plate, 'box' | 'lines'>, y: number): number | null {
  const row = Math.floor(((y - box.y) / box.height) * (lines.length + 1));
  return row < 1 || lines.length === 0 ? null : Math.min(lines.length, row) - 1;
}
const othersThan = ({ plates }: Scene, own: Plate): Box[] =>
  plates.flatMap(({ id, box }) => (id === own.id ? [] : [box]));
/** A drawing of fewer plates is taken in without a map of it. */
const leastForMap = 8;
const stop = (event: SyntheticEvent): void => event.stopPropagation();

interface Props {
  sheetId: string;
  projection: Sheet['projection'];
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
  /** A finger rests on a plate. */
  onRestPlate: (plate: Plate) => void;
  /** A line below the name of a device was pressed twice: which one, from the top. */
  onPlateLine: (plate: Plate, line: number) => void;
  onPickPlate: (plate: Plate) => void;
  onPickMark: (id: string) => void;
  onOpenMark: (id: string) => void;
  onPickNothing: () => void;
  onOpenContainer: (id: string) => void;
  onRename: (plate: Plate, name: string) => void;
  onResize: (markId: string, box: Box) => void;
  onCorners: (markId: string, points: Point[]) => void;
  /** What is being drawn: a model in hand, lines that are pulled. */
  stamping: Stamping;
  lines: Lines;
  pullable: (plate: Plate) => Pullable | null;
  power: boolean;
  renaming: Renaming | null;
  setRenaming: (renaming: Renaming | null) => void;
  /** All of it stays in view as it grows: so much of the width is covered at the right, as a share. */
  followed: number | null;
  /** Ids that are to be chosen, after things were added. */
  wanted: readonly string[] | null;
  /** What is shown of the bundle that is chosen. */
  bundleTools: (bundle: SceneBundle, bundles: Bundles) => ReactNode;
  children?: ReactNode;
}

/** The drawing of a sheet: choose, drag and rename plates, places and marks, pull links, drop models. */
export function SheetCanvas(props: Props): ReactNode {
  const { sheetId, scene, fitTo, groups, canEdit, lit, onMoved } = props;
  const { stamping, lines, renaming, setRenaming } = props;
  const { network } = useProject().view;
  const { screenToFlowPosition, getZoom } = useReactFlow();
  const fit = useFit();
  const dragging = useRef(false);
  const { nodes, setNodes, chosenIds } = useSheetNodes(scene, props, dragging, props.onChosen);
  const { moved, guides, onDrag, onDragStop } = useDragging(scene, groups, dragging, setNodes, onMoved);
  const nudges = useNudges(scene, groups, { nodes, setNodes }, dragging, onMoved);
  const live = useMemo(() => (moved.size === 0 ? scene : dragScene(scene, moved)), [scene, moved]);
  const addTo = useAddTo(chosenIds, setNodes);
  const bundles = useBundles(live);
  const { shown } = bundles;
  const labels = useStore((state) => labelsAt(state.transform[2], props.projection));
  const { litLink } = props;
  const { litLink: litInBundle } = bundles;
  const litHere = useCallback(
    (link: SceneLink): boolean => litLink(link) || litInBundle(link),
    [litLink, litInBundle],
  );
  const held = canEdit && moved.size === 0 ? props.heldLink : null;
  const mounted = useMounted(nodes, scene.plates.length);
  const moving = useMovement(scene, dragging);
  const peers = usePeers(sheetId);
  const tell = useTelling(sheetId, chosenIds);
  const pulling = usePulling(scene, lines.letGo);
  const facingRow = useFacingRow(
    scene,
    canEdit && stamping.stamp === null && lines.end === null,
    chosenIds,
    props.pullable,
  );
  useFollowing(scene, lit);

  const fitAll = useCallback(() => fit.all(fitTo), [fit, fitTo]);
  const { followed } = props;
  useEffect(() => {
    if (followed === null || fitTo.width === 0) return;
    void fit.all({ ...fitTo, width: fitTo.width / (1 - followed) });
  }, [followed, fitTo, fit]);
  const fitChosen = useCallback(() => {
    const ids = new Set([...lit, ...chosenIds.map((id) => markIdOf(id) ?? id)]);
    const boxes = [...scene.plates, ...scene.marks].filter((one) => ids.has(one.id)).map((one) => one.box);
    void (boxes.length === 0 ? fitAll() : fit.part(boxes));
  }, [fit, scene, lit, chosenIds, fitAll]);
  const acts = useMemo<NodeActs>(
    () => ({
      canEdit,
      rename: props.onRename,
      renaming,
      setRenaming,
      resize: props.onResize,
      corners: props.onCorners,
    }),
    [canEdit, props.onRename, props.onResize, props.onCorners, renaming, setRenaming],
  );
  const plateById = useMemo(() => new Map(scene.plates.map((plate) => [plate.id, plate])), [scene]);
  const { choose: chooseBundle } = bundles;
  const chosenBundle = bundles.chosen;
  const linkActs = useMemo<LinkActs>(
    () => ({
      ...props.linkActs,
      choose: (link) => {
        chooseBundle(null);
        props.linkActs.choose(link);
      },
    }),
    [props.linkActs, chooseBundle],
  );
  const pick = (id: string): void => {
    chooseBundle(null);
    const plate = plateById.get(id);
    const markId = markIdOf(id);
    const place = scene.containers.find((container) => containerNodeId(container.id) === id);
    if (place !== undefined) {
      const inside = new Set(place.plateIds);
      setNodes((before) => before.map((node) => ({ ...node, selected: inside.has(node.id) })));
    } else if (plate !== undefined) props.onPickPlate(plate);
    else if (markId !== null) props.onPickMark(markId);
  };
  const openNode = (node: SheetNode, clientY: number): void => {
    if (node.type === 'container' && node.data.container.form === 'place')
      props.onOpenContainer(node.data.container.id);
    if (node.type === 'mark') props.onOpenMark(node.data.mark.id);
    if (node.type !== 'plate') return;
    const { plate } = node.data;
    if (plate.form !== 'device' || !canEdit) return props.onOpenPlate(plate);
    const { y } = screenToFlowPosition({ x: 0, y: clientY }, { snapToGrid: false });
    const line = detailAt(getZoom()) === 'full' && !isThin(plate) ? lineAt(plate, y) : null;
    if (line === null) setRenaming({ id: node.id });
    else props.onPlateLine(plate, line);
  };
  const frame = useRef<HTMLDivElement>(null);
  /** The label of a link below a spot of the screen, where labels can be read. */
  const writtenAt = (at: Point): ReturnType<typeof labelAt> =>
    labelsAt(getZoom(), props.projection)
      ? labelAt(scene, screenToFlowPosition(at, { snapToGrid: false }))
      : null;
  useLongPress(frame, (at, target) => {
    if (!canEdit || stamping.stamp !== null) return false;
    const plate = plateById.get(target.closest<HTMLElement>('.react-flow__node-plate')?.dataset['id'] ?? '');
    if (plate !== undefined) {
      props.onRestPlate(plate);
      return true;
    }
    const linkId = target.closest<SVGElement>('[data-link]')?.dataset['link'];
    const link = scene.links.find(({ id }) => id === linkId);
    const written = writtenAt(at) ?? (link === undefined ? null : { link, part: 'middle' as const });
    if (written !== null) props.linkActs.facts(written.link, written.part);
    return written !== null;
  });
  return (
    <Canvas
      ref={frame}
      onDoubleClick={({ clientX, clientY, target }) => {
        if (
          target instanceof Element &&
          target.closest('.react-flow__node-plate, .react-flow__node-mark') !== null
        )
          return;
        const written = writtenAt({ x: clientX, y: clientY });
        if (written !== null && canEdit) props.linkActs.facts(written.link, written.part);
      }}
      onKeyUp={(event) => event.key.startsWith('Arrow') && nudges.settleSoon()}
      onKeyDown={({ key, target }) => {
        // Any other key, such as that of undo, finds the move already kept.
        if (!key.startsWith('Arrow')) nudges.settle();
        if (key !== 'Enter' && key !== ' ') return;
        if (target instanceof HTMLElement && target.classList.contains('react-flow__node'))
          pick(target.dataset['id'] ?? '');
      }}
      data-sheet
      onPointerDownCapture={addTo.press}
      data-moving={moving || undefined}
      data-stamping={stamping.stamp !== null || undefined}
      onPointerMove={({ clientX, clientY }) => {
        const at = { x: clientX, y: clientY };
        if (stamping.stamp !== null) stamping.hover(at);
        const point = screenToFlowPosition(at, { snapToGrid: false });
        facingRow.look(point);
        tell(point);
      }}
      onPointerLeave={({ pointerType }) => {
        stamping.hover(null);
        // A finger that is lifted has left too: then what is chosen keeps its ports open.
        if (pointerType === 'mouse') facingRow.leave();
        tell(null);
      }}
      // With a model in hand a press puts it down: it neither chooses nor pans.
      {...(stamping.stamp === null
        ? {}
        : {
            onPointerDownCapture: stop,
            onMouseDownCapture: stop,
            onTouchStartCapture: stop,
            onClickCapture: (event: MouseEvent) => {
              stop(event);
              stamping.putAt({ x: event.clientX, y: event.clientY });
            },
          })}
    >
      <Acts value={acts}>
        {mounted.painted !== null && (
          <FarLayer scene={mounted.far ? live : scene} lit={lit} shown={mounted.painted === 'shown'} />
        )}
        <Surface<SheetNode>
          nodes={mounted.shown as SheetNode[]}
          nodeTypes={nodeTypes}
          plain={mounted.far}
          onFit={() => void fitAll()}
          onFitChosen={fitChosen}
          onInit={() => void fitAll().then(mounted.onFitted)}
          onNodesChange={nudges.onNodesChange}
          onNodeDrag={onDrag}
          onNodeDragStop={onDragStop}
          onSelectionDrag={(event, dragged) => dragged[0] !== undefined && onDrag(event, dragged[0], dragged)}
          onSelectionDragStop={(event, dragged) =>
            dragged[0] !== undefined && onDragStop(event, dragged[0], dragged)
          }
          onNodeClick={(event, node) => {
            if (isAdding(event)) addTo.click(node.id);
            else pick(node.id);
          }}
          onNodeDoubleClick={(event, node) => openNode(node, event.clientY)}
          onPaneClick={(event) => {
            // The drawing moved while a plate was pressed: the press is still that plate's.
            const id = addTo.pressed();
            if (id !== null && plateById.has(id)) {
              addTo.clickBeside(id, isAdding(event));
              return isAdding(event) ? undefined : pick(id);
            }
            bundles.choose(null);
            props.onPickNothing();
          }}
          snapToGrid
          snapGrid={[8, 8]}
          panOnScroll
          multiSelectionKeyCode={['Shift', 'Control', 'Meta']}
          elevateNodesOnSelect={false}
          aria-label="Sheet"
        >
          {mounted.ready && (
            <>
              <BundleLayer
                scene={shown}
                bundles={bundles}
                labels={labels}
                choose={({ id }) => {
                  props.onPickNothing();
                  bundles.choose(id);
                }}
              />
              <LinkLayer
                scene={shown}
                region={mounted.region}
                each={mounted.each}
                lit={litHere}
                labels={labels}
                held={held === null ? null : (shown.links.find(({ id }) => id === held.id) ?? null)}
                acts={linkActs}
              />
            </>
          )}
          <GuideLines guides={guides} />
          <StampGhosts ghost={stamping.ghost} />
          {facingRow.row !== null && pulling.pulled === null && moved.size === 0 && (
            <PortRow
              key={facingRow.row.plate.id}
              network={network}
              name={facingRow.row.plate.name}
              device={facingRow.row.device}
              says={facingRow.row.says}
              box={facingRow.row.plate.box}
              others={othersThan(scene, facingRow.row.plate)}
              side={facingRow.row.side}
              power={props.power}
              onEnter={facingRow.hold}
              onLeave={facingRow.release}
              onPull={(event, portId, at) => {
                const own = facingRow.row?.plate.id ?? '';
                const plates = chosenIds.includes(own) && portId === null ? chosenIds : [own];
                pulling.begin(event, {
                  plateIds: plates.filter((id) => plateById.has(id)),
                  portId,
                  at,
                });
              }}
            />
          )}
          {pulling.pulled !== null && (
            <>
              <PulledLine pulled={pulling.pulled} />
              <PullNote
                pulled={pulling.pulled}
                said={lines.preview(pulling.pulled.from, pulling.pulled.over)}
              />
            </>
          )}
          <Peers peers={peers} scene={scene} />
          {props.children}
          {scene.plates.length >= leastForMap && (
            <Panel position="bottom-right">
              <MiniMap scene={scene} />
            </Panel>
          )}
        </Surface>
      </Acts>
      {chosenBundle !== null && props.bundleTools(chosenBundle, bundles)}
    </Canvas>
  );
}
