import { innerOf, unitHeight, type ElevationCable, type ElevationFace } from '@visograph/core/racks';
import {
  FaceFrame,
  FarFace,
  FacePlateShape,
  faceGap,
  fonts,
  gaugeHeight,
  headHeight,
  RackCables,
  RackGauges,
  type FaceDetail,
} from '@visograph/drawing';
import { useStore, type Node, type NodeProps } from '@xyflow/react';
import { memo, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { useTheme } from '../../theme/theme.tsx';
import { aboveFrame, type RackSpot } from './benchLayout.ts';

/** What can be done to the things on a rack; the same object as long as nothing about it changes. */
export interface PlateActions {
  choose: (deviceId: string, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;
  choosePort: (event: { clientX: number; clientY: number }, deviceId: string) => boolean;
  grab: (event: PointerEvent, deviceId: string) => void;
  key: (event: KeyboardEvent, deviceId: string) => void;
  /** Given where a device may be added: a free unit was chosen. */
  free: ((rackId: string, unit: number) => void) | null;
  open: (rackId: string) => void;
  /** The pointer came to a cable, or left it. */
  overCable: (event: { clientX: number; clientY: number }, spoken: string | null) => void;
  chooseCable: (cableId: string) => void;
  /** The device below a point of the window; from afar there is one shape for all. */
  at: (event: { clientX: number; clientY: number }) => string | null;
}
export type RackNodeType = Node<
  {
    spot: RackSpot;
    chosen: ReadonlySet<string>;
    portId: string | null;
    /** Cables to draw by face, and which of them are lit; null when none are shown. */
    cables: Partial<Record<'front' | 'rear', readonly ElevationCable[]>> | null;
    lit: ReadonlySet<string>;
    actions: PlateActions;
  },
  'rack'
>;

/** Below these zooms ports, then names, are too small to be read. */
const detailAt = (zoom: number): FaceDetail => (zoom >= 0.5 ? 'full' : zoom >= 0.27 ? 'names' : 'colours');

function FreeUnits({
  face,
  spot,
  onFree,
}: {
  face: ElevationFace;
  spot: RackSpot;
  onFree: (rackId: string, unit: number) => void;
}): ReactNode {
  const inner = innerOf(spot.rack);
  return face.units
    .filter((unit) => unit.free)
    .map(({ unit, y }) => (
      <g
        key={unit}
        className="free"
        role="button"
        tabIndex={0}
        aria-label={`Unit ${unit}, free: add a device`}
        onClick={() => onFree(spot.rack.id, unit)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          event.stopPropagation();
          onFree(spot.rack.id, unit);
        }}
      >
        <rect
          x={inner.x + 1}
          y={y + 1}
          width={inner.width - 2}
          height={unitHeight - 2}
          rx={2}
          fill="transparent"
        />
      </g>
    ));
}

/** One rack on the surface: name, gauges, its faces, every device of which can be chosen and carried. */
export const RackNode = memo(function RackNode({ data }: NodeProps<RackNodeType>): ReactNode {
  const { spot, chosen, portId, cables, lit, actions } = data;
  const { rack, scene } = spot;
  const { tokens } = useTheme();
  const detail = useStore((state) => detailAt(state.transform[2]));
  const large = detail === 'colours';
  return (
    <svg
      width={spot.width}
      height={spot.height}
      role="group"
      aria-label={`${rack.name}: ${spot.faces.map((face) => face.face).join(' and ')}`}
    >
      <text
        x={15}
        y={large ? 40 : 18}
        fontFamily={fonts.mono}
        fontWeight={600}
        fontSize={large ? 46 : 17}
        fill={tokens.ink}
        className="rack-name"
        role="button"
        tabIndex={0}
        aria-label={`Rack ${rack.name}`}
        onClick={() => actions.open(rack.id)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') actions.open(rack.id);
        }}
      >
        {rack.name}
      </text>
      {!large && (
        <g transform={`translate(0 ${aboveFrame - headHeight - gaugeHeight})`}>
          <RackGauges scene={scene} width={spot.width} tokens={tokens} />
        </g>
      )}
      {spot.faces.map(({ face: name }, at) => {
        const face = scene.faces.find((one) => one.face === name);
        if (face === undefined) return null;
        const { free } = actions;
        return (
          <g key={name} transform={`translate(${at * (scene.width + faceGap)} ${aboveFrame})`}>
            {!large && (
              <text
                x={scene.width / 2}
                y={-8}
                textAnchor="middle"
                fontFamily={fonts.text}
                fontSize={12}
                fontWeight={600}
                fill={tokens.inkSoft}
              >
                {name === 'front' ? 'Front' : 'Rear'}
              </text>
            )}
            {large ? (
              <g
                className="plate nopan"
                onPointerDown={(event) => {
                  const id = actions.at(event);
                  if (id !== null) actions.grab(event, id);
                }}
                onClick={(event) => {
                  const id = actions.at(event);
                  if (id !== null) actions.choose(id, event);
                }}
              >
                <FarFace scene={scene} face={face} tokens={tokens} chosen={chosen} />
              </g>
            ) : (
              <FaceFrame scene={scene} face={face} tokens={tokens} detail={detail}>
                {cables?.[name]?.map((cable) => (
                  <path
                    key={cable.cableId}
                    className="nopan"
                    d={cable.d}
                    fill="none"
                    stroke="transparent"
                    strokeWidth={5}
                    pointerEvents="stroke"
                    onPointerEnter={(event) => actions.overCable(event, cable.spoken)}
                    onPointerLeave={(event) => actions.overCable(event, null)}
                    onClick={() => actions.chooseCable(cable.cableId)}
                  />
                ))}
                {free !== null && name === 'front' && <FreeUnits face={face} spot={spot} onFree={free} />}
                {face.plates.map((plate) => (
                  <g
                    key={plate.deviceId}
                    className="plate nopan"
                    role="button"
                    tabIndex={0}
                    aria-label={plate.spoken}
                    aria-pressed={chosen.has(plate.deviceId)}
                    onPointerDown={(event) => actions.grab(event, plate.deviceId)}
                    onClick={(event) => {
                      if (!actions.choosePort(event, plate.deviceId)) actions.choose(plate.deviceId, event);
                    }}
                    onKeyDown={(event) => actions.key(event, plate.deviceId)}
                  >
                    <FacePlateShape
                      plate={plate}
                      tokens={tokens}
                      detail={detail}
                      selected={chosen.has(plate.deviceId)}
                      portId={portId}
                    />
                  </g>
                ))}
                {cables?.[name] !== undefined && (
                  <g pointerEvents="none">
                    <RackCables cables={cables[name]} tokens={tokens} lit={lit} />
                  </g>
                )}
              </FaceFrame>
            )}
          </g>
        );
      })}
    </svg>
  );
});
