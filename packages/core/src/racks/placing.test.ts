import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../change/apply.ts';
import { editRow } from '../commands/edit.ts';
import { collide } from '../change/constraints/rackSpace.ts';
import { acceptFit, fillBlanks, moveBlock, shiftBlock, swapDevices, tryMove } from './commands/racking.ts';
import { kindNames } from '../model/kinds.ts';
import { Network } from '../model/network/network.ts';
import { deviceNamed, networkOf, rackNamed } from '../testing/testNetwork.ts';
import { proposeFit } from './fit.ts';
import { openPositions } from './occupancy.ts';
import { rackCapacity } from './capacity.ts';
import { rackSummary } from './summary.ts';
import { readNeed, whereFits } from './whereFits.ts';
import { runs } from '../testing/testRuns.ts';

const rack = (name: string, rest: object = {}) => ({ name, place: 'KQ', units: 20, ...rest });
const network = (devices: object[], racks = [rack('R1'), rack('R2')]): Network =>
  networkOf({
    places: [{ path: 'KQ', kind: 'site', code: 'KQ' }],
    racks,
    devices: devices as never,
    models: [{ name: 'blank', role: 'XX', part: 'blank', fillsBothFaces: false }],
  });

describe('what stands where', () => {
  test('half units, half depth and half width share a unit; full ones do not', () => {
    const body = { unit: 5, units: 1, face: 'front', fillsBothFaces: false, side: 'full' } as const;
    expect(collide(body, { ...body, face: 'rear' })).toBe(false);
    expect(collide(body, { ...body, face: 'rear', fillsBothFaces: true })).toBe(true);
    expect(collide({ ...body, side: 'left' }, { ...body, side: 'right' })).toBe(false);
    expect(collide({ ...body, side: 'left' }, { ...body, side: 'left' })).toBe(true);
    expect(collide({ ...body, units: 0.5 }, { ...body, unit: 5.5, units: 0.5 })).toBe(false);
    expect(collide({ ...body, units: 1 }, { ...body, unit: 5.5, units: 0.5 })).toBe(true);
  });

  test('half-unit gear also finds the upper half of a unit', () => {
    const half = { units: 0.5, face: 'front', fillsBothFaces: false, side: 'full' } as const;
    expect(openPositions({ units: 2 }, [], half)).toEqual([2.5, 2, 1.5, 1]);
    expect(openPositions({ units: 2 }, [{ ...half, unit: 1, units: 1 }], half)).toEqual([2.5, 2]);
  });

  test('refused moves say why: taken, too deep, out of the rack, too heavy, too much power', () => {
    const feeds = [{ name: 'A', volts: 230, amps: 4, phases: 1 as const, derating: 0.8 }];
    const start = network(
      [
        { name: 'srv', model: 'Tessmark T2-Rack', rack: 'R1', unit: 1 },
        { name: 'panel', model: 'Lumenroot CP-24', rack: 'R1', unit: 5 },
        { name: 'rear-panel', model: 'Lumenroot CP-24', rack: 'R1', unit: 8, face: 'rear' },
        { name: 'ups', model: 'Brackwater UP-3000', place: 'KQ' },
        { name: 'box', model: 'Tessmark T4-Quad', place: 'KQ' },
      ],
      [rack('R1', { massLimitKg: 60 }), rack('R2', { feeds })],
    );
    const R1 = rackNamed(start, 'R1').id;
    const move = (name: string, rackId: string, unit: number) => {
      const attempt = tryMove(start, deviceNamed(start, name), { rackId, unit });
      return attempt.ok ? 'ok' : attempt.why;
    };
    expect(move('srv', R1, 5)).toBe('panel fills U5');
    expect(move('srv', R1, 7)).toBe('rear-panel fills U8 at the rear, and the two together are too deep');
    expect(move('srv', R1, 20)).toBe('srv needs U20–U21, and R1 has U1–U20');
    expect(move('ups', R1, 10)).toBe('ups weighs 52 kg: R1 would hold 80.3 kg of at most 60 kg');
    expect(move('box', rackNamed(start, 'R2').id, 1)).toBe(
      'box draws up to 2 200 W: R2 would draw 2 200 W of 736 W its feeds can carry',
    );
    expect(move('panel', R1, 8)).toBe('ok');
    expect(move('srv', R1, 2)).toBe('ok');
  });

  test('a block moves together, also into another rack; it cannot leave the rack', () => {
    const start = network([
      { name: 'a', model: 'Norvane AX-2448P', rack: 'R1', unit: 18 },
      { name: 'b', model: 'Lumenroot CP-48', rack: 'R1', unit: 19 },
      { name: 'c', model: 'Lumenroot CP-48', rack: 'R1', unit: 3 },
    ]);
    const devices = [deviceNamed(start, 'a'), deviceNamed(start, 'b')];
    expect(moveBlock(start, devices, { units: 2 })).toEqual({
      ok: false,
      why: 'b would leave R1, which has U1–U20',
    });
    const down = moveBlock(start, devices, { units: -1, rackId: rackNamed(start, 'R2').id });
    expect(down.ok && down.set.sentence).toBe('Moved 2 devices to R2');
    const shifted = shiftBlock(start, rackNamed(start, 'R1'), 18, 20, -4);
    const after = shifted.ok ? applyChanges(start, shifted.set.changes) : null;
    expect(after?.ok && [deviceNamed(after.network, 'a').unit, deviceNamed(after.network, 'b').unit]).toEqual(
      [14, 15],
    );
    expect(shifted.ok && shifted.set.sentence).toBe('Moved 2 devices 4 U down');
    const hit = moveBlock(start, devices, { units: -15 });
    expect(hit.ok ? '' : hit.why).toContain('cannot stand at U3 of R1: c fills U3');
  });

  test('swap exchanges places; of unequal heights only where both fit', () => {
    const start = network([
      { name: 'one', model: 'Norvane AX-2448P', rack: 'R1', unit: 4 },
      { name: 'two', model: 'Lumenroot CP-48', rack: 'R2', unit: 9 },
      { name: 'tall', model: 'Tessmark T2-Rack', rack: 'R1', unit: 5 },
    ]);
    const swapped = swapDevices(start, deviceNamed(start, 'one'), deviceNamed(start, 'two'));
    const after = swapped.ok ? applyChanges(start, swapped.set.changes) : null;
    expect(
      after?.ok && [deviceNamed(after.network, 'one').unit, deviceNamed(after.network, 'two').unit],
    ).toEqual([9, 4]);
    const refused = swapDevices(start, deviceNamed(start, 'one'), deviceNamed(start, 'tall'));
    expect(refused.ok).toBe(false);
  });

  test('blanks fill every free unit at the front and nothing else', () => {
    const start = network([
      { name: 'srv', model: 'Tessmark T2-Rack', rack: 'R1', unit: 1 },
      { name: 'rear', model: 'Lumenroot CP-24', rack: 'R1', unit: 8, face: 'rear' },
    ]);
    const filled = fillBlanks(start, rackNamed(start, 'R1'));
    expect(filled.ok && filled.set.changes).toHaveLength(18);
    const after = filled.ok ? applyChanges(start, filled.set.changes) : null;
    const again = after?.ok ? fillBlanks(after.network, rackNamed(after.network, 'R1')) : null;
    expect(again).toEqual({ ok: false, why: 'R1 has no free unit at the front.' });
  });
});

