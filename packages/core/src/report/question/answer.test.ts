import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Question } from '../../model/kinds/reports/schedule.ts';
import { columnTests, totals } from '../../model/kinds/reports/schedule.ts';
import { kindNames } from '../../model/kinds.ts';
import { Network } from '../../model/network/network.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { everything } from '../../testing/testKinds.ts';
import { deviceNamed, networkOf } from '../../testing/testNetwork.ts';
import { runs } from '../../testing/testRuns.ts';
import { held } from '../../model/kinds.ts';
import { reports } from '../registry.ts';
import { answerOf, mostGroups, type Answer } from './answer.ts';
import { builtInQuestion } from './builtIn.ts';
import { answerTable, groupText, headsOf, rowCells, totalCell } from './layout.ts';
import { sourceOf } from './source.ts';
import { meantDay, readNumber } from './test.ts';

const today = '2026-11-30';
/** Two rooms: three switches and two servers, of which one has no purchase, and own fields. */
const network = networkOf({
  places: [
    { path: 'Quay', kind: 'site' },
    { path: 'Quay/East', kind: 'room' },
    { path: 'Quay/West', kind: 'room' },
  ],
  devices: [
    {
      name: 'sw-1',
      role: 'SW',
      place: 'Quay/East',
      serial: 'A-7',
      supportUntil: '2026-12-30',
      extra: { Zone: 'north' },
    },
    { name: 'sw-2', role: 'SW', place: 'Quay/East', supportUntil: '2027-11-30' },
    { name: 'sw-10', role: 'SW', place: 'Quay/West', supportUntil: '2025-01-31', status: 'retired' },
    { name: 'srv-1', role: 'SV', place: 'Quay/West', serial: 'a-7' },
    { name: 'srv-2', role: 'SV', place: 'Quay/East', ports: [{ name: 'e0' }, { name: 'e1' }] },
  ],
  cables: [{ label: 'C-1', a: 'srv-2:e0' }],
});
const ask = (fields: Partial<Question>): Question => ({
  of: 'devices',
  scopeId: null,
  columns: ['name', 'place', 'ports'].map((key) => ({ key, title: null, width: null, total: null })),
  filters: [],
  groups: [],
  order: [],
  numbered: false,
  blankRepeats: false,
  notes: null,
  ...fields,
});
const answered = (fields: Partial<Question>, of = network): Answer => {
  const answer = answerOf(of, ask(fields), null, today);
  if (answer === null) throw new Error('no such schedule');
  return answer;
};
const names = (answer: Answer): unknown[] =>
  answer.lines.flatMap((line) => (line.form === 'row' ? [answer.cell(line.at, 'name')] : []));
const filter = (key: string, test: Question['filters'][number]['test'], value = '') => ({
  filters: [{ key, test, value }],
});
/** A column that is not filled everywhere, typed or worked out, by its key. */
const column = (key: string, total: Question['columns'][number]['total'] = null) => ({
  ...{ key, title: null, width: null, total },
});

describe('filters', () => {
  test.each([
    ['is, without regard to case', filter('serial', 'is', 'a-7'), ['sw-1', 'srv-1']],
    ['is not', filter('serial', 'is not', 'A-7'), ['sw-2', 'sw-10', 'srv-2']],
    ['contains', filter('name', 'contains', 'W-1'), ['sw-1', 'sw-10']],
    ['does not contain', filter('name', 'does not contain', 'sw'), ['srv-1', 'srv-2']],
    ['is empty', filter('serial', 'is empty'), ['sw-2', 'sw-10', 'srv-2']],
    ['is not empty', filter('serial', 'is not empty'), ['sw-1', 'srv-1']],
    ['figures at least', filter('ports', 'at least', '2'), ['srv-2']],
    ['figures at most', filter('ports', 'at most', '1,5'), ['sw-1', 'sw-2', 'sw-10', 'srv-1']],
    ['a day that has passed', filter('supportUntil', 'at most', 'today'), ['sw-10']],
    ['within thirty days', filter('supportUntil', 'at most', 'today + 30'), ['sw-1', 'sw-10']],
    ['from a day on', filter('supportUntil', 'at least', '2026-12-31'), ['sw-2']],
    ['names count on: sw-10 is after sw-2', filter('name', 'at least', 'sw-2'), ['sw-2', 'sw-10']],
    ['an own field', filter('extra.Zone', 'is', 'North'), ['sw-1']],
  ])('%s', (_what, fields, expected) => {
    expect(names(answered(fields)).sort()).toEqual([...expected].sort());
    expect(answered(fields).problems).toEqual([]);
  });

  test('a filter for nothing, and one for a figure that is none, are told and left out', () => {
    expect(answered(filter('name', 'is', ' '))).toMatchObject({
      count: 5,
      problems: ['The filter Name is … asks for nothing. Give a value, or take it out.'],
    });
    expect(answered(filter('ports', 'at least', 'many')).problems).toEqual([
      'Ports is a figure: “many” is none. Give a number in the filter, such as 10.',
    ]);
  });

  test('days count over the ends of months and years, by the calendar', () => {
    expect(meantDay('today + 31', '2026-12-01')).toBe('2027-01-01');
    expect(meantDay('Today - 1', '2028-03-01')).toBe('2028-02-29');
    expect(meantDay('today', today)).toBe(today);
    expect(meantDay('today + few', today)).toBe('today + few');
  });

  test.each([
    ['1 250,5', 1250.5],
    ['1\u202f000', 1000],
    ['-3', -3],
    ['1,2,3', null],
    ['1e3', null],
    ['', null],
  ])('the number that %j is', (text, value) => expect(readNumber(text)).toBe(value));
});

