import { describe, expect, test } from '@jest/globals';
import { networkOf } from '../../testing/testNetwork.ts';
import { foundIn } from '../../testing/testFindings.ts';

type File = Parameters<typeof networkOf>[0];
const told = (file: File, rule: string): string[] =>
  foundIn(networkOf(file))
    .filter((one) => one.rule === rule)
    .map(({ message }) => message);
const places = [
  { path: 'Kelder Quay', kind: 'site' as const, code: 'KQ' },
  { path: 'Kelder Quay/Room', kind: 'room' as const },
];
const rack = (name: string, more: object = {}) => ({ name, place: 'Kelder Quay/Room', units: 8, ...more });

describe('device-not-placed', () => {
  const loose = { name: 'x', role: 'SW' as const };
  test('is silent while nothing has a place, and then names what is left over', () => {
    expect(told({ devices: [loose] }, 'device-not-placed')).toEqual([]);
    const placed = { name: 'y', role: 'SW' as const, place: 'Kelder Quay' };
    expect(told({ places, devices: [loose, placed] }, 'device-not-placed')).toEqual([
      'x is active and stands nowhere. Put it into a rack or a place.',
    ]);
    const others = [
      { ...loose, status: 'planned' as const },
      { name: 'v', role: 'VM' as const },
      { name: 'e', role: 'EX' as const },
    ];
    expect(told({ places, devices: [...others, placed] }, 'device-not-placed')).toEqual([]);
  });
});

describe('rack-blanks-missing', () => {
  const blank = { name: 'b', model: 'Lumenroot Blank 1', rack: 'R1', unit: 8 };
  const server = { name: 's', model: 'Tessmark T2-Rack', rack: 'R1', unit: 1 };
  test('is silent before the first blank; then open fronts are listed by unit', () => {
    expect(told({ places, racks: [rack('R1')], devices: [server] }, 'rack-blanks-missing')).toEqual([]);
    const [message = ''] = told(
      { places, racks: [rack('R1')], devices: [server, blank] },
      'rack-blanks-missing',
    );
    // T2-Rack is 2 U: units 3 to 7 are left between it and the blank in 8.
    expect(message).toBe('5 units of R1 are open at the front: 3-7. Close them with blanks.');
  });
  test('an open frame and an empty rack are left alone', () => {
    const racks = [rack('R1', { units: 1 }), rack('R2', { posts: 2 }), rack('R3')];
    const devices = [
      { ...blank, unit: 1 },
      { ...server, rack: 'R2' },
    ];
    expect(told({ places, racks, devices }, 'rack-blanks-missing')).toEqual([]);
  });
});

describe('airflow-against-row', () => {
  const models: File['models'] = [
    { form: 'device', role: 'SW', name: 'Fore', units: 1, airflow: 'front to rear' },
    { form: 'device', role: 'SW', name: 'Back', units: 1, airflow: 'rear to front' },
  ];
  const at = (name: string, model: string, unit: number, more: object = {}) => ({
    name,
    role: 'SW' as const,
    model,
    rack: 'R1',
    unit,
    ...more,
  });
  test('one that draws from the warm side is told; turned round it is right', () => {
    const two = [at('a', 'Fore', 1), at('b', 'Fore', 2)];
    const file = (last: object): File => ({
      places,
      models,
      racks: [rack('R1')],
      devices: [...two, last as never],
    });
    expect(told(file(at('c', 'Back', 3)), 'airflow-against-row')[0]).toContain(
      'c draws its air from the rear',
    );
    expect(told(file(at('c', 'Back', 3, { face: 'rear' })), 'airflow-against-row')).toEqual([]);
    expect(told(file(at('c', 'Fore', 3, { face: 'rear' })), 'airflow-against-row')[0]).toContain('c draws');
  });
  test('as many one way as the other: nobody knows which side is cold; another row is another matter', () => {
    const split = [at('a', 'Fore', 1), at('b', 'Back', 2)];
    expect(told({ places, models, racks: [rack('R1')], devices: split }, 'airflow-against-row')).toEqual([]);
    const racks = [rack('R1', { facing: 'north' }), rack('R2', { facing: 'south' })];
    const rows = [at('a', 'Fore', 1), at('b', 'Fore', 2), at('c', 'Back', 1, { rack: 'R2' })];
    expect(told({ places, models, racks, devices: rows }, 'airflow-against-row')).toEqual([]);
  });
});

describe('name-otherwise', () => {
  const named = (...names: string[]): File => ({
    places,
    devices: names.map((name) => ({ name, role: 'SW' as const, place: 'Kelder Quay/Room' })),
  });
  const eight = Array.from({ length: 8 }, (_, at) => `kq-acc-${at + 1}`);
  test('eight of nine begin alike: the ninth is told with the pattern', () => {
    expect(told(named(...eight, 'AH-acc-7'), 'name-otherwise')).toEqual([
      'AH-acc-7 stands at Kelder Quay, where most names begin with “kq-”. Rename it, or place it where it belongs.',
    ]);
    expect(told(named(...eight, 'KQ-A1-PP1'), 'name-otherwise')).toEqual([]);
  });
  test('seven are no pattern yet, and eight of eleven are none', () => {
    expect(told(named(...eight.slice(1), 'x-1'), 'name-otherwise')).toEqual([]);
    expect(told(named(...eight, 'x-1', 'y-1', 'z-1'), 'name-otherwise')).toEqual([]);
  });
});
