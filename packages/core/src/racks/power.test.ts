import { describe, expect, test } from '@jest/globals';
import { deviceNamed, networkOf, rackNamed } from '../testing/testNetwork.ts';
import { freePortsBySpeed, rackCapacity, sumCapacity } from './capacity.ts';
import { overText } from './overLimit.ts';
import { feedFailure, powerFlow, usableW } from './power.ts';

const single = (name: string, amps: number) => ({
  name,
  volts: 230,
  amps,
  phases: 1 as const,
  derating: 0.8,
});

/** Two servers of 750 W on two strips, a switch of 920 W on strip B alone, a UPS before strip A. */
const room = () =>
  networkOf({
    places: [{ path: 'KQ', kind: 'site', code: 'KQ' }],
    racks: [{ name: 'R1', place: 'KQ', units: 42, feeds: [single('A', 16), single('B', 16)] }],
    devices: [
      { name: 'ups', model: 'Brackwater UP-3000', rack: 'R1', unit: 1, feed: 'A' },
      { name: 'pda', model: 'Brackwater PS-16', rack: 'R1' },
      { name: 'pdb', model: 'Brackwater PS-16', rack: 'R1', feed: 'B' },
      { name: 'srv-1', model: 'Tessmark T2-Rack', rack: 'R1', unit: 10 },
      { name: 'srv-2', model: 'Tessmark T2-Rack', rack: 'R1', unit: 12 },
      { name: 'acc-1', model: 'Norvane AX-2448P', rack: 'R1', unit: 40 },
      { name: 'loose', model: 'Norvane AX-2424P', rack: 'R1', unit: 38 },
    ],
    cables: [
      { label: 'P-1', type: 'power C19–C20', a: 'ups:hi1', b: 'pda:in' },
      { label: 'P-2', type: 'power C13–C14', a: 'pda:o1', b: 'srv-1:psu1' },
      { label: 'P-3', type: 'power C13–C14', a: 'pdb:o1', b: 'srv-1:psu2' },
      { label: 'P-4', type: 'power C13–C14', a: 'pda:o2', b: 'srv-2:psu1' },
      { label: 'P-5', type: 'power C13–C14', a: 'pdb:o2', b: 'srv-2:psu2' },
      { label: 'P-6', type: 'power C13–C14', a: 'pdb:o3', b: 'acc-1:psu1' },
    ],
  });