describe('order, groups and totals', () => {
  test('by names as people count, downwards too; what is empty stands last either way', () => {
    expect(names(answered({ order: [{ key: 'name', descending: true }] }))).toEqual([
      'sw-10',
      'sw-2',
      'sw-1',
      'srv-2',
      'srv-1',
    ]);
    for (const descending of [false, true])
      expect(
        names(answered({ order: [{ key: 'supportUntil', descending }] }))
          .slice(3)
          .sort(),
      ).toEqual(['srv-1', 'srv-2']);
  });

  test('groups with their counts and sums, within one another, and in all', () => {
    const answer = answered({
      columns: [column('name', 'count'), column('ports', 'sum'), column('portsUsed', 'most')],
      groups: ['place', 'role'],
    });
    expect(
      answer.lines.map((line) =>
        line.form === 'group'
          ? `${'  '.repeat(line.level)}${groupText(answer, line)} ${JSON.stringify(line.totals)}`
          : `${line.number} ${String(answer.cell(line.at, 'name'))}`,
      ),
    ).toEqual([
      'East · 3 devices {"name":3,"ports":2,"portsUsed":1}',
      '  server · 1 device {"name":1,"ports":2,"portsUsed":1}',
      '1 srv-2',
      '  switch · 2 devices {"name":2,"ports":0,"portsUsed":0}',
      '2 sw-1',
      '3 sw-2',
      'West · 2 devices {"name":2,"ports":0,"portsUsed":0}',
      '  server · 1 device {"name":1,"ports":0,"portsUsed":0}',
      '4 srv-1',
      '  switch · 1 device {"name":1,"ports":0,"portsUsed":0}',
      '5 sw-10',
    ]);
    expect(answer.totals).toEqual({ name: 5, ports: 2, portsUsed: 1 });
  });

  test('a group of a figure, and one of nothing, say what they are of', () => {
    const headings = (key: string): string[] => {
      const answer = answered({ groups: [key] });
      return answer.lines.flatMap((line) => (line.form === 'group' ? [groupText(answer, line)] : []));
    };
    expect(headings('ports')).toEqual(['Ports 0 · 4 devices', 'Ports 2 · 1 device']);
    expect(headings('extra.Zone')).toEqual(['north · 1 device', 'no Zone · 4 devices']);
    expect([
      totalCell('sum', 3),
      totalCell('count', 3),
      totalCell('mean', 1.5),
      totalCell('least', null),
    ]).toEqual([3, 3, 'mean 1.5', null]);
  });

  test('lengths add up as by hand; the mean is of those that are known; of none there is no sum', () => {
    const lengths = networkOf({
      devices: [{ name: 'x', role: 'SW', ports: [{ name: '1' }] }],
      cables: [0.1, 0.2, 0.3, null].map((lengthM, at) => ({
        label: `C-${at}`,
        ...(lengthM === null ? {} : { lengthM }),
      })),
    });
    const of = (total: Question['columns'][number]['total'], only = {}) =>
      answered({ of: 'cables', columns: [column('lengthM', total)], ...only }, lengths).totals['lengthM'];
    expect([of('sum'), of('mean'), of('least'), of('most'), of('count')]).toEqual([0.6, 0.2, 0.1, 0.3, 3]);
    expect(of('sum', filter('lengthM', 'is empty'))).toBeNull();
  });

  test('a sum of text is told, and the values are counted', () => {
    const answer = answered({ columns: [column('serial', 'sum')] });
    expect(answer.problems).toEqual([
      'Serial is text: it has no sum. Its values are counted instead; choose “count”, or another column.',
    ]);
    expect(answer.totals).toEqual({ serial: 2 });
  });

  test('a column that is no more is told wherever the question names it; the rest is answered', () => {
    const gone = answered({
      columns: [column('name'), column('colour2')],
      groups: ['colour2'],
      order: [{ key: 'colour2', descending: false }],
      ...filter('colour2', 'is', 'x'),
    });
    expect(gone.count).toBe(5);
    expect(gone.columns.map(({ key }) => key)).toEqual(['name']);
    expect(gone.problems).toHaveLength(4);
    expect(gone.problems[0]).toContain('Device schedule has no column “colour2” any more');
    expect(answerOf(network, ask({ of: 'colours' }), null, today)).toBeNull();
  });

  test('grouped by a fact of 2,001 values: told, and listed without', () => {
    const many = networkOf({
      devices: Array.from({ length: mostGroups + 1 }, (_, at) => ({
        name: `d-${at}`,
        role: 'SV' as const,
        serial: `S-${at}`,
      })),
    });
    const answer = answered({ groups: ['role', 'serial'] }, many);
    expect(answer.problems.map((text) => text.replaceAll(/\s/g, ' '))).toEqual([
      'There are more than 2 000 groups by Serial: rows are listed without them. Filter first, or group by another column.',
    ]);
    expect(answer.lines.filter(({ form }) => form === 'group')).toHaveLength(1);
    expect(answer.count).toBe(mostGroups + 1);
  });
});

