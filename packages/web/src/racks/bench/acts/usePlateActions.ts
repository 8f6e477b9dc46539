import type { Device, Network } from '@visograph/core/model';
import { useReactFlow } from '@xyflow/react';
import { useEffect, useMemo, useRef, type Dispatch, type SetStateAction } from 'react';
import { useProject } from '../../../data/project.tsx';
import { useWhereabouts } from '../../../data/location.ts';
import { useWorkspace } from '../../../data/workspace.tsx';
import { useBench } from '../bench.tsx';
import { faceAt, plateAt, portAt, type RackSpot } from '../benchLayout.ts';
import type { Hover } from '../PointerNote.tsx';
import type { PlateActions } from '../RackNode.tsx';
import { useArrows } from './useArrows.ts';
import type { useCarry } from './useCarry.ts';

/** Below this zoom ports are not drawn, and are not hit. */
export const portsFrom = 0.5;

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

interface Now {
  spots: readonly RackSpot[];
  chosen: ReadonlySet<string>;
  network: Network;
  carrying: ReturnType<typeof useCarry>;
  arrows: ReturnType<typeof useArrows>;
}

/** What plates, units and cables of the racks do when they are pressed, carried or given keys. The same for ever. */
export function usePlateActions(
  spots: readonly RackSpot[],
  carrying: ReturnType<typeof useCarry>,
  setHover: Dispatch<SetStateAction<Hover | null>>,
): PlateActions {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { select, go } = useWhereabouts();
  const { setDock } = useWorkspace();
  const { chosen, setChosen } = useBench();
  const flow = useReactFlow();
  const toSurface = flow.screenToFlowPosition;
  const arrows = useArrows(spots);
  const now = useRef<Now>({ spots, chosen, network, carrying, arrows });
  useEffect(() => {
    now.current = { spots, chosen, network, carrying, arrows };
  });
  return useMemo<PlateActions>(() => {
    const device = (id: string): Device | null => now.current.network.get('device', id);
    /** A press that follows at once finds it, drawn or not. */
    const put = (next: ReadonlySet<string>): void => {
      now.current.chosen = next;
      setChosen(next);
    };
    return {
      choose: (id, { shiftKey, ctrlKey, metaKey }) => {
        if (now.current.carrying.justCarried()) return;
        const before = now.current.chosen;
        if (ctrlKey || metaKey) {
          const next = new Set(before);
          if (!next.delete(id)) next.add(id);
          put(next);
        } else if (shiftKey) put(between(now.current.spots, before, id));
        else put(new Set([id]));
        select({ kind: 'device', id });
      },
      choosePort: ({ clientX, clientY }, deviceId) => {
        const hit = faceAt(now.current.spots, toSurface({ x: clientX, y: clientY }));
        const plate = hit === null ? null : plateAt(hit);
        const port = hit === null || plate?.deviceId !== deviceId ? null : portAt(plate, hit.at);
        if (port === null || flow.getZoom() < portsFrom) return false;
        put(new Set([deviceId]));
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
          put(new Set([id]));
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
}
