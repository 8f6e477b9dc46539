import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { newId } from '../../model/values/ids.ts';
import { blankSheet } from '../../model/kinds/drawings/sheet.ts';
import { ringNetwork } from '../../testing/testCampus.ts';
import { planOf } from '../projection/plan.ts';
import { sceneOf } from '../scene/sceneOf.ts';
import { loopRows, stringsOf } from './strings.ts';

const nearOf = (pairs: readonly (readonly [string, string])[]): Map<string, string[]> => {
  const near = new Map<string, string[]>();
  for (const [a, b] of pairs) {
    near.set(a, [...(near.get(a) ?? []), b]);
    near.set(b, [...(near.get(b) ?? []), a]);
  }
  return near;
};
const around = (ids: readonly string[]): [string, string][] =>
  ids.map((id, at) => [id, ids[(at + 1) % ids.length] ?? '']);

describe('chains and rings in a row', () => {
  test('six switches each leading to the next, the last to the first, are a ring in its own order', () => {
    const near = nearOf(around(['a', 'd', 'b', 'f', 'c', 'e']));
    const [ring, ...others] = stringsOf(['a', 'b', 'c', 'd', 'e', 'f'], near);
    expect(others).toEqual([]);
    expect(ring?.ring).toBe(true);
    expect(ring?.ids.join('')).toMatch(/^(adbfce|aecfbd)$/);
  });

  test('two links between the same two plates are no ring', () => {
    const pair = nearOf([
      ['a', 'b'],
      ['a', 'b'],
    ]);
    expect(stringsOf(['a', 'b'], pair)).toEqual([{ ids: ['a', 'b'], ring: false }]);
  });

  test('a plate that leads to three others of its row is the middle of a star, not of a chain', () => {
    const star = nearOf([
      ['hub', 'a'],
      ['hub', 'b'],
      ['hub', 'c'],
    ]);
    expect(stringsOf(['hub', 'a', 'b', 'c'], star)).toEqual([]);
  });

  test('property: a ring in two rows has each plate beside or across from the next', () => {
    fc.assert(
      fc.property(fc.integer({ min: 4, max: 24 }), (count) => {
        const ring = Array.from({ length: count }, (_, at) => `n${at}`);
        const [upper, lower] = loopRows(ring);
        expect(upper.length - lower.length).toBeLessThanOrEqual(1);
        const at = new Map<string, { x: number; y: number }>([
          ...upper.map((id, x) => [id, { x, y: 0 }] as const),
          ...lower.map((id, x) => [id, { x, y: 1 }] as const),
        ]);
        for (const [from, to] of around(ring)) {
          const [p, q] = [at.get(from), at.get(to)];
          const steps = Math.abs((p?.x ?? 0) - (q?.x ?? 0)) + Math.abs((p?.y ?? 0) - (q?.y ?? 0));
          expect(steps).toBeLessThanOrEqual(count % 2 === 0 ? 1 : 2);
        }
      }),
    );
  });
});

test('a ring of eight switches is drawn as a loop: every link of it runs level or upright', () => {
  const sheet = { ...blankSheet, id: newId(), name: 'Ring' };
  const plan = planOf(ringNetwork(8), sheet, { today: '2026-11-23' });
  const scene = sceneOf(plan, { measure: (text, _face, size) => text.length * size * 0.63 });
  expect(new Set(scene.plates.map((plate) => plate.box.y)).size).toBe(2);
  const turned = scene.links.filter((link) => {
    const xs = new Set(link.points.map((point) => point.x));
    const ys = new Set(link.points.map((point) => point.y));
    return xs.size > 1 && ys.size > 1;
  });
  expect(turned).toEqual([]);
});