describe('laid out', () => {
  test('repeated values are blank from the left, and begin anew below a heading', () => {
    const question = ask({
      columns: [column('place'), column('role'), column('name')],
      order: ['place', 'role', 'name'].map((key) => ({ key, descending: false })),
    });
    const answer = answered(question);
    const cells = (blank: boolean) =>
      answer.lines.map((_line, at) => {
        const { place, role, name } = rowCells(answer, at, blank);
        return [place, role, name];
      });
    expect(cells(true)).toEqual([
      ['East', 'server', 'srv-2'],
      [null, 'switch', 'sw-1'],
      [null, null, 'sw-2'],
      ['West', 'server', 'srv-1'],
      [null, 'switch', 'sw-10'],
    ]);
    expect(cells(false)[2]).toEqual(['East', 'switch', 'sw-2']);
    const groups = answered({ ...question, groups: ['name'] });
    expect(
      groups.lines.flatMap((line, at) => (line.form === 'row' ? [rowCells(groups, at, true)['place']] : [])),
    ).not.toContain(null);
  });

  test('as plain rows: groups before the columns, numbered on, own titles as heads', () => {
    const answer = answered({
      columns: [{ ...column('name'), title: 'Switch' }, column('ports')],
      groups: ['place'],
      ...filter('role', 'is', 'Switch'),
    });
    const table = answerTable(answer, true);
    expect(table.columns.map(({ label }) => label)).toEqual(['No.', 'Place', 'Switch', 'Ports']);
    expect(table.rows).toEqual([
      { '#': 1, place: 'East', name: 'sw-1', ports: 0 },
      { '#': 2, place: 'East', name: 'sw-2', ports: 0 },
      { '#': 3, place: 'West', name: 'sw-10', ports: 0 },
    ]);
    expect(table.ids[0]).toBe(deviceNamed(network, 'sw-1').id);
    expect(headsOf(answer, false).map(({ label }) => label)).toEqual(['Switch', 'Ports']);
  });
});

describe('what schedules are made of', () => {
  test('a place of its own goes before the one that is looked at', () => {
    const west = [...network.all('place')].find(({ name }) => name === 'West')?.id ?? '';
    const quay = [...network.all('place')].find(({ name }) => name === 'East')?.id ?? '';
    expect(answerOf(network, ask({}), west, today)?.count).toBe(2);
    expect(answerOf(network, ask({ scopeId: quay }), west, today)?.count).toBe(3);
  });

  test.each(reports.map((report) => [report.key, report] as const))(
    '%s: a column that can be typed in holds the fact of its row as it is',
    (_key, report) => {
      for (const one of [everything, demoNetwork()]) {
        const source = sourceOf(one, report.key, null);
        const facts = source?.columns.filter(({ fact, own }) => fact !== null && own) ?? [];
        for (const [at, id] of source?.ids.entries() ?? []) {
          const row = one.get(report.kind, id);
          for (const { key, fact } of facts) {
            const value = row === null ? null : held(row)[key];
            const said = fact?.form === 'yes or no' ? (value === true ? 'yes' : 'no') : value;
            expect([report.key, key, source?.cell(at, key) ?? null]).toEqual([report.key, key, said ?? null]);
          }
        }
      }
    },
  );

  test.each(reports.map((report) => [report.key, report] as const))(
    '%s as a question lists what it lists itself',
    (_key, report) => {
      const demo = demoNetwork();
      const answer = answerOf(demo, builtInQuestion(demo, report), null, today);
      if (answer === null) throw new Error(report.key);
      const table = report.make(demo, null);
      const same = answerTable(answer, false);
      expect(same.columns.map(({ label }) => label)).toEqual(table.columns.map(({ label }) => label));
      expect(same.rows.map((row) => table.columns.map(({ key }) => row[key]))).toEqual(
        table.rows.map((row) => table.columns.map(({ key }) => row[key] ?? null)),
      );
    },
  );
});

