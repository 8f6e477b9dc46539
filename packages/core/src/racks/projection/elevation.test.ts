import { without } from '../../lens/without.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { insertModule } from '../commands/modules.ts';
import { builtInModels } from '../../catalogue/builtIn/index.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { newId } from '../../model/values/ids.ts';
import { Network } from '../../model/network/network.ts';
import { readExchange } from '../../exchange/read.ts';
import type { ExchangeFile } from '../../exchange/format.ts';
import { deviceNamed, networkOf, rackNamed } from '../../testing/testNetwork.ts';
import { elevationScene, gaugesOf, innerOf, plateBox, unitAt, unitHeight } from './elevation.ts';
import { modelFaces } from '../../catalogue/projection/modelFace.ts';
import { isColourBy, ownFieldNames, shadingOf, type ColourBy } from '../../sheets/graph/shading.ts';

const feed = { name: 'A', volts: 230, amps: 10, phases: 1 as const, derating: 0.8 };
const room = (file: Partial<ExchangeFile> = {}) =>
  networkOf({
    places: [{ path: 'KQ', kind: 'site', code: 'KQ' }],
    racks: [
      { name: 'R1', place: 'KQ', units: 12, feeds: [feed], massLimitKg: 100 },
      { name: 'R2', place: 'KQ', units: 12, numbering: 'down', widthMm: 584.2 },
    ],
    ...file,
  });

