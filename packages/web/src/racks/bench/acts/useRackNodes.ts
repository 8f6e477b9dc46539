import { cableAt, type Network } from '@visograph/core/model';
import { elevationCables } from '@visograph/core/racks';
import { useMemo } from 'react';
import { useProject } from '../../../data/project.tsx';
import { useWhereabouts } from '../../../data/location.ts';
import { useTraced } from '../../../cabling/trace/useTraced.ts';
import { useBench } from '../bench.tsx';
import type { RackSpot } from '../benchLayout.ts';
import type { PlateActions, RackNodeType } from '../RackNode.tsx';

const noOne: ReadonlySet<string> = new Set();
type Cables = NonNullable<RackNodeType['data']['cables']>;

/** The cables of each rack on the faces that are drawn. */
function cablesOf(network: Network, spots: readonly RackSpot[]): Map<string, Cables> {
  const bySpot = new Map<string, Cables>();
  for (const { rack, scene, faces } of spots) {
    const cables: Cables = {};
    for (const { face } of faces) {
      const seen = scene.faces.find((one) => one.face === face);
      if (seen !== undefined) cables[face] = elevationCables(network, scene, seen);
    }
    bySpot.set(rack.id, cables);
  }
  return bySpot;
}

/** The racks as nodes of the surface: what is chosen or traced on each, its cables, and which of them are lit. */
export function useRackNodes(
  spots: readonly RackSpot[],
  actions: PlateActions,
  hoverPort: string | null,
): RackNodeType[] {
  const { view } = useProject();
  const { network } = view;
  const { selection } = useWhereabouts();
  const { chosen, cables: showCables } = useBench();
  const traced = useTraced();
  const portId = selection?.kind === 'port' ? selection.id : null;
  const drawn = useMemo(
    () => (showCables ? cablesOf(network, spots) : new Map<string, Cables>()),
    [showCables, spots, network],
  );
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

  return useMemo(
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
}
