import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { newId } from '../../model/values/ids.ts';
import { blankSheet } from '../../model/kinds/drawings/sheet.ts';
import { campus } from '../../testing/testCampus.ts';
import { atHub, drawingFigures, drawnPaths } from '../../testing/testDrawing.ts';
import { planOf } from '../projection/plan.ts';
import { overlap, type Point, type Scene } from '../scene/scene.ts';
import type { TextMeasure } from './textMeasure.ts';
import { sceneOf } from '../scene/sceneOf.ts';
import { runs } from '../../testing/testRuns.ts';

const measure: TextMeasure = (text, _face, size) => text.length * size * 0.63;
const plan = planOf(campus(100), { ...blankSheet, id: newId(), name: 'Campus' }, { today: '2026-11-23' });
const scene = sceneOf(plan, { measure });
const figures = ({ plates, links }: Scene) =>
  drawingFigures(
    plates.map((plate) => plate.box),
    links.map((link) => link.points),
  );

describe('a campus of 100 plates', () => {
  test('no plate on another, no link through a plate, an aspect that fits a page', () => {
    expect(figures(scene)).toMatchObject({ overlappingPlates: 0, throughPlates: 0 });
    expect(figures(scene).aspect).toBeGreaterThan(1);
    expect(figures(scene).aspect).toBeLessThan(3);
  });

  test('links hardly ever lie on each other', () => {
    const { onEachOther } = drawingFigures([], drawnPaths(scene));
    expect(onEachOther).toBeLessThanOrEqual(scene.links.length / 50);
  });

  test('labels along links cover no plate and not each other; most find room', () => {
    const labels = scene.links.flatMap((link) => (link.label === null ? [] : [link.label.box]));
    expect(labels.length).toBeGreaterThan(scene.links.length * 0.5);
    labels.forEach((label, at) => {
      for (const plate of scene.plates) expect(overlap(label, plate.box)).toBe(false);
      for (const other of labels.slice(at + 1)) expect(overlap(label, other)).toBe(false);
    });
  });

  test('the same sheet is drawn the same', () => {
    expect(sceneOf(plan, { measure })).toEqual(scene);
  });

  test('the draft has every plate where the drawing has it', () => {
    const draft = sceneOf(plan, { measure, quick: true });
    expect(draft.plates.map((plate) => plate.box)).toEqual(scene.plates.map((plate) => plate.box));
    expect(draft.links).toHaveLength(scene.links.length);
  });
});

/** How far a label stands from the plate of its own end, and from that of the other. */
const toBox = (at: Point, box: { x: number; y: number; width: number; height: number }): number =>
  Math.hypot(
    Math.max(box.x - at.x, 0, at.x - box.x - box.width),
    Math.max(box.y - at.y, 0, at.y - box.y - box.height),
  );

test('property: however plates are moved, each end label stands at its own end and off every plate', () => {
  const small = planOf(campus(12), { ...blankSheet, id: newId(), name: 'Small' }, { today: '2026-11-23' });
  const start = sceneOf(small, { measure });
  const ids = start.plates.map((plate) => plate.id);
  const spots = fc.uniqueArray(fc.integer({ min: 0, max: 63 }), { minLength: 3, maxLength: 8 });
  fc.assert(
    fc.property(spots, fc.integer({ min: 0, max: ids.length - 1 }), (cells, first) => {
      // Far below everything else, in cells so wide that the moved plates keep clear of each other.
      const moved = new Map(
        cells.map((cell, at): [string, Point] => [
          ids[(first + at) % ids.length] ?? '',
          { x: (cell % 8) * 640, y: start.box.height + 400 + Math.floor(cell / 8) * 400 },
        ]),
      );
      const after = sceneOf(small, { measure, moved });
      const plates = new Map(after.plates.map((plate) => [plate.id, plate.box]));
      for (const link of after.links)
        for (const which of ['a', 'b'] as const) {
          const end = link[which];
          const own = plates.get(end.plateId);
          if (atHub(after, link, which)) continue;
          if (end.label === null || own === undefined) throw new Error('no label');
          const middle = {
            x: end.label.box.x + end.label.box.width / 2,
            y: end.label.box.y + end.label.box.height / 2,
          };
          expect(toBox(end.at, own)).toBe(0);
          expect(toBox(middle, own)).toBeLessThan(48);
          for (const box of plates.values()) expect(overlap(end.label.box, box)).toBe(false);
        }
    }),
    { numRuns: runs(8) },
  );
});
