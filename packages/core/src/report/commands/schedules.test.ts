import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { removal } from '../../change/removal.ts';
import { readExchange } from '../../exchange/read.ts';
import { writeExchange } from '../../exchange/write.ts';
import { judged, type Attempt } from '../../commands/attempt.ts';
import type { Question } from '../../model/kinds/reports/schedule.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { Network } from '../../model/network/network.ts';
import { deviceNamed, networkOf, rackNamed } from '../../testing/testNetwork.ts';
import { answerOf } from '../question/answer.ts';
import { builtInQuestion, questionOf, scheduleNamed, schedulesOf } from '../question/builtIn.ts';
import { sourceOf } from '../question/source.ts';
import { findReport } from '../registry.ts';
import { editFact } from './editFact.ts';
import { changeSchedule, keepSchedule, removeSchedule } from './schedules.ts';

const start = networkOf({
  places: [{ path: 'Quay', kind: 'site' }],
  racks: [{ name: 'R1', place: 'Quay', units: 42 }],
  devices: [
    { name: 'sw-1', role: 'SW', place: 'Quay', serial: 'A-7', extra: { Zone: 'north' } },
    { name: 'sw-2', role: 'SW' },
  ],
});
const question: Question = {
  of: 'devices',
  scopeId: [...start.all('place')][0]?.id ?? null,
  columns: [{ key: 'name', title: 'Switch', width: 140, total: 'count' }],
  filters: [{ key: 'role', test: 'is', value: 'switch' }],
  groups: ['place', 'place'],
  order: [{ key: 'name', descending: true }],
  numbered: true,
  blankRepeats: true,
  notes: 'For the harbour master.',
};
const after = (network: Network, attempt: Attempt): Network => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error(JSON.stringify(applied.problems));
  return applied.network;
};
const why = (attempt: Attempt): string => (attempt.ok ? `done: ${attempt.set.sentence}` : attempt.why);

