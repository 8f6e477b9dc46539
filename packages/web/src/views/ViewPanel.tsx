import { plainView, questionLimits, type View } from '@visograph/core/model';
import { findReport, keepView, removeView, sourceOf, viewColumns, viewsOf } from '@visograph/core/report';
import { X } from 'lucide-react';
import { useMemo, useState, type ReactNode } from 'react';
import { Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import { useDo } from '../data/useDo.ts';
import { useWhereabouts } from '../data/location.ts';
import { useProject } from '../data/project.tsx';
import { Picker } from '../kit/choice.tsx';
import { Button, Field } from '../kit/controls.tsx';
import type { GridColumn } from '../kit/grid/Grid.tsx';
import { OrderedList } from '../kit/OrderedList.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { useOwnViews } from './ownViews.ts';
import { Add, Bin, FilterLines, Line, Lines } from './questionParts.tsx';
import { viewText } from './useView.ts';

const Panel = styled(Dialog)`
  width: 316px;
  max-height: min(620px, 78vh);
  overflow: auto;
  padding: 4px 14px 16px;
  outline: none;
  h2 {
    margin: 12px 0 6px;
    font-size: 13px;
    font-weight: 600;
  }
`;
const Named = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 26px;
  gap: 5px;
  align-items: center;
  button:first-child {
    text-align: left;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  span {
    color: ${({ theme }) => theme.inkSoft};
  }
`;

interface Props {
  name: string;
  label: string;
  schedule: string | undefined;
  filter: string;
  columns: readonly GridColumn[];
  view: View;
  onChange: (fields: Partial<View>) => void;
}

/** What of a grid is looked at: its columns, rows, groups; views that are kept; and the way to a schedule. */
export function ViewPanel(props: Props): ReactNode {
  const { columns, view, onChange, label } = props;
  const labelOf = (key: string): string => columns.find((column) => column.key === key)?.label ?? key;
  const shown = viewColumns(columns, view);
  const all = useMemo(
    () => columns.map(({ key, label: text, numeric }) => ({ id: key, text, numeric: numeric === true })),
    [columns],
  );
  const without = (keys: readonly string[]) => all.filter(({ id }) => !keys.includes(id));
  const setColumns = (keys: readonly string[]): void =>
    onChange({ columns: keys.join() === columns.map(({ key }) => key).join() ? [] : [...keys] });
  const keys = shown.map(({ key }) => key);
  return (
    <Panel aria-label={`View of ${label}`}>
      <h2>Columns</h2>
      <OrderedList
        label="Columns"
        items={keys.map((id) => ({ id }))}
        textOf={({ id }) => labelOf(id)}
        onOrder={(next) => setColumns(next.map(({ id }) => id))}
      >
        {({ id }) => (
          <Line>
            <div>{labelOf(id)}</div>
            <Bin
              aria-label={`Leave out ${labelOf(id)}`}
              isDisabled={keys.length === 1}
              onPress={() => setColumns(keys.filter((key) => key !== id))}
            >
              <X size={14} aria-hidden="true" />
            </Bin>
          </Line>
        )}
      </OrderedList>
      {keys.length < Math.min(columns.length, questionLimits.columns) && (
        <Add
          label="Add a column"
          goesOn
          options={without(keys)}
          onAdd={(key) => setColumns([...keys, key])}
        />
      )}
      <h2>Rows where</h2>
      <FilterLines filters={view.filters} columns={all} onChange={(filters) => onChange({ filters })} />
      <h2>Groups</h2>
      <Picker
        label="Group by"
        hideLabel
        options={[{ id: '', text: 'no groups' }, ...all]}
        value={view.group ?? ''}
        onChange={(key) => onChange({ group: key === '' ? null : key })}
      />
      <h2>Views</h2>
      <Kept {...props} />
      <AsSchedule {...props} />
    </Panel>
  );
}

/** Views under names: for all who work in the project, or for oneself in this browser. */
function Kept({ name: grid, view, onChange }: Props): ReactNode {
  const { view: project, project: own, canEdit } = useProject();
  const act = useDo();
  const mine = useOwnViews(own.id, grid);
  const [name, setName] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const shared = viewsOf(project.network, grid);
  const keep = (forAll: boolean): void => {
    if (!forAll) {
      const refused = mine.keep(name, view);
      setWhy(refused);
      if (refused === null) setName('');
      return;
    }
    const attempt = keepView(project.network, grid, name, view);
    if (!attempt.ok) return setWhy(attempt.why);
    if (act(attempt)) setName('');
  };
  return (
    <Lines>
      {shared.map((one) => {
        const { id: _id, name: called, grid: _grid, ...fields } = one;
        return (
          <Named key={one.id}>
            <Button onPress={() => onChange(fields)}>{called}</Button>
            <span>for all</span>
            <Bin
              aria-label={`Delete the view ${called}`}
              isDisabled={!canEdit}
              onPress={() => void act(removeView(project.network, one))}
            >
              <X size={14} aria-hidden="true" />
            </Bin>
          </Named>
        );
      })}
      {mine.views.map((one) => (
        <Named key={one.name}>
          <Button onPress={() => onChange(one.view)}>{one.name}</Button>
          <span>mine</span>
          <Bin aria-label={`Delete my view ${one.name}`} onPress={() => mine.remove(one.name)}>
            <X size={14} aria-hidden="true" />
          </Bin>
        </Named>
      ))}
      {viewText(view) === null ? (
        <Hint>Choose columns, rows or groups: what is looked at then can be kept under a name.</Hint>
      ) : (
        <>
          <Field
            label="Keep this view as"
            value={name}
            error={why}
            onChange={(next) => {
              setName(next.slice(0, 80));
              setWhy(null);
            }}
          />
          <Line>
            <Button onPress={() => keep(false)}>Keep for me</Button>
            {canEdit && <Button onPress={() => keep(true)}>Keep for all</Button>}
            <Button onPress={() => onChange(plainView)}>As it comes</Button>
          </Line>
          <Hint>Views of one’s own stay in this browser.</Hint>
        </>
      )}
    </Lines>
  );
}

/** What is looked at as a question of a schedule: there it is kept, printed and put on sheets. */
function AsSchedule({ schedule, filter, columns, view }: Props): ReactNode {
  const { view: project, sync } = useProject();
  const { scopeId, go } = useWhereabouts();
  const report = schedule === undefined ? null : findReport(schedule);
  if (report === null) return null;
  const open = (): void => {
    const source = sourceOf(project.network, report.key, scopeId);
    if (source === null) return;
    const known = (key: string): boolean => source.byKey.has(key);
    const shown = viewColumns(columns, view).filter(({ key }) => known(key));
    const left = viewColumns(columns, view).filter(({ key }) => !known(key));
    const question = {
      ...(shown.length === 0
        ? {}
        : {
            columns: shown.map(({ key }) => ({
              ...{ key, title: null, total: null },
              width: view.widths[key] ?? null,
            })),
          }),
      filters: view.filters.filter(({ key }) => known(key)),
      groups: view.group !== null && known(view.group) ? [view.group] : [],
      order: view.order !== null && known(view.order.key) ? [view.order] : [],
    };
    go({ section: 'schedules', schedule: report.key, view: JSON.stringify(question), selection: null });
    const lost = [
      ...(left.length === 0
        ? []
        : [`${report.title} has no column ${left.map((one) => one.label).join(', ')}`]),
      ...(filter === ''
        ? []
        : [`the filter “${filter}” looks into all columns, and one of a schedule into one`]),
    ];
    if (lost.length > 0) sync.announce({ tone: 'ok', text: `Left out: ${lost.join('; ')}.` });
  };
  return (
    <>
      <h2>Schedule</h2>
      <Lines>
        <Button onPress={open}>Open as a schedule</Button>
        <Hint>There it gets totals and notes, is kept, printed, saved as a file and put on sheets.</Hint>
      </Lines>
    </>
  );
}
