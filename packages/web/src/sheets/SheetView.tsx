import type { Network, Sheet } from '@visograph/core/model';
import { addSheet } from '@visograph/core/sheets';
import { ReactFlowProvider } from '@xyflow/react';
import { useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useShown } from '../data/shown.ts';
import { useWhereabouts } from '../data/location.ts';
import { Button } from '../kit/controls.tsx';
import { Empty, Work, WorkHead } from '../kit/panel/panels.tsx';
import { Drawing } from './Drawing.tsx';
import { Board, Stage, Waiting } from './stage.tsx';
import { useProposal } from './useProposal.ts';
import { lockedAsIn, planFor, useScene } from './useScene.ts';

/** One sheet: the drawing, and below it the rows behind it. */
export function SheetView({ sheet }: { sheet: Sheet }): ReactNode {
  const { view, commit } = useProject();
  const [previewed, setPreviewed] = useState<Network | null>(null);
  const proposing = useProposal(view.network);
  const shown = useShown();
  const lookedAt = previewed ?? proposing.network;
  const wanted = useMemo(() => ({ network: lookedAt ?? shown, keeps: lookedAt === null }), [lookedAt, shown]);
  // Deferred as one: what is taken over is not drawn as it was before in between.
  const { network, keeps } = useDeferredValue(wanted);
  const current = network.get('sheet', sheet.id) ?? sheet;
  const plan = planFor(network, current);
  const drawnAs = useScene(plan, current, keeps);
  const { scene: drawn, failed } = drawnAs;
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
      <Drawing
        sheet={current}
        plan={plan}
        scene={scene}
        drawn={drawnAs}
        proposing={proposing}
        previewed={previewed}
        onPreview={setPreviewed}
      />
    </ReactFlowProvider>
  );
}
