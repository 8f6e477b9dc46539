import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blankPlace } from '../../model/kinds/sites/place.ts';
import { blankRack } from '../../model/kinds/sites/rack.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { devicesNotPlaced } from '../../model/network/places.ts';
import { newId } from '../../model/values/ids.ts';
import { placeDevices } from '../../racks/commands/placeDevices.ts';
import { cablesOf, called, changed, drawn, emptyProject, modelNamed } from '../../testing/testDrawn.ts';
import { formations, formed, joinedIn } from '../layout/formations.ts';
import { nearestFree } from '../layout/nearestFree.ts';
import { planOf } from '../projection/plan.ts';
import { overlap, type Box } from '../scene/scene.ts';
import { sceneOf } from '../scene/sceneOf.ts';
import { drawDevices, placeAt, type DrawWish } from './drawDevices.ts';
import { addSheet } from './sheets.ts';

const size = { width: 144, height: 40 };
const measure = (text: string): number => text.length * 7;
const today = '2026-01-01';
function blank(
  start: Network = emptyProject(),
  scopeId: string | null = null,
): { network: Network; sheet: Sheet } {
  const set = addSheet(start, { scopeId });
  const network = changed(start, set.changes);
  const sheet = network.get('sheet', set.sheetId);
  if (sheet === null) throw new Error('sheet');
  return { network, sheet };
}
function put(
  network: Network,
  sheet: Sheet,
  wish: Partial<DrawWish> & { model: string },
  taken: readonly Box[] = [],
) {
  const { model, ...rest } = wish;
  const made = drawDevices(
    network,
    network.get('sheet', sheet.id) ?? sheet,
    { modelId: modelNamed(model).id, at: { x: 400, y: 300 }, placeId: null, ...rest },
    { taken, fixed: new Map(), size },
  );
  if (!made.attempt.ok) throw new Error(made.attempt.why);
  return {
    network: changed(network, made.attempt.set.changes),
    ids: made.deviceIds,
    sentence: made.attempt.set.sentence,
  };
}
const sceneNow = (network: Network, sheet: Sheet) =>
  sceneOf(planOf(network, network.get('sheet', sheet.id) ?? sheet, { today }), { measure });

