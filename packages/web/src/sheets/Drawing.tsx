import type { Sheet } from '@visograph/core/model';
import {
  addSheet,
  boxAround,
  pagesOf,
  type DrawingPlan,
  type Scene,
  type SceneLink,
  type SceneStub,
} from '@visograph/core/sheets';
import { diagramBox } from '@visograph/drawing';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { useKeysHere } from '../kit/useKeysHere.ts';
import { Empty, Work } from '../kit/panel/panels.tsx';
import { SheetHead } from './SheetHead.tsx';
import { Board, Stage, Waiting } from './stage.tsx';
import { useChosenOnSheet } from './surface/acts/useChosenOnSheet.ts';
import { useSheetLight } from './surface/acts/useSheetLight.ts';
import { useSheetWays } from './surface/acts/useSheetWays.ts';
import type { LinkActs } from './surface/LinkLayer.tsx';
import { PageFrames } from './surface/PageFrames.tsx';
import { SheetCanvas } from './surface/SheetCanvas.tsx';
import { markNodeId } from './surface/sheetNodes.tsx';
import { ChosenTools } from './tools/ChosenTools.tsx';
import { DataStrip } from './tools/DataStrip.tsx';
import { DeleteAsk } from './tools/DeleteAsk.tsx';
import { KeyLine } from './tools/KeyLine.tsx';
import { Palette } from './tools/Palette.tsx';
import { PasteAsk } from './tools/PasteAsk.tsx';
import { SheetReads } from './tools/SheetReads.tsx';
import { Tray } from './tools/Tray.tsx';
import { copied, useSheetActs } from './useSheetActs.ts';

interface DrawingProps {
  sheet: Sheet;
  plan: DrawingPlan;
  scene: Scene;
  pending: boolean;
  failed: string | null;
}

/** A sheet that is drawn: its head, the drawing with what can be done on it, and the rows behind it. */
export function Drawing({ sheet, plan, scene, pending, failed }: DrawingProps): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { go, select } = useWhereabouts();
  const { setDock, stripOpen } = useWorkspace();
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

  const { lit, litLink, heldLink } = useSheetLight(scene);
  const linkActs = useMemo<LinkActs>(
    () => ({
      choose: (link: SceneLink | SceneStub) => select({ kind: link.kind, id: link.cableIds[0] ?? '' }),
      slide: acts.slide,
      bend: acts.bend,
    }),
    [acts, select],
  );
  const { plates, markIds, around } = useChosenOnSheet(scene, chosen);

  const { openPlace, openPlate, pickPlate } = useSheetWays(acts);
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
      <SheetHead
        sheet={sheet}
        scene={scene}
        around={around}
        deviceId={deviceId ?? null}
        onInsert={(form, at, fields) => {
          const id = acts.insert(form, at, fields);
          if (id === null) return;
          setWanted([markNodeId(id)]);
          select({ kind: 'mark', id });
        }}
        palette={palette}
        onPalette={setPalette}
        showOpen={showOpen}
        onShowOpen={setShowOpen}
        frames={frames}
        onFrames={setFrames}
        arranged={arranged}
      />
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
