import { expect, test } from '@jest/globals';
import { networkOf } from '../../testing/testNetwork.ts';
import { capacitySchedule, placeCapacitySchedule } from './capacity.ts';
import { hardwareSchedule } from '../../catalogue/reports/catalogue.ts';

const feed = { name: 'A', volts: 230, amps: 16, phases: 1 as const, derating: 0.8 };
const network = networkOf({
  places: [
    { path: 'KQ', kind: 'site' },
    { path: 'KQ/Room' },
    { path: 'KQ/Store' },
    { path: 'AH', kind: 'site' },
  ],
  racks: [
    { name: 'R1', place: 'KQ/Room', units: 42, massLimitKg: 500, feeds: [feed], position: 1 },
    { name: 'R2', place: 'KQ/Store', units: 24, position: 1 },
  ],
  devices: [
    { name: 'sw-1', model: 'Norvane AX-2448P', rack: 'R1', unit: 40, feed: 'A' },
    { name: 'sw-2', model: 'Norvane AX-2448P', rack: 'R2', unit: 20 },
    { name: 'srv', model: 'Tessmark T2-Rack', rack: 'R2', unit: 1 },
  ],
});

test('each rack with what it holds and may hold', () => {
  const { rows, ids } = capacitySchedule(network, null);
  expect(ids).toHaveLength(2);
  expect(rows.find((row) => row['rack'] === 'R1')).toMatchObject({
    place: 'KQ/Room',
    units: 42,
    usedUnits: 1,
    massKg: 6.1,
    massLimitKg: 500,
    typicalW: 95,
    maxW: 920,
    usableW: 2944,
    btuPerHour: 3139,
    free1g: 48,
    free10g: 4,
    over: null,
  });
  expect(rows.find((row) => row['rack'] === 'R2')).toMatchObject({ usableW: null, aloneW: null, free25g: 2 });
});

test('sums of every place with racks in it, inner ones counted in the outer', () => {
  const { rows } = placeCapacitySchedule(network, null);
  expect(
    rows.map((row) => [row['place'], row['racks'], row['freeUnits'], row['maxW'], row['free1g']]),
  ).toEqual([
    ['KQ', 2, 62, 2590, 98],
    ['KQ/Room', 1, 41, 920, 48],
    ['KQ/Store', 1, 21, 1670, 50],
  ]);
  expect(rows[0]).toMatchObject({ massLimitKg: null, usableW: null });
});

test('hardware in use: counts, prices, end of support', () => {
  const { rows } = hardwareSchedule(network, null);
  expect(rows.map((row) => [row['model'], row['count'], row['price'], row['endOfSupport']])).toEqual([
    ['Norvane AX-2448P', 2, 3450, '2032-06-30'],
    ['Tessmark T2-Rack', 1, 9800, '2031-12-31'],
  ]);
});
