import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addDevice } from './commands/devices.ts';
import { applyChanges } from '../change/apply.ts';
import { builtInModels } from '../catalogue/builtIn/index.ts';
import { deviceNamed, networkOf, rackNamed, smallRoom } from '../testing/testNetwork.ts';
import { faceLayout, faceWidthMm, unitHeightMm } from '../catalogue/faceplate.ts';
import { freePositions, rackContents, rackUse } from './occupancy.ts';
import { nextDeviceName } from './deviceNames.ts';
import { portsFromModel } from '../catalogue/modelPorts.ts';
import { runs } from '../testing/testRuns.ts';

describe('occupancy', () => {
  test('units used and free; what is at the side takes none', () => {
    const network = smallRoom();
    expect(rackUse(network, rackNamed(network, 'KQ-A1'))).toEqual({ units: 42, used: 2, free: 40 });
    expect(rackContents(network, rackNamed(network, 'KQ-A1')).map((device) => device.name)).toEqual([
      'KQ-A1-PP1',
      'kq-core-1',
      'KQ-A1-PDA',
    ]);
  });

  test('numbered from the top, contents still read from the top of the cabinet', () => {
    const network = networkOf({
      places: [{ path: 'A' }],
      racks: [{ name: 'r', place: 'A', units: 10, numbering: 'down' }],
      devices: [
        { name: 'low', role: 'SV', rack: 'r', unit: 9 },
        { name: 'high', role: 'SV', rack: 'r', unit: 2 },
      ],
    });
    expect(rackContents(network, rackNamed(network, 'r')).map((device) => device.name)).toEqual([
      'high',
      'low',
    ]);
  });

  test('property: a device goes exactly where freePositions says', () => {
    const network = smallRoom();
    const rack = rackNamed(network, 'KQ-A1');
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.boolean(),
        fc.integer({ min: 1, max: 45 }),
        (units, fillsBothFaces, unit) => {
          const free = freePositions(network, rack, { units, fillsBothFaces, face: 'front', side: 'full' });
          const model = [...network.all('model')].find((one) => one.form === 'device');
          const set = addDevice(network, {
            name: 'probe',
            modelId: model?.id ?? '',
            rackId: rack.id,
            placeId: null,
            unit,
          });
          const changes = (set?.changes ?? []).map((change) =>
            change.kind === 'device' && change.op === 'create'
              ? { ...change, after: { ...change.after, units, fillsBothFaces, side: 'full' as const } }
              : change,
          );
          expect(applyChanges(network, changes).ok).toBe(free.includes(unit));
        },
      ),
      { numRuns: runs(80) },
    );
  });
});

describe('names by the pattern of the site', () => {
  test('the stem of the same model at the site, one above its highest number', () => {
    const network = networkOf({
      places: [{ path: 'Kelder Quay', kind: 'site', code: 'KQ' }],
      racks: [{ name: 'r', place: 'Kelder Quay' }],
      devices: [
        { name: 'kq-core-1', model: 'Norvane CR-6032', rack: 'r', unit: 1 },
        { name: 'kq-acc-1', model: 'Norvane AX-2448P', rack: 'r', unit: 2 },
        { name: 'kq-acc-5', model: 'Norvane AX-2448P', rack: 'r', unit: 3 },
      ],
    });
    const place = rackNamed(network, 'r').placeId;
    expect(nextDeviceName(network, place, 'SW', deviceNamed(network, 'kq-acc-1').modelId)).toBe('kq-acc-6');
    expect(nextDeviceName(network, place, 'SW', deviceNamed(network, 'kq-core-1').modelId)).toBe('kq-core-2');
    expect(nextDeviceName(network, place, 'RT', null)).toBe('kq-rt-1');
  });
});

describe('the built-in catalogue', () => {
  test.each(
    builtInModels()
      .filter((model) => model.form === 'device')
      .map((model) => [model.name, model] as const),
  )('%s: ports have one name each and lie on the face without overlapping', (_name, model) => {
    const ports = portsFromModel(model, 'device');
    expect(new Set(ports.map((port) => port.name.toLowerCase())).size).toBe(ports.length);
    for (const port of ports) {
      const partner = ports.find((other) => other.id === port.leadsToId);
      if (port.role === 'panel') expect(partner?.leadsToId).toBe(port.id);
    }
    for (const face of ['front', 'rear'] as const) {
      const { ports: spots } = faceLayout(model, face);
      for (const [at, spot] of spots.entries()) {
        expect(spot.x).toBeGreaterThan(0);
        expect(spot.x + spot.width).toBeLessThanOrEqual(faceWidthMm);
        expect(spot.y).toBeGreaterThanOrEqual(0);
        expect(spot.y + spot.height).toBeLessThanOrEqual(Math.max(1, model.units) * unitHeightMm);
        for (const other of spots.slice(at + 1)) {
          const apart =
            spot.x + spot.width <= other.x + 1e-6 ||
            other.x + other.width <= spot.x + 1e-6 ||
            spot.y + spot.height <= other.y + 1e-6 ||
            other.y + other.height <= spot.y + 1e-6;
          expect(apart).toBe(true);
        }
      }
    }
  });
});
