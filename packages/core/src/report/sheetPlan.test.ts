import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { create, type Change } from '../change/change.ts';
import { removal } from '../change/removal.ts';
import { readExchange } from '../exchange/read.ts';
import { writeExchange } from '../exchange/write.ts';
import { usualFacets } from '../model/kinds/drawings/projections.ts';
import { blankSheet, type Sheet } from '../model/kinds/drawings/sheet.ts';
import { newProject } from '../model/kinds/sites/project.ts';
import { Network } from '../model/network/network.ts';
import { newId } from '../model/values/ids.ts';
import { addMark } from '../sheets/commands/marks.ts';
import { networkOf } from '../testing/testNetwork.ts';
import { removeSchedule } from './commands/schedules.ts';
import { hiddenOn, planOf } from './sheetPlan.ts';

const today = '2026-12-01';
const column = (key: string, total: 'sum' | 'count' | null = null) => ({
  ...{ key, title: null, width: null, total },
});
const base = networkOf({
  places: [
    { path: 'Quay', kind: 'site', code: 'KQ' },
    { path: 'Boat', kind: 'site', code: 'BT' },
  ],
  devices: Array.from({ length: 12 }, (_, at) => ({
    name: `sw-${at + 1}`,
    role: 'SW' as const,
    place: at < 8 ? 'Quay' : 'Boat',
    serial: `S-${at + 1}`,
    ports: [{ name: 'te1' }, { name: 'te2' }],
  })),
  ...{
    schedules: [
      {
        name: 'By site',
        of: 'devices',
        columns: [column('name', 'count'), column('ports', 'sum'), column('serial')],
        groups: ['place'],
        order: [{ key: 'name', descending: false }],
        numbered: false,
      },
    ],
  },
});

const apply = (network: Network, changes: readonly Change[]): Network => {
  const applied = applyChanges(network, changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
const schedule = [...base.all('schedule')][0];
if (schedule === undefined) throw new Error('no schedule');

function withTable(fields: Partial<Sheet> = {}): { network: Network; sheet: Sheet; markId: string } {
  const sheet: Sheet = {
    ...{ ...blankSheet, id: newId(), name: 'Plan', projection: 'cabling' as const },
    ...{ show: [...usualFacets], ...fields },
  };
  const made = addMark(sheet, 'schedule', { scheduleId: schedule?.id ?? '', height: 300 });
  return {
    network: apply(base, [create('sheet', sheet), ...made.changes]),
    sheet,
    markId: made.markId,
  };
}
const tableIn = ({ network, sheet }: { network: Network; sheet: Sheet }) =>
  planOf(network, sheet, { today }).marks[0]?.table ?? null;

describe('a schedule that stands on a sheet', () => {
  test('lists its rows with headings, counts and sums', () => {
    const table = tableIn(withTable());
    expect(table?.title).toBe('By site');
    expect(table?.heads.map(({ text }) => text)).toEqual(['Name', 'Ports', 'Serial']);
    expect(table?.rows.filter(({ heading }) => heading).map(({ cells }) => cells)).toEqual([
      ['Boat · 4 devices · 4', '8', ''],
      ['Quay · 8 devices · 8', '16', ''],
      ['In all · 12', '24', ''],
    ]);
    expect(table?.rows.filter(({ heading }) => !heading)).toHaveLength(12);
    expect(table?.rows[1]?.cells).toEqual(['sw-9', '2', 'S-9']);
  });

  test('of a sheet of one place it lists that place', () => {
    const boat = [...base.all('place')].find(({ name }) => name === 'Boat');
    const table = tableIn(withTable({ scopeId: boat?.id ?? null }));
    expect(table?.rows.filter(({ heading }) => !heading).map(({ cells }) => cells[0])).toEqual([
      'sw-9',
      'sw-10',
      'sw-11',
      'sw-12',
    ]);
  });

  test('an edit of the network is in it at once', () => {
    const made = withTable();
    const [first] = made.network.all('device');
    if (first === undefined) throw new Error('no device');
    const network = apply(made.network, removal(made.network, [{ kind: 'device', id: first.id }]).changes);
    const rows = tableIn({ ...made, network })?.rows.filter(({ heading }) => !heading);
    expect(rows).toHaveLength(11);
    expect(JSON.stringify(rows)).not.toContain(`"${first.name}"`);
  });

  test('does not tell what the sheet does not show', () => {
    const show = usualFacets.filter((facet) => facet !== 'names');
    const hidden = withTable({ show });
    expect(hiddenOn(hidden.sheet)).toContain('names');
    expect(JSON.stringify(tableIn(hidden))).not.toMatch(/sw-|Quay|Boat/);
    const none = tableIn(withTable({ show: usualFacets.filter((facet) => facet !== 'devices') }));
    expect(none).toMatchObject({ rows: [], below: ['This sheet does not show devices.'] });
    const without = withTable({ show: usualFacets.filter((facet) => facet !== 'notes') });
    expect(planOf(without.network, without.sheet, { today }).marks).toEqual([]);
  });

  test('goes with its schedule, and cannot be without one', () => {
    const { network, sheet, markId } = withTable();
    expect(network.get('mark', markId)).not.toBeNull();
    const deleted = removeSchedule(network, schedule);
    if (!deleted.ok) throw new Error(deleted.why);
    expect(deleted.set.sentence).toBe('Deleted the schedule By site, and 1 table of it on sheets');
    const gone = apply(network, deleted.set.changes);
    expect(gone.get('mark', markId)).toBeNull();
    const alone = applyChanges(network, addMark(sheet, 'schedule', {}).changes);
    expect(alone).toMatchObject({ ok: false, problems: [{ field: 'scheduleId' }] });
  });

  test('comes back from a file, and an unknown schedule is named', () => {
    const { network } = withTable();
    const file = writeExchange(network);
    expect(file.sheets?.[0]?.marks).toMatchObject([{ form: 'schedule', schedule: 'By site' }]);
    const again = readExchange(Network.of({ project: [newProject('x')] }), file);
    if (!again.ok) throw new Error(again.problems[0]?.message);
    expect(writeExchange(again.network)).toEqual(file);
    const wrong = readExchange(Network.of({ project: [newProject('x')] }), { ...file, schedules: [] });
    expect(wrong).toMatchObject({ ok: false, problems: [{ path: '$.sheets[0].marks[0].schedule' }] });
  });

  test('of very many rows so many stand there, and the rest is counted', () => {
    const many = networkOf({
      devices: Array.from({ length: 450 }, (_, at) => ({ name: `d-${at}`, role: 'SV' as const })),
      ...{ schedules: [{ name: 'All', of: 'devices', columns: [column('name', 'count')] }] },
    });
    const [all] = many.all('schedule');
    const sheet: Sheet = {
      ...blankSheet,
      id: newId(),
      name: 'P',
      projection: 'cabling',
      show: [...usualFacets],
    };
    const made = addMark(sheet, 'schedule', { scheduleId: all?.id ?? '' });
    const network = apply(many, [create('sheet', sheet), ...made.changes]);
    const table = tableIn({ network, sheet });
    expect(table?.rows).toHaveLength(400);
    expect(table?.below).toEqual(['50 more rows stand in the schedule alone.']);
  });
});
