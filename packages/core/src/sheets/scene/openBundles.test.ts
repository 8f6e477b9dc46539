import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blankSheet } from '../../model/kinds/drawings/sheet.ts';
import { newId } from '../../model/values/ids.ts';
import { campus } from '../../testing/testCampus.ts';
import { boxOf, drawingFigures } from '../../testing/testDrawing.ts';
import { runs } from '../../testing/testRuns.ts';
import { planOf } from '../projection/plan.ts';
import { withBundlesOpen } from './openBundles.ts';
import { sceneOf } from './sceneOf.ts';
import type { Point, Scene, SceneLink } from './scene.ts';

const measure = (text: string, _face: string, size: number): number => text.length * size * 0.63;
const plan = planOf(campus(60), { ...blankSheet, id: newId(), name: 'Campus' }, { today: '2026-11-29' });
const scene = sceneOf(plan, { measure });
const open = withBundlesOpen(scene, () => true);

const ofBundle = (drawn: Scene, linkIds: readonly string[]): SceneLink[] =>
  drawn.links.filter(({ id }) => linkIds.includes(id));
const crossingsAmong = (links: readonly SceneLink[]): number =>
  drawingFigures(
    [],
    links.map(({ points }) => points),
  ).crossings;

describe('bundles in lanes', () => {
  test('a campus has bundles: the uplinks of its floors, its servers', () => {
    expect(scene.bundles.length).toBeGreaterThan(2);
    expect(new Set(scene.bundles.map(({ title }) => title))).toEqual(new Set(['switches', 'servers']));
    for (const bundle of scene.bundles) {
      expect(bundle.label?.text).toBe(`×${bundle.linkIds.length}`);
      const far = ofBundle(scene, bundle.linkIds).map(({ a, b }) =>
        a.plateId === bundle.hubId ? b.plateId : a.plateId,
      );
      expect(new Set(far).size).toBeGreaterThanOrEqual(3);
    }
  });

  test('no lane of a bundle crosses another of it', () => {
    for (const bundle of scene.bundles) expect(crossingsAmong(ofBundle(open, bundle.linkIds))).toBe(0);
  });

  test('lanes are apart: no two of a bundle lie on each other', () => {
    for (const bundle of scene.bundles) {
      const paths = ofBundle(open, bundle.linkIds).map(({ points }) => points);
      expect(drawingFigures([], paths).onEachOther).toBe(0);
    }
  });

  test('each link ends where it ended at its far end, and leaves the hub on the same side', () => {
    const before = new Map(scene.links.map((link) => [link.id, link]));
    for (const bundle of scene.bundles)
      for (const link of ofBundle(open, bundle.linkIds)) {
        const was = before.get(link.id);
        const far = link.a.plateId === bundle.hubId ? 'b' : 'a';
        expect(link[far].at).toEqual(was?.[far].at);
        const near = link[far === 'a' ? 'b' : 'a'];
        const level = bundle.side === 'left' || bundle.side === 'right';
        expect(level ? near.at.x : near.at.y).toBe(level ? bundle.at.x : bundle.at.y);
        expect(Math.abs(level ? near.at.y - bundle.at.y : near.at.x - bundle.at.x)).toBeLessThanOrEqual(16);
        expect(link.points.at(0)).toEqual(link.a.at);
        expect(link.points.at(-1)).toEqual(link.b.at);
        for (const piece of link.points.slice(1).map((to, at) => boxOf({ from: link.points[at] ?? to, to })))
          expect(Math.min(piece.width, piece.height)).toBe(0);
      }
  });

  test('nothing else changes; a bundle that stays closed is as it was', () => {
    const [first, ...others] = scene.bundles;
    const one = withBundlesOpen(scene, ({ id }) => id === first?.id);
    expect(one.bundles).toEqual(others);
    expect(one.links.filter(({ id }) => first?.linkIds.includes(id) === false)).toEqual(
      scene.links.filter(({ id }) => first?.linkIds.includes(id) === false),
    );
    expect(withBundlesOpen(scene, () => false)).toBe(scene);
  });
});

/** A hub at the top and ways that branch off a trunk downwards, to either hand, at growing depths. */
function comb(teeth: readonly { depth: number; reach: number }[]): Scene {
  const at: Point = { x: 0, y: 0 };
  const sorted = [
    ...new Map(teeth.map((tooth) => [`${tooth.depth} ${Math.sign(tooth.reach)}`, tooth])).values(),
  ];
  const end = { plateId: '', side: 'bottom' as const, label: null, tie: null, blocked: false };
  const links = sorted.map(({ depth, reach }, which): SceneLink => {
    const far = { x: reach * 8, y: depth * 8 };
    const points = [at, { x: 0, y: depth * 8 }, far];
    return {
      ...{
        id: `l${which}`,
        kind: 'cable',
        cableIds: [`c${which}`],
        medium: 'copper',
        jacket: null,
        shade: null,
      },
      line: { kind: 'cable', id: `c${which}`, label: '' },
      a: { ...end, plateId: 'hub', at },
      b: { ...end, plateId: `p${which}`, at: far },
      ...{ points, drawn: points, bundleId: 'one', bends: [], label: null, spoken: '', faded: false },
    };
  });
  return {
    ...{ form: 'diagram', box: { x: 0, y: 0, width: 0, height: 0 }, plates: [], containers: [], links },
    bundles: [
      {
        ...{
          id: 'one',
          hubId: 'hub',
          side: 'bottom',
          at,
          purpose: 'SW',
          title: 'switches',
          told: '',
          open: false,
        },
        linkIds: links.map(({ id }) => id),
        ...{
          trunk: [],
          medium: 'copper',
          shade: null,
          label: null,
          toldLabel: null,
          spoken: '',
          faded: false,
        },
      },
    ],
    ...{ stubs: [], marks: [], key: [], titleBlock: null },
  };
}

test('property: however the ways of a bundle branch off, its lanes do not cross', () => {
  const tooth = fc.record({
    depth: fc.integer({ min: 6, max: 60 }),
    reach: fc.integer({ min: 6, max: 40 }).chain((far) => fc.constantFrom(far, -far)),
  });
  fc.assert(
    fc.property(fc.array(tooth, { minLength: 2, maxLength: 14 }), (teeth) => {
      // Forks keep a distance from each other, as plates do.
      const kept = teeth.map(({ depth, reach }) => ({ depth: depth * 6, reach }));
      expect(crossingsAmong(withBundlesOpen(comb(kept), () => true).links)).toBe(0);
    }),
    { numRuns: runs(100) },
  );
});
