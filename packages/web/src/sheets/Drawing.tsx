import type { Network, Sheet } from '@visograph/core/model';
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
import { Work } from '../kit/panel/panels.tsx';
import { SheetHead } from './SheetHead.tsx';
import { useBeginning } from '../start/beginning.ts';
import { Palette } from './draw/Palette.tsx';
import { Blank } from './draw/Blank.tsx';
import { LinePanels } from './draw/LinePanels.tsx';
import { drawsOn, useDrawing } from './draw/useDrawing.ts';
import { TypedPanel } from './draw/TypedPanel.tsx';
import { FactsPanel } from './facts/FactsPanel.tsx';
import { factOfLine, hasFacts, useFacts } from './facts/useFacts.ts';
import { Board, Stage, Waiting } from './stage.tsx';
import { useChosenOnSheet } from './surface/acts/useChosenOnSheet.ts';
import { useSheetKeys } from './surface/acts/useSheetKeys.ts';
import { useSheetLight } from './surface/acts/useSheetLight.ts';
import { useSheetWays } from './surface/acts/useSheetWays.ts';
import type { LinkActs } from './surface/LinkLayer.tsx';
import { PageFrames } from './surface/PageFrames.tsx';
import { SheetCanvas } from './surface/SheetCanvas.tsx';
import { markNodeId } from './surface/sheetNodes.tsx';
import { BundleTools } from './tools/BundleTools.tsx';
import { ChosenTools } from './tools/ChosenTools.tsx';
import { DataStrip } from './tools/DataStrip.tsx';
import { ProposedTools } from './tools/ProposedTools.tsx';
import { TidyPanel } from './tools/TidyPanel.tsx';
import type { Proposing } from './useProposal.ts';
import type { Drawn } from './useScene.ts';
import { useTidying } from './useTidying.ts';
import { DeleteAsk } from './tools/DeleteAsk.tsx';
import { KeyLine } from './tools/KeyLine.tsx';
import { PasteAsk } from './tools/PasteAsk.tsx';
import { Tray } from './tools/Tray.tsx';
import { useSheetActs } from './useSheetActs.ts';

/** So much of the width the text covers that is typed. */
const coveredByText = 0.3;

interface DrawingProps {
  sheet: Sheet;
  plan: DrawingPlan;
  scene: Scene;
  drawn: Drawn;
  proposing: Proposing;
  /** A network to be drawn in place of the real one, while a text is typed. */
  onPreview: (network: Network | null) => void;
  previewed: Network | null;
}