/** The same question answered the long way round, row by row, as one would by hand. */
function byHand(of: Network, question: Question): string[] {
  const source = sourceOf(of, question.of, null);
  if (source === null) return [];
  const rows = source.ids.map((_id, at) =>
    Object.fromEntries(source.columns.map(({ key }) => [key, source.cell(at, key)])),
  );
  const figure = (key: string): boolean => source.byKey.get(key)?.numeric === true;
  const passes = (
    row: Record<string, unknown>,
    { key, test, value }: Question['filters'][number],
  ): boolean => {
    const own = row[key];
    const isEmpty = own === null || own === '';
    const text = String(own ?? '').toLowerCase();
    const wanted = value.toLowerCase();
    switch (test) {
      case 'is empty':
        return isEmpty;
      case 'is not empty':
        return !isEmpty;
      case 'contains':
        return text.includes(wanted);
      case 'does not contain':
        return !text.includes(wanted);
      case 'is':
        return figure(key) ? own === Number(value) : text === wanted;
      case 'is not':
        return !(figure(key) ? own === Number(value) : text === wanted);
      default: {
        if (isEmpty) return false;
        const by = figure(key)
          ? Number(own) - Number(value)
          : text.localeCompare(wanted, 'en', { numeric: true, sensitivity: 'base' });
        return test === 'at least' ? by >= 0 : by <= 0;
      }
    }
  };
  return rows
    .filter((row) => question.filters.every((one) => passes(row, one)))
    .map((row) => String(row['name']))
    .sort();
}

test('property: what passes the filters is what passes them by hand, once each, whatever the groups and the order', () => {
  const keys = ['name', 'role', 'status', 'place', 'serial', 'ports', 'portsUsed', 'model'];
  const key = fc.constantFrom(...keys);
  const value = fc.constantFrom('1', '2', '24', 'kq-acc-1', 'switch', 'sw', 'active');
  const figures = new Set(['ports', 'portsUsed']);
  const filters = fc.array(
    fc
      .tuple(key, fc.constantFrom(...columnTests), value)
      .filter(([of, , text]) => !figures.has(of) || /^\d+$/.test(text))
      .map(([of, how, text]) => ({ key: of, test: how, value: text })),
    { maxLength: 3 },
  );
  const question = fc.record({
    filters,
    groups: fc.uniqueArray(key, { maxLength: 3 }),
    order: fc.array(fc.record({ key, descending: fc.boolean() }), { maxLength: 3 }),
    columns: fc.constant([column('name', 'count'), column('ports', 'sum')]),
  });
  const demo = demoNetwork();
  const turned = Network.of(
    Object.fromEntries(kindNames.map((kind) => [kind, [...demo.all(kind)].reverse()])),
  );
  fc.assert(
    fc.property(question, fc.constantFrom(...totals), (fields, total) => {
      const asked = { ...fields, columns: [column('name', 'count'), column('ports', total)] };
      const answer = answered(asked, demo);
      expect(names(answer).map(String).sort()).toEqual(byHand(demo, ask(asked)));
      expect(answer.totals['name']).toBe(answer.count === 0 ? 0 : answer.count);
      // Each group counts what stands below it, down to the next of its level.
      answer.lines.forEach((line, at) => {
        if (line.form !== 'group') return;
        const next = answer.lines.findIndex(
          (other, after) => after > at && other.form === 'group' && other.level <= line.level,
        );
        const below = answer.lines.slice(at + 1, next < 0 ? undefined : next);
        expect(below.filter(({ form }) => form === 'row')).toHaveLength(line.count);
      });
      // The order in which rows came into the network is no part of the answer.
      const other = answered(asked, turned);
      expect(answerTable(other, true)).toEqual(answerTable(answer, true));
    }),
    { numRuns: runs(60) },
  );
});