describe('in an empty project', () => {
  test('what is dropped is drawn, named on, and not placed yet', () => {
    const { network: start, sheet } = blank();
    const one = put(start, sheet, { model: 'Generic router' });
    expect(one.sentence).toBe('Drew rt-1 (Generic router) on sheet All sites · cabling');
    const { network } = put(one.network, sheet, { model: 'Generic router', at: { x: 700, y: 300 } });
    expect(devicesNotPlaced(network).map((device) => device.name)).toEqual(['rt-1', 'rt-2']);
    expect(sceneNow(network, sheet).plates.map((plate) => [plate.name, plate.box.x, plate.box.y])).toEqual([
      ['rt-1', 328, 280],
      ['rt-2', 632, 280],
    ]);
  });

  test('one without ports is drawn too, and a UPS makes its sheet show power', () => {
    const { network: start, sheet } = blank();
    const vm = put(start, sheet, { model: 'Generic virtual machine' }).network;
    const { network } = put(vm, sheet, { model: 'Generic UPS', at: { x: 0, y: 0 } });
    expect(
      sceneNow(network, sheet)
        .plates.map((plate) => plate.name)
        .sort(),
    ).toEqual(['up-1', 'vm-1']);
    expect(network.get('sheet', sheet.id)?.show).toContain('power');
  });

  test('five in a ring, joined: five names, five cables, no two on each other', () => {
    const { network: start, sheet } = blank();
    const { network } = put(start, sheet, {
      model: 'Generic router',
      count: 5,
      formation: 'ring',
      joined: true,
    });
    expect(cablesOf(network).map((text) => text.split(' · ')[0])).toEqual([
      'rt-1 eth0 – rt-2 eth0',
      'rt-2 eth1 – rt-3 eth0',
      'rt-3 eth1 – rt-4 eth0',
      'rt-4 eth1 – rt-5 eth0',
      'rt-5 eth1 – rt-1 eth1',
    ]);
    const { plates } = sceneNow(network, sheet);
    expect(plates).toHaveLength(5);
    for (const [at, one] of plates.entries())
      for (const other of plates.slice(at + 1)) expect(overlap(one.box, other.box)).toBe(false);
  });

  test('never on another plate: the nearest free ground', () => {
    const { network: start, sheet } = blank();
    const first = put(start, sheet, { model: 'Generic router' }).network;
    const [plate] = sceneNow(first, sheet).plates;
    if (plate === undefined) throw new Error('plate');
    const { network } = put(first, sheet, { model: 'Generic router' }, [plate.box]);
    const [a, b] = sceneNow(network, sheet).plates.map(({ box }) => box);
    if (a === undefined || b === undefined) throw new Error('plates');
    expect(overlap(a, b)).toBe(false);
  });

  test('where a sheet would not draw it, it is refused rather than made unseen', () => {
    const { network, sheet } = blank();
    const on = (projection: Sheet['projection'], model: string): string => {
      const wish = { modelId: modelNamed(model).id, at: { x: 0, y: 0 }, placeId: null };
      const { attempt } = drawDevices(network, { ...sheet, projection }, wish, {
        taken: [],
        fixed: new Map(),
        size,
      });
      return attempt.ok ? 'drawn' : attempt.why;
    };
    expect(on('routing', 'Generic router')).toBe('drawn');
    expect(on('routing', 'Generic camera')).toBe(
      'A sheet of routing does not draw a new camera: draw it on the sheet of cabling.',
    );
    expect(on('sites', 'Generic router')).toMatch(/^A sheet of sites does not draw a new router/);
    const routing = changed(network, [
      {
        op: 'update',
        kind: 'sheet',
        id: sheet.id,
        before: { projection: 'cabling' },
        after: { projection: 'routing' },
      },
    ]);
    for (const model of ['Generic router', 'Generic firewall']) {
      const { network: after } = put(routing, sheet, { model });
      expect(sceneNow(after, sheet).plates).toHaveLength(1);
    }
  });

  test('over a rack what is for racks is mounted, each in its highest free units; a camera stays in the room', () => {
    const [placeId, rackId] = [newId(), newId()];
    const { network: start, sheet } = blank(
      changed(emptyProject(), [
        {
          op: 'create',
          kind: 'place',
          id: placeId,
          after: { ...blankPlace, id: placeId, name: 'Room', kind: 'room' },
        },
        {
          op: 'create',
          kind: 'rack',
          id: rackId,
          after: { ...blankRack, id: rackId, name: 'R1', placeId, units: 4 },
        },
      ]),
      placeId,
    );
    const two = put(start, sheet, { model: 'AX-2424P', placeId, rackId, count: 2, joined: true });
    expect(two.ids.map((id) => two.network.get('device', id)?.unit)).toEqual([4, 3]);
    expect(two.sentence).toMatch(/in R1 on sheet/);
    expect(two.network.count('cable')).toBe(1);
    const camera = put(two.network, sheet, { model: 'Generic camera', placeId, rackId });
    expect(camera.network.get('device', camera.ids[0] ?? null)).toMatchObject({ rackId: null, placeId });
    expect(() => put(two.network, sheet, { model: 'AX-2424P', placeId, rackId, count: 3 })).toThrow(
      /^R1 has no 1 U free for /,
    );
  });

  test('a part and a count that is none are refused', () => {
    const { network, sheet } = blank();
    const why = (model: string, count: number) => {
      const wish = { modelId: modelNamed(model).id, at: { x: 0, y: 0 }, placeId: null, count };
      const { attempt } = drawDevices(network, sheet, wish, { taken: [], fixed: new Map(), size });
      return attempt.ok ? 'drawn' : attempt.why;
    };
    expect(why('Generic router', 0)).toBe('0 at once are not possible: say 1 to 60.');
    expect(why('Generic router', 61)).toBe('61 at once are not possible: say 1 to 60.');
    expect(why('Cat 6 RJ45', 1)).toMatch(/has no role/);
  });
});