/** A sheet that is drawn: its head, the drawing with what can be done on it, and the rows behind it. */
export function Drawing({
  sheet,
  plan,
  scene,
  drawn: { pending, failed, held, afresh },
  proposing: { proposal, propose },
  onPreview,
  previewed,
}: DrawingProps): ReactNode {
  const { view, commit, canEdit: mayEdit } = useProject();
  // What is typed or proposed and not yet taken over is only looked at.
  const canEdit = mayEdit && previewed === null && proposal === null;
  const { network } = view;
  const { go, select } = useWhereabouts();
  const { dock, stripOpen } = useWorkspace();
  const [showOpen, setShowOpen] = useState(false);
  const empty = plan.graph.nodes.length === 0 && scene.marks.length === 0;
  const draws = drawsOn(sheet);
  const beginning = useBeginning();
  const [palette, setPalette] = useState(() => empty && mayEdit && draws && beginning.typed !== true);
  const [typedOpen, setTypedOpen] = useState(beginning.typed === true);
  const [frames, setFrames] = useState(false);
  const pages = useMemo(
    () => (frames ? pagesOf(diagramBox(scene), sheet.page) : null),
    [frames, scene, sheet.page],
  );
  const fitTo = useMemo(
    () => (pages === null ? scene.box : boxAround(pages.frames.map(({ box }) => box))),
    [pages, scene.box],
  );
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [wanted, setWanted] = useState<readonly string[] | null>(null);
  const acts = useSheetActs(sheet, plan, scene);
  const tidying = useTidying(sheet, plan, scene, propose, afresh);

  const { lit, litLink, heldLink } = useSheetLight(scene);
  /** What a text that is being typed would add stands out. */
  const litNow = useMemo(
    () =>
      previewed === null
        ? lit
        : new Set(
            scene.plates
              .filter((plate) => plate.deviceIds.some((id) => network.get('device', id) === null))
              .map((plate) => plate.id),
          ),
    [previewed, lit, scene, network],
  );
  const { facts, openPlates, openLink, close: closeFacts } = useFacts(scene);
  const linkActs = useMemo<LinkActs>(
    () => ({
      choose: (link: SceneLink | SceneStub) => select({ kind: link.kind, id: link.cableIds[0] ?? '' }),
      facts: (link: SceneLink, part) => canEdit && hasFacts(link) && openLink(link, part),
      slide: acts.slide,
      bend: acts.bend,
    }),
    [acts, select, canEdit, openLink],
  );
  const { plates, markIds, around } = useChosenOnSheet(scene, chosen);
  const { stamping, lines, renaming, setRenaming, pullable, joinable } = useDrawing(sheet, scene, acts, {
    plates,
    canEdit,
    choose: setWanted,
  });
  const { openPlace, openPlate, pickPlate } = useSheetWays(acts);
  const { asking, setAsking, duplicating, setDuplicating, editFacts } = useSheetKeys(scene, acts, {
    ...{ chosen, plates, markIds, heldLink, canEdit },
    facts: { openPlates, openLink },
    choose: setWanted,
    onShow: () => setShowOpen((open) => !open),
    onPalette: mayEdit && draws ? () => setPalette((open) => !open) : null,
  });
  const arranged = plan.arranged || [...plan.links.values()].some((link) => link.bends.length > 0);
  const [deviceId] = plates.length === 1 ? (plates[0]?.deviceIds ?? []) : [];
  /** What is typed and only looked at is drawn too: there is nothing yet to read back of it. */
  const textOf = (plates.length > 0 ? plates : scene.plates)
    .flatMap((plate) => plate.deviceIds)
    .filter((id) => network.get('device', id) !== null);
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
        typed={typedOpen}
        onTyped={setTypedOpen}
        showOpen={showOpen}
        onShowOpen={setShowOpen}
        frames={frames}
        onFrames={setFrames}
        arranged={arranged}
        onKeep={held ? tidying.keep : null}
        tidy={
          <TidyPanel
            sheet={sheet}
            plan={plan}
            scene={scene}
            plates={plates}
            tidying={tidying}
            arranged={arranged}
            held={held}
          />
        }
      />
      <Stage>
        {palette && mayEdit && (
          <Palette
            stamp={stamping.stamp}
            onTake={stamping.take}
            onCarry={stamping.carry}
            onPut={stamping.putInMiddle}
            onClose={() => {
              stamping.take(null);
              setPalette(false);
            }}
          />
        )}
        <Board>
          {(pending || failed !== null) && (
            <Waiting role="status">
              {failed === null ? 'Drawing …' : `It could not be drawn: ${failed}`}
            </Waiting>
          )}
          {empty && plan.waiting.length + plan.away.length === 0 && (
            <Blank
              sheet={sheet}
              canEdit={mayEdit}
              onModels={() => setPalette(true)}
              onTyped={() => setTypedOpen(true)}
              open={palette || typedOpen}
            />
          )}
          <SheetCanvas
            sheetId={sheet.id}
            projection={sheet.projection}
            scene={scene}
            fitTo={fitTo}
            groups={sheet.groups}
            canEdit={canEdit}
            lit={litNow}
            litLink={litLink}
            heldLink={heldLink}
            linkActs={linkActs}
            wanted={wanted}
            followed={previewed === null ? null : coveredByText}
            onChosen={setChosen}
            onMoved={acts.keepMoved}
            onOpenPlate={openPlate}
            onRestPlate={(plate) => {
              setWanted([plate.id]);
              openPlates([plate.id]);
            }}
            onPlateLine={(plate, line) =>
              openPlates(
                [plate.id],
                factOfLine(network, network.get('device', plate.deviceIds[0] ?? null), plate.lines[line]),
              )
            }
            onPickPlate={(plate) => {
              lines.keep();
              closeFacts();
              pickPlate(plate);
            }}
            onPickMark={(id) => select({ kind: 'mark', id })}
            onPickNothing={() => {
              lines.keep();
              closeFacts();
              select(null);
            }}
            onOpenMark={(id) => {
              const to = network.get('mark', id)?.linkSheetId ?? null;
              if (to !== null) go({ sheetId: to, selection: null });
            }}
            onOpenContainer={(id) =>
              openPlace(id, scene.containers.find((container) => container.id === id)?.sheetId ?? null)
            }
            stamping={stamping}
            lines={lines}
            pullable={pullable}
            power={sheet.show.includes('power')}
            renaming={renaming}
            setRenaming={setRenaming}
            bundleTools={(bundle, bundles) =>
              plates.length + markIds.length === 0 && (
                <BundleTools
                  sheet={sheet}
                  scene={scene}
                  bundle={bundle}
                  open={bundles.isOpen(bundle)}
                  allOpen={bundles.allOpen}
                  canEdit={canEdit}
                  onToggle={() => bundles.toggle(bundle.id)}
                  onPick={(link) => {
                    bundles.choose(null);
                    linkActs.choose(link);
                  }}
                />
              )
            }
            onRename={acts.rename}
            onResize={acts.resize}
            onCorners={acts.corners}
          >
            {pages !== null && <PageFrames pages={pages} size={sheet.page.size} />}
            <LinePanels lines={lines} network={network} scene={scene} />
            {facts !== null && canEdit && <FactsPanel facts={facts} scene={scene} onClose={closeFacts} />}
          </SheetCanvas>
          {typedOpen && mayEdit && (
            <TypedPanel
              sheetId={sheet.id}
              deviceIds={textOf}
              placeId={sheet.scopeId}
              onPreview={onPreview}
              // Several are not chosen, as when they are stamped: a line out of one would come from all.
              onTaken={(ids) => setWanted(ids.length === 1 ? ids : [])}
              onClose={() => setTypedOpen(false)}
            />
          )}
          {proposal !== null && (
            <ProposedTools
              proposal={proposal}
              scene={scene}
              pending={pending}
              onTake={() => {
                commit(proposal.set);
                propose(null);
              }}
              onBack={() => propose(null)}
            />
          )}
          {canEdit && (
            <ChosenTools
              sheet={sheet}
              containers={scene.containers}
              plates={plates}
              markIds={markIds}
              acts={acts}
              onTidy={() => tidying.some(plates)}
              onJoin={joinable.length === 0 ? null : () => lines.askEnd(joinable)}
              onFacts={editFacts}
              duplicating={duplicating}
              onDuplicating={setDuplicating}
              onCopied={(ids) => {
                setDuplicating(false);
                setWanted(ids);
              }}
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
          <Tray sheet={sheet} plan={plan} scene={scene} acts={acts} />
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
      {dock === null && stripOpen && <DataStrip scene={scene} />}
      <KeyLine entries={scene.key} scene={scene} />
    </Work>
  );
}
