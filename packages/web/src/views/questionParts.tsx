import {
  columnTests,
  questionLimits,
  takesValue,
  type AskedFilter,
  type ColumnTest,
} from '@visograph/core/model';
import { X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { Choice, Picker } from '../kit/choice.tsx';
import { Button, Field } from '../kit/controls.tsx';

export const Lines = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
`;
export const Line = styled.div`
  display: flex;
  gap: 5px;
  align-items: flex-end;
  min-width: 0;
  > div {
    flex: 1;
    min-width: 0;
  }
`;
export const Bin = styled(Button)`
  flex: none;
  width: 26px;
  padding: 0;
  display: grid;
  place-items: center;
`;
export const testWords: Readonly<Record<ColumnTest, string>> = {
  is: 'is',
  'is not': 'is not',
  contains: 'contains',
  'does not contain': 'does not contain',
  'at least': 'at least, from',
  'at most': 'at most, until',
  'is empty': 'is empty',
  'is not empty': 'is filled',
};
/** With the item at a place replaced; without it where nothing stands for it. */
export const replaced = <T,>(items: readonly T[], at: number, next: T | null): T[] =>
  items.flatMap((item, place) => (place !== at ? [item] : next === null ? [] : [next]));

/** A column that can be asked of. */
export interface AskableColumn {
  id: string;
  text: string;
  detail?: string;
  numeric: boolean;
}

/** Which rows are listed: tests of columns, all of which hold. */
export function FilterLines({
  filters,
  columns: all,
  onChange,
}: {
  filters: readonly AskedFilter[];
  columns: readonly AskableColumn[];
  onChange: (filters: AskedFilter[]) => void;
}): ReactNode {
  return (
    <>
      <Lines>
        {filters.map((filter, at) => (
          <Lines key={at}>
            <Line>
              <div>
                <Picker
                  label={`Column of filter ${at + 1}`}
                  hideLabel
                  options={all}
                  value={filter.key}
                  onChange={(key) => key !== null && onChange(replaced(filters, at, { ...filter, key }))}
                />
              </div>
              <Bin
                aria-label={`Take out filter ${at + 1}`}
                onPress={() => onChange(replaced(filters, at, null))}
              >
                <X size={14} aria-hidden="true" />
              </Bin>
            </Line>
            <Line>
              <div>
                <Choice<ColumnTest>
                  label={`Test of filter ${at + 1}`}
                  hideLabel
                  value={filter.test}
                  options={columnTests.map((id) => ({ id, text: testWords[id] }))}
                  onChange={(test) => onChange(replaced(filters, at, { ...filter, test }))}
                />
              </div>
              {takesValue(filter.test) && (
                <Field
                  label={`Value of filter ${at + 1}`}
                  hideLabel
                  value={filter.value}
                  // One that was just taken in asks for its value.
                  autoFocus={filter.value === '' && at === filters.length - 1}
                  mono
                  width={130}
                  onChange={(value) =>
                    onChange(replaced(filters, at, { ...filter, value: value.slice(0, 200) }))
                  }
                />
              )}
            </Line>
          </Lines>
        ))}
      </Lines>
      {filters.length < questionLimits.filters && (
        <Add
          label="Filter by a column"
          options={all}
          onAdd={(key) =>
            onChange([
              ...filters,
              {
                ...{ key, value: '' },
                test: all.find(({ id }) => id === key)?.numeric === true ? 'at least' : 'contains',
              },
            ])
          }
        />
      )}
    </>
  );
}

/** Takes one more column into a part of the question; with `goesOn` the next can be typed at once. */
export function Add({
  label,
  options,
  goesOn = false,
  onAdd,
}: {
  label: string;
  options: readonly { id: string; text: string; detail?: string }[];
  goesOn?: boolean;
  onAdd: (key: string) => void;
}): ReactNode {
  const [taken, setTaken] = useState(0);
  return (
    <div style={{ marginTop: 6 }}>
      <Picker
        // It is empty again for the next one.
        key={taken}
        autoFocus={goesOn && taken > 0}
        label={label}
        hideLabel
        placeholder={label}
        options={options}
        value={null}
        onChange={(key) => {
          if (key === null) return;
          setTaken(taken + 1);
          onAdd(key);
        }}
      />
    </div>
  );
}