test('phones that a person placed one by one stay apart; those left to themselves fold', () => {
  const { network: start, sheet } = blank(drawn({ 'sw-1': 'AX-2424P' }));
  const { network: placed, ids } = put(start, sheet, { model: 'Generic phone', count: 3 });
  const joined = ids.reduce((network, id) => {
    const a = network.findOne('deviceByName', 'sw-1');
    const port = network.find('portsByDevice', id)[0];
    const far = network
      .find('portsByDevice', a?.id ?? '')
      .find((one) => network.find('cablesByPort', one.id).length === 0);
    const cable = {
      id: newId(),
      label: `X-${id}`,
      typeId: null,
      aPortId: port?.id ?? null,
      bPortId: far?.id ?? null,
    };
    const rest = { lengthM: null, status: 'active' as const, splices: 0, notes: null };
    return changed(network, [{ op: 'create', kind: 'cable', id: cable.id, after: { ...cable, ...rest } }]);
  }, placed);
  expect(
    sceneNow(joined, sheet)
      .plates.map((plate) => plate.name)
      .sort(),
  ).toEqual(['ph-1', 'ph-2', 'ph-3', 'sw-1']);
  const items = [...joined.all('sheetItem')].slice(1);
  const left = changed(
    joined,
    items.map((item) => ({ op: 'delete', kind: 'sheetItem', id: item.id, before: item })),
  );
  expect(
    sceneNow(left, sheet)
      .plates.map((plate) => plate.name)
      .sort(),
  ).toEqual(['phones', 'sw-1']);
});

test('a spot belongs to the innermost container there, else to the place of the sheet', () => {
  const site = { ...blankPlace, id: newId(), name: 'Quay', kind: 'site' as const };
  const room = { ...blankPlace, id: newId(), name: 'Room', kind: 'room' as const, parentId: site.id };
  const network = changed(
    emptyProject(),
    [site, room].map((row) => ({ op: 'create', kind: 'place', id: row.id, after: row })),
  );
  const containers = [
    { id: room.id, box: { x: 10, y: 10, width: 100, height: 100 } },
    { id: site.id, box: { x: 0, y: 0, width: 300, height: 300 } },
  ];
  const at = (x: number) => placeAt(network, { scopeId: null }, containers, { x, y: 50 });
  expect([at(50), at(200), at(400)]).toEqual([room.id, site.id, null]);
  expect(placeAt(network, { scopeId: site.id }, [], { x: 0, y: 0 })).toBe(site.id);
});

test('placed by dropping on a container; what is mounted stays', () => {
  const place = { ...blankPlace, id: newId(), name: 'Quay', kind: 'site' as const };
  const network = changed(drawn({ 'rt-1': 'Generic router' }), [
    { op: 'create', kind: 'place', id: place.id, after: place },
  ]);
  const attempt = placeDevices(network, [called(network, 'rt-1')], place.id);
  expect(attempt.ok && attempt.set.sentence).toBe('Placed rt-1 at Quay');
  const racked = { ...called(network, 'rt-1'), rackId: newId() };
  expect(placeDevices(network, [racked], place.id)).toMatchObject({
    ok: false,
    why: expect.stringContaining('Take it out'),
  });
});

describe('formations', () => {
  test.each(formations)('%s: no two overlap, and each is joined to another', (formation) => {
    for (let count = 2; count <= 20; count++) {
      const boxes = formed(formation, count, { x: 0, y: 0 }, size).map((at) => ({ ...at, ...size }));
      expect(boxes).toHaveLength(count);
      for (const [at, box] of boxes.entries())
        for (const other of boxes.slice(at + 1)) expect(overlap(box, other, 8)).toBe(false);
      expect(new Set(joinedIn(formation, count).flat()).size).toBe(count);
    }
  });
});

test('the nearest free spot: none of the lattice is nearer (tried one by one)', () => {
  const box = fc.record({
    x: fc.integer({ min: -200, max: 200 }),
    y: fc.integer({ min: -200, max: 200 }),
    width: fc.integer({ min: 16, max: 160 }),
    height: fc.integer({ min: 16, max: 80 }),
  });
  fc.assert(
    fc.property(fc.array(box, { maxLength: 8 }), (taken) => {
      const found = nearestFree(size, { x: 0, y: 0 }, taken);
      let nearest = Infinity;
      for (let x = -640; x <= 640; x += 8)
        for (let y = -640; y <= 640; y += 8) {
          const clear = taken.every(
            (one) =>
              x >= one.x + one.width + 16 ||
              x + size.width + 16 <= one.x ||
              y >= one.y + one.height + 16 ||
              y + size.height + 16 <= one.y,
          );
          if (clear) nearest = Math.min(nearest, Math.hypot(x, y));
        }
      expect(Math.hypot(found.x, found.y)).toBeCloseTo(nearest, 6);
    }),
    { numRuns: 60 },
  );
});
