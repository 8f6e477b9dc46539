import {
  cablingScene,
  deleteSheet,
  facets,
  placeOnSheet,
  showFacets,
  tidySheet,
  type Facet,
  type Point,
  type Scene,
  type Sheet,
} from '@visograph/core';
import { measureText } from '@visograph/drawing';
import { ReactFlowProvider } from '@xyflow/react';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { Button as AriaButton, Checkbox, Dialog, DialogTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button, Floating, Keycap } from '../kit/controls.tsx';
import { Empty, Work, WorkHead } from '../kit/panels.tsx';
import { DataStrip } from './DataStrip.tsx';
import { KeyLine } from './KeyLine.tsx';
import { SheetCanvas } from './SheetCanvas.tsx';

const Stage = styled.div`
  position: relative;
  flex: 1;
  min-height: 160px;
`;
const Choices = styled(Dialog)`
  padding: 10px 14px;
  display: flex;
  flex-direction: column;
  gap: 7px;
  outline: none;
`;
const Tick = styled(Checkbox)`
  display: flex;
  gap: 8px;
  align-items: center;
  &::before {
    content: '';
    width: 14px;
    height: 14px;
    border: 1px solid ${({ theme }) => theme.inkSoft};
    border-radius: 2px;
    background: ${({ theme }) => theme.surface};
  }
  &[data-selected]::before {
    background: ${({ theme }) => theme.accent};
    border-color: ${({ theme }) => theme.accent};
    box-shadow: inset 0 0 0 3px ${({ theme }) => theme.surface};
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: 2px;
  }
`;

const facetNames: Record<Facet, string> = {
  models: 'Models',
  portNames: 'Port names',
  cableLabels: 'Cable labels',
  places: 'Rack and unit',
  power: 'Power',
  key: 'Key',
};

function useShowKey(open: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const typing =
        event.target instanceof HTMLElement && ['INPUT', 'TEXTAREA'].includes(event.target.tagName);
      if (event.key === '.' && !typing && !event.ctrlKey) open();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
}

/** One sheet: the drawing, and below it the rows behind it. */
export function SheetView({ sheet }: { sheet: Sheet }): ReactNode {
  const { view, commit, canEdit, project } = useProject();
  const { network } = view;
  const { go, selection } = useWhereabouts();
  const { setDock, stripOpen, setStripOpen } = useWorkspace();
  const [showOpen, setShowOpen] = useState(false);
  useShowKey(() => setShowOpen(true));
  const scene: Scene = useMemo(
    () => cablingScene(network, sheet, { measure: measureText }),
    [network, sheet],
  );

  const keepPositions = (moved: ReadonlyMap<string, Point>): void => {
    // The first plate put somewhere by hand fixes all others where they are: nothing moves by itself from then on.
    const first = network.countOf('sheetItemsBySheet', sheet.id) === 0;
    const positions = new Map<string, Point>();
    for (const plate of scene.plates) {
      const at = moved.get(plate.id) ?? (first ? plate.box : undefined);
      const deviceId = plate.deviceIds[0];
      if (at !== undefined && deviceId !== undefined) positions.set(deviceId, { x: at.x, y: at.y });
    }
    const names = scene.plates.filter((plate) => moved.has(plate.id)).map((plate) => plate.name);
    const set = placeOnSheet(network, sheet, positions);
    const what = names.length === 1 ? (names[0] ?? '') : `${names.length} plates`;
    commit({ ...set, sentence: `Moved ${what} on sheet ${sheet.name}` });
  };
  const arranged = network.countOf('sheetItemsBySheet', sheet.id) > 0;
  return (
    <Work>
      <WorkHead>
        <h1>{sheet.name}</h1>
        <div>
          <Button $tone="quiet" onPress={() => go({ sheetId: null, selection: null })}>
            All sheets
          </Button>
          {canEdit && (
            <DialogTrigger isOpen={showOpen} onOpenChange={setShowOpen}>
              <Button as={AriaButton}>
                Show<Keycap>.</Keycap>
              </Button>
              <Floating>
                <Choices aria-label="What the sheet shows">
                  {facets.map((facet) => (
                    <Tick
                      key={facet}
                      isSelected={sheet.show.includes(facet)}
                      onChange={(on) =>
                        void commit(
                          showFacets(
                            network,
                            sheet,
                            on ? [...sheet.show, facet] : sheet.show.filter((one) => one !== facet),
                          ),
                        )
                      }
                    >
                      {facetNames[facet]}
                    </Tick>
                  ))}
                  <Button
                    onPress={() => {
                      setShowOpen(false);
                      if (commit(deleteSheet(network, sheet)).ok) go({ sheetId: null, selection: null });
                    }}
                  >
                    Delete sheet
                  </Button>
                </Choices>
              </Floating>
            </DialogTrigger>
          )}
          {canEdit && (
            <Button isDisabled={!arranged} onPress={() => void commit(tidySheet(network, sheet))}>
              Lay out afresh
            </Button>
          )}
          <Button
            onPress={() => window.location.assign(`/api/v1/projects/${project.id}/sheets/${sheet.id}/svg`)}
          >
            Save SVG
          </Button>
          <Button aria-pressed={stripOpen} onPress={() => setStripOpen(!stripOpen)}>
            Rows<Keycap>=</Keycap>
          </Button>
          {canEdit && (
            <Button
              $tone="primary"
              onPress={() =>
                setDock({
                  form: 'connect',
                  aPortId: null,
                  aDeviceId: selection?.kind === 'device' ? selection.id : null,
                  bPortId: null,
                })
              }
            >
              Connect<Keycap>C</Keycap>
            </Button>
          )}
        </div>
      </WorkHead>
      <Stage>
        {scene.plates.length === 0 ? (
          <Empty title="Nothing to draw here yet">
            Devices with ports in this place appear here by themselves.
          </Empty>
        ) : (
          <ReactFlowProvider>
            <SheetCanvas scene={scene} canEdit={canEdit} onMoved={keepPositions} />
          </ReactFlowProvider>
        )}
      </Stage>
      {scene.key.length > 0 && <KeyLine entries={scene.key} />}
      {stripOpen && <DataStrip scene={scene} />}
    </Work>
  );
}
