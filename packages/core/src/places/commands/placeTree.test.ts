import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { invert } from '../../change/invert.ts';
import { csvRows } from '../../exchange/csv.ts';
import { readPlaceRows } from '../exchange/placeRows.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath } from '../../model/network/places.ts';
import { networkOf } from '../../testing/testNetwork.ts';
import {
  addPlaces,
  contentsOf,
  contentsText,
  deletePlaceMovingContents,
  mergePlaces,
  movePlace,
} from './placeTree.ts';
import type { Attempt } from '../../commands/attempt.ts';

const start = (): Network =>
  networkOf({
    places: [
      { path: 'Kelder Quay', kind: 'site', code: 'KQ' },
      { path: 'Kelder Quay/House', kind: 'building' },
      { path: 'Kelder Quay/House/Ground', kind: 'floor' },
      { path: 'Kelder Quay/House/Ground/Hall', kind: 'room' },
      { path: 'Kelder Quay/Annex', kind: 'building', notes: 'Leased' },
      { path: 'Kelder Quay/Annex/Ground', kind: 'floor' },
      { path: 'Kelder Quay/Annex/Ground/Store', kind: 'room' },
    ],
    racks: [{ name: 'R1', place: 'Kelder Quay/Annex/Ground/Store' }],
    devices: [
      { name: 'cam', role: 'CM', place: 'Kelder Quay/Annex/Ground' },
      { name: 'srv', role: 'SV', rack: 'R1', unit: 1 },
    ],
  });
const place = (network: Network, path: string) => {
  const found = [...network.all('place')].find((one) => placePath(network, one.id) === path);
  if (found === undefined) throw new Error(path);
  return found;
};
const after = (network: Network, attempt: Attempt): Network => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error('not applied');
  return applied.network;
};

describe('the tree of places', () => {
  test('a subtree moves with all in it; not into itself, and not into something smaller', () => {
    const network = start();
    const moved = after(
      network,
      movePlace(network, place(network, 'Kelder Quay/House/Ground'), place(network, 'Kelder Quay').id),
    );
    expect(placePath(moved, place(network, 'Kelder Quay/House/Ground/Hall').id)).toBe(
      'Kelder Quay/Ground/Hall',
    );
    const self = movePlace(network, place(network, 'Kelder Quay'), place(network, 'Kelder Quay/House').id);
    expect(self.ok ? '' : self.why).toContain('it would lie inside itself');
    const small = movePlace(
      network,
      place(network, 'Kelder Quay/Annex'),
      place(network, 'Kelder Quay/House/Ground/Hall').id,
    );
    expect(small.ok ? '' : small.why).toBe(
      'Annex is a building, which cannot lie inside the room Hall. Choose a site or building for it.',
    );
  });

  test('merging joins places of the same name and keeps everything in them', () => {
    const network = start();
    const attempt = mergePlaces(
      network,
      place(network, 'Kelder Quay/Annex'),
      place(network, 'Kelder Quay/House'),
    );
    const merged = after(network, attempt);
    expect([...merged.all('place')].map((one) => placePath(merged, one.id)).sort()).toEqual([
      'Kelder Quay',
      'Kelder Quay/House',
      'Kelder Quay/House/Ground',
      'Kelder Quay/House/Ground/Hall',
      'Kelder Quay/House/Ground/Store',
    ]);
    expect(contentsText(contentsOf(merged, place(merged, 'Kelder Quay/House')))).toBe(
      '3 places, 1 rack, 2 devices',
    );
    expect(place(merged, 'Kelder Quay/House').notes).toBe('Leased');
    const back = attempt.ok ? applyChanges(merged, invert(attempt.set.changes)) : null;
    expect(
      back?.ok && [...back.network.all('place')].map((one) => placePath(back.network, one.id)).sort(),
    ).toEqual([...network.all('place')].map((one) => placePath(network, one.id)).sort());
    const inside = mergePlaces(network, place(network, 'Kelder Quay'), place(network, 'Kelder Quay/House'));
    expect(inside.ok ? '' : inside.why).toContain('lies inside');
  });

  test('deleting offers to move what is inside, and says it in numbers', () => {
    const network = start();
    const attempt = deletePlaceMovingContents(
      network,
      place(network, 'Kelder Quay/Annex'),
      place(network, 'Kelder Quay'),
    );
    expect(attempt.ok && attempt.set.sentence).toBe(
      'Deleted building Kelder Quay/Annex and moved 2 places, 1 rack, 2 devices to Kelder Quay',
    );
    expect(placePath(after(network, attempt), place(network, 'Kelder Quay/Annex/Ground/Store').id)).toBe(
      'Kelder Quay/Ground/Store',
    );
  });

  test('a pasted column adds the new names and tells those that were there', () => {
    const network = start();
    const attempt = addPlaces(network, place(network, 'Kelder Quay/House/Ground').id, 'room', [
      'Office 1',
      ' Hall ',
      '',
      'Office 2',
      'office 1',
    ]);
    expect(attempt.left).toEqual(['Hall', 'office 1']);
    expect(attempt.ok && attempt.set.sentence).toBe(
      'Added 2 rooms in Kelder Quay/House/Ground: Office 1, Office 2',
    );
  });
});

