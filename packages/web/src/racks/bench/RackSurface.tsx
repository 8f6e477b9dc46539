import { cableAt, type Device } from '@visograph/core/model';
import { elevationCables } from '@visograph/core/racks';
import { Background, BackgroundVariant, Panel, ReactFlow, useReactFlow, type Viewport } from '@xyflow/react';
import '@xyflow/react/dist/base.css';
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useWorkspace } from '../../data/workspace.tsx';
import { Button } from '../../kit/controls.tsx';
import { useTheme } from '../../theme/theme.tsx';
import { useTraced } from '../../cabling/trace/useTraced.ts';
import { useBench } from './bench.tsx';
import { faceAt, plateAt, portAt, type RackSpot } from './benchLayout.ts';
import { Ghosts } from './Ghosts.tsx';
import { CarryNote, HoverNote, type Hover } from './PointerNote.tsx';
import { RackNode, type PlateActions, type RackNodeType } from './RackNode.tsx';
import { useArrows } from './useArrows.ts';
import type { useCarry } from './useCarry.ts';

const Canvas = styled.div`
  position: absolute;
  inset: 0;
  touch-action: none;
  .react-flow__node {
    cursor: default;
    pointer-events: all !important;
  }
  .react-flow__node svg {
    display: block;
    overflow: visible;
  }
  .react-flow__pane {
    cursor: grab;
  }
  &.panned .react-flow__viewport {
    will-change: transform;
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

const nodeTypes = { rack: RackNode };
const hidden = { hideAttribution: true };
const noOne: ReadonlySet<string> = new Set();

interface Props {
  spots: readonly RackSpot[];
  carrying: ReturnType<typeof useCarry>;
}

/** The racks on an endless surface: pan, zoom, choose, carry, and read what is plugged in where. */
export function RackSurface({ spots, carrying }: Props): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { selection, select, go } = useWhereabouts();
  const { setDock, ghost, dock } = useWorkspace();
  const { chosen, setChosen, plan, cables: showCables } = useBench();
  const traced = useTraced();
  const { tokens } = useTheme();
  const flow = useReactFlow();
  const frame = useRef<HTMLDivElement>(null);
  const [hover, setHover] = useState<Hover | null>(null);
  const arrows = useArrows(spots);
  const portId = selection?.kind === 'port' ? selection.id : null;

  const now = useRef({ spots, chosen, network, carrying, arrows });
  useEffect(() => {
    now.current = { spots, chosen, network, carrying, arrows };
  });
  const toSurface = flow.screenToFlowPosition;
  const actions = useMemo<PlateActions>(() => {
    const device = (id: string): Device | null => now.current.network.get('device', id);
    return {
      choose: (id, { shiftKey, ctrlKey, metaKey }) => {
        if (now.current.carrying.justCarried()) return;
        const before = now.current.chosen;
        if (ctrlKey || metaKey) {
          const next = new Set(before);
          if (!next.delete(id)) next.add(id);
          setChosen(next);
        } else if (shiftKey) setChosen(between(now.current.spots, before, id));
        else setChosen(new Set([id]));
        select({ kind: 'device', id });
      },
      choosePort: ({ clientX, clientY }, deviceId) => {
        const hit = faceAt(now.current.spots, toSurface({ x: clientX, y: clientY }));
        const plate = hit === null ? null : plateAt(hit);
        const port = hit === null || plate?.deviceId !== deviceId ? null : portAt(plate, hit.at);
        if (port === null || flow.getZoom() < 0.5) return false;
        setChosen(new Set([deviceId]));
        select({ kind: 'port', id: port.id });
        return true;
      },
      grab: (event, id) => {
        const grabbed = device(id);
        if (!canEdit || grabbed === null || event.ctrlKey || event.shiftKey) return;
        const hit = faceAt(now.current.spots, toSurface({ x: event.clientX, y: event.clientY }));
        const plate = hit === null ? null : plateAt(hit);
        const together = now.current.chosen.has(id) ? [...now.current.chosen] : [id];
        const devices = together.flatMap((one) => device(one) ?? []);
        const grab = hit === null || plate === null ? { x: 0, y: 0 } : { x: 0, y: hit.at.y - plate.box.y };
        now.current.carrying.begin(event, { form: 'devices', devices, grabbed, grab });
      },
      key: (event, id) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          event.stopPropagation();
          setChosen(new Set([id]));
          select({ kind: 'device', id });
          return;
        }
        now.current.arrows(event, id);
      },
      free:
        canEdit && spots.length === 1 ? (rackId, unit) => setDock({ form: 'addDevice', rackId, unit }) : null,
      overCable: ({ clientX, clientY }, spoken) =>
        setHover(spoken === null ? null : { at: { x: clientX, y: clientY }, cable: spoken }),
      chooseCable: (id) => select({ kind: 'cable', id }),
      at: ({ clientX, clientY }) => {
        const hit = faceAt(now.current.spots, toSurface({ x: clientX, y: clientY }));
        return hit === null ? null : (plateAt(hit)?.deviceId ?? null);
      },
      open: (rackId) => go({ rackId, selection: { kind: 'rack', id: rackId } }),
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [canEdit, spots.length === 1, flow, toSurface]);

  const drawn = useMemo(() => {
    const bySpot = new Map<string, NonNullable<RackNodeType['data']['cables']>>();
    if (!showCables) return bySpot;
    for (const { rack, scene, faces } of spots) {
      const cables: NonNullable<RackNodeType['data']['cables']> = {};
      for (const { face } of faces) {
        const seen = scene.faces.find((one) => one.face === face);
        if (seen !== undefined) cables[face] = elevationCables(network, scene, seen);
      }
      bySpot.set(rack.id, cables);
    }
    return bySpot;
  }, [showCables, spots, network]);
  const hoverPort = hover !== null && 'portId' in hover ? hover.portId : null;
  const lit = useMemo(() => {
    if (!showCables) return noOne;
    const ids = new Set(traced);
    const addPort = (id: string | null): void => {
      const cable = id === null ? null : cableAt(network, id);
      if (cable !== null) ids.add(cable.id);
    };
    if (selection?.kind === 'cable') ids.add(selection.id);
    addPort(portId);
    addPort(hoverPort);
    if (selection?.kind === 'device')
      for (const port of network.find('portsByDevice', selection.id)) addPort(port.id);
    return ids;
  }, [showCables, traced, network, selection, portId, hoverPort]);
  const shownChosen = useMemo(
    () =>
      traced.size === 0
        ? chosen
        : new Set([...chosen, ...traced].filter((id) => network.get('device', id) !== null)),
    [chosen, traced, network],
  );

  const nodes = useMemo(
    () =>
      spots.map((spot): RackNodeType => {
        const mine = [...shownChosen].filter((id) => network.get('device', id)?.rackId === spot.rack.id);
        const portHere =
          network.get('device', network.get('port', portId)?.deviceId ?? null)?.rackId === spot.rack.id;
        return {
          id: spot.rack.id,
          type: 'rack',
          position: { x: spot.x, y: spot.y },
          width: spot.width,
          height: spot.height,
          measured: { width: spot.width, height: spot.height },
          data: {
            spot,
            chosen: mine.length === 0 ? noOne : new Set(mine),
            portId: portHere ? portId : null,
            cables: drawn.get(spot.rack.id) ?? null,
            lit,
            actions,
          },
          draggable: false,
          selectable: false,
          focusable: false,
        };
      }),
    [spots, shownChosen, network, portId, drawn, lit, actions],
  );

  const rackKey = spots.map((spot) => `${spot.rack.id}${spot.width}`).join();
  const fit = useCallback(() => void flow.fitView({ padding: 0.03, maxZoom: 1.15 }), [flow]);
  /** Panned or zoomed by hand: then another size of the work area moves nothing. */
  const byHand = useRef(false);
  useEffect(() => {
    byHand.current = false;
    const frameId = requestAnimationFrame(fit);
    return () => cancelAnimationFrame(frameId);
  }, [rackKey, fit]);
  useEffect(() => {
    if (frame.current === null) return;
    let { clientWidth } = frame.current;
    const observer = new ResizeObserver(([entry]) => {
      const width = entry?.contentRect.width ?? clientWidth;
      if (Math.abs(width - clientWidth) > 2 && !byHand.current) requestAnimationFrame(fit);
      clientWidth = width;
    });
    observer.observe(frame.current);
    return () => observer.disconnect();
  }, [fit]);

  // The ghost of a device being added comes into view when the dock covers its place.
  const ghostUnit = ghost?.unit ?? null;
  useEffect(() => {
    if (ghost === null || frame.current === null) return;
    const spot = spots.find((one) => one.rack.id === ghost.rackId);
    const face = spot?.faces[0];
    if (spot === undefined || face === undefined) return;
    const y = face.y + (spot.rack.numbering === 'up' ? spot.rack.units - ghost.unit : ghost.unit - 1) * 16;
    const { x, y: top, zoom }: Viewport = flow.getViewport();
    const seen = y * zoom + top;
    const { clientHeight } = frame.current;
    if (seen < 10 || seen > clientHeight - 60)
      void flow.setViewport({ x, y: clientHeight / 2 - y * zoom, zoom });
    // Only another place moves the view.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [ghost?.rackId, ghostUnit, dock?.form]);

  const onPointerMove = (event: React.PointerEvent): void => {
    if (carrying.carry !== null || event.buttons !== 0) return hover === null ? undefined : setHover(null);
    const at = { x: event.clientX, y: event.clientY };
    const hit = flow.getZoom() < 0.2 ? null : faceAt(spots, toSurface(at));
    const plate = hit === null ? null : plateAt(hit);
    if (hit === null || plate === null)
      return hover === null || 'cable' in hover ? undefined : setHover(null);
    const port = flow.getZoom() < 0.5 ? null : portAt(plate, hit.at);
    if (port !== null) {
      if (hover === null || !('portId' in hover) || hover.portId !== port.id)
        setHover({ at, portId: port.id });
    } else if (flow.getZoom() < 0.5) {
      if (hover === null || !('deviceId' in hover) || hover.deviceId !== plate.deviceId)
        setHover({ at, deviceId: plate.deviceId });
    } else if (hover !== null && !('cable' in hover)) setHover(null);
  };

  return (
    <Canvas ref={frame} data-bench onPointerMove={onPointerMove} onPointerLeave={() => setHover(null)}>
      <ReactFlow
        nodes={nodes}
        edges={[]}
        nodeTypes={nodeTypes}
        minZoom={0.04}
        maxZoom={3}
        nodesDraggable={false}
        nodesConnectable={false}
        elementsSelectable={false}
        onlyRenderVisibleElements
        zoomOnDoubleClick={false}
        deleteKeyCode={null}
        selectionKeyCode={null}
        multiSelectionKeyCode={null}
        disableKeyboardA11y
        onMoveStart={(event) => {
          if (event !== null) byHand.current = true;
          if (event?.type.startsWith('mouse') === true) frame.current?.classList.add('panned');
        }}
        onMoveEnd={() => frame.current?.classList.remove('panned')}
        onPaneClick={() => setChosen(noOne)}
        proOptions={hidden}
      >
        <Background variant={BackgroundVariant.Dots} gap={24} size={1} color={tokens.rule} />
        <Ghosts
          network={network}
          spots={spots}
          carry={carrying.carry}
          plan={plan}
          ghost={dock?.form === 'addDevice' ? ghost : null}
        />
        <Panel position="bottom-right">
          <Zoom>
            <Button onPress={() => void flow.zoomOut()} aria-label="Zoom out">
              −
            </Button>
            <Button onPress={() => void flow.zoomIn()} aria-label="Zoom in">
              +
            </Button>
            <Button onPress={fit}>Fit</Button>
          </Zoom>
        </Panel>
      </ReactFlow>
      {hover !== null && carrying.carry === null && <HoverNote network={network} hover={hover} />}
      {carrying.carry !== null && <CarryNote network={network} carry={carrying.carry} />}
    </Canvas>
  );
}

/** Everything on one face between what was chosen and what is chosen with Shift. */
function between(spots: readonly RackSpot[], before: ReadonlySet<string>, id: string): ReadonlySet<string> {
  for (const spot of spots) {
    for (const face of spot.scene.faces) {
      const order = face.plates.map((plate) => plate.deviceId);
      const to = order.indexOf(id);
      const from = order.findIndex((one) => before.has(one));
      if (to >= 0 && from >= 0)
        return new Set([...before, ...order.slice(Math.min(from, to), Math.max(from, to) + 1)]);
    }
  }
  return new Set([...before, id]);
}