describe('what is kept for speed is what it would be afresh', () => {
  test('property: open positions are exactly those at which nothing collides', () => {
    const body = fc.record({
      units: fc.constantFrom(0.5, 1, 1.5, 2, 3),
      face: fc.constantFrom('front' as const, 'rear' as const),
      fillsBothFaces: fc.boolean(),
      side: fc.constantFrom('full' as const, 'left' as const, 'right' as const),
    });
    const placed = fc
      .tuple(body, fc.integer({ min: 2, max: 22 }))
      .map(([one, half]) => ({ ...one, unit: half / 2 }));
    fc.assert(
      fc.property(fc.array(placed, { maxLength: 8 }), body, (others, candidate) => {
        const inside = others.filter((one) => one.unit + one.units <= 13);
        const step = Number.isInteger(candidate.units) ? 1 : 0.5;
        const expected: number[] = [];
        for (let unit = 1; unit + candidate.units <= 13; unit += step)
          if (!inside.some((other) => collide({ ...candidate, unit }, other))) expected.unshift(unit);
        expect(openPositions({ units: 12 }, inside, candidate)).toEqual(expected);
      }),
    );
  });

  test('property: the summary of a rack after any edits', () => {
    const feeds = [{ name: 'A', volts: 230, amps: 16, phases: 1 as const, derating: 0.8 }];
    const start = networkOf({
      places: [{ path: 'KQ' }],
      racks: [rack('R1', { feeds }), rack('R2', { feeds })],
      devices: [
        { name: 'a', model: 'Tessmark T2-Rack', rack: 'R1', unit: 1 },
        { name: 'b', model: 'Norvane AX-2448P', rack: 'R1', unit: 5 },
        { name: 'c', model: 'Brackwater UP-3000', rack: 'R2', unit: 1, feed: 'A' },
      ],
      cables: [
        { label: 'P-1', a: 'c:out1', b: 'a:psu1' },
        { label: 'P-2', a: 'c:out2', b: 'b:psu1' },
      ],
    });
    const edit = fc.record({
      name: fc.constantFrom('a', 'b', 'c'),
      rack: fc.constantFrom('R1', 'R2', null),
      unit: fc.integer({ min: 1, max: 18 }),
      mass: fc.option(fc.integer({ min: 1, max: 90 })),
      ask: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 12 }), (edits) => {
        let now = start;
        for (const one of edits) {
          if (one.ask)
            for (const each of now.all('rack')) void [rackSummary(now, each), rackCapacity(now, each)];
          const device = deviceNamed(now, one.name);
          const rackId = one.rack === null ? null : rackNamed(now, one.rack).id;
          const attempt = tryMove(now, device, { rackId, unit: rackId === null ? null : one.unit });
          const moved = attempt.ok ? applyChanges(now, attempt.set.changes) : null;
          if (moved?.ok) now = moved.network;
          const model = now.get('model', device.modelId);
          if (one.mass === null || model === null) continue;
          const weighed = applyChanges(now, editRow(now, 'model', model, { massKg: one.mass }).changes);
          if (weighed.ok) now = weighed.network;
        }
        const fresh = Network.of(Object.fromEntries(kindNames.map((kind) => [kind, [...now.all(kind)]])));
        for (const each of now.all('rack')) {
          expect(rackSummary(now, each)).toEqual(rackSummary(fresh, each));
          expect(rackCapacity(now, each)).toEqual(rackCapacity(fresh, each));
        }
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('fit it for me', () => {
  const gear = [
    { name: 'ups', model: 'Brackwater UP-3000', place: 'KQ' },
    { name: 'st-1', model: 'Tessmark Vault 12', place: 'KQ' },
    { name: 'acc-1', model: 'Norvane AX-2448P', place: 'KQ' },
    { name: 'PP1', model: 'Lumenroot CP-48', place: 'KQ' },
    { name: 'CM1', model: 'Lumenroot CM-1', place: 'KQ' },
    { name: 'fw-1', model: 'Ostrel Bulwark 220', place: 'KQ' },
    { name: 'strip', model: 'Brackwater PS-16', place: 'KQ' },
  ];

  test('UPS at the bottom, heavy above, panel over manager over its switch, two units free at the top', () => {
    const start = network(gear, [rack('R1', { units: 42 })]);
    const plan = proposeFit(start, [...start.all('device')], [rackNamed(start, 'R1')]);
    const at = Object.fromEntries(
      plan.placements.map((one) => [start.get('device', one.deviceId)?.name, [one.unit, one.reason]]),
    );
    expect(plan.unplaced).toEqual([]);
    expect(at).toEqual({
      ups: [1, 'UPS at the bottom, 52 kg'],
      'st-1': [4, 'heavy, 31 kg: low'],
      PP1: [40, 'directly above acc-1'],
      CM1: [39, 'between PP1 and acc-1'],
      'acc-1': [38, 'directly below its panel PP1'],
      'fw-1': [37, 'network gear below the panels'],
      strip: [null, 'at the left of R1'],
    });
    const accepted = acceptFit(start, plan);
    expect(accepted.ok && accepted.set.sentence).toBe('Fitted 7 devices into R1');
  });

  test('what is too heavy for every rack is left out, with the figure', () => {
    const start = network(gear, [rack('R1', { massLimitKg: 40 })]);
    const plan = proposeFit(start, [deviceNamed(start, 'ups')], [rackNamed(start, 'R1')]);
    expect(plan).toMatchObject({
      placements: [],
      unplaced: [{ reason: 'R1 would hold 52 of at most 40 kg' }],
    });
  });

  test('opposite airflow keeps a unit apart; single inlets go to the feed with less load', () => {
    const feeds = ['A', 'B'].map((name) => ({
      name,
      volts: 230,
      amps: 16,
      phases: 1 as const,
      derating: 0.8,
    }));
    const start = network(
      [
        { name: 'front', model: 'Norvane CR-6032', rack: 'R1', unit: 18 },
        { name: 'reverse', model: 'Norvane CR-6032R', place: 'KQ' },
        { name: 'acc-1', model: 'Norvane AX-2448P', place: 'KQ' },
        { name: 'acc-2', model: 'Norvane AX-2448P', place: 'KQ' },
      ],
      [rack('R1', { feeds })],
    );
    const moving = ['reverse', 'acc-1', 'acc-2'].map((name) => deviceNamed(start, name));
    const plan = proposeFit(start, moving, [rackNamed(start, 'R1')]);
    const unit = (name: string) =>
      plan.placements.find((one) => one.deviceId === deviceNamed(start, name).id)?.unit ?? 0;
    expect(Math.abs(unit('reverse') - 18)).toBeGreaterThan(1);
    expect(Math.abs(unit('reverse') - unit('acc-1'))).toBeGreaterThan(1);
    expect(
      plan.placements
        .map((one) => one.feed)
        .filter((feed) => feed !== null)
        .sort(),
    ).toEqual(['A', 'B']);
  });

  test('property: a proposal is always accepted, and nothing overlaps', () => {
    const models = [
      'Tessmark T2-Rack',
      'Norvane AX-2448P',
      'Lumenroot CP-48',
      'Lumenroot CM-1',
      'Brackwater UP-3000',
      'Norvane AX-1208P',
      'Lumenroot CP-24H',
    ];
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...models), { minLength: 1, maxLength: 25 }),
        fc.constantFrom('up' as const, 'down' as const),
        (chosen, numbering) => {
          const start = network(
            chosen.map((model, at) => ({ name: `d${at}`, model, place: 'KQ' })),
            [rack('R1', { numbering }), rack('R2', { numbering, massLimitKg: 200 })],
          );
          const plan = proposeFit(start, [...start.all('device')], [...start.all('rack')]);
          expect(plan.placements.length + plan.unplaced.length).toBe(chosen.length);
          const accepted = acceptFit(start, plan);
          expect(accepted.ok || plan.placements.length === 0).toBe(true);
        },
      ),
      { numRuns: runs(40) },
    );
  });
});

describe('where does it fit', () => {
  test('"4 units, 28 kg, 900 W" is read in any order', () => {
    expect(readNeed('4 units, 28 kg, 900 W')).toEqual({ units: 4, massKg: 28, maxW: 900 });
    expect(readNeed('1,5 kW 2U')).toEqual({ units: 2, massKg: null, maxW: 1500 });
    expect(readNeed('somewhere nice')).toBeNull();
  });

  test('nearest first, then the one with most to spare; the rest with the limiting figure', () => {
    const start = networkOf({
      places: [{ path: 'KQ' }, { path: 'KQ/Room' }, { path: 'AH' }],
      racks: [
        { name: 'near-full', place: 'KQ/Room', units: 4 },
        { name: 'near', place: 'KQ/Room', units: 10, massLimitKg: 100 },
        { name: 'heavy', place: 'KQ/Room', units: 10, massLimitKg: 30 },
        { name: 'far', place: 'AH', units: 42 },
      ],
      devices: [
        { name: 'a', model: 'Tessmark T2-Rack', rack: 'near-full', unit: 2 },
        { name: 'b', model: 'Norvane AX-2448P', rack: 'heavy', unit: 1 },
      ],
    });
    const room = [...start.all('place')].find((place) => place.name === 'Room');
    const ranked = whereFits(start, [...start.all('rack')], {
      units: 4,
      massKg: 28,
      maxW: 900,
      nearPlaceId: room?.id ?? null,
    });
    expect(ranked.map((one) => [one.rack.name, one.fits, one.limit])).toEqual([
      ['near', true, '7 free positions'],
      ['far', true, '39 free positions'],
      ['near-full', false, 'longest free run is 1 U'],
      ['heavy', false, '5 kg over its mass limit'],
    ]);
    expect(ranked[0]?.unit).toBe(7);
  });
});
