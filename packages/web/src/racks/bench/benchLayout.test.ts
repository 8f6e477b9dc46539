import { describe, expect, test } from '@jest/globals';
import { builtInModels } from '@visograph/core/catalogue';
import { applyChanges } from '@visograph/core/change';
import { blankPlace, blankRack, Network, newId, type Rack } from '@visograph/core/model';
import { addDevice, elevationScene } from '@visograph/core/racks';
import { aboveFrame, faceAt, landing, layOutRacks, openingView, plateAt, portAt } from './benchLayout.ts';

const place = { ...blankPlace, id: newId(), name: 'Room', kind: 'room' as const };
const rack = (name: string, rest: Partial<Rack> = {}): Rack => ({
  ...blankRack,
  id: newId(),
  name,
  placeId: place.id,
  units: 10,
  ...rest,
});
const up = rack('UP');
const down = rack('DOWN', { numbering: 'down', units: 20 });
const models = builtInModels();
const base = Network.of({ place: [place], rack: [up, down], model: models });
const switchModel = models.find((one) => one.name === 'AX-2448P');
const added = addDevice(base, {
  name: 'sw',
  modelId: switchModel?.id ?? '',
  rackId: up.id,
  placeId: null,
  unit: 4,
});
const applied = applyChanges(base, added?.changes ?? []);
if (!applied.ok) throw new Error('not applied');
const { network } = applied;
const spots = layOutRacks(
  [up, down].map((one) => ({ rack: one, scene: elevationScene(network, one) })),
  'both',
);
const [first, second] = spots;
if (first === undefined || second === undefined) throw new Error('no spots');
const pointIn = (spot: typeof first, face: 0 | 1, x: number, unitsFromTop: number) => {
  const at = spot.faces[face];
  return { x: (at?.x ?? 0) + x, y: (at?.y ?? 0) + unitsFromTop * 16 };
};

describe('racks on the surface', () => {
  test('stand beside each other on one floor, front then rear', () => {
    expect(second.x).toBeGreaterThan(first.x + first.width);
    expect(first.y + first.scene.height).toBe(second.y + second.scene.height);
    expect(first.faces.map((face) => face.face)).toEqual(['front', 'rear']);
    expect(first.faces[0]?.y).toBe(first.y + aboveFrame);
    expect(layOutRacks([{ rack: up, scene: first.scene }], 'rear')[0]?.faces.map((one) => one.face)).toEqual([
      'rear',
    ]);
  });

  test('a point leads to the face, the device and the port below it; beside the racks to nothing', () => {
    const hit = faceAt(spots, pointIn(first, 0, 100, 6.5));
    expect(hit).toMatchObject({ face: 'front' });
    const plate = hit === null ? null : plateAt(hit);
    expect(plate?.name).toBe('sw');
    const port = plate?.ports.find((one) => one.name === 'gi1/7');
    const centre = {
      x: (port?.box.x ?? 0) + (port?.box.width ?? 0) / 2,
      y: (port?.box.y ?? 0) + (port?.box.height ?? 0) / 2,
    };
    expect(plate && portAt(plate, centre)?.name).toBe('gi1/7');
    expect(faceAt(spots, { x: first.x + first.width + 20, y: first.y + 200 })).toBeNull();
  });

  test('letting go snaps to units in the numbering of the rack, inside the rack', () => {
    const shape = { units: 2, side: 'full' as const };
    const land = (spot: typeof first, unitsFromTop: number) => {
      const hit = faceAt(spots, pointIn(spot, 0, 100, unitsFromTop));
      return hit === null ? null : landing(hit, shape).unit;
    };
    expect([land(first, 0), land(first, 0.4), land(first, 0.6), land(first, 10)]).toEqual([9, 9, 8, 1]);
    expect([land(second, 0), land(second, 7.1), land(second, 20)]).toEqual([1, 8, 19]);
  });

  test('half-width gear lands at the side it is held over, which changes when seen from the rear', () => {
    const half = { units: 1, side: 'left' as const };
    const side = (face: 0 | 1, x: number) => {
      const hit = faceAt(spots, pointIn(first, face, x, 2));
      return hit === null ? null : landing(hit, half).side;
    };
    expect([side(0, 80), side(0, 300), side(1, 80), side(1, 300)]).toEqual([
      'left',
      'right',
      'right',
      'left',
    ]);
    const hit = faceAt(spots, pointIn(first, 0, 300, 2));
    expect(hit && landing(hit, { units: 0, side: 'full' })).toMatchObject({ unit: null, side: 'right' });
  });
});

describe('the view that racks open with', () => {
  const view = { width: 1100, height: 660 };
  /** One rack of 47 units with switches at these units, as it would open. */
  function openedOn(...units: number[]) {
    const tall = rack('TALL', { units: 47 });
    let now = Network.of({ place: [place], rack: [tall], model: models });
    units.forEach((unit, at) => {
      const set = addDevice(now, {
        name: `sw-${at}`,
        modelId: switchModel?.id ?? '',
        rackId: tall.id,
        placeId: null,
        unit,
      });
      const made = applyChanges(now, set?.changes ?? []);
      if (!made.ok) throw new Error('not mounted');
      now = made.network;
    });
    const [spot] = layOutRacks([{ rack: tall, scene: elevationScene(now, tall) }], 'both');
    if (spot === undefined) throw new Error('no rack');
    const opened = openingView([spot], view);
    const seen = {
      top: -opened.y / opened.zoom,
      bottom: (view.height - opened.y) / opened.zoom,
      left: -opened.x / opened.zoom,
      right: (view.width - opened.x) / opened.zoom,
    };
    const face = spot.faces[0];
    const plates = (spot.scene.faces[0]?.plates ?? []).map(({ box }) => ({
      top: box.y + (face?.y ?? 0),
      bottom: box.y + box.height + (face?.y ?? 0),
    }));
    return { spot, opened, seen, plates };
  }

  test.each([[[40, 38, 36]], [[5, 3, 1]], [[24]], [[47, 30, 20]]])(
    'gear at units %j is in view, as large as reads well, within the width',
    (units) => {
      const { spot, opened, seen, plates } = openedOn(...units);
      for (const plate of plates) {
        expect(plate.top).toBeGreaterThanOrEqual(seen.top);
        expect(plate.bottom).toBeLessThanOrEqual(seen.bottom);
      }
      expect(seen.left).toBeLessThanOrEqual(spot.x);
      expect(seen.right).toBeGreaterThanOrEqual(spot.x + spot.width);
      expect(opened.zoom).toBeGreaterThan(0.8);
    },
  );

  test('gear over the whole height begins at its top, with the head of the rack', () => {
    const { spot, seen } = openedOn(47, 40, 30, 20, 10, 1);
    expect(seen.top).toBeCloseTo(spot.y, 5);
  });

  test('an empty rack, and several racks, are seen whole', () => {
    const whole = (
      found: ReturnType<typeof openingView>,
      all: readonly { x: number; y: number; width: number; height: number }[],
    ): boolean =>
      all.every(
        ({ x, y, width, height }) =>
          x * found.zoom + found.x >= 0 &&
          y * found.zoom + found.y >= 0 &&
          (x + width) * found.zoom + found.x <= view.width &&
          (y + height) * found.zoom + found.y <= view.height,
      );
    const { spot, opened } = openedOn();
    expect(whole(opened, [spot])).toBe(true);
    expect(whole(openingView(spots, view), spots)).toBe(true);
    expect(openingView([], view).zoom).toBeGreaterThan(0);
  });
});
