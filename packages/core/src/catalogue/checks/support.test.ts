import { describe, expect, test } from '@jest/globals';
import { checkNetwork } from '../../check/told.ts';
import { yearsFrom } from '../../model/values/day.ts';
import { networkOf } from '../../testing/testNetwork.ts';

const model = (more: object) => ({
  form: 'device' as const,
  role: 'SW' as const,
  maker: 'Norvane',
  name: 'Old-1',
  units: 1,
  ...more,
});
const on = (day: string, file: Parameters<typeof networkOf>[0]): string[] =>
  checkNetwork(networkOf(file), day).map(
    ({ rule, severity, about }) => `${rule} ${severity} ${about[0] ?? ''}`,
  );

describe('model-support-ends', () => {
  const file = {
    models: [model({ endOfSupport: '2027-03-31' })],
    devices: [
      { name: 'a', role: 'SW' as const, model: 'Norvane Old-1' },
      { name: 'b', role: 'SW' as const, model: 'Norvane Old-1', status: 'retired' as const },
    ],
  };
  test('a year ahead it is a warning, on the day a fault, before that nothing; what is retired is of no matter', () => {
    expect(on('2026-03-30', file)).toEqual([]);
    expect(on('2026-03-31', file)).toEqual(['model-support-ends warn device a']);
    expect(on('2027-03-30', file)).toEqual(['model-support-ends warn device a']);
    expect(on('2027-03-31', file)).toEqual(['model-support-ends bad device a']);
  });
  test('it says the model and the day', () => {
    expect(checkNetwork(networkOf(file), '2027-01-01')[0]?.message).toBe(
      'The maker’s support of Norvane Old-1 ends on 2027-03-31, and a is one. Plan its successor.',
    );
  });
});

test('support-contract-ends: by what stands on the device', () => {
  const file = { devices: [{ name: 'a', role: 'SW' as const, supportUntil: '2024-02-29' }] };
  expect(on('2023-02-27', file)).toEqual([]);
  expect(on('2023-02-28', file)).toEqual(['support-contract-ends warn device a']);
  expect(on('2024-02-29', file)).toEqual(['support-contract-ends bad device a']);
});

test('model-retired: once for the model, with how many are of it', () => {
  const devices = ['a', 'b'].map((name) => ({ name, role: 'SW' as const, model: 'Norvane Old-1' }));
  const found = checkNetwork(networkOf({ models: [model({ retired: true })], devices }), '2026-11-30');
  expect(found.map(({ rule, about }) => [rule, about])).toEqual([
    ['model-retired', ['model Norvane Old-1', 'device a', 'device b']],
  ]);
  expect(found[0]?.message).toContain('2 devices are of it');
  expect(on('2026-11-30', { models: [model({ retired: true })], devices: [] })).toEqual([]);
});

test('years from a day: 29 February has none in most years', () => {
  expect(['2024-02-29', '2027-03-31'].map((day) => [yearsFrom(day, -1), yearsFrom(day, 4)])).toEqual([
    ['2023-02-28', '2028-02-29'],
    ['2026-03-31', '2031-03-31'],
  ]);
});
