import { describe, expect, test } from '@jest/globals';
import { usualFacets } from '../../model/kinds/drawings/projections.ts';
import { blankSheet, plainReading, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import { newId } from '../../model/values/ids.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { applyChanges } from '../../change/apply.ts';
import { leafAndSpine, manyVlans, star, twoSites } from '../../testing/testGallery.ts';
import { deviceNamed } from '../../testing/testNetwork.ts';
import { setBundle, setBundles } from '../commands/bundles.ts';
import { sheetScene } from '../../report/sheetPlan.ts';
import { setLink } from '../commands/sheets.ts';
import { create } from '../../change/change.ts';
import type { Network } from '../../model/network/network.ts';
import type { Scene } from '../scene/scene.ts';

const measure = (text: string, _face: string, size: number): number => text.length * size * 0.63;
const sheet: Sheet = { ...blankSheet, id: newId(), name: 'All' };
const draw = (network: Network, of: Sheet = sheet): Scene =>
  sheetScene(network, of, { measure, today: '2026-11-29' });
const kept = (set: { changes: Parameters<typeof applyChanges>[1] }, network: Network): Network => {
  const made = applyChanges(network, set.changes);
  if (!made.ok) throw new Error(made.problems[0]?.message);
  return made.network;
};

describe('which links are one drawn line', () => {
  test('twelve servers on one switch are a bundle of twelve; two would hide that there are two', () => {
    const [bundle, ...others] = draw(star(12)).bundles;
    expect(others).toEqual([]);
    expect(bundle).toMatchObject({ title: 'servers', purpose: 'servers', open: false });
    expect(bundle?.linkIds).toHaveLength(12);
    expect(bundle?.label?.text).toBe('×12');
    expect(draw(star(3)).bundles).toHaveLength(1);
    expect(draw(star(2)).bundles).toHaveLength(0);
  });

  test('each link is in one bundle at most: in that of its spine, where sixteen leaves hang', () => {
    const { bundles } = draw(leafAndSpine(4, 16));
    expect(bundles).toHaveLength(4);
    expect(bundles.map(({ linkIds }) => linkIds.length)).toEqual([16, 16, 16, 16]);
    expect(new Set(bundles.flatMap(({ linkIds }) => linkIds)).size).toBe(64);
  });

  test('circuits are told one by one, however many end at one plate', () => {
    const scene = draw(twoSites());
    const circuits = scene.links.filter(({ kind }) => kind === 'circuit');
    expect(circuits).toHaveLength(2);
    expect(circuits.every(({ bundleId }) => bundleId === null)).toBe(true);
  });

  test('in the demo management and servers are bundled apart, and told as what they are', () => {
    const demo = demoNetwork();
    const cabling = [...demo.all('sheet')].find(({ name }) => name === 'Data room · cabling');
    if (cabling === undefined) throw new Error('no sheet');
    const titles = draw(demo, cabling).bundles.map(({ title }) => title);
    expect(titles).toContain('management');
    expect(titles).toContain('servers');
    expect(titles).toContain('switches');
  });

  test('a link bent by hand leaves its bundle', () => {
    const network = star(4);
    const [cable] = [...network.all('cable')];
    if (cable === undefined) throw new Error('no cable');
    const withSheet = kept({ changes: [create('sheet', sheet)] }, network);
    const line = { kind: 'cable' as const, id: cable.id, label: cable.label };
    const bent = kept(setLink(withSheet, sheet, line, { bends: [{ x: 0, y: 0 }] }, 'Bent'), withSheet);
    const scene = draw(bent);
    expect(scene.bundles[0]?.linkIds).toHaveLength(3);
    expect(scene.links.find(({ id }) => id === cable.id)?.bundleId).toBeNull();
  });
});

describe('what a person wants of bundles', () => {
  const network = kept({ changes: [create('sheet', sheet)] }, star(6));
  const now = (changed: Network): Sheet => changed.get('sheet', sheet.id) ?? sheet;

  test('never: every link by itself; and again', () => {
    const single = kept(setBundles(sheet, 'never'), network);
    expect(draw(single, now(single)).bundles).toEqual([]);
    const again = kept(setBundles(now(single), 'closed'), single);
    expect(draw(again, now(again)).bundles).toHaveLength(1);
  });

  test('one bundle alone: apart, in lanes, and as the sheet has it, which is not kept', () => {
    const deviceId = deviceNamed(network, 'gx-hub').id;
    const bundle = { deviceId, purpose: 'servers', title: 'servers' };
    const open = kept(setBundle(sheet, bundle, 'open'), network);
    expect(draw(open, now(open)).bundles[0]?.open).toBe(true);
    const apart = kept(setBundle(now(open), bundle, 'never'), open);
    expect(draw(apart, now(apart)).bundles).toEqual([]);
    expect(now(apart).reading.bundles?.own).toHaveLength(1);
    const set = setBundle(now(apart), bundle, 'closed');
    expect(set.sentence).toBe('Drew servers as one line on sheet All');
    const back = kept(set, apart);
    expect(now(back).reading.bundles?.own).toEqual([]);
    expect(draw(back, now(back)).bundles).toHaveLength(1);
  });

  test('straight links are not bundled', () => {
    expect(draw(network, { ...sheet, reading: { ...plainReading, straight: true } }).bundles).toEqual([]);
  });
});

describe('what a bundle tells in sum', () => {
  test('VLANs in common, and how many more go over some', () => {
    const switching = {
      ...sheet,
      projection: 'switching' as const,
      show: [...usualFacets, 'vlanTags'] as Sheet['show'],
    };
    const [bundle] = draw(manyVlans(), switching).bundles;
    // Four links carry 100, 110 … 390; the fifth the first 24 of them, the sixth the first 25.
    expect(bundle?.told).toMatch(/^VLAN 100,110,.*,330 and 6 more on some$/);
    expect(
      draw(manyVlans(), { ...switching, show: usualFacets.filter((facet) => facet !== 'vlanTags') })
        .bundles[0]?.told,
    ).toBe('');
  });
});
