import { toldInOrder } from '@visograph/core/check';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useFindings } from '../data/findings.ts';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button } from '../kit/controls.tsx';
import { Hint, StateMark, Work, WorkHead } from '../kit/panel/panels.tsx';
import { useHistory, whenText } from '../history/useHistory.ts';
import { SheetCards } from '../sheets/list/SheetCards.tsx';
import { sheetsWithin, useSheetChanges } from '../sheets/list/useSheetList.ts';
import { Figures } from './Figures.tsx';
import { Lines, Part } from './parts.tsx';
import { useSince } from './useSince.ts';
import { WaysToBegin } from './WaysToBegin.tsx';

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 16px;
  padding: 16px;
`;
const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.55fr) minmax(280px, 1fr);
  align-items: start;
  gap: 16px;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
  > div {
    display: flex;
    flex-direction: column;
    gap: 16px;
  }
`;
const mostSheets = 6;
const mostFindings = 5;
const mostChanges = 8;

/** The worst of what the checks find, and the way to all of it. */
function TopFindings(): ReactNode {
  const judged = useFindings();
  const { select, go } = useWhereabouts();
  const told = useMemo(
    () => (judged === null ? null : toldInOrder(judged.network, judged.review.open).map((one) => one.told)),
    [judged],
  );
  const count = told?.length ?? 0;
  return (
    <Part
      title={told === null ? 'Findings' : `Findings · ${count}`}
      all={count > 0 && <Button onPress={() => go({ section: 'review' })}>All, and mend</Button>}
    >
      <Lines>
        {told === null && <li>Checking …</li>}
        {told !== null && count === 0 && (
          <li>
            <StateMark state="ok" />
            Nothing is found.
          </li>
        )}
        {told?.slice(0, mostFindings).map((one) => (
          <li key={`${one.rule} ${one.about.join(' ')} ${one.message}`}>
            <StateMark state={one.severity} />
            <span>
              <Button
                $tone="quiet"
                style={{ height: 20, padding: 0, fontWeight: 600 }}
                onPress={() => select(one.rows[0] ?? null)}
              >
                {one.about[0] ?? ''}
              </Button>
              <small>{one.message}</small>
            </span>
          </li>
        ))}
      </Lines>
    </Part>
  );
}

/** What others did since one was last there; the first time the newest there is. */
function SinceThen(): ReactNode {
  const { setHistoryOpen } = useWorkspace();
  const since = useSince();
  const history = useHistory(null);
  const first = since?.seen === null;
  const lines = (first ? history.data : since?.lines) ?? [];
  return (
    <Part
      title={first ? 'Newest changes' : 'Since you were last here'}
      all={<Button onPress={() => setHistoryOpen(true)}>History</Button>}
    >
      <Lines>
        {since === null && <li>…</li>}
        {since !== null && lines.length === 0 && (
          <li>{first ? 'Nothing was done yet.' : 'Nobody else changed anything.'}</li>
        )}
        {lines.slice(0, mostChanges).map((line) => (
          <li key={line.id}>
            <span>
              {line.sentence}
              <small>{`${whenText(line.at)} · ${line.author}`}</small>
            </span>
          </li>
        ))}
        {lines.length > mostChanges && <Hint>{`and ${lines.length - mostChanges} more`}</Hint>}
      </Lines>
    </Part>
  );
}

/** Where a project begins: what it is in figures, its sheets, what is found, what others did; while it is empty, the ways to begin. */
export default function StartSection(): ReactNode {
  const { project, view } = useProject();
  const { network } = view;
  const { go } = useWhereabouts();
  const changes = useSheetChanges();
  const sheets = useMemo(() => sheetsWithin(network, null), [network]);
  const empty = network.count('device') + network.count('place') + network.count('prefix') === 0;
  return (
    <Work>
      <WorkHead>
        <h1>{project.name}</h1>
        <p>{empty ? 'nothing in it yet' : ''}</p>
      </WorkHead>
      <Page>
        {empty ? (
          <>
            <WaysToBegin />
            <SinceThen />
          </>
        ) : (
          <>
            <Figures />
            <Columns>
              <div>
                <Part
                  title={sheets.length > mostSheets ? `Sheets · ${mostSheets} of ${sheets.length}` : 'Sheets'}
                  all={<Button onPress={() => go({ section: 'sheets', scopeId: null })}>All sheets</Button>}
                >
                  {sheets.length === 0 ? (
                    <Lines>
                      <li>No sheet yet: what there is is drawn by itself from there.</li>
                    </Lines>
                  ) : (
                    <SheetCards
                      sheets={sheets.slice(0, mostSheets)}
                      changes={changes}
                      orderable={false}
                      small
                      onOpen={(sheetId) => go({ sheetId, selection: null })}
                    />
                  )}
                </Part>
              </div>
              <div>
                <SinceThen />
                <TopFindings />
              </div>
            </Columns>
          </>
        )}
      </Page>
    </Work>
  );
}
