import type { Sheet } from '@visograph/core/model';
import type { Scene } from '@visograph/core/sheets';
import {
  AlignStartVertical,
  Eye,
  LayoutGrid,
  ListOrdered,
  PanelRight,
  Printer,
  TextCursorInput,
} from 'lucide-react';
import type { ComponentProps, ReactNode } from 'react';
import { DialogTrigger } from 'react-aria-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useRecordShown } from '../data/recordShown.ts';
import { Floating } from '../kit/controls.tsx';
import { ClosedBy } from '../kit/panel/ClosedBy.tsx';
import { WorkHead } from '../kit/panel/panels.tsx';
import { Tool } from '../kit/Tool.tsx';
import { PrintPanel } from './printing/PrintPanel.tsx';
import { NumberPanel } from './draw/NumberPanel.tsx';
import { drawsOn } from './draw/useDrawing.ts';
import { SheetPath } from './SheetPath.tsx';
import { AddMenu } from './tools/AddMenu.tsx';
import { SheetReads } from './tools/SheetReads.tsx';
import { ShowPanel } from './tools/ShowPanel.tsx';

interface Props {
  sheet: Sheet;
  scene: Scene;
  /** What new marks are put around, and the one device that they are of. */
  around: ComponentProps<typeof AddMenu>['around'];
  deviceId: string | null;
  onInsert: ComponentProps<typeof AddMenu>['onInsert'];
  palette: boolean;
  onPalette: (open: boolean) => void;
  typed: boolean;
  onTyped: (open: boolean) => void;
  showOpen: boolean;
  onShowOpen: (open: boolean) => void;
  frames: boolean;
  onFrames: (shown: boolean) => void;
  arranged: boolean;
  onKeep: (() => void) | null;
  /** The ways to lay it out afresh. */
  tidy: ReactNode;
}

/** The head of a sheet: which it is, and its tools. */
export function SheetHead({
  sheet,
  scene,
  around,
  deviceId,
  onInsert,
  palette,
  onPalette,
  typed,
  onTyped,
  showOpen,
  onShowOpen,
  frames,
  onFrames,
  arranged,
  onKeep,
  tidy,
}: Props): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { selection, select } = useWhereabouts();
  const routers = [...new Set(scene.plates.flatMap((plate) => plate.deviceIds))].flatMap(
    (id) => network.get('device', id) ?? [],
  );
  const record = useRecordShown();
  /** Whether the record at the right is that of the sheet. */
  const ofSheet = record.shown && (selection === null || selection.kind === 'sheet');
  return (
    <WorkHead>
      <SheetPath sheet={sheet} />
      <SheetReads sheet={sheet} />
      <div>
        {canEdit && (
          <>
            <AddMenu
              scopeId={sheet.scopeId}
              around={around}
              deviceId={deviceId ?? (selection?.kind === 'device' ? selection.id : null)}
              onInsert={onInsert}
            />
            {drawsOn(sheet) && (
              <Tool
                icon={LayoutGrid}
                word="Models"
                aria-pressed={palette}
                keycap="M"
                onPress={() => onPalette(!palette)}
              />
            )}
            {sheet.projection === 'cabling' && (
              <Tool
                icon={TextCursorInput}
                word="As text"
                aria-pressed={typed}
                onPress={() => onTyped(!typed)}
              />
            )}
            {sheet.projection === 'routing' && (
              <DialogTrigger>
                <Tool icon={ListOrdered} word="Number" />
                <Floating>
                  <NumberPanel sheet={sheet} routers={routers} />
                </Floating>
              </DialogTrigger>
            )}
            <DialogTrigger isOpen={showOpen} onOpenChange={onShowOpen}>
              <Tool icon={Eye} word="Show" keycap="." />
              <Floating>
                <ClosedBy keyOf="." onClose={() => onShowOpen(false)}>
                  <ShowPanel sheet={sheet} />
                </ClosedBy>
              </Floating>
            </DialogTrigger>
            <DialogTrigger>
              <Tool icon={AlignStartVertical} word="Tidy" />
              <Floating>{tidy}</Floating>
            </DialogTrigger>
          </>
        )}
        <DialogTrigger>
          <Tool icon={Printer} word="Print" />
          <Floating>
            <PrintPanel
              sheet={sheet}
              scene={scene}
              framesShown={frames}
              onFrames={onFrames}
              arranged={arranged}
              onKeep={onKeep}
            />
          </Floating>
        </DialogTrigger>
        <Tool
          icon={PanelRight}
          word="Sheet"
          keycap={'\\'}
          aria-pressed={ofSheet}
          onPress={() => {
            if (ofSheet) return selection === null ? record.toggle() : select(null);
            select({ kind: 'sheet', id: sheet.id });
            if (record.manner === 'closed' || record.drawer) record.show();
          }}
        />
      </div>
    </WorkHead>
  );
}
