import { grouped } from '@visograph/core/model';
import {
  answerOf,
  changeSchedule,
  editFact,
  keepSchedule,
  questionParts,
  removeSchedule,
  type Answer,
} from '@visograph/core/report';
import { useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { addressOf } from '../data/api.ts';
import { today } from '../data/today.ts';
import { useMeantQuery, useShown } from '../data/shown.ts';
import { useWhereabouts } from '../data/location.ts';
import { Button } from '../kit/controls.tsx';
import { Grid, type OwnOrder } from '../kit/grid/Grid.tsx';
import { Empty, Hint, Work, WorkHead } from '../kit/panel/panels.tsx';
import { answerColumns, answerRows, rowIdOf } from './answerRows.ts';
import { BeginPanel } from './BeginPanel.tsx';
import { ChartsView } from './ChartsView.tsx';
import { LabelsPanel } from './LabelsPanel.tsx';
import { KeepPanel } from './KeepPanel.tsx';
import { QuestionPanel } from './QuestionPanel.tsx';
import { chartsKey, ScheduleList } from './ScheduleList.tsx';
import { useQuestion, type Asked } from './useQuestion.ts';

const Halves = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;
const Main = styled.div`
  flex: 1;
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
`;
/** The question in words; each part of it opens where it is put. */
const InWords = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 4px;
  padding: 5px 10px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  > p {
    flex: 1 1 160px;
    min-width: 0;
    padding-left: 2px;
  }
  button {
    height: 24px;
    padding: 0 9px;
  }
`;
const Troubles = styled.ul`
  margin: 0;
  padding: 6px 12px;
  list-style: none;
  color: ${({ theme }) => theme.warn};
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  li {
    overflow-wrap: anywhere;
  }
`;
const Notes = styled.p`
  flex: none;
  max-height: 96px;
  overflow: auto;
  padding: 7px 12px;
  white-space: pre-wrap;
  border-top: 1px solid ${({ theme }) => theme.rule};
`;

type Asks = 'keep' | 'rename' | 'begin' | 'labels';

/** Heads of the grid that put the question's rows in order: up, down, as they come. */
const orderOf = ({ question, change }: Asked): OwnOrder => ({
  of: (key) => {
    const one = question.order[0]?.key === key ? question.order[0] : undefined;
    return one === undefined ? 'none' : one.descending ? 'descending' : 'ascending';
  },
  turn: (key) => {
    const [first, ...rest] = question.order;
    if (first?.key !== key)
      change({
        order: [{ key, descending: false }, ...question.order.filter((one) => one.key !== key)].slice(0, 6),
      });
    else change({ order: first.descending ? rest : [{ key, descending: true }, ...rest] });
  },
});

/** An answer as rows that are read and, where they are facts, typed into. */
function AnswerGrid({ asked, answer }: { asked: Asked; answer: Answer }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { selection, select } = useWhereabouts();
  const { question } = asked;
  const columns = useMemo(() => answerColumns(answer, question.numbered), [answer, question.numbered]);
  const rows = useMemo(() => answerRows(answer, question), [answer, question]);
  const order = useMemo(() => orderOf(asked), [asked]);
  const { kind } = answer;
  const selected = selection?.kind === kind ? selection.id : null;
  const selectedRow = useMemo(
    () => (selected === null ? null : (rows.find(({ id }) => rowIdOf(id) === selected)?.id ?? null)),
    [rows, selected],
  );
  const edit = (id: string, key: string, text: string): string | null => {
    const row = view.network.get(kind, rowIdOf(id));
    const fact = answer.source.byKey.get(key)?.fact ?? null;
    if (row === null || fact === null) return 'It is no longer there.';
    const attempt = editFact(view.network, kind, row, fact, text);
    if (!attempt.ok) return attempt.why;
    if (attempt.set.changes.length === 0) return null;
    const result = commit(attempt.set);
    return result.ok ? null : (result.problems[0]?.message ?? 'It cannot be kept.');
  };
  const filters = question.filters.length;
  return (
    <Grid
      label={asked.title}
      columns={columns}
      rows={rows}
      order={order}
      onWidth={(key, width) =>
        asked.change({
          columns: question.columns.map((column) => (column.key === key ? { ...column, width } : column)),
        })
      }
      selectedId={selectedRow}
      onSelect={(id) => {
        const row = rowIdOf(id);
        if (row !== 'group' && row !== 'all') select({ kind, id: row });
      }}
      onEdit={canEdit ? edit : undefined}
      empty={
        filters === 0 ? (
          <Empty title="Nothing to list here">Choose a wider scope in the path at the top.</Empty>
        ) : (
          <Empty title="No row passes the filters">
            {`There are ${grouped(answer.source.ids.length)} without them.`}
            <Button onPress={() => asked.change({ filters: [] })}>Take the filters out</Button>
          </Empty>
        )
      }
    />
  );
}

/** What can be done with a question that is asked otherwise than it is kept, or with a schedule of the project. */
function Keeping({ asked, onAsk }: { asked: Asked; onAsk: (what: Asks) => void }): ReactNode {
  const { view, canEdit, commit, sync } = useProject();
  const { schedule, changed, question, reset, open } = asked;
  if (!canEdit) return changed && <Button onPress={reset}>As it is kept</Button>;
  const change = (): void => {
    if (schedule === null) return;
    const attempt = changeSchedule(view.network, schedule, question);
    if (!attempt.ok) sync.announce({ tone: 'bad', text: attempt.why });
    else if (commit(attempt.set).ok) reset();
  };
  return (
    <>
      {changed && <Button onPress={reset}>As it is kept</Button>}
      {changed && schedule !== null && (
        <Button $tone="primary" onPress={change}>
          Keep the changes
        </Button>
      )}
      <Button onPress={() => onAsk('keep')}>
        {schedule === null ? 'Keep as schedule …' : 'Keep as another …'}
      </Button>
      {schedule !== null && !changed && (
        <>
          <Button onPress={() => onAsk('rename')}>Rename …</Button>
          <Button
            onPress={() => {
              const attempt = removeSchedule(view.network, schedule);
              if (!attempt.ok) sync.announce({ tone: 'bad', text: attempt.why });
              else if (commit(attempt.set).ok) open(schedule.of);
            }}
          >
            Delete
          </Button>
        </>
      )}
    </>
  );
}

/** Schedules, or the charts beside them: as the address says. */
export default function SchedulesSection(): ReactNode {
  const [search, setSearch] = useSearchParams();
  if (search.get('schedule') !== chartsKey) return <Schedules />;
  return (
    <Work>
      <WorkHead>
        <h1>Charts</h1>
      </WorkHead>
      <Halves>
        <ScheduleList
          chosen={chartsKey}
          onOpen={(schedule) =>
            setSearch((before) => {
              const next = new URLSearchParams(before);
              next.set('schedule', schedule);
              return next;
            })
          }
        />
        <ChartsView />
      </Halves>
    </Work>
  );
}

/** Each a question that is answered as it is looked at, changed beside its rows, kept under a name, saved as a file. */
function Schedules(): ReactNode {
  const { project, view, canEdit } = useProject();
  const shown = useShown();
  const meant = useMeantQuery();
  const { scopeId } = useWhereabouts();
  const asked = useQuestion();
  const [asks, setAsks] = useState<Asks | null>(null);
  const [putting, setPutting] = useState(false);
  const question = asked?.question;
  const wanted = useMemo(() => ({ network: shown, question, scopeId }), [shown, question, scopeId]);
  const late = useDeferredValue(wanted);
  const answer = useMemo(
    () => (late.question === undefined ? null : answerOf(late.network, late.question, late.scopeId, today())),
    [late],
  );
  if (asked === null || question === undefined || answer === null)
    return (
      <Work>
        <Empty title="There is no such schedule">
          It may have been deleted. Choose another.
          <Button onPress={() => window.history.back()}>Back</Button>
        </Empty>
      </Work>
    );
  const address = (format: string): string =>
    addressOf('GET /projects/:project/schedule', {
      params: { project: project.id },
      query: {
        ...meant,
        format,
        question: JSON.stringify(question),
        title: asked.title,
        on: today(),
        scope: scopeId ?? undefined,
      },
    });
  const troubles = [...(asked.trouble === null ? [] : [asked.trouble]), ...answer.problems];
  const words = questionParts(shown, question, scopeId)
    .map(({ text }) => text)
    .join(' · ');
  return (
    <Work>
      <WorkHead>
        <h1>{asked.title}</h1>
        <p>{`${grouped(answer.count)} ${answer.count === 1 ? 'row' : 'rows'}`}</p>
        <div>
          <Button onPress={() => setAsks('labels')}>Labels …</Button>
          {canEdit && <Button onPress={() => setAsks('begin')}>Begin one …</Button>}
          {(['pdf', 'xlsx', 'csv'] as const).map((format) => (
            <Button key={format} onPress={() => window.location.assign(address(format))}>
              {`Save ${format.toUpperCase()}`}
            </Button>
          ))}
        </div>
      </WorkHead>
      <Halves>
        {!putting && (
          <ScheduleList
            chosen={asked.schedule?.id ?? asked.report.key}
            onOpen={(schedule) => asked.open(schedule)}
          />
        )}
        <Main>
          <InWords>
            <p>
              <Hint as="span">{words}</Hint>
            </p>
            <Keeping asked={asked} onAsk={setAsks} />
            <Button aria-pressed={putting} onPress={() => setPutting((open) => !open)}>
              {putting ? 'Close the question' : 'Ask otherwise'}
            </Button>
          </InWords>
          {troubles.length > 0 && (
            <Troubles role="alert">
              {troubles.map((text) => (
                <li key={text}>{text}</li>
              ))}
            </Troubles>
          )}
          <AnswerGrid key={`${asked.schedule?.id ?? ''}${asked.report.key}`} asked={asked} answer={answer} />
          {question.notes !== null && <Notes>{question.notes}</Notes>}
        </Main>
        {putting && <QuestionPanel question={question} source={answer.source} onChange={asked.change} />}
      </Halves>
      {asks === 'labels' && <LabelsPanel onClose={() => setAsks(null)} />}
      {asks === 'begin' && (
        <BeginPanel
          onClose={() => setAsks(null)}
          onBegin={(report, changes) => {
            asked.open(report, changes);
            setPutting(true);
          }}
        />
      )}
      {asks === 'keep' && <Kept asked={asked} network={view.network} onClose={() => setAsks(null)} />}
      {asks === 'rename' && asked.schedule !== null && (
        <Renamed
          asked={asked}
          schedule={asked.schedule}
          network={view.network}
          onClose={() => setAsks(null)}
        />
      )}
    </Work>
  );
}

interface AskProps {
  asked: Asked;
  network: ReturnType<typeof useShown>;
  onClose: () => void;
}

function Kept({ asked, network, onClose }: AskProps): ReactNode {
  return (
    <KeepPanel
      title="Keep as schedule"
      action="Keep it"
      name=""
      attempt={(name) => keepSchedule(network, asked.question, name)}
      onKept={({ id }) => asked.open(id)}
      onClose={onClose}
    />
  );
}

function Renamed({
  asked,
  schedule,
  network,
  onClose,
}: AskProps & { schedule: NonNullable<Asked['schedule']> }): ReactNode {
  return (
    <KeepPanel
      title={`Rename ${schedule.name}`}
      action="Rename it"
      name={schedule.name}
      attempt={(name) => changeSchedule(network, schedule, { name })}
      onKept={() => asked.reset()}
      onClose={onClose}
    />
  );
}
