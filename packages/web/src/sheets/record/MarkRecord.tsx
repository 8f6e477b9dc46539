import { byName, factSorts, markTones, type Mark, type MarkTone, type Sheet } from '@visograph/core/model';
import {
  changeMark,
  hiddenOn,
  orderMarks,
  removeMarks,
  rowsWithin,
  tableHeight,
} from '@visograph/core/sheets';
import { useRef, useState, type ReactNode } from 'react';
import { Label, Slider, SliderThumb, SliderTrack, TextArea, TextField } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { Choice, Picker } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { Card, Head } from '../../record/parts.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';

const Writing = styled(TextField)`
  display: flex;
  flex-direction: column;
  gap: 4px;
  textarea {
    font: inherit;
    min-height: 132px;
    padding: 6px 8px;
    resize: vertical;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
    background: ${({ theme }) => theme.surface};
    color: ${({ theme }) => theme.ink};
  }
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: flex-end;
`;
const Stack = styled.div`
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 8px;
`;
const Strength = styled(Slider)`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 4px 10px;
  align-items: center;
  .track {
    position: relative;
    height: 22px;
    &::before {
      content: '';
      position: absolute;
      inset: 10px 0;
      background: ${({ theme }) => theme.rule};
    }
  }
  .thumb {
    top: 50%;
    width: 14px;
    height: 14px;
    border-radius: 7px;
    background: ${({ theme }) => theme.accent};
    &[data-focus-visible] {
      outline: 2px solid ${({ theme }) => theme.accent};
      outline-offset: 2px;
    }
  }
`;

const toneNames: Record<MarkTone, string> = {
  plain: 'Ink',
  accent: 'Accent',
  ok: 'Good',
  warn: 'Caution',
  bad: 'Alarm',
  soft: 'Soft',
};

/** Wraps what is chosen in the writing, or begins a line with a sign. */
function useWriting(text: string, setText: (text: string) => void) {
  const area = useRef<HTMLTextAreaElement>(null);
  const around = (sign: string): void => {
    const [from, to] = [area.current?.selectionStart ?? 0, area.current?.selectionEnd ?? 0];
    setText(`${text.slice(0, from)}${sign}${text.slice(from, to) || 'text'}${sign}${text.slice(to)}`);
    area.current?.focus();
  };
  const before = (sign: string): void => {
    const from = text.lastIndexOf('\n', Math.max(0, (area.current?.selectionStart ?? 0) - 1)) + 1;
    setText(`${text.slice(0, from)}${sign}${text.slice(from)}`);
    area.current?.focus();
  };
  return { area, around, before };
}

/** How high it can be, in rows, the present height among them: it is dragged too. */
const rowChoices = (now: number) =>
  [...new Set([10, 15, 20, 30, 40, 60, 100, now])]
    .sort((a, b) => a - b)
    .map((rows) => ({ id: String(rows), text: String(rows) }));

/** Which schedule stands in a table, and what of it this sheet does not tell. */
function TableCard({ mark, sheet }: { mark: Mark; sheet: Sheet }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { go } = useWhereabouts();
  const schedules = [...view.network.all('schedule')].sort(byName);
  const hidden = hiddenOn(sheet).map((sort) => factSorts[sort].title);
  return (
    <Card title="Rows">
      <Stack>
        {canEdit && (
          <Picker
            label="Schedule"
            options={schedules.map(({ id, name }) => ({ id, text: name }))}
            value={mark.scheduleId}
            onChange={(scheduleId) =>
              scheduleId !== null && void commit(changeMark(sheet, mark, { scheduleId }))
            }
          />
        )}
        {canEdit && (
          <Choice
            label="Height in rows"
            width={140}
            value={String(rowsWithin(mark.height))}
            options={rowChoices(rowsWithin(mark.height))}
            onChange={(rows) => void commit(changeMark(sheet, mark, { height: tableHeight(Number(rows)) }))}
          />
        )}
        <Button
          onPress={() => go({ section: 'schedules', schedule: mark.scheduleId ?? '', selection: null })}
        >
          Open the schedule
        </Button>
        <Hint>
          Rows beyond its height stand beside them. It lists what the place of the sheet holds, unless the
          schedule has a place of its own.
        </Hint>
        {hidden.length > 0 && (
          <Hint>{`Not told, since it is switched off on this sheet: ${hidden.join('; ')}. Choose it under Show.`}</Hint>
        )}
      </Stack>
    </Card>
  );
}

