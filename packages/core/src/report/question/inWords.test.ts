import { expect, test } from '@jest/globals';
import type { Question } from '../../model/kinds/reports/schedule.ts';
import { networkOf } from '../../testing/testNetwork.ts';
import { questionParts } from './inWords.ts';

const network = networkOf({
  places: [
    { path: 'Quay', kind: 'site' },
    { path: 'Quay/Room', kind: 'room' },
  ],
});
const room = [...network.all('place')].find(({ name }) => name === 'Room')?.id ?? null;
const bare: Question = {
  of: 'devices',
  scopeId: null,
  columns: [{ key: 'name', title: 'Switch', width: null, total: null }],
  filters: [],
  groups: [],
  order: [],
  numbered: false,
  blankRepeats: false,
  notes: null,
};
const texts = (fields: Partial<Question>, scopeId: string | null = null): string[] =>
  questionParts(network, { ...bare, ...fields }, scopeId).map(({ text }) => text);

test('a bare question says what it lists and of where; a place of its own goes before that of the path', () => {
  expect(texts({})).toEqual(['Device schedule of all sites', '1 column']);
  expect(texts({}, room)).toEqual(['Device schedule of Quay › Room', '1 column']);
  expect(texts({ scopeId: room })[0]).toBe('Device schedule of Quay › Room');
});

test('filters, groups and order by the titles that the question gives; what is no more by its key', () => {
  expect(
    texts({
      filters: [
        { key: 'role', test: 'is', value: 'switch' },
        { key: 'serial', test: 'is empty', value: 'x' },
        { key: 'gone', test: 'at least', value: '' },
      ],
      groups: ['place', 'rack'],
      order: [
        { key: 'name', descending: true },
        { key: 'unit', descending: false },
      ],
    }),
  ).toEqual([
    'Device schedule of all sites',
    'where Role is switch, Serial is empty and gone at least …',
    'grouped by Place and Rack',
    'in order of Switch, downwards and Unit',
    '1 column',
  ]);
});

test('a schedule of which there is no more what it lists is named by its key', () => {
  expect(texts({ of: 'colours' })[0]).toBe('colours of all sites');
});
