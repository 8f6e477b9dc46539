import { type Device, type Network } from '@visograph/core/model';
import { plateBox, sideWidth, railWidth, type FitPlan } from '@visograph/core/racks';
import { fonts, type Tokens } from '@visograph/drawing';
import { ViewportPortal } from '@xyflow/react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';
import type { Ghost } from '../../data/workspace.tsx';
import type { RackSpot } from './benchLayout.ts';
import { cargoShape, type Carry } from './acts/useCarry.ts';

const Layer = styled.svg`
  position: absolute;
  top: 0;
  left: 0;
  overflow: visible;
  pointer-events: none;
  z-index: 3;
`;

interface Shape {
  key: string;
  rackId: string;
  face: 'front' | 'rear';
  unit: number | null;
  units: number;
  side: Device['side'];
  name: string;
  bad: boolean;
}

function GhostShape({ shape, spot, tokens }: { shape: Shape; spot: RackSpot; tokens: Tokens }): ReactNode {
  const face = spot.faces.find((one) => one.face === shape.face) ?? spot.faces[0];
  if (face === undefined) return null;
  const colour = shape.bad ? tokens.bad : tokens.accent;
  const box =
    shape.unit === null
      ? {
          x:
            (shape.side === 'right') === (face.face === 'front')
              ? spot.scene.inner.x + spot.scene.inner.width + railWidth
              : 1,
          y: 2,
          width: sideWidth,
          height: spot.scene.height - 4,
        }
      : plateBox(spot.rack, { unit: shape.unit, units: shape.units, side: shape.side }, face.face);
  return (
    <g transform={`translate(${face.x} ${face.y})`} data-ghost={shape.key}>
      <rect
        x={box.x + 1}
        y={box.y + 1}
        width={Math.max(4, box.width - 2)}
        height={Math.max(4, box.height - 2)}
        rx={2}
        fill={shape.bad ? tokens.surface : tokens.accentWash}
        fillOpacity={0.88}
        stroke={colour}
        strokeWidth={1.6}
        strokeDasharray="5 3"
      />
      {shape.unit !== null && (
        <text
          x={box.x + 27}
          y={box.y + box.height / 2 + 4}
          fontFamily={fonts.text}
          fontSize={11}
          fontWeight={600}
          fill={colour}
        >
          {shape.name}
        </text>
      )}
    </g>
  );
}

interface Props {
  network: Network;
  spots: readonly RackSpot[];
  carry: Carry | null;
  plan: FitPlan | null;
  ghost: Ghost | null;
}

function shapesOf({ network, carry, plan, ghost }: Props): Shape[] {
  const shapes: Shape[] = [];
  for (const placed of plan?.placements ?? []) {
    const device = network.get('device', placed.deviceId);
    if (device !== null)
      shapes.push({
        key: device.id,
        ...placed,
        face: device.face,
        units: device.units,
        name: device.name,
        bad: false,
      });
  }
  if (ghost !== null)
    shapes.push({
      key: 'new',
      rackId: ghost.rackId,
      face: 'front',
      unit: ghost.unit,
      units: ghost.units,
      side: ghost.side,
      name: ghost.name,
      bad: false,
    });
  if (carry?.target != null) {
    const { units, name } = cargoShape(carry.cargo);
    const { cargo, target } = carry;
    const others = cargo.form === 'devices' ? cargo.devices.filter((one) => one.id !== cargo.grabbed.id) : [];
    shapes.push({ key: 'carried', ...target, units, name, bad: carry.why.length > 0 });
    for (const other of others) {
      if (other.unit === null || cargo.form !== 'devices' || target.unit === null) continue;
      shapes.push({
        key: other.id,
        rackId: target.rackId,
        face: other.face,
        unit: other.unit + target.unit - (cargo.grabbed.unit ?? 0),
        units: other.units,
        side: other.side,
        name: other.name,
        bad: carry.why.length > 0,
      });
    }
  }
  return shapes;
}

/** What is not there yet: proposals, the device being added, and what is being carried. */
export function Ghosts(props: Props): ReactNode {
  const { tokens } = useTheme();
  const spots = new Map(props.spots.map((spot) => [spot.rack.id, spot]));
  return (
    <ViewportPortal>
      <Layer width={1} height={1} aria-hidden="true">
        {shapesOf(props).map((shape) => {
          const spot = spots.get(shape.rackId);
          return spot === undefined ? null : (
            <GhostShape key={shape.key} shape={shape} spot={spot} tokens={tokens} />
          );
        })}
      </Layer>
    </ViewportPortal>
  );
}
