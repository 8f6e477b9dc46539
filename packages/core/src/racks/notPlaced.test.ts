import { describe, expect, test } from '@jest/globals';
import { deviceSchedule } from './reports/devices.ts';
import { findReport } from '../report/registry.ts';
import { notPlacedSchedule } from './reports/notPlaced.ts';
import { nextDeviceName } from './deviceNames.ts';
import { addDevice } from './commands/devices.ts';
import { standIn } from './commands/placeDevices.ts';
import { joinDevices } from '../cabling/commands/join.ts';
import { findingsOf } from '../check/registry.ts';
import { update } from '../change/change.ts';
import { readExchange } from '../exchange/read.ts';
import { writeExchange } from '../exchange/write.ts';
import { devicesNotPlaced, whereIs } from '../model/network/places.ts';
import { blankPlace } from '../model/kinds/sites/place.ts';
import { blankRack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { newId } from '../model/values/ids.ts';
import { called, changed, drawn, emptyProject, modelNamed } from '../testing/testDrawn.ts';

const place = { ...blankPlace, id: newId(), name: 'Reed Island', kind: 'site' as const, code: 'RI' };

test('names of what has no site leave that part out and count on', () => {
  const network = drawn({ 'rt-1': 'Generic router', 'core-7': 'CR-6032' });
  const switchId = modelNamed('CR-6032').id;
  expect(nextDeviceName(network, null, 'RT', modelNamed('Generic router').id)).toBe('rt-2');
  expect(nextDeviceName(network, null, 'SW', switchId)).toBe('core-8');
  expect(nextDeviceName(network, null, 'FW', null)).toBe('fw-1');
  const withSite = changed(network, [{ op: 'create', kind: 'place', id: place.id, after: place }]);
  expect(nextDeviceName(withSite, place.id, 'RT', null)).toBe('ri-rt-1');
});

test('listed as not placed yet in schedules; once placed it is not', () => {
  const start = drawn({ 'rt-1': 'Generic router', 'sw-1': 'AX-2424P' });
  const made = joinDevices(start, {
    aDeviceId: called(start, 'rt-1').id,
    bDeviceId: called(start, 'sw-1').id,
  });
  if (!made.ok) throw new Error(made.why);
  const network = changed(made.network, [{ op: 'create', kind: 'place', id: place.id, after: place }]);
  expect(
    notPlacedSchedule(network, null).rows.map((row) => [row['name'], row['model'], row['joinedTo']]),
  ).toEqual([
    ['rt-1', 'Generic router', 'sw-1'],
    ['sw-1', 'Norvane AX-2424P', 'rt-1'],
  ]);
  expect(deviceSchedule(network, null).rows.map((row) => row['place'])).toEqual([
    'not placed yet',
    'not placed yet',
  ]);
  expect(findReport('not-placed')?.make(network, null).ids).toHaveLength(2);
  expect(whereIs(network, called(network, 'rt-1'))).toBe('not placed yet');
  expect(notPlacedSchedule(network, place.id).rows).toEqual([]);
  const put = update('device', called(network, 'rt-1'), { placeId: place.id });
  const placed = changed(network, put === null ? [] : [put]);
  expect(devicesNotPlaced(placed).map((device) => device.name)).toEqual(['sw-1']);
  // Of the site: what a cable joins to something that stands there.
  expect(notPlacedSchedule(placed, place.id).rows.map((row) => row['name'])).toEqual(['sw-1']);
});

describe('let go over a container', () => {
  const rack = { ...blankRack, id: newId(), name: 'RI-1', placeId: place.id, units: 3 };
  const room = changed(
    drawn({
      'rt-1': 'Generic router',
      'sw-1': 'AX-2424P',
      'sw-2': 'AX-2424P',
      'sw-3': 'AX-2424P',
      'cam-1': 'Generic camera',
    }),
    [
      { op: 'create', kind: 'place', id: place.id, after: place },
      { op: 'create', kind: 'rack', id: rack.id, after: rack },
    ],
  );
  const letGo = (network: Network, names: readonly string[], id: string) =>
    standIn(
      network,
      names.map((name) => called(network, name)),
      id,
    );

  test('of a place they stand there; of a rack in its highest free units, what has no height at its side', () => {
    const there = letGo(room, ['rt-1'], place.id);
    expect(there).toMatchObject({ ok: true, set: { sentence: 'Placed rt-1 at Reed Island' } });
    const mounted = letGo(room, ['sw-1', 'sw-2', 'cam-1'], rack.id);
    if (!mounted.ok) throw new Error(mounted.why);
    expect(mounted.set.sentence).toBe('Mounted 3 devices in RI-1');
    const network = changed(room, mounted.set.changes);
    expect(
      ['sw-1', 'sw-2', 'cam-1']
        .map((name) => called(network, name))
        .map(({ rackId, unit }) => [rackId, unit]),
    ).toEqual([
      [rack.id, 3],
      [rack.id, 2],
      [rack.id, null],
    ]);
  });

  test('a rack that is full, or carries no more, says so and nothing is mounted', () => {
    expect(letGo(room, ['sw-1', 'sw-2', 'sw-3', 'rt-1'], rack.id)).toEqual({
      ok: false,
      why: 'RI-1 has no 1 U free for rt-1.',
    });
    const light = changed(
      room,
      [update('rack', rack, { massLimitKg: 1 })].flatMap((one) => one ?? []),
    );
    const heavy = letGo(light, ['sw-1'], rack.id);
    expect(heavy.ok ? '' : heavy.why).toMatch(/kg/);
  });
});

test('a file keeps it, and no check asks for a place', () => {
  const network = drawn({ 'rt-1': 'Generic router', 'rt-2': 'Generic router' });
  const read = readExchange(emptyProject(), writeExchange(network));
  if (!read.ok) throw new Error(read.problems[0]?.message);
  expect(devicesNotPlaced(changed(emptyProject(), read.changes)).map((device) => device.name)).toEqual([
    'rt-1',
    'rt-2',
  ]);
  expect(findingsOf(network).map((finding) => finding.rule)).toEqual([]);
});

test('racked, it is placed', () => {
  const network = drawn({ 'rt-1': 'Generic router' });
  const rack = { ...blankRack, id: newId(), name: 'R1', placeId: place.id };
  const staged = changed(network, [
    { op: 'create', kind: 'place', id: place.id, after: place },
    { op: 'create', kind: 'rack', id: rack.id, after: rack },
  ]);
  const put = update('device', called(staged, 'rt-1'), { rackId: rack.id, unit: 3 });
  expect(devicesNotPlaced(changed(staged, put === null ? [] : [put]))).toEqual([]);
  expect(
    addDevice(network, {
      name: 'x',
      modelId: modelNamed('CR-6032').id,
      rackId: null,
      placeId: null,
      unit: null,
    })?.sentence,
  ).toBe('Added x (Norvane CR-6032)');
});