describe('importing places and racks', () => {
  test('every row is told; the wrong half leaves the good half standing', () => {
    const rows = csvRows(
      [
        'Path;Kind;Code;Rack;Units;Mass limit (kg)',
        'Ashholm;site;AH;;;',
        'Ashholm/Comms room;room;;AH-A1;42;900',
        'Ashholm/Comms room;;;AH-A2;99;',
        'Brinsay;castle;BR;;;',
        ';room;;;;',
        'Kelder Quay;site;KQ;;;',
        'Otterslip;site;KQ;;;',
        'Ashholm/Comms room;;;AH-A3;many;',
      ].join('\n'),
    );
    const network = start();
    const read = readPlaceRows(network, rows);
    expect(read.results.map((one) => [one.row, one.does, one.problem])).toEqual([
      [2, 'adds', null],
      [3, 'adds', null],
      [4, 'wrong', 'rack AH-A2: Units is above 60'],
      [5, 'wrong', 'Kind “castle” is not site, building, floor, room, row, account, region, zone, network'],
      [6, 'wrong', 'The path of the place is missing'],
      [7, 'nothing', null],
      [8, 'wrong', expect.stringContaining('There is already a place with the site code KQ')],
      [9, 'wrong', 'Units “many” is not a number'],
    ]);
    const applied = applyChanges(network, read.changes);
    expect(applied.ok && applied.network.findOne('rackByName', 'ah-a1')).toMatchObject({
      units: 42,
      massLimitKg: 900,
    });
    expect(applied.ok && applied.network.findOne('rackByName', 'ah-a2')).toBeNull();
  });

  test('without a path column nothing is read, and the headings found are named', () => {
    expect(
      readPlaceRows(start(), [
        ['Name', 'Height'],
        ['a', '1'],
      ]).problem,
    ).toBe('The first row must hold headings, among them “Path”. It holds: Name, Height.');
  });
});

test('pathways follow a place that is merged; the one between the two goes', () => {
  const network = networkOf({
    places: [
      { path: 'S', kind: 'site' },
      { path: 'S/a', kind: 'room' },
      { path: 'S/b', kind: 'room' },
      { path: 'S/c', kind: 'room' },
    ],
    pathways: [
      { name: 'tray', from: 'S/a', to: 'S/b', lengthM: 5 },
      { name: 'duct', from: 'S/c', to: 'S/a', lengthM: 9 },
    ],
  });
  const named = (name: string) => {
    const place = [...network.all('place')].find((one) => one.name === name);
    if (place === undefined) throw new Error(name);
    return place;
  };
  const merged = mergePlaces(network, named('a'), named('b'));
  if (!merged.ok) throw new Error(merged.why);
  const applied = applyChanges(network, merged.set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  expect([...applied.network.all('pathway')]).toEqual([
    expect.objectContaining({ name: 'duct', aPlaceId: named('c').id, bPlaceId: named('b').id }),
  ]);
});
