import { sameValue } from '@visograph/core/change';
import { without } from '@visograph/core/lens';
import { racksIn, type Rack } from '@visograph/core/model';
import { elevationScene, rackUse, type ElevationPlate, type ElevationScene } from '@visograph/core/racks';
import { shadingOf } from '@visograph/core/sheets';
import { shadeColour } from '@visograph/drawing';
import { ReactFlowProvider, useReactFlow } from '@xyflow/react';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Cable, Eye, Plus, Printer } from 'lucide-react';
import { DialogTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useWorkspace } from '../../data/workspace.tsx';
import { Floating } from '../../kit/controls.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { useKeysHere } from '../../kit/useKeysHere.ts';
import { ClosedBy } from '../../kit/panel/ClosedBy.tsx';
import { Work, WorkHead } from '../../kit/panel/panels.tsx';
import { useTheme } from '../../theme/theme.tsx';
import { BenchProvider, useBench } from './bench.tsx';
import { layOutRacks, type RackSpot } from './benchLayout.ts';
import { ChosenTools } from './ChosenTools.tsx';
import { BenchTools } from './BenchTools.tsx';
import { FeedPanel } from '../FeedPanel.tsx';
import { FitPanel } from './FitPanel.tsx';
import { Gear } from './Gear.tsx';
import { PrintRack } from './PrintRack.tsx';
import { RackSurface } from './RackSurface.tsx';
import { ShowRacks } from './ShowRacks.tsx';
import { useCarry } from './acts/useCarry.ts';
import { WherePanel } from '../WherePanel.tsx';

const Body = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;
const Stage = styled.div`
  flex: 1;
  min-width: 0;
  position: relative;
`;
const KeyLine = styled.ul`
  position: absolute;
  left: 10px;
  bottom: 10px;
  z-index: 4;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  max-width: 70%;
  padding: 4px 9px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  font-size: 12px;
  li {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  i {
    width: 14px;
    height: 10px;
    border-radius: 2px;
  }
`;

/** Plates that did not change stay the same objects, so that only what changed is drawn again. */
function keepPlates(before: ElevationScene | undefined, scene: ElevationScene): ElevationScene {
  if (before === undefined) return scene;
  const known = new Map(
    before.faces.flatMap((face) =>
      face.plates.map((plate) => [`${face.face}${plate.deviceId}`, plate] as const),
    ),
  );
  const faces = scene.faces.map((face) => ({
    ...face,
    plates: face.plates.map((plate): ElevationPlate => {
      const old = known.get(`${face.face}${plate.deviceId}`);
      return old !== undefined && sameValue(old, plate) ? old : plate;
    }),
  }));
  return { ...scene, faces };
}

/** The drawings of the racks, those of before reused where nothing changed. */
function useSpots(racks: readonly Rack[]): { spots: RackSpot[]; key: ElevationScene['key'] } {
  const { view } = useProject();
  const { network } = view;
  const { faces, colour, fact, deadFeed } = useBench();
  const last = useRef(new Map<string, ElevationScene>());
  const shading = useMemo(() => {
    if (colour === 'role') return null;
    const devices = racks.flatMap((rack) => network.find('devicesByRack', rack.id));
    const today = new Date().toISOString().slice(0, 10);
    const failed =
      deadFeed === null
        ? network
        : without(
            network,
            racks.map(({ id }) => ({ kind: 'feed', rackId: id, feed: deadFeed })),
          );
    return shadingOf(failed, devices, colour, { today });
  }, [network, racks, colour, deadFeed]);
  const scenes = useMemo(
    () =>
      racks.map((rack) => ({
        rack,
        scene: elevationScene(network, rack, shading === null ? { fact } : { fact, shading }),
      })),
    [network, racks, shading, fact],
  );
  const spots = useMemo(() => {
    const kept = scenes.map(({ rack, scene }) => ({
      rack,
      scene: keepPlates(last.current.get(rack.id), scene),
    }));
    return layOutRacks(kept, faces);
  }, [scenes, faces]);
  useEffect(() => {
    last.current = new Map(spots.map((spot) => [spot.rack.id, spot.scene]));
  }, [spots]);
  return { spots, key: shading?.key ?? [] };
}

