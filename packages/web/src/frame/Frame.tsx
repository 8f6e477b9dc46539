import { lazy, Suspense, useEffect, type ReactNode } from 'react';
import { Outlet } from 'react-router';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useRecordShown, type RecordShown } from '../data/recordShown.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { DockArea } from './DockArea.tsx';
import { Band } from './Band.tsx';
import { KeysPanel } from './KeysPanel.tsx';
import { Rail } from './Rail.tsx';
import { StatusLine } from './StatusLine.tsx';
import { useKeys } from './useKeys.ts';
import { narrowQuery } from '../kit/useNarrow.ts';
import { useSeen } from '../start/useSince.ts';
import { Record } from '../record/Record.tsx';
import { SignInForm } from '../people/SignIn.tsx';
import { Boundary } from '../kit/panel/Boundary.tsx';
import { Button } from '../kit/controls.tsx';
import { Empty } from '../kit/panel/panels.tsx';

/**
 * Fetched when it is asked for. Docks and records are not: what is typed right after a key that opens one must find it
 * there.
 */
const HistoryPanel = lazy(() =>
  import('../history/HistoryPanel.tsx').then((file) => ({ default: file.HistoryPanel })),
);

const Grid = styled.div<{ $record: boolean }>`
  height: 100%;
  display: grid;
  grid-template: 44px minmax(0, 1fr) 24px / 96px minmax(0, 1fr) ${({ $record }) => ($record ? '340px' : '0')};
  grid-template-areas: 'band band band' 'rail work side' 'foot foot foot';
  @media (max-width: 1100px) {
    grid-template-columns: 84px minmax(0, 1fr) ${({ $record }) => ($record ? '290px' : '0')};
  }
  @media ${narrowQuery} {
    grid-template: 44px minmax(0, 1fr) 24px / minmax(0, 1fr);
    grid-template-areas: 'band' 'work' 'foot';
  }
`;
const WorkArea = styled.main`
  grid-area: work;
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  background: ${({ theme }) => theme.ground};
`;
const SideArea = styled.aside`
  grid-area: side;
  min-width: 0;
  overflow: auto;
  border-left: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
  @media ${narrowQuery} {
    position: fixed;
    inset: 44px 0 24px auto;
    width: min(340px, 88vw);
    z-index: 20;
    box-shadow: -6px 0 20px rgb(0 0 0 / 16%);
  }
`;
const Message = styled.div<{ $tone: 'bad' | 'ok' }>`
  position: fixed;
  left: 50%;
  /* Below the head of the work area: never over the dock and its buttons. */
  top: 88px;
  transform: translateX(-50%);
  max-width: 640px;
  z-index: 40;
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 9px 9px 9px 14px;
  border-radius: 3px;
  background: ${({ theme }) => theme.ink};
  color: ${({ theme }) => theme.ground};
  border-left: 6px solid ${({ theme, $tone }) => theme[$tone]};
  box-shadow: 0 6px 20px rgb(0 0 0 / 22%);
`;
const Veil = styled.div`
  position: fixed;
  inset: 0;
  display: grid;
  place-items: center;
  background: rgb(10 14 20 / 45%);
  z-index: 50;
`;

/** What went well is told for so long; what did not stays until it is closed. */
const okForMs = 7000;

function NoticeBar(): ReactNode {
  const { sync, view } = useProject();
  const { notice } = view;
  useEffect(() => {
    if (notice?.tone !== 'ok') return undefined;
    const gone = setTimeout(() => sync.dismiss(), okForMs);
    return () => clearTimeout(gone);
  }, [notice, sync]);
  if (view.notice === null) return null;
  return (
    <Message role={view.notice.tone === 'bad' ? 'alert' : 'status'} $tone={view.notice.tone}>
      <span>{view.notice.text}</span>
      <Button onPress={() => sync.dismiss()}>Close</Button>
    </Message>
  );
}

const Bar = styled.div`
  position: sticky;
  top: 0;
  z-index: 2;
  height: 0;
  display: flex;
  justify-content: flex-end;
  gap: 2px;
  padding-right: 6px;
  > button {
    height: 22px;
    margin-top: 5px;
    padding: 0 6px;
    font-size: 12px;
    background: ${({ theme }) => theme.surface};
  }
`;

/** Beside a drawing or a schedule: whether the record stays there, and away with it. */
function RecordBar({ record }: { record: RecordShown }): ReactNode {
  const stays = record.manner === 'stays';
  return (
    <Bar role="group" aria-label="How the record stands">
      {!record.drawer && (
        <Button $tone="quiet" aria-pressed={stays} onPress={() => record.setStays(!stays)}>
          {stays ? 'Stays' : 'Keep here'}
        </Button>
      )}
      <Button $tone="quiet" aria-label="Close the record" onPress={record.toggle}>
        ×
      </Button>
    </Bar>
  );
}

/** The whole window: band, rail, work area with its dock, record, status line. */
export function Frame(): ReactNode {
  const { sync, view, plan } = useProject();
  const { historyOpen } = useWorkspace();
  const record = useRecordShown();
  const { section, selection, scopeId } = useWhereabouts();
  useKeys();
  useSeen();
  const side = record.shown || historyOpen;
  return (
    <Grid $record={side}>
      <Band />
      <Rail />
      <WorkArea>
        {view.failed !== null ? (
          <Empty title={plan === null ? 'The project cannot be opened' : 'The plan cannot be opened'}>
            {view.failed}
          </Empty>
        ) : view.save === 'loading' ? null : (
          <Suspense fallback={null}>
            <Boundary key={section} name="This section">
              <Outlet />
            </Boundary>
            <Boundary name="The dock">
              <DockArea />
            </Boundary>
          </Suspense>
        )}
      </WorkArea>
      {side && (
        // Each record is seen from its top, wherever the one before was scrolled to.
        <SideArea
          key={historyOpen ? 'history' : (selection?.id ?? scopeId)}
          aria-label={historyOpen ? 'History' : 'Record'}
        >
          <Boundary name="The record">
            <Suspense fallback={null}>
              {historyOpen ? (
                <HistoryPanel />
              ) : (
                <>
                  {record.comesAndGoes && <RecordBar record={record} />}
                  <Record />
                </>
              )}
            </Suspense>
          </Boundary>
        </SideArea>
      )}
      <StatusLine />
      <NoticeBar />
      <KeysPanel />
      {view.save === 'signedOut' && (
        <Veil>
          <SignInForm heading="Your session has ended" onDone={() => void sync.resume()} />
        </Veil>
      )}
    </Grid>
  );
}
