import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../change/apply.ts';
import type { ChangeSet } from '../change/change.ts';
import type { Network } from '../model/network/network.ts';
import { deviceNamed, portId, rackNamed, smallRoom } from '../testing/testNetwork.ts';
import { disconnect, nextFreePort } from '../cabling/commands/cables.ts';
import { addDevice } from '../racks/commands/devices.ts';
import { moveDevice } from '../racks/commands/racking.ts';
import { editRow } from './edit.ts';
import { addPlace, addRack, deletePlace } from '../places/commands/places.ts';
import { usualFacets } from '../model/kinds/drawings/projections.ts';
import { facets } from '../model/kinds/drawings/sheet.ts';
import { addSheet, deleteSheet, placeOnSheet, setFacet, tidySheet } from '../sheets/commands/sheets.ts';
import { runs } from '../testing/testRuns.ts';

const done = (network: Network, set: ChangeSet): Network => {
  const applied = applyChanges(network, set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};

describe('sentences say who would read them what happened', () => {
  const network = smallRoom();
  const acc = deviceNamed(network, 'kq-acc-1');
  test('editing one field, a name, several fields, none', () => {
    expect(editRow(network, 'device', acc, { serial: 'NV-1' }).sentence).toBe(
      'Set serial of kq-acc-1 to NV-1',
    );
    expect(editRow(network, 'device', acc, { name: 'kq-acc-9' }).sentence).toBe(
      'Renamed kq-acc-1 to kq-acc-9',
    );
    expect(editRow(network, 'device', acc, { serial: 'x', status: 'planned' }).sentence).toBe(
      'Changed kq-acc-1: set serial to x, set status to planned',
    );
    expect(editRow(network, 'device', acc, { serial: null }).changes).toEqual([]);
  });

  test('a length is told with its unit, a reference by its name', () => {
    const cable = network.findOne('cableByLabel', 'kq-00001');
    if (cable === null) throw new Error('cable');
    expect(editRow(network, 'cable', cable, { lengthM: 3 }).sentence).toBe('Set length of KQ-00001 to 3 m');
    expect(editRow(network, 'device', acc, { rackId: rackNamed(network, 'KQ-A1').id }).sentence).toBe(
      'Set rack of kq-acc-1 to KQ-A1',
    );
  });

  test('moving, disconnecting, adding places and racks', () => {
    expect(moveDevice(network, acc, { rackId: rackNamed(network, 'KQ-A1').id, unit: 20 }).sentence).toBe(
      'Moved kq-acc-1 from KQ-A2 U40 to KQ-A1 U20',
    );
    const cable = network.findOne('cableByLabel', 'kq-00002');
    if (cable === null) throw new Error('cable');
    expect(disconnect(network, cable).sentence).toBe(
      'Disconnected KQ-A1-PP1 R1 from KQ-A2-PP1 R1: removed KQ-00002',
    );
    const room = rackNamed(network, 'KQ-A1').placeId;
    expect(addRack(network, { name: ' KQ-A3 ', placeId: room, units: 42 }).sentence).toBe(
      'Added rack KQ-A3 in Kelder Quay/Data room',
    );
    expect(addPlace(network, { name: 'Attic', kind: 'floor', parentId: null, code: null }).sentence).toBe(
      'Added floor Attic',
    );
  });
});

test('a new rack stands after its neighbours; a place with racks is not deleted', () => {
  const network = smallRoom();
  const room = network.get('place', rackNamed(network, 'KQ-A1').placeId);
  if (room === null) throw new Error('room');
  const grown = done(network, addRack(network, { name: 'KQ-A3', placeId: room.id, units: 42 }));
  expect(rackNamed(grown, 'KQ-A3').position).toBe(3);
  const refused = applyChanges(network, deletePlace(network, room).changes);
  expect(refused).toMatchObject({ ok: false, problems: [{ code: 'inUse' }] });
});

test('a name that a status could have is told what a status can be', () => {
  const network = smallRoom();
  const set = editRow(network, 'device', deviceNamed(network, 'kq-acc-1'), { status: 'broken' as never });
  const refused = applyChanges(network, set.changes);
  if (refused.ok) throw new Error('was allowed');
  expect(refused.problems[0]?.message).toBe('device kq-acc-1: Status is not planned, active or retired.');
});

test('the next free port is of the same kind, wraps round, and ends with the last', () => {
  const network = smallRoom();
  const port = (name: string) => network.get('port', portId(network, name));
  const last = port('kq-acc-1:te1/52');
  const taken = port('kq-acc-1:te1/49');
  if (last === null || taken === null) throw new Error('port');
  expect(nextFreePort(network, taken)?.name).toBe('te1/50');
  expect(nextFreePort(network, last)?.name).toBe('te1/50');
  const inlet = port('kq-acc-1:psu1');
  expect(inlet === null ? undefined : nextFreePort(network, inlet)).toBeNull();
});

describe('sheets', () => {
  test('a second sheet of a place gets a number; what it shows keeps its order', () => {
    const network = smallRoom();
    const first = addSheet(network, { scopeId: null });
    const one = done(network, first);
    const second = addSheet(one, { scopeId: null });
    expect(second.sentence).toBe('Added sheet All sites · cabling 2');
    const sheet = one.get('sheet', first.sheetId);
    if (sheet === null) throw new Error('sheet');
    const shown = done(one, setFacet(sheet, 'power', 'locked')).get('sheet', sheet.id);
    expect(shown?.show).toEqual(facets.filter((facet) => facet === 'power' || usualFacets.includes(facet)));
    expect(shown?.locked).toEqual(['power']);
  });

  test('positions are kept, changed, given up, and go with the sheet', () => {
    const network = smallRoom();
    const made = addSheet(network, { scopeId: null });
    let now = done(network, made);
    const sheet = now.get('sheet', made.sheetId);
    const device = deviceNamed(now, 'kq-acc-1');
    if (sheet === null) throw new Error('sheet');
    const put = (x: number): ChangeSet => placeOnSheet(now, sheet, new Map([[device.id, { x, y: 8.4 }]]));
    expect(put(16).sentence).toBe('Moved kq-acc-1 on sheet All sites · cabling');
    now = done(now, put(16));
    now = done(now, put(32));
    expect(now.find('sheetItemsBySheet', sheet.id)).toMatchObject([{ x: 32, y: 8 }]);
    expect(put(32).changes).toEqual([]);
    expect(done(now, tidySheet(now, sheet)).count('sheetItem')).toBe(0);
    expect(done(now, deleteSheet(now, sheet)).count('sheet')).toBe(0);
  });
});

test('property: adding a device and any edit of it never changes another row', () => {
  const network = smallRoom();
  const model = network.findOne('modelByTitle', 'lumenroot lp-24lc');
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 36 }), fc.string({ maxLength: 20 }), (unit, notes) => {
      const set = addDevice(network, {
        name: 'fresh',
        modelId: model?.id ?? '',
        rackId: rackNamed(network, 'KQ-A2').id,
        placeId: null,
        unit,
      });
      if (set === null) throw new Error('model');
      const grown = done(network, set);
      const edited = done(grown, editRow(grown, 'device', deviceNamed(grown, 'fresh'), { notes }));
      for (const device of network.all('device')) expect(edited.get('device', device.id)).toBe(device);
      expect(edited.count('port')).toBe(network.count('port') + 48);
    }),
    { numRuns: runs(30) },
  );
});