function BenchBody({ rack }: { rack: Rack }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { selection, beside, go } = useWhereabouts();
  const { setDock } = useWorkspace();
  const bench = useBench();
  const { tokens } = useTheme();
  const flow = useReactFlow();
  const room = useMemo(() => racksIn(network, [rack.placeId]), [network, rack.placeId]);
  const others = beside === 'room' ? 'room' : beside.join('.');
  const racks = useMemo(() => {
    if (others === 'room') return room;
    const picked = others.split('.').flatMap((id) => network.get('rack', id) ?? []);
    return [rack, ...picked.filter((one) => one.id !== rack.id)];
  }, [others, room, rack, network]);
  const wide = racks.length > 1;
  const { spots, key } = useSpots(racks);
  const carrying = useCarry(spots, flow.screenToFlowPosition);
  const devices = useMemo(
    () => racks.flatMap((one) => network.find('devicesByRack', one.id)),
    [network, racks],
  );
  const portId = selection?.kind === 'port' ? selection.id : null;
  const deviceId =
    selection?.kind === 'device' ? selection.id : (network.get('port', portId)?.deviceId ?? null);
  const { chosen, setChosen } = bench;
  // Whatever is selected elsewhere is chosen here too.
  useEffect(() => {
    if (deviceId !== null && !chosen.has(deviceId)) setChosen(new Set([deviceId]));
    // Only a new selection, not a new choice.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [deviceId]);
  const use = rackUse(network, rack);
  const total = racks.reduce((sum, one) => sum + rackUse(network, one).free, 0);
  const [showing, setShowing] = useState(false);
  useKeysHere(useMemo(() => ({ '.': () => setShowing(true) }), []));
  return (
    <Work>
      <WorkHead>
        <h1>{wide ? `${racks.length} racks · elevations` : `${rack.name} · elevation`}</h1>
        <p>{wide ? `${total} U free` : `${use.used} of ${use.units} U used · ${use.free} free`}</p>
        <div>
          <DialogTrigger isOpen={showing} onOpenChange={setShowing}>
            <Tool icon={Eye} word="Show" keycap="." />
            <Floating>
              <ClosedBy keyOf="." onClose={() => setShowing(false)}>
                <ShowRacks devices={devices} />
              </ClosedBy>
            </Floating>
          </DialogTrigger>
          <DialogTrigger>
            <Tool icon={Printer} word="Print" />
            <Floating>
              <PrintRack rack={rack} />
            </Floating>
          </DialogTrigger>
          {canEdit && (
            <>
              <Tool
                icon={Cable}
                word="Connect"
                keycap="C"
                onPress={() =>
                  setDock({ form: 'connect', aPortId: portId, aDeviceId: deviceId, bPortId: null })
                }
              />
              <Tool
                icon={Plus}
                word="Add device"
                tone="primary"
                onPress={() => setDock({ form: 'addDevice', rackId: rack.id, unit: null })}
              />
            </>
          )}
        </div>
      </WorkHead>
      <BenchTools
        wide={others === 'room' && wide}
        roomful={room.length}
        onWide={(next) => {
          bench.setFaces(next ? 'front' : 'both');
          go({ beside: next ? 'room' : [] });
        }}
      />
      <Body>
        {bench.gearOpen && canEdit && <Gear racks={racks} begin={carrying.begin} />}
        <Stage>
          <RackSurface spots={spots} carrying={carrying} />
          <ChosenTools devices={devices} />
          {key.length > 0 && (
            <KeyLine aria-label="Key">
              {key.map(({ label, shade }) => (
                <li key={label}>
                  <i style={{ background: shadeColour(tokens, shade) }} />
                  {label}
                </li>
              ))}
            </KeyLine>
          )}
        </Stage>
      </Body>
      {bench.panel === 'fit' && <FitPanel racks={racks} />}
      {bench.panel === 'where' && (
        <WherePanel nearPlaceId={rack.placeId} onClose={() => bench.setPanel(null)} />
      )}
      {bench.panel === 'feeds' && <FeedPanel racks={racks} />}
    </Work>
  );
}

/** One rack, or all of its room in their order: looked at, filled and rearranged. */
export function RackBench({ rack }: { rack: Rack }): ReactNode {
  const { beside } = useWhereabouts();
  return (
    <BenchProvider wide={beside.length > 0}>
      <ReactFlowProvider>
        <BenchBody rack={rack} />
      </ReactFlowProvider>
    </BenchProvider>
  );
}
