import {
  compareNames,
  placePath,
  questionLimits,
  totals,
  type AskedColumn,
  type Question,
  type Total,
} from '@visograph/core/model';
import type { Source } from '@visograph/core/report';
import { X } from 'lucide-react';
import { useMemo, type ReactNode } from 'react';
import { TextArea, TextField } from 'react-aria-components';
import { styled } from 'styled-components';
import { useShown } from '../data/shown.ts';
import { Choice, Picker } from '../kit/choice.tsx';
import { Button, control, Field, FieldLabel } from '../kit/controls.tsx';
import { OrderedList } from '../kit/OrderedList.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { Tick } from '../kit/Tick.tsx';
import { Add, Bin, FilterLines, Line, Lines, replaced } from '../views/questionParts.tsx';

const Frame = styled.aside`
  flex: none;
  width: 316px;
  min-height: 0;
  overflow: auto;
  padding: 4px 14px 18px;
  border-left: 1px solid ${({ theme }) => theme.rule};
  h2 {
    margin: 14px 0 6px;
    font-size: 13px;
    font-weight: 600;
  }
  textarea {
    ${control}
    height: 64px;
    padding: 5px 8px;
    resize: vertical;
  }
`;
const Asked = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 84px 26px;
  gap: 5px;
`;

const totalWords: Readonly<Record<Total | 'none', string>> = {
  none: 'no total',
  sum: 'sum',
  mean: 'mean',
  least: 'least',
  most: 'most',
  count: 'count',
};
const totalOptions = (['none', ...totals] as const).map((id) => ({ id, text: totalWords[id] }));

interface Props {
  question: Question;
  source: Source;
  onChange: (fields: Partial<Question>) => void;
}

/** Where a question is put: which columns, which rows, in what groups and order, what stands beneath. Each change is answered at once. */
export function QuestionPanel({ question, source, onChange }: Props): ReactNode {
  const network = useShown();
  const { columns, filters, groups, order } = question;
  const labelOf = (key: string): string => source.byKey.get(key)?.label ?? `${key} (is no more)`;
  const all = useMemo(
    () =>
      source.columns.map(({ key, label, unit, own }) => ({
        id: key,
        text: unit === undefined ? label : `${label} (${unit})`,
        ...(own ? {} : { detail: 'fact' }),
      })),
    [source],
  );
  const filterColumns = useMemo(
    () => all.map((one) => ({ ...one, numeric: source.byKey.get(one.id)?.numeric === true })),
    [all, source],
  );
  const without = (keys: readonly string[]) => all.filter(({ id }) => !keys.includes(id));
  const places = useMemo(
    () => [
      { id: '', text: 'where one looks' },
      ...[...network.all('place')]
        .map(({ id }) => ({ id, text: placePath(network, id) }))
        .sort((a, b) => compareNames(a.text, b.text)),
    ],
    [network],
  );
  const setColumn = (at: number, next: AskedColumn | null): void =>
    onChange({ columns: replaced(columns, at, next) });
  return (
    <Frame aria-label="Question">
      <h2>Place</h2>
      <Picker
        label="Place of its own"
        hideLabel
        options={places}
        value={question.scopeId ?? ''}
        onChange={(id) => onChange({ scopeId: id === '' ? null : id })}
      />
      <h2>Columns</h2>
      <OrderedList
        label="Columns"
        items={columns.map((column) => ({ id: column.key, column }))}
        textOf={({ column }) => column.title ?? labelOf(column.key)}
        onOrder={(next) => onChange({ columns: next.map(({ column }) => column) })}
      >
        {({ column }, at) => (
          <Asked>
            <Field
              label={`Title of ${labelOf(column.key)}`}
              hideLabel
              value={column.title ?? ''}
              placeholder={labelOf(column.key)}
              onChange={(title) => setColumn(at, { ...column, title: title.slice(0, 80) || null })}
            />
            <Choice<Total | 'none'>
              label={`Total of ${labelOf(column.key)}`}
              hideLabel
              value={column.total ?? 'none'}
              options={totalOptions}
              onChange={(total) => setColumn(at, { ...column, total: total === 'none' ? null : total })}
            />
            <Bin
              aria-label={`Leave out ${labelOf(column.key)}`}
              isDisabled={columns.length === 1}
              onPress={() => setColumn(at, null)}
            >
              <X size={14} aria-hidden="true" />
            </Bin>
          </Asked>
        )}
      </OrderedList>
      {columns.length < questionLimits.columns && (
        <Add
          label="Add a column"
          goesOn
          options={without(columns.map(({ key }) => key))}
          onAdd={(key) => onChange({ columns: [...columns, { key, title: null, width: null, total: null }] })}
        />
      )}
      <h2>Rows where</h2>
      <FilterLines
        filters={filters}
        columns={filterColumns}
        onChange={(next) => onChange({ filters: next })}
      />
      <Hint>Of dates, “today” and “today + 90” are values too.</Hint>
      <h2>Groups</h2>
      <OrderedList
        label="Groups"
        items={groups.map((key) => ({ id: key }))}
        textOf={({ id }) => labelOf(id)}
        onOrder={(next) => onChange({ groups: next.map(({ id }) => id) })}
      >
        {({ id }, at) => (
          <Line>
            <div>{labelOf(id)}</div>
            <Bin
              aria-label={`Group no more by ${labelOf(id)}`}
              onPress={() => onChange({ groups: replaced(groups, at, null) })}
            >
              <X size={14} aria-hidden="true" />
            </Bin>
          </Line>
        )}
      </OrderedList>
      {groups.length < questionLimits.groups && (
        <Add
          label="Group by a column"
          options={without(groups)}
          onAdd={(key) => onChange({ groups: [...groups, key] })}
        />
      )}
      <h2>Order</h2>
      <OrderedList
        label="Order"
        items={order.map((one) => ({ id: one.key, one }))}
        textOf={({ id }) => labelOf(id)}
        onOrder={(next) => onChange({ order: next.map(({ one }) => one) })}
      >
        {({ one }, at) => (
          <Line>
            <div>{labelOf(one.key)}</div>
            <Button
              aria-label={`${labelOf(one.key)}: ${one.descending ? 'downwards' : 'upwards'}. Turn it`}
              onPress={() =>
                onChange({ order: replaced(order, at, { ...one, descending: !one.descending }) })
              }
            >
              {one.descending ? '↓' : '↑'}
            </Button>
            <Bin
              aria-label={`Order no more by ${labelOf(one.key)}`}
              onPress={() => onChange({ order: replaced(order, at, null) })}
            >
              <X size={14} aria-hidden="true" />
            </Bin>
          </Line>
        )}
      </OrderedList>
      {order.length < questionLimits.order && (
        <Add
          label="Order by a column"
          options={without(order.map(({ key }) => key))}
          onAdd={(key) => onChange({ order: [...order, { key, descending: false }] })}
        />
      )}
      <h2>On the page</h2>
      <Lines>
        <Tick isSelected={question.numbered} onChange={(numbered) => onChange({ numbered })}>
          Rows are numbered
        </Tick>
        <Tick isSelected={question.blankRepeats} onChange={(blankRepeats) => onChange({ blankRepeats })}>
          Repeated values are left blank
        </Tick>
        <TextField
          value={question.notes ?? ''}
          onChange={(notes) => onChange({ notes: notes.slice(0, 4000) || null })}
        >
          <FieldLabel>Notes below the last row</FieldLabel>
          <TextArea />
        </TextField>
      </Lines>
    </Frame>
  );
}
