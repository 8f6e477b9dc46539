import { type Sheet } from '@visograph/core/model';
import {
  addSheet,
  boxAround,
  pagesOf,
  type DrawingPlan,
  tidySheet,
  type Plate,
  type Scene,
  type SceneLink,
  type SceneStub,
} from '@visograph/core/sheets';
import { diagramBox } from '@visograph/drawing';
import { ReactFlowProvider } from '@xyflow/react';
import { useCallback, useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { AlignStartVertical, Cable, Eye, LayoutGrid, Printer, Rows3 } from 'lucide-react';
import { DialogTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useShown } from '../data/shown.ts';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button, Floating } from '../kit/controls.tsx';
import { Tool } from '../kit/Tool.tsx';
import { useKeysHere } from '../kit/useKeysHere.ts';
import { Empty, Work, WorkHead } from '../kit/panel/panels.tsx';
import { useTraced } from '../cabling/trace/useTraced.ts';
import { AddMenu } from './tools/AddMenu.tsx';
import { ChosenTools } from './tools/ChosenTools.tsx';
import { DataStrip } from './tools/DataStrip.tsx';
import { DeleteAsk } from './tools/DeleteAsk.tsx';
import { KeyLine } from './tools/KeyLine.tsx';
import type { LinkActs } from './surface/LinkLayer.tsx';
import { PageFrames } from './surface/PageFrames.tsx';
import { Palette } from './tools/Palette.tsx';
import { PasteAsk } from './tools/PasteAsk.tsx';
import { PrintPanel } from './printing/PrintPanel.tsx';
import { SheetCanvas } from './surface/SheetCanvas.tsx';
import { SheetPath } from './SheetPath.tsx';
import { SheetReads } from './tools/SheetReads.tsx';
import { markIdOf, markNodeId } from './surface/sheetNodes.tsx';
import { ShowPanel } from './tools/ShowPanel.tsx';
import { Tray } from './tools/Tray.tsx';
import { lockedAsIn, planFor, useScene } from './useScene.ts';
import { copied, useSheetActs } from './useSheetActs.ts';

const Stage = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;
const Board = styled.div`
  flex: 1;
  min-width: 0;
  position: relative;
`;
const Waiting = styled.p`
  position: absolute;
  left: 50%;
  top: 10px;
  transform: translateX(-50%);
  z-index: 6;
  padding: 2px 10px;
  border-radius: 3px;
  font-size: 12px;
  background: ${({ theme }) => theme.surface};
  border: 1px solid ${({ theme }) => theme.rule};
  color: ${({ theme }) => theme.inkSoft};
  /* Only what takes a while is told. */
  animation: appear 0s 250ms both;
  @keyframes appear {
    from {
      visibility: hidden;
    }
    to {
      visibility: visible;
    }
  }
`;

/** What is selected as a line of the drawing. */
const drawnAsLines: ReadonlySet<string> = new Set(['cable', 'circuit', 'prefix', 'port']);

/** One sheet: the drawing, and below it the rows behind it. */
export function SheetView({ sheet }: { sheet: Sheet }): ReactNode {
  const { view, commit } = useProject();
  const network = useDeferredValue(useShown());
  const current = network.get('sheet', sheet.id) ?? sheet;
  const plan = planFor(network, current);
  const { scene: drawn, pending, failed } = useScene(plan);
  const scene = useMemo(() => drawn && lockedAsIn(drawn, plan), [drawn, plan]);
  const { go } = useWhereabouts();
  if (plan.tooMany !== null)
    return (
      <Work>
        <WorkHead>
          <h1>{sheet.name}</h1>
        </WorkHead>
        <Empty title={`${plan.tooMany} devices do not fit one sheet`}>
          An overview tells more: the places as plates, with what joins them. Each leads to a sheet of its
          own.
          <Button
            onPress={() => {
              const set = addSheet(view.network, { scopeId: sheet.scopeId, projection: 'sites' });
              if (commit(set).ok) go({ sheetId: set.sheetId, selection: null });
            }}
          >
            Draw the overview
          </Button>
        </Empty>
      </Work>
    );
  if (scene === null)
    return (
      <Work>
        <WorkHead>
          <h1>{sheet.name}</h1>
        </WorkHead>
        <Stage>
          <Board>
            <Waiting role="status">{failed ?? 'Drawing …'}</Waiting>
          </Board>
        </Stage>
      </Work>
    );
  return (
    <ReactFlowProvider>
      <Drawing sheet={current} plan={plan} scene={scene} pending={pending} failed={failed} />
    </ReactFlowProvider>
  );
}

