import {
  grouped,
  groupings,
  inScope,
  ruleOf,
  rules,
  toldInOrder,
  type Grouping,
  type InOrder,
} from '@visograph/core/check';
import { scopeTitle } from '@visograph/core/cabling';
import { keysOf } from '@visograph/core/model';
import type { Table } from '@visograph/core/report';
import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useFindings } from '../data/findings.ts';
import { useWhereabouts } from '../data/location.ts';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Button } from '../kit/controls.tsx';
import { Empty, StateMark, Work, WorkHead } from '../kit/panel/panels.tsx';
import { Views } from '../kit/Views.tsx';
import { dayText } from '../people/dayText.ts';
import { PrintTable } from '../reports/PrintTable.tsx';
import { EndedWaivers } from './EndedWaivers.tsx';
import { FindingList } from './FindingList.tsx';
import { FindingView } from './FindingView.tsx';
import { CompletenessView } from './CompletenessView.tsx';
import { RulesView } from './RulesView.tsx';
import { SinceChoice } from './SinceChoice.tsx';
import { useFresh } from './useFresh.ts';
import { reviewViews, useReviewAddress } from './useReviewAddress.ts';

const Halves = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;
const ListArea = styled.div`
  flex: none;
  width: min(380px, 44%);
  min-height: 0;
  display: flex;
  flex-direction: column;
  border-right: 1px solid ${({ theme }) => theme.rule};
  > div {
    flex: 1;
    min-height: 0;
  }
`;

/** By what an address names a finding: its rule and the first thing it is about. */
const keyOf = ({ finding }: InOrder): string =>
  `${finding.rule}~${finding.subjects[0]?.id ?? ''}~${finding.subjects[1]?.id ?? ''}`;

/** The findings as a table for paper. */
function tableOf(findings: readonly InOrder[]): Table {
  return {
    columns: [
      { key: 'severity', label: 'Grade' },
      { key: 'rule', label: 'Rule' },
      { key: 'about', label: 'About' },
      { key: 'message', label: 'What is found' },
      { key: 'waiver', label: 'Meant' },
    ],
    rows: findings.map(({ finding, severity, told, waiver }) => ({
      severity: severity === 'bad' ? 'fault' : 'warning',
      rule: ruleOf(finding).title,
      about: told.about[0] ?? '',
      message: told.message,
      waiver: waiver === null ? '' : `${waiver.reason} (${waiver.by}, ${waiver.madeOn})`,
    })),
    ids: findings.map(keyOf),
  };
}