describe('power chains', () => {
  test('a 16 A feed at 230 V carries 2,944 W at 80 %; 32 A on three phases 17,664 W', () => {
    expect(usableW(single('A', 16))).toBeCloseTo(2944);
    expect(usableW({ name: 'B', volts: 230, amps: 32, phases: 3, derating: 0.8 })).toBeCloseTo(17664);
  });

  test('dual inlets share the draw; a single inlet loads its feed alone', () => {
    const network = room();
    const [a, b] = rackCapacity(network, rackNamed(network, 'R1')).feeds;
    // A: half of both servers (750 W), strip 5 W, UPS 90 W. B: the same half, 920 W of the switch, strip 5 W.
    expect(a?.maxW).toBeCloseTo(750 + 5 + 90);
    expect(b?.maxW).toBeCloseTo(750 + 920 + 5);
    expect(a?.typicalW).toBeCloseTo(380 + 3 + 54);
    // Alone, feed B carries both servers in full: the UPS no longer draws.
    expect(b?.aloneW).toBeCloseTo(1500 + 920 + 5);
    expect(
      powerFlow(network, [...network.all('device')]).throughOf(deviceNamed(network, 'ups')).maxW,
    ).toBeCloseTo(845);
  });

  test('feed B fails: the single-corded switch goes dark, the servers go on; what has no cord is told apart', () => {
    const network = room();
    const failure = feedFailure(network, [rackNamed(network, 'R1')], 'b');
    expect(failure.dark.map((device) => device.name)).toEqual(['acc-1', 'pdb']);
    expect(failure.onBattery).toEqual([]);
    expect(failure.undocumented.map((device) => device.name)).toEqual(['loose']);
    expect(failure.overloaded).toEqual([]);
  });

  test('feed A fails: strip A goes on from the UPS battery, nothing is dark', () => {
    const network = room();
    const failure = feedFailure(network, [rackNamed(network, 'R1')], 'A');
    expect(failure.dark).toEqual([]);
    expect(failure.onBattery.map((device) => device.name)).toEqual(['pda', 'ups']);
  });

  test('a feed that cannot carry all alone is said to have no redundancy, with the numbers', () => {
    const network = networkOf({
      places: [{ path: 'KQ' }],
      racks: [{ name: 'R1', place: 'KQ', units: 10, feeds: [single('A', 6), single('B', 6)] }],
      devices: [
        { name: 'pda', model: 'Brackwater PS-16', rack: 'R1', feed: 'A' },
        { name: 'pdb', model: 'Brackwater PS-16', rack: 'R1', feed: 'B' },
        { name: 's1', model: 'Tessmark T2-Rack', rack: 'R1', unit: 1 },
        { name: 's2', model: 'Tessmark T2-Rack', rack: 'R1', unit: 3 },
      ],
      cables: ['s1', 's2'].flatMap((name, at) => [
        { label: `A-${at}`, a: `pda:o${at + 1}`, b: `${name}:psu1` },
        { label: `B-${at}`, a: `pdb:o${at + 1}`, b: `${name}:psu2` },
      ]),
    });
    expect(
      rackCapacity(network, rackNamed(network, 'R1')).over.map((over) => overText(network, over)),
    ).toEqual([
      'Feed A of R1 would carry 1 505 W alone, above its usable 1 104 W: no redundancy',
      'Feed B of R1 would carry 1 505 W alone, above its usable 1 104 W: no redundancy',
    ]);
    expect(feedFailure(network, [rackNamed(network, 'R1')], 'A').overloaded).toMatchObject([
      { feed: 'B', usableW: 1104 },
    ]);
  });

  test('three phases: each outlet bank loads its own phase', () => {
    const network = networkOf({
      places: [{ path: 'KQ' }],
      racks: [
        {
          name: 'R1',
          place: 'KQ',
          units: 42,
          feeds: [{ name: 'A', volts: 230, amps: 4, phases: 3, derating: 0.8 }],
        },
      ],
      devices: [
        { name: 'strip', model: 'Brackwater PS-36T', rack: 'R1', feed: 'A' },
        { name: 's1', model: 'Tessmark T2-Rack', rack: 'R1', unit: 1 },
        { name: 's2', model: 'Tessmark T2-Rack', rack: 'R1', unit: 3 },
      ],
      cables: [
        { label: 'C-1', a: 'strip:o1', b: 's1:psu1' },
        { label: 'C-2', a: 'strip:o11', b: 's2:psu1' },
      ],
    });
    const capacity = rackCapacity(network, rackNamed(network, 'R1'));
    // 4 A x 230 V x 0.8 = 736 W a phase: the feed as a whole is fine, phase 1 and 2 are not.
    expect(capacity.feeds[0]).toMatchObject({ usableW: 2208, usablePhaseW: 736 });
    expect(capacity.feeds[0]?.worstPhaseW).toBeCloseTo(764);
    expect(capacity.over.map((over) => overText(network, over))).toEqual([
      'A phase of feed A of R1 carries up to 764 W, above its usable 736 W',
    ]);
  });

  test('two strips that feed each other are dark, not endless', () => {
    const network = networkOf({
      places: [{ path: 'KQ' }],
      racks: [{ name: 'R1', place: 'KQ', units: 10 }],
      devices: [
        { name: 'u1', model: 'Brackwater UP-1500', rack: 'R1', unit: 1 },
        { name: 'u2', model: 'Brackwater UP-1500', rack: 'R1', unit: 3 },
      ],
      cables: [
        { label: 'C-1', a: 'u1:out1', b: 'u2:in' },
        { label: 'C-2', a: 'u2:out1', b: 'u1:in' },
      ],
    });
    const flow = powerFlow(network, [...network.all('device')]);
    expect(['onBattery', 'dark']).toContain(flow.stateOf(deviceNamed(network, 'u1')));
    expect(Number.isFinite(flow.throughOf(deviceNamed(network, 'u1')).maxW)).toBe(true);
  });

  test('a chassis that needs two of its four inlets goes dark with one', () => {
    const network = networkOf({
      places: [{ path: 'KQ' }],
      racks: [{ name: 'R1', place: 'KQ', units: 10, feeds: [single('A', 32), single('B', 32)] }],
      devices: [
        { name: 'pda', model: 'Brackwater PS-24M', rack: 'R1', feed: 'A' },
        { name: 'pdb', model: 'Brackwater PS-24M', rack: 'R1', feed: 'B' },
        { name: 'gpu', model: 'Tessmark T8-Accel', rack: 'R1', unit: 1 },
      ],
      cables: [
        { label: 'C-1', a: 'pda:h1', b: 'gpu:psu1' },
        { label: 'C-2', a: 'pdb:h1', b: 'gpu:psu2' },
      ],
    });
    expect(feedFailure(network, [rackNamed(network, 'R1')], 'A').dark.map((one) => one.name)).toEqual([
      'gpu',
      'pda',
    ]);
  });
});

test('capacity: mass, heat, units and free ports by speed; sums over racks', () => {
  const network = room();
  const capacity = rackCapacity(network, rackNamed(network, 'R1'));
  expect(capacity).toMatchObject({
    units: 42,
    usedUnits: 9,
    freeUnits: 33,
    massUnknown: 0,
    massLimitKg: null,
  });
  expect(capacity.massKg).toBeCloseTo(52 + 2 * 3.6 + 2 * 24.5 + 6.1 + 4.4);
  expect(capacity.draw.maxW).toBe(90 + 5 + 5 + 1500 + 920 + 480);
  expect(Math.round(capacity.btuPerHour)).toBe(Math.round(3000 * 3.412142));
  expect([...freePortsBySpeed(network, network.find('devicesByRack', rackNamed(network, 'R1').id))]).toEqual([
    [25e9, 4],
    [10e9, 8],
    [1e9, 76],
  ]);
  const sum = sumCapacity([capacity, capacity]);
  expect(sum).toMatchObject({ racks: 2, freeUnits: 66, massLimitKg: null });
  expect(sum.usableW).toBeCloseTo(4 * 2944);
});
