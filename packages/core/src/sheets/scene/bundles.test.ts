import { describe, expect, test } from '@jest/globals';
import type { GraphLink, LinkSums } from '../graph/sheetGraph.ts';
import { blankSheet, type Facet } from '../../model/kinds/drawings/sheet.ts';
import { newId } from '../../model/values/ids.ts';
import { star } from '../../testing/testGallery.ts';
import type { Bundle } from '../layout/bundles.ts';
import { planOf } from '../projection/plan.ts';
import { drawingFigures } from '../../testing/testDrawing.ts';
import { purposeText, sceneBundles } from './bundles.ts';
import { withBundlesOpen } from './openBundles.ts';
import type { Point, SceneLink } from './scene.ts';
import { sceneOf } from './sceneOf.ts';

const label = (text: string) => ({ text, turned: false, box: { x: 0, y: 0, width: 20, height: 14 } });
const end = { side: 'bottom' as const, label: null, tie: null, blocked: false };
const sceneLink = (id: string, points: Point[]): SceneLink => ({
  ...{ id, kind: 'cable', cableIds: [id], medium: 'copper', jacket: null, shade: null },
  line: { kind: 'cable', id, label: id },
  a: { ...end, plateId: 'hub', at: points[0] ?? { x: 0, y: 0 }, label: id === 'l0' ? label('×3') : null },
  b: { ...end, plateId: `far-${id}`, at: points.at(-1) ?? { x: 0, y: 0 }, label: label('eno1') },
  ...{ points, drawn: points, bundleId: null, bends: [], label: null, spoken: id, faded: false },
});
const hub = { x: 0, y: 0 };
const comb = [-160, 0, 160].map((x, at) =>
  sceneLink(
    `l${at}`,
    x === 0 ? [hub, { x: 0, y: 160 }] : [hub, { x: 0, y: 80 }, { x, y: 80 }, { x, y: 160 }],
  ),
);
const bundleWith = (sums: (LinkSums | undefined)[]): Bundle => ({
  ...{ id: 'one', hub: 'hub', purpose: 'servers', open: false },
  links: sums.map((one, at) => ({ id: `l${at}`, ...(one === undefined ? {} : { sums: one }) }) as GraphLink),
  ends: new Map(sums.map((_, at) => [`l${at}`, 'a'] as const)),
});
const told = (sums: (LinkSums | undefined)[]): string =>
  sceneBundles(comb, [bundleWith(sums)], () => 'sw-1').bundles[0]?.told ?? '';
const none = [undefined, undefined, undefined];

describe('a bundle as it is drawn', () => {
  const { links, bundles } = sceneBundles(comb, [bundleWith(none)], () => 'sw-1');

  test('its count stands at the hub, the ports at the far ends stay', () => {
    expect(bundles[0]).toMatchObject({ hubId: 'hub', at: hub, label: { text: '×3' }, title: 'servers' });
    expect(links.map(({ a }) => a.label)).toEqual([null, null, null]);
    expect(links.every(({ b }) => b.label?.text === 'eno1')).toBe(true);
    expect(bundles[0]?.spoken).toBe('3 links of sw-1, servers');
  });

  test('the shared part is drawn once; of each link is left what lies beyond, from a step before', () => {
    const trunk = bundles[0]?.trunk ?? [];
    expect(trunk).toEqual([[hub, { x: 0, y: 80 }]]);
    expect(links.find(({ id }) => id === 'l0')?.drawn).toEqual([
      { x: 0, y: 72 },
      { x: 0, y: 80 },
      { x: -160, y: 80 },
      { x: -160, y: 160 },
    ]);
    expect(drawingFigures([], [...links.map(({ drawn }) => drawn), ...trunk]).onEachOther).toBe(0);
    // A link keeps its whole way, to be chosen, traced and bent.
    expect(links.map(({ points }) => points)).toEqual(comb.map(({ points }) => points));
  });

  test('links beside it are as they were', () => {
    const other = sceneLink('other', [hub, { x: 0, y: 400 }]);
    const drawn = sceneBundles([...comb, other], [bundleWith(none)], () => '');
    expect(drawn.links.at(-1)).toBe(other);
    expect(drawn.bundles[0]?.spoken).toBe('3 links, servers');
  });
});

describe('what it tells in sum', () => {
  const speed = (count: number, each: string): LinkSums => ({ speeds: { count, each } });

  test('so many of a speed; several speeds, the most first', () => {
    expect(told([speed(1, '10G'), speed(1, '10G'), speed(2, '10G')])).toBe('4 × 10G');
    expect(told([speed(1, '1G'), speed(2, '25G'), speed(2, '25G')])).toBe('4 × 25G, 1 × 1G');
  });

  test('nothing where the speed of one is not told or not known', () => {
    expect(told([speed(1, '10G'), undefined, speed(1, '10G')])).toBe('');
  });

  test('VLANs in common, and how many go over some only', () => {
    expect(told([{ vids: [10, 20] }, { vids: [10, 20] }, { vids: [10, 20] }])).toBe('VLAN 10,20');
    expect(told([{ vids: [10, 20, 30] }, { vids: [10, 20] }, { vids: [10, 20, 40] }])).toBe(
      'VLAN 10,20 and 2 more on some',
    );
    expect(told([{ vids: [10] }, { vids: [20] }, { vids: [30] }])).toBe('no VLAN in common, 3 on some');
    expect(told([{ vids: 'all' }, { vids: 'all' }, { vids: 'all' }])).toBe('all VLANs');
    expect(told([{ vids: 'all' }, { vids: [10, 11, 12] }, { vids: [10, 11, 12] }])).toBe('VLAN 10-12');
    expect(told([{ vids: [10] }, {}, { vids: [10] }])).toBe('');
  });

  test('both', () => {
    const one: LinkSums = { speeds: { count: 1, each: '1G' }, vids: [10] };
    expect(told([one, one, one])).toBe('3 × 1G · VLAN 10');
  });
});

test('purposes as one says them', () => {
  expect(['management', 'servers', 'SW', 'AP', 'PC'].map(purposeText)).toEqual([
    'management',
    'servers',
    'switches',
    'access points',
    'workstations',
  ]);
});

describe('the key', () => {
  const network = star(5);
  const formsOf = (hidden: readonly Facet[]): string[] => {
    const show = blankSheet.show.filter((facet) => !hidden.includes(facet));
    const sheet = { ...blankSheet, id: newId(), name: 'One', show };
    const scene = sceneOf(planOf(network, sheet, { today: '2026-11-30' }), {
      measure: (text, _face, size) => text.length * size * 0.6,
    });
    return [scene, withBundlesOpen(scene, () => true)].map(({ key }) =>
      key.map(({ form }) => form).join(' '),
    );
  };

  test('says what a line with a number is, after the kinds of links; not where all are opened', () => {
    expect(formsOf([])).toEqual(['link bundle role role', 'link role role']);
  });

  test('says nothing of it where links are hidden, nor where it is hidden itself', () => {
    expect(formsOf(['links'])).toEqual(['role role', 'role role']);
    expect(formsOf(['key'])).toEqual(['', '']);
  });
});
