import { describe, expect, test } from '@jest/globals';
import { deviceNamed, networkOf, smallRoom } from '../testing/testNetwork.ts';
import type { Network } from '../model/network/network.ts';
import { distanceM, estimateLength } from './length.ts';

const between = (network: Network, a: string, b: string) =>
  estimateLength(network, deviceNamed(network, a), deviceNamed(network, b));
const unit = 0.04445;

describe('the length a cable needs', () => {
  test('in one rack: to the side, along it, back, and slack at both ends', () => {
    const estimate = between(smallRoom(), 'kq-core-1', 'KQ-A1-PP1');
    // Middles of U38 and U42 are four units apart.
    const core = deviceNamed(smallRoom(), 'kq-core-1');
    const apart = 42 - 1 + 0.5 - (38 - 1 + core.units / 2);
    expect(estimate?.metres).toBeCloseTo(2 * 0.3 + apart * unit + 1, 9);
    expect(estimate?.lines.map((line) => line.text)).toEqual([
      'to the side and back',
      'along the rack',
      'slack at both ends',
    ]);
  });

  test('between racks of a room: up to the tray, a pitch along it, down', () => {
    const estimate = between(smallRoom(), 'KQ-A1-PP1', 'KQ-A2-PP1');
    const toTray = 0.1 + 42 * unit + 0.4 - (0.1 + 41.5 * unit);
    expect(estimate?.metres).toBeCloseTo(2 * (0.3 + toTray) + 0.6 + 1, 9);
    expect(estimate?.lines.reduce((sum, line) => sum + line.metres, 0)).toBeCloseTo(estimate?.metres ?? 0, 9);
  });

  /** Two rooms of one site with a rack each; `extra` says how they are joined. */
  const rooms = (
    a: object,
    b: object,
    pathways: { name: string; from: string; to: string; lengthM: number }[] = [],
  ) =>
    networkOf({
      places: [
        { path: 'S', kind: 'site' },
        { path: 'S/one', kind: 'room', ...a },
        { path: 'S/two', kind: 'room', ...b },
        { path: 'S/shaft', kind: 'room' },
      ],
      racks: [
        { name: 'r1', place: 'S/one', units: 42 },
        { name: 'r2', place: 'S/two', units: 42 },
      ],
      devices: [
        { name: 'x', role: 'SW', rack: 'r1', unit: 42 },
        { name: 'y', role: 'SW', rack: 'r2', unit: 42 },
      ],
      pathways,
    });

  test('the height of the tray is the room’s own where it is stated', () => {
    const plain = between(rooms({ eastM: 0, northM: 0 }, { eastM: 30, northM: 40 }), 'x', 'y');
    const high = between(
      rooms({ eastM: 0, northM: 0, trayHeightM: 4 }, { eastM: 30, northM: 40, trayHeightM: 4 }),
      'x',
      'y',
    );
    const usual = 0.1 + 42 * unit + 0.4;
    expect((high?.metres ?? 0) - (plain?.metres ?? 0)).toBeCloseTo(2 * (4 - usual), 9);
    expect(plain?.lines.find((line) => line.text.includes('straight'))?.metres).toBeCloseTo(50 * 1.4, 9);
  });

  test('pathways win over the straight line, by the shortest way; without either nothing is claimed', () => {
    const ways = [
      { name: 'riser', from: 'S/one', to: 'S/shaft', lengthM: 12 },
      { name: 'tray 2', from: 'S/shaft', to: 'S/two', lengthM: 20 },
      { name: 'long duct', from: 'S/one', to: 'S/two', lengthM: 90 },
    ];
    const estimate = between(rooms({ eastM: 0, northM: 0 }, { eastM: 3, northM: 4 }, ways), 'x', 'y');
    expect(estimate?.lines).toContainEqual({ text: 'over riser, tray 2', metres: 32 });
    expect(between(rooms({}, {}), 'x', 'y')).toBeNull();
  });

  test('great-circle distance: a degree of latitude is 111.19 km on the mean radius', () => {
    expect(distanceM({ latitude: 54, longitude: -4 }, { latitude: 55, longitude: -4 })).toBeCloseTo(
      111194.9,
      0,
    );
  });
});