describe('schedules that are kept', () => {
  const kept = after(start, keepSchedule(start, question, ' Switches '));

  test('kept under its name, tidied; found by name, changed, renamed and deleted', () => {
    const schedule = scheduleNamed(kept, 'SWITCHES');
    if (schedule === null) throw new Error('Switches');
    expect(questionOf(schedule)).toEqual({ ...question, groups: ['place'] });
    const changed = changeSchedule(kept, schedule, { numbered: false });
    expect(changed).toMatchObject({ ok: true, set: { sentence: 'Changed the schedule Switches' } });
    expect(scheduleNamed(after(kept, changed), 'Switches')?.numbered).toBe(false);
    const renamed = after(kept, changeSchedule(kept, schedule, { name: 'Access' }));
    expect(schedulesOf(renamed).map(({ name }) => name)).toEqual(['Access']);
    expect(schedulesOf(after(kept, removeSchedule(kept, schedule)))).toEqual([]);
  });

  test.each([
    ['without a name', { ...question }, '  ', 'The schedule has no name. Give it one.'],
    [
      'of nothing that is there',
      { ...question, of: 'colours' },
      'x',
      'There is no built-in schedule “colours”',
    ],
    ['without a column', { ...question, columns: [] }, 'x', 'at least one column'],
    ['under a name that is taken', question, 'switches', 'switches'],
    [
      'with a title that is too long',
      { ...question, columns: [{ key: 'name', title: 'x'.repeat(81), width: null, total: null }] },
      'x',
      '80 characters',
    ],
  ])('%s: refused with the reason', (_what, asked, name, reason) => {
    expect(why(keepSchedule(kept, asked, name))).toContain(reason);
  });

  test('its place deleted, it lists what one looks at', () => {
    const quay = [...kept.all('place')].find(({ name }) => name === 'Quay')?.id ?? '';
    const bare = networkOf({ places: [{ path: 'Quay', kind: 'site' }] });
    const place = [...bare.all('place')][0];
    const listed = after(bare, keepSchedule(bare, { ...question, scopeId: place?.id ?? null }, 'Switches'));
    expect(scheduleNamed(listed, 'Switches')?.scopeId).toBe(place?.id);
    const { changes } = removal(listed, [{ kind: 'place', id: place?.id ?? '' }]);
    expect(scheduleNamed(after(listed, judged(listed, changes, '')), 'Switches')?.scopeId).toBeNull();
    expect(kept.find('schedulesByPlace', quay)).toHaveLength(1);
  });

  test('goes out in a file and comes back as it was, the place by its path', () => {
    const file = writeExchange(kept);
    expect(JSON.stringify(file)).toContain('"scope":"Quay"');
    const read = readExchange(
      Network.of({ project: [newProject('Other')] }),
      JSON.parse(JSON.stringify(file)),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(writeExchange(read.network)).toEqual(file);
    const again = readExchange(read.network, JSON.parse(JSON.stringify(file)));
    expect(again).toMatchObject({ ok: true, changes: [] });
  });

  test.each([
    [{ of: 'devices', columns: [] }, 'at least one'],
    [{ of: 'devices', columns: [{ key: 'name', title: null, width: 5, total: null }] }, '30'],
    [{ of: 'devices', columns: question.columns, scope: 'Nowhere' }, 'There is no place “Nowhere”'],
  ])('a file with %j is refused with the field', (fields, reason) => {
    const file = { format: 'visograph-exchange', version: 1, schedules: [{ name: 'Bad', ...fields }] };
    const read = readExchange(Network.of({ project: [newProject('Other')] }), file);
    expect(read.ok ? 'read' : JSON.stringify(read.problems)).toContain(reason);
  });

  test('a built-in one as a question is answered like any other', () => {
    const report = findReport('devices');
    if (report === null) throw new Error('devices');
    expect(answerOf(start, builtInQuestion(start, report), null, '2026-11-30')?.count).toBe(2);
  });
});

describe('facts typed into a schedule', () => {
  const edit = (key: string, text: string, of = 'devices', name = 'sw-1'): Attempt => {
    const source = sourceOf(start, of, null);
    const fact = source?.byKey.get(key)?.fact ?? null;
    if (source === null || fact === null) throw new Error(`${key} cannot be typed in`);
    return editFact(start, source.kind, deviceNamed(start, name), fact, text);
  };
  const now = (attempt: Attempt) => deviceNamed(after(start, attempt), 'sw-1');

  test('a text, a figure with a comma, a word whatever its case, a day; nothing clears it', () => {
    expect(now(edit('serial', ' B-1 ')).serial).toBe('B-1');
    expect(now(edit('serial', '')).serial).toBeNull();
    expect(now(edit('status', 'Planned')).status).toBe('planned');
    expect(now(edit('supportUntil', '2027-01-31')).supportUntil).toBe('2027-01-31');
  });

  test('a figure with a comma', () => {
    const limit = sourceOf(start, 'capacity', null)?.byKey.get('massLimitKg')?.fact ?? null;
    const rack = rackNamed(start, 'R1');
    if (limit === null) throw new Error('massLimitKg');
    const changed = after(start, editFact(start, 'rack', rack, limit, '612,5'));
    expect(rackNamed(changed, 'R1').massLimitKg).toBe(612.5);
    expect(why(editFact(start, 'rack', rack, limit, 'heavy'))).toBe(
      '“heavy” is not a number: Mass limit takes one in kg.',
    );
  });

  test('an own field is set, and goes when nothing is left in it; the others stay', () => {
    expect(now(edit('extra.Zone', 'south')).extra).toEqual({ Zone: 'south' });
    expect(now(edit('extra.Zone', '')).extra).toEqual({});
  });

  test.each([
    ['name', '', 'Name cannot be left empty.'],
    ['name', 'sw-2', 'sw-2'],
    ['status', 'lost', 'Status is one of planned, active, retired, not “lost”.'],
    ['supportUntil', 'soon', 'is not a date such as 2031-06-30'],
  ])('%s set to “%s” is refused: %s', (key, text, reason) => {
    expect(why(edit(key, text))).toContain(reason);
  });

  test('what names another thing, or is worked out, is not typed in', () => {
    const columns = sourceOf(start, 'devices', null)?.byKey;
    expect([columns?.get('place')?.fact, columns?.get('ports')?.fact, columns?.get('role')?.fact]).toEqual([
      null,
      null,
      null,
    ]);
  });
});