/** Everything that is wrong in the scope, gone through and mended: groups, one finding at a time, what is meant, the rules. */
export default function ReviewSection(): ReactNode {
  const { view: project } = useProject();
  const { scopeId, selection } = useWhereabouts();
  const judged = useFindings();
  const { view, by, since, finding: named, set } = useReviewAddress();
  const fresh = useFresh(view === 'open' ? since : null);
  const [printing, setPrinting] = useState(false);
  const printed = useCallback(() => setPrinting(false), []);
  const network = judged?.network ?? project.network;
  const listed = useMemo(() => {
    if (judged === null) return null;
    const all = view === 'meant' ? judged.review.meant : fresh.of(judged.review.open);
    return toldInOrder(network, inScope(network, all, scopeId));
  }, [judged, network, view, fresh, scopeId]);
  const groups = useMemo(() => grouped(network, listed ?? [], by), [network, listed, by]);
  const inRow = useMemo(() => groups.flatMap(({ items }) => items), [groups]);
  // What was chosen may be gone by now: then the next that is there is shown.
  const [lastAt, setLastAt] = useState(0);
  // Somebody came here from a thing: then it is the first about that.
  const at = inRow.findIndex((one) =>
    named === null ? one.finding.subjects.some(({ id }) => id === selection?.id) : keyOf(one) === named,
  );
  const chosen = inRow[at >= 0 ? at : Math.min(lastAt, inRow.length - 1)] ?? null;
  const choose = (key: string): void => {
    const place = inRow.findIndex((one) => keyOf(one) === key);
    const first = inRow[place]?.finding.subjects[0];
    setLastAt(Math.max(0, place));
    set({ finding: key, ...(first === undefined ? {} : { sel: `${first.kind}:${first.id}` }) });
  };
  const alike = useMemo(
    () => inRow.filter(({ finding }) => finding.rule === chosen?.finding.rule),
    [inRow, chosen],
  );
  const open = judged === null ? null : inScope(network, judged.review.open, scopeId).length;
  const meant = judged === null ? 0 : inScope(network, judged.review.meant, scopeId).length;
  const title = `Review · ${scopeTitle(network, scopeId)}`;
  const counted =
    open === null
      ? 'checking …'
      : `${open === 0 ? 'nothing' : open} to mend${meant === 0 ? '' : ` · ${meant} meant`}`;
  const ofFindings = view === 'open' || view === 'meant';
  const today = judged === null ? '' : dayText(judged.day);
  return (
    <Work>
      <WorkHead>
        <h1>Review</h1>
        <p>{counted}</p>
        <div>
          <Views
            views={reviewViews}
            shown={view}
            onShow={(next) => set({ view: next, finding: null, sel: null })}
          />
          {ofFindings && (
            <Choice<Grouping>
              label="Group by"
              hideLabel
              width={92}
              value={by}
              options={keysOf<Grouping>(groupings).map((id) => ({ id, text: groupings[id] }))}
              onChange={(next) => set({ by: next })}
            />
          )}
          {view === 'open' && <SinceChoice since={since} onChange={(next) => set({ since: next })} />}
          {ofFindings && listed !== null && <Button onPress={() => setPrinting(true)}>Print</Button>}
        </div>
      </WorkHead>
      {view === 'rules' && <RulesView judged={judged} />}
      {view === 'complete' && <CompletenessView />}
      {(view === 'open' || view === 'meant') && (
        <Halves>
          {(inRow.length > 0 || (view === 'meant' && (judged?.review.ended.length ?? 0) > 0)) && (
            <ListArea>
              <div>
                <FindingList
                  groups={groups}
                  keyOf={keyOf}
                  chosen={chosen === null ? null : keyOf(chosen)}
                  onChoose={choose}
                />
              </div>
              {view === 'meant' && judged !== null && (
                <EndedWaivers ended={judged.review.ended} network={network} />
              )}
            </ListArea>
          )}
          {chosen !== null && judged !== null ? (
            <FindingView
              key={keyOf(chosen)}
              one={chosen}
              judgedIn={network}
              day={judged.day}
              alike={alike}
              onDone={() => setLastAt(Math.max(0, inRow.indexOf(chosen)))}
            />
          ) : fresh.trouble !== null ? (
            <Empty title="It cannot be told what is new">{fresh.trouble}</Empty>
          ) : listed === null || fresh.pending ? (
            <Empty title="Checking …">{`${rules.length} rules are asked.`}</Empty>
          ) : view === 'meant' ? (
            <Empty title="Nothing is waived">
              What is found and meant to be so is kept here, with the reason and until when.
            </Empty>
          ) : since !== null ? (
            <Empty title={`Nothing new since r${since}`}>
              {open === 0 ? `Clean on ${today}.` : `${open ?? 0} were there before.`}
            </Empty>
          ) : (
            <Empty title={`Clean on ${today}`}>
              <StateMark state="ok" />
              {`${rules.length} rules found nothing to mend at r${project.revision}.`}
              <Button onPress={() => setPrinting(true)}>Print that</Button>
            </Empty>
          )}
        </Halves>
      )}
      {printing && listed !== null && (
        <PrintTable
          title={`${title} · ${today} · r${project.revision}${inRow.length === 0 ? ' · clean' : ''}`}
          table={tableOf(inRow)}
          onDone={printed}
        />
      )}
    </Work>
  );
}