describe('where things are drawn', () => {
  test('unit and height on the rack belong together, in both numberings', () => {
    for (const numbering of ['up', 'down'] as const) {
      const rack = { units: 12, numbering };
      for (const units of [0.5, 1, 2, 3]) {
        for (let unit = 1; unit + units <= 13; unit += units === 0.5 ? 0.5 : 1) {
          const y = numbering === 'up' ? (12 - (unit + units - 1)) * unitHeight : (unit - 1) * unitHeight;
          expect(unitAt(rack, y, units)).toBe(unit);
        }
      }
      expect(unitAt(rack, -500, 2)).toBe(numbering === 'up' ? 11 : 1);
      expect(unitAt(rack, 5000, 2)).toBe(numbering === 'up' ? 1 : 11);
    }
  });

  test('a 23-inch rack is wider; half-width gear changes sides at the rear', () => {
    const network = room();
    const [narrow, wide] = [rackNamed(network, 'R1'), rackNamed(network, 'R2')];
    expect([innerOf(narrow).width, innerOf(wide).width]).toEqual([330, 399]);
    const half = { unit: 3, units: 1, side: 'left' } as const;
    expect(plateBox(narrow, half, 'front').x).toBe(innerOf(narrow).x);
    expect(plateBox(narrow, half, 'rear').x).toBe(innerOf(narrow).x + 165);
    expect(plateBox(narrow, half, 'rear').width).toBe(165);
  });

  test('gear at the sides, blanks, and half-depth gear at both faces of one unit', () => {
    const network = room({
      devices: [
        { name: 'strip-a', model: 'Brackwater PS-16', rack: 'R1', side: 'left' },
        { name: 'strip-b', model: 'Brackwater PS-16', rack: 'R1', side: 'right' },
        { name: 'blank', model: 'Lumenroot Blank 1', rack: 'R1', unit: 1 },
        { name: 'panel', model: 'Lumenroot CP-24', rack: 'R1', unit: 5 },
        { name: 'rear-panel', model: 'Lumenroot CP-24', rack: 'R1', unit: 5, face: 'rear' },
      ],
    });
    const [front, rear] = elevationScene(network, rackNamed(network, 'R1')).faces;
    const at = (face: typeof front, name: string) => face?.plates.find((plate) => plate.name === name);
    expect(front?.plates.map((plate) => [plate.name, plate.form])).toEqual([
      ['panel', 'device'],
      ['blank', 'blank'],
      ['strip-a', 'side'],
      ['strip-b', 'side'],
    ]);
    expect((at(front, 'strip-a')?.box.x ?? 0) < (at(front, 'strip-b')?.box.x ?? 0)).toBe(true);
    expect((at(rear, 'strip-a')?.box.x ?? 0) > (at(rear, 'strip-b')?.box.x ?? 0)).toBe(true);
    expect(at(front, 'strip-a')?.ports).toHaveLength(17);
    expect(rear?.plates.filter((plate) => plate.form === 'device').map((plate) => plate.name)).toEqual([
      'rear-panel',
    ]);
    expect(front?.units.filter((unit) => unit.free)).toHaveLength(10);
  });

  test('the ports of a module are drawn inside its bay', () => {
    const start = Network.of({
      project: [newProject('x')],
      model: builtInModels().map((model) => ({ ...model, id: newId() })),
    });
    const read = readExchange(start, {
      format: 'visograph-exchange',
      version: 1,
      places: [{ path: 'KQ' }],
      racks: [{ name: 'R1', place: 'KQ', units: 20 }],
      devices: [{ name: 'core', model: 'Norvane CR-9004', rack: 'R1', unit: 1 }],
    });
    if (!read.ok) throw new Error('not read');
    const card = read.network.findOne('modelByTitle', 'norvane lc-12q');
    if (card === null) throw new Error('no card');
    const set = insertModule(read.network, deviceNamed(read.network, 'core'), 'slot 2', card);
    const applied = applyChanges(read.network, set.changes);
    if (!applied.ok) throw new Error('not applied');
    const plate = elevationScene(applied.network, rackNamed(applied.network, 'R1')).faces[0]?.plates[0];
    const bay = plate?.slots.find((slot) => slot.name === 'slot 2');
    expect([bay?.filled, plate?.slots.filter((slot) => !slot.filled)]).toEqual([true, expect.any(Array)]);
    expect(plate?.ports).toHaveLength(12);
    for (const { box } of plate?.ports ?? []) {
      expect(box.x).toBeGreaterThanOrEqual((bay?.box.x ?? 0) - 0.01);
      expect(box.y).toBeGreaterThanOrEqual((bay?.box.y ?? 0) - 0.01);
      expect(box.x + box.width).toBeLessThanOrEqual((bay?.box.x ?? 0) + (bay?.box.width ?? 0) + 0.01);
      expect(box.y + box.height).toBeLessThanOrEqual((bay?.box.y ?? 0) + (bay?.box.height ?? 0) + 0.01);
    }
  });

  test.each(builtInModels().filter((model) => model.form === 'device' || model.form === 'module'))(
    'the face of $name stays inside its plate',
    (model) => {
      const faces = modelFaces(model);
      for (const { box } of [
        ...faces.front.ports,
        ...faces.rear.ports,
        ...faces.front.slots,
        ...faces.rear.slots,
      ]) {
        expect(box.x).toBeGreaterThanOrEqual(0);
        expect(box.x + box.width).toBeLessThanOrEqual(faces.width + 0.01);
        expect(box.y).toBeGreaterThanOrEqual(0);
        expect(box.y + box.height).toBeLessThanOrEqual(faces.height + 0.01);
      }
    },
  );
});

describe('gauges', () => {
  test('figures against limits: fine, near, over', () => {
    const network = room({
      devices: [
        { name: 'ups', model: 'Brackwater UP-3000', rack: 'R1', unit: 1, feed: 'A' },
        { name: 'st', model: 'Tessmark Vault 12', rack: 'R1', unit: 4 },
        { name: 'box', model: 'Tessmark T4-Quad', rack: 'R1', unit: 6, feed: 'A' },
      ],
    });
    expect(
      gaugesOf(network, rackNamed(network, 'R1')).map((gauge) => [gauge.label, gauge.text, gauge.state]),
    ).toEqual([
      ['Units', '7 of 12 U', 'ok'],
      ['Mass', '121 of 100 kg', 'bad'],
      ['Feed A', '2 290 of 1 840 W', 'bad'],
      ['Heat', '9 929 BTU/h', 'ok'],
    ]);
    expect(gaugesOf(network, rackNamed(network, 'R2')).map((gauge) => gauge.text)).toEqual([
      '0 of 12 U',
      '0 kg',
      'up to 0 W',
      '0 BTU/h',
    ]);
  });
});

