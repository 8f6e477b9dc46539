import { describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { plainPage } from '@visograph/core/model';
import { overlap, pagesOf } from '@visograph/core/sheets';
import { besideDiagram, diagramBox } from '@visograph/drawing';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { drawPicture, galleryPage, gallerySheets, svgOf } from './testing/gallery.ts';

const folder = new URL('../../../../docs/gallery/', import.meta.url);
const file = (name: string): string => readFileSync(new URL(name, folder), 'utf8');

/** What each picture must not be worse than: crossings that are seen, labels upright, and the zoom in a window. */
const bounds: Readonly<Record<string, { seen: number; turned: number; zoom: number }>> = {
  // With the router of the cloud and its tunnel to each firewall of the pair.
  'all-sites-routing': { seen: 4, turned: 3, zoom: 0.67 },
  'booking-cloud': { seen: 10, turned: 6, zoom: 0.4 },
  'data-room-cabling': { seen: 31, turned: 6, zoom: 0.57 },
  'kelder-quay-cabling': { seen: 31, turned: 10, zoom: 0.48 },
  'kelder-quay-switching': { seen: 12, turned: 4, zoom: 0.62 },
  star: { seen: 0, turned: 0, zoom: 1 },
  ring: { seen: 0, turned: 0, zoom: 0.75 },
  tree: { seen: 10, turned: 8, zoom: 0.55 },
  'campus-24': { seen: 7, turned: 6, zoom: 0.64 },
  'campus-60': { seen: 15, turned: 3, zoom: 0.38 },
  'campus-300': { seen: 80, turned: 20, zoom: 0.2 },
  mesh: { seen: 24, turned: 8, zoom: 0.6 },
  chain: { seen: 0, turned: 0, zoom: 0.9 },
  'two-sites': { seen: 8, turned: 2, zoom: 0.9 },
  'leaf-and-spine': { seen: 90, turned: 8, zoom: 0.4 },
  'thirty-vlans': { seen: 0, turned: 0, zoom: 1 },
  arranged: { seen: 2, turned: 2, zoom: 0.6 },
};

const sheets = gallerySheets(demoNetwork());
const pictures = sheets.map(drawPicture);

describe('the gallery', () => {
  test('has a bound for each of its pictures', () => {
    expect(sheets.map(({ name }) => name).sort()).toEqual(Object.keys(bounds).sort());
  });

  test.each(pictures.map((picture) => [picture.name, picture] as const))(
    '%s is as good as it was',
    (name, { figures }) => {
      const bound = bounds[name] ?? { seen: 0, turned: 0, zoom: 2 };
      expect(figures.seenCrossings).toBeLessThanOrEqual(bound.seen);
      expect(figures.turnedLabels).toBeLessThanOrEqual(bound.turned);
      expect(figures.zoom).toBeGreaterThanOrEqual(bound.zoom);
      expect(figures).toMatchObject({ overlappingPlates: 0, throughPlates: 0 });
      expect(figures.throughContainers).toBeLessThan(10);
      expect(figures.onEachOther).toBeLessThanOrEqual(2);
      // Redundant pairs of a campus stand side by side; of a mesh or a tree whose names count on they cannot all.
      if (name.startsWith('campus') || name.startsWith('kelder') || name.startsWith('data'))
        expect(figures.pairsBeside).toBeGreaterThanOrEqual(0.95 * figures.pairs);
    },
  );

  test('gives less than 12 % of its paper to key and title block, on A4 and on A3, and they cover nothing', () => {
    const titleBlock = {
      title: 'Kelder Quay · cabling as it was handed over',
      project: 'Marrow Sound Ferries',
      scope: 'Kelder Quay › Harbour House › Ground › Data room',
      revision: 'r1024',
      date: '2026-11-30',
    };
    for (const { name, scene: bare } of pictures)
      for (const size of ['A4', 'A3'] as const) {
        const scene = { ...bare, titleBlock };
        const { widthMm, heightMm, mmPerUnit } = pagesOf(diagramBox(scene), { ...plainPage, size });
        const beside = besideDiagram(scene);
        const area = beside.reduce((sum, { width, height }) => sum + width * height, 0);
        expect(beside).toHaveLength(2);
        expect([name, size, area / ((widthMm * heightMm) / mmPerUnit ** 2) < 0.12]).toEqual([
          name,
          size,
          true,
        ]);
        for (const { box } of [...scene.plates, ...scene.containers])
          expect([name, beside.some((one) => overlap(one, box))]).toEqual([name, false]);
      }
  });

  test('is committed as it is drawn, to the byte: npm run gallery draws it anew', () => {
    for (const picture of pictures)
      expect([picture.name, file(`${picture.name}.svg`) === svgOf(picture)]).toEqual([picture.name, true]);
    expect(file('README.md')).toBe(galleryPage(pictures));
  });

  test('is under two megabytes, and holds nothing else', () => {
    const names = readdirSync(folder);
    expect(names.sort()).toEqual([...pictures.map(({ name }) => `${name}.svg`), 'README.md'].sort());
    const bytes = names.reduce((sum, name) => sum + statSync(new URL(name, folder)).size, 0);
    expect(bytes).toBeLessThan(2_000_000);
  });
});
