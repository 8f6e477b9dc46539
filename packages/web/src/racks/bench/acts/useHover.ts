import { useReactFlow } from '@xyflow/react';
import { useState, type Dispatch, type PointerEvent, type SetStateAction } from 'react';
import { faceAt, plateAt, portAt, type RackSpot } from '../benchLayout.ts';
import type { Hover } from '../PointerNote.tsx';
import { portsFrom } from './usePlateActions.ts';

/** Below this zoom nothing is told of what is below the pointer. */
const toldFrom = 0.2;

/** What is below the pointer: a port near by, a device from farther away. */
export function useHover(
  spots: readonly RackSpot[],
  carries: boolean,
): {
  hover: Hover | null;
  setHover: Dispatch<SetStateAction<Hover | null>>;
  onPointerMove: (event: PointerEvent) => void;
} {
  const flow = useReactFlow();
  const [hover, setHover] = useState<Hover | null>(null);
  const onPointerMove = (event: PointerEvent): void => {
    if (carries || event.buttons !== 0) return hover === null ? undefined : setHover(null);
    const at = { x: event.clientX, y: event.clientY };
    const hit = flow.getZoom() < toldFrom ? null : faceAt(spots, flow.screenToFlowPosition(at));
    const plate = hit === null ? null : plateAt(hit);
    if (hit === null || plate === null)
      return hover === null || 'cable' in hover ? undefined : setHover(null);
    const port = flow.getZoom() < portsFrom ? null : portAt(plate, hit.at);
    if (port !== null) {
      if (hover === null || !('portId' in hover) || hover.portId !== port.id)
        setHover({ at, portId: port.id });
    } else if (flow.getZoom() < portsFrom) {
      if (hover === null || !('deviceId' in hover) || hover.deviceId !== plate.deviceId)
        setHover({ at, deviceId: plate.deviceId });
    } else if (hover !== null && !('cable' in hover)) setHover(null);
  };
  return { hover, setHover, onPointerMove };
}