describe('colours', () => {
  const network = room({
    devices: [
      {
        name: 'sw',
        model: 'Norvane AX-2448P',
        rack: 'R1',
        unit: 5,
        feed: 'A',
        installedOn: '2024-03-18',
        warrantyUntil: '2027-03-18',
        supportUntil: '2029-12-31',
        extra: { owner: 'ops' },
      },
      {
        name: 'old',
        model: 'Norvane ER-210',
        rack: 'R1',
        unit: 6,
        status: 'retired',
        installedOn: '2017-11-12',
        extra: { owner: 'guest' },
      },
      { name: 'panel', model: 'Lumenroot CP-24', rack: 'R1', unit: 8, status: 'planned' },
    ],
  });
  const devices = ['sw', 'old', 'panel'].map((name) => deviceNamed(network, name));
  const labels = (by: ColourBy, today = '2028-06-01', dead: string[] = []) => {
    const [rack] = network.all('rack');
    const failed = without(
      network,
      dead.map((feed) => ({ kind: 'feed', rackId: rack?.id ?? '', feed })),
    );
    const shading = shadingOf(failed, devices, by, { today });
    const labelOf = (device: Device) =>
      shading.key.find((one) => JSON.stringify(one.shade) === JSON.stringify(shading.of(device)))?.label;
    return devices.map(labelOf);
  };

  test('role, status, power drawn', () => {
    expect(labels('role')).toEqual(['forwarding', 'forwarding', 'passive and power']);
    expect(labels('status')).toEqual(['active', 'retired', 'planned']);
    expect(labels('power')).toEqual(['above 600 W', 'no draw', 'no draw']);
  });

  test('power state, with the feed live and failed', () => {
    expect(labels('feedState')).toEqual(['powered', 'power not documented', 'needs no power']);
    expect(labels('feedState', '2028-06-01', ['A', 'B'])).toEqual([
      'dark',
      'power not documented',
      'needs no power',
    ]);
  });

  test('age: in steps of years since it was installed', () => {
    expect(labels('age', '2028-06-01')).toEqual([
      '3 to 5 years',
      '8 years and more',
      'date of installation not known',
    ]);
    expect(labels('age', '2025-01-01')[0]).toBe('under a year');
    expect(labels('age', '2026-11-24')[0]).toBe('1 to 3 years');
  });

  test('age to the end of support: ended, within a year, within three, later, unknown', () => {
    expect(labels('support', '2029-01-01')[1]).toBe('support has ended');
    expect(labels('support', '2028-06-01')[1]).toBe('ends within a year');
    expect(labels('support', '2026-11-23')[1]).toBe('ends within three years');
    expect(labels('support', '2024-01-01')[1]).toBe('later');
    expect(labels('support')[2]).toBe('no date known');
  });

  test('age to the end of a warranty, and of a contract for support', () => {
    expect(labels('warranty', '2028-06-01')).toEqual([
      'warranty has ended',
      'no date known',
      'no date known',
    ]);
    expect(labels('warranty', '2026-11-29')[0]).toBe('ends within a year');
    expect(labels('contract', '2030-01-01')[0]).toBe('contract has ended');
    expect(labels('contract', '2028-06-01')[0]).toBe('ends within three years');
  });

  test('an own field, one colour a value; the key holds only what occurs', () => {
    expect(labels('own:owner')).toEqual(['ops', 'guest', 'no owner']);
    expect(ownFieldNames(devices)).toEqual(['owner']);
    expect(shadingOf(network, devices.slice(0, 1), 'status', { today: '2028-06-01' }).key).toHaveLength(1);
    expect([isColourBy('own:owner'), isColourBy('power'), isColourBy('mood')]).toEqual([true, true, false]);
  });
});