/** The record of a note, shape, line or picture on a sheet. */
export function MarkRecord({ mark }: { mark: Mark }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const [text, setText] = useState(mark.text);
  const [from, setFrom] = useState(mark.text);
  if (from !== mark.text) {
    setFrom(mark.text);
    setText(mark.text);
  }
  const { area, around, before } = useWriting(text, setText);
  const sheet = network.get('sheet', mark.sheetId);
  if (sheet === null) return null;
  const set = (fields: Partial<Mark>): void => void commit(changeMark(sheet, mark, fields));
  const written = !['line', 'arrow', 'dimension', 'schedule'].includes(mark.form);
  const racks = [...network.all('rack')].sort(byName).map((rack) => ({ id: rack.id, text: rack.name }));
  const sheets = [...network.all('sheet')]
    .filter((one) => one.id !== sheet.id)
    .sort(byName)
    .map((one) => ({ id: one.id, text: one.name }));
  return (
    <>
      <Head>
        <h2>{`${mark.form.slice(0, 1).toUpperCase()}${mark.form.slice(1)}`}</h2>
        <p>{`on ${sheet.name}`}</p>
        {canEdit && (
          <div>
            <Button onPress={() => void commit(orderMarks(network, sheet, [mark], 'front'))}>
              To the front
            </Button>
            <Button onPress={() => void commit(orderMarks(network, sheet, [mark], 'back'))}>
              To the back
            </Button>
            <Button
              onPress={() => {
                if (commit(removeMarks(sheet, [mark])).ok) select(null);
              }}
            >
              Delete
            </Button>
          </div>
        )}
      </Head>
      {written && (
        <Card title="Text">
          {mark.form !== 'enclosure' && canEdit && (
            <Line>
              <Button onPress={() => around('**')} aria-label="Bold">
                <strong>B</strong>
              </Button>
              <Button onPress={() => around('`')}>Code</Button>
              <Button onPress={() => before('# ')}>Heading</Button>
              <Button onPress={() => before('- ')}>List</Button>
            </Line>
          )}
          <Writing
            value={text}
            onChange={setText}
            isReadOnly={!canEdit}
            onBlur={() => text !== mark.text && set({ text })}
            aria-label="Text"
          >
            <TextArea ref={area} />
          </Writing>
          {mark.form !== 'enclosure' && (
            <Hint>Markdown: # heading, - list, **bold**, `code`, [text](address).</Hint>
          )}
        </Card>
      )}
      {mark.form === 'schedule' && <TableCard mark={mark} sheet={sheet} />}
      {canEdit && (
        <Card title="Look">
          <Line>
            <Choice
              label="Colour"
              width={110}
              value={mark.tone}
              options={markTones.map((tone) => ({ id: tone, text: toneNames[tone] }))}
              onChange={(tone) => set({ tone })}
            />
            <Tick isSelected={mark.filled} onChange={(filled) => set({ filled })}>
              Filled
            </Tick>
            <Tick isSelected={mark.locked} onChange={(locked) => set({ locked })}>
              Locked
            </Tick>
          </Line>
          <Strength
            value={Math.round(mark.opacity * 100)}
            minValue={5}
            maxValue={100}
            step={5}
            onChangeEnd={(value) =>
              set({ opacity: (Array.isArray(value) ? (value[0] ?? 100) : value) / 100 })
            }
          >
            <Label>Opacity</Label>
            <SliderTrack className="track">
              <SliderThumb className="thumb" />
            </SliderTrack>
          </Strength>
        </Card>
      )}
      {canEdit && (
        <Card title="Leads to">
          {mark.form === 'callout' && (
            <Picker
              label="Device it points at"
              value={mark.deviceId}
              options={[...network.all('device')].sort(byName).map(({ id, name }) => ({ id, text: name }))}
              onChange={(deviceId) => set({ deviceId })}
            />
          )}
          {mark.form === 'dimension' && (
            <Line>
              <Picker
                label="From rack"
                width={140}
                value={mark.aRackId}
                options={racks}
                onChange={(aRackId) => aRackId !== null && set({ aRackId })}
              />
              <Picker
                label="To rack"
                width={140}
                value={mark.bRackId}
                options={racks}
                onChange={(bRackId) => bRackId !== null && set({ bRackId })}
              />
            </Line>
          )}
          <Picker
            label="Sheet"
            value={mark.linkSheetId}
            options={sheets}
            onChange={(linkSheetId) => set({ linkSheetId })}
            placeholder="None: double-click does nothing"
          />
          {mark.linkSheetId !== null && (
            <Button onPress={() => set({ linkSheetId: null })}>Lead nowhere</Button>
          )}
        </Card>
      )}
      <RowHistory rowId={mark.id} />
    </>
  );
}