interface DrawingProps {
  sheet: Sheet;
  plan: DrawingPlan;
  scene: Scene;
  pending: boolean;
  failed: string | null;
}

function Drawing({ sheet, plan, scene, pending, failed }: DrawingProps): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { go, select, selection } = useWhereabouts();
  const { setDock, stripOpen, setStripOpen } = useWorkspace();
  const traced = useTraced();
  const [showOpen, setShowOpen] = useState(false);
  const [palette, setPalette] = useState(false);
  const [frames, setFrames] = useState(false);
  const pages = useMemo(
    () => (frames ? pagesOf(diagramBox(scene), sheet.page) : null),
    [frames, scene, sheet.page],
  );
  const fitTo = useMemo(
    () => (pages === null ? scene.box : boxAround(pages.frames.map(({ box }) => box))),
    [pages, scene.box],
  );
  const [asking, setAsking] = useState<'delete' | 'paste' | null>(null);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [wanted, setWanted] = useState<readonly string[] | null>(null);
  const acts = useSheetActs(sheet, plan, scene);

  const lit = useMemo(() => {
    const { kind, id } = selection ?? { kind: null, id: '' };
    return new Set(
      scene.plates
        .filter(
          (plate) =>
            ((kind === 'device' || kind === 'place' || kind === 'prefix') &&
              [...plate.deviceIds, ...plate.subjects].includes(id)) ||
            plate.deviceIds.some((deviceId) => traced.has(deviceId)),
        )
        .map((plate) => plate.id),
    );
  }, [scene, selection, traced]);
  const lineId = selection !== null && drawnAsLines.has(selection.kind) ? selection.id : null;
  const litLink = useCallback(
    (link: SceneLink): boolean =>
      (lineId !== null && link.cableIds.includes(lineId)) ||
      link.cableIds.some((id) => traced.has(id)) ||
      (traced.size === 0 && (lit.has(link.a.plateId) || lit.has(link.b.plateId))),
    [lineId, traced, lit],
  );
  const heldLink = useMemo(
    () =>
      lineId === null
        ? null
        : (scene.links.find((link) => link.kind !== 'port' && link.cableIds.includes(lineId)) ?? null),
    [scene, lineId],
  );
  const linkActs = useMemo<LinkActs>(
    () => ({
      choose: (link: SceneLink | SceneStub) => select({ kind: link.kind, id: link.cableIds[0] ?? '' }),
      slide: acts.slide,
      bend: acts.bend,
    }),
    [acts, select],
  );
  const plates = useMemo(() => {
    const ids = new Set(chosen.filter((id) => markIdOf(id) === null));
    return scene.plates.filter((plate) => ids.has(plate.id));
  }, [scene, chosen]);
  const markIds = useMemo(() => chosen.flatMap((id) => markIdOf(id) ?? []), [chosen]);
  const around = useMemo(() => {
    if (plates.length === 0) return null;
    const left = Math.min(...plates.map(({ box }) => box.x));
    const top = Math.min(...plates.map(({ box }) => box.y));
    return {
      x: left,
      y: top,
      width: Math.max(...plates.map(({ box }) => box.x + box.width)) - left,
      height: Math.max(...plates.map(({ box }) => box.y + box.height)) - top,
    };
  }, [plates]);

  /** The sheet of what a plate or container stands for; made when there is none yet. */
  const openPlace = (placeId: string, sheetId: string | null): void => {
    if (sheetId !== null) return go({ sheetId, selection: null });
    if (!canEdit) return;
    const set = addSheet(network, { scopeId: placeId });
    if (commit(set).ok) go({ sheetId: set.sheetId, selection: null });
  };
  const openPlate = (plate: Plate): void => {
    if (plate.form === 'place') openPlace(plate.subjects[0] ?? '', plate.sheetId);
    else if (plate.form === 'fold' && canEdit) acts.unfold(plate.id);
  };
  const pickPlate = (plate: Plate): void => {
    if (plate.form === 'place') return select({ kind: 'place', id: plate.subjects[0] ?? '' });
    if (plate.form === 'subnet') {
      const [prefixId] = plate.subjects;
      return prefixId === undefined ? undefined : select({ kind: 'prefix', id: prefixId });
    }
    if (plate.form === 'provider') return select({ kind: 'circuit', id: plate.subjects[0] ?? '' });
    const [only] = plate.deviceIds;
    if (only !== undefined) select({ kind: 'device', id: only });
  };
  const paste = (): void => {
    const marks = acts.pasteMarks();
    if (marks.length > 0) setWanted(marks.map(markNodeId));
    if ((copied()?.deviceIds.length ?? 0) > 0) setAsking('paste');
  };
  const keys = useMemo(
    (): Record<string, () => void> => ({
      '.': () => setShowOpen(true),
      ...(canEdit
        ? {
            Delete: () => chosen.length > 0 && setAsking('delete'),
            'Ctrl+c': () => acts.copy(plates, markIds),
            'Ctrl+v': paste,
            'Ctrl+a': () =>
              setWanted([
                ...scene.plates.map((plate) => plate.id),
                ...scene.marks.map((mark) => markNodeId(mark.id)),
              ]),
          }
        : {}),
    }),
    // `paste` reads nothing that is not listed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [canEdit, chosen, acts, plates, markIds, scene],
  );
  useKeysHere(keys);
  const arranged = plan.arranged || [...plan.links.values()].some((link) => link.bends.length > 0);
  const [deviceId] = plates.length === 1 ? (plates[0]?.deviceIds ?? []) : [];
  const empty = plan.graph.nodes.length === 0 && scene.marks.length === 0;
  return (
    <Work>
      <WorkHead>
        <SheetPath sheet={sheet} />
        <div>
          {canEdit && (
            <>
              <AddMenu
                scopeId={sheet.scopeId}
                around={around}
                deviceId={deviceId ?? (selection?.kind === 'device' ? selection.id : null)}
                onInsert={(form, at, fields) => {
                  const id = acts.insert(form, at, fields);
                  if (id === null) return;
                  setWanted([markNodeId(id)]);
                  select({ kind: 'mark', id });
                }}
              />
              <Tool
                icon={LayoutGrid}
                word="Models"
                aria-pressed={palette}
                onPress={() => setPalette(!palette)}
              />
              <DialogTrigger isOpen={showOpen} onOpenChange={setShowOpen}>
                <Tool icon={Eye} word="Show" keycap="." />
                <Floating>
                  <ShowPanel sheet={sheet} />
                </Floating>
              </DialogTrigger>
              <Tool
                icon={AlignStartVertical}
                word="Tidy"
                isDisabled={!arranged}
                onPress={() => void commit(tidySheet(network, sheet))}
              />
            </>
          )}
          <DialogTrigger>
            <Tool icon={Printer} word="Print" />
            <Floating>
              <PrintPanel sheet={sheet} scene={scene} framesShown={frames} onFrames={setFrames} />
            </Floating>
          </DialogTrigger>
          <Tool
            icon={Rows3}
            word="Rows"
            keycap="="
            aria-pressed={stripOpen}
            onPress={() => setStripOpen(!stripOpen)}
          />
          {canEdit && (
            <Tool
              icon={Cable}
              word="Connect"
              keycap="C"
              tone="primary"
              onPress={() =>
                setDock({
                  form: 'connect',
                  aPortId: null,
                  aDeviceId: selection?.kind === 'device' ? selection.id : null,
                  bPortId: null,
                })
              }
            />
          )}
        </div>
      </WorkHead>
      <SheetReads sheet={sheet} />
      <Stage>
        {palette && <Palette />}
        <Board>
          {(pending || failed !== null) && (
            <Waiting role="status">
              {failed === null ? 'Drawing …' : `It could not be drawn: ${failed}`}
            </Waiting>
          )}
          {empty && plan.waiting.length + plan.away.length === 0 ? (
            <Empty title="Nothing to draw here yet">
              {sheet.picked
                ? 'No device is on this sheet any more.'
                : 'Devices with ports in this place appear here by themselves.'}
            </Empty>
          ) : (
            <SheetCanvas
              sheetId={sheet.id}
              scene={scene}
              fitTo={fitTo}
              groups={sheet.groups}
              canEdit={canEdit}
              lit={lit}
              litLink={litLink}
              heldLink={heldLink}
              linkActs={linkActs}
              wanted={wanted}
              onChosen={setChosen}
              onMoved={acts.keepMoved}
              onOpenPlate={openPlate}
              onPickPlate={pickPlate}
              onPickMark={(id) => select({ kind: 'mark', id })}
              onPickNothing={() => select(null)}
              onOpenMark={(id) => {
                const to = network.get('mark', id)?.linkSheetId ?? null;
                if (to !== null) go({ sheetId: to, selection: null });
              }}
              onOpenContainer={(id) =>
                openPlace(id, scene.containers.find((container) => container.id === id)?.sheetId ?? null)
              }
              onLink={(from, to) => {
                const device = (id: string): string | null =>
                  scene.plates.find((plate) => plate.id === id)?.deviceIds[0] ?? null;
                setDock({
                  form: 'connect',
                  aPortId: null,
                  aDeviceId: device(from),
                  bPortId: null,
                  bDeviceId: device(to),
                });
              }}
              onRename={acts.rename}
              onResize={acts.resize}
              onCorners={acts.corners}
              onDropModel={(modelId, at) => {
                const id = acts.dropModel(modelId, at);
                if (id !== null) select({ kind: 'device', id });
              }}
            >
              {pages !== null && <PageFrames pages={pages} size={sheet.page.size} />}
            </SheetCanvas>
          )}
          {canEdit && (
            <ChosenTools
              sheet={sheet}
              plates={plates}
              markIds={markIds}
              acts={acts}
              onDelete={() => setAsking('delete')}
              onGroup={(members) => {
                const ids = new Set(members);
                setWanted([
                  ...scene.plates
                    .filter((plate) => plate.subjects.some((id) => ids.has(id)))
                    .map((plate) => plate.id),
                  ...scene.marks.filter((mark) => ids.has(mark.id)).map((mark) => markNodeId(mark.id)),
                ]);
              }}
              onApart={() => {
                const set = addSheet(network, {
                  scopeId: sheet.scopeId,
                  deviceIds: plates.flatMap((plate) => plate.deviceIds),
                });
                if (commit(set).ok) go({ sheetId: set.sheetId, selection: null });
              }}
            />
          )}
          <Tray sheet={sheet} plan={plan} scene={scene} />
        </Board>
      </Stage>
      {asking === 'delete' && (
        <DeleteAsk
          sheet={sheet}
          plates={plates}
          markIds={markIds}
          acts={acts}
          onClose={() => setAsking(null)}
        />
      )}
      {asking === 'paste' && (
        <PasteAsk onPaste={() => setWanted(acts.pasteDevices())} onClose={() => setAsking(null)} />
      )}
      {scene.key.length > 0 && <KeyLine entries={scene.key} />}
      {stripOpen && <DataStrip scene={scene} />}
    </Work>
  );
}
