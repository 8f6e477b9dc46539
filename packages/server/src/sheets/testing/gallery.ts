import type { Network, Sheet } from '@visograph/core/model';
import {
  inSheetOrder,
  sceneFigures,
  sheetScene,
  type Scene,
  type SceneFigures,
} from '@visograph/core/sheets';
import { gallery } from '../../../../core/src/testing/testGallery.ts';
import { measureText } from '@visograph/drawing';
import { diagramSvg } from '@visograph/drawing/svg';

/** A sheet as it is drawn, and how well it reads. */
export interface GalleryPicture {
  name: string;
  title: string;
  scene: Scene;
  figures: SceneFigures;
}

const plain = (title: string): string => title.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');
const sentence = (name: string): string =>
  `${name.slice(0, 1).toUpperCase()}${name.slice(1).replaceAll('-', ' ')}`;

/** The sheets of the demo, then networks of every shape: what each is called, and what is drawn. */
export function gallerySheets(demo: Network): {
  name: string;
  title: string;
  made: () => { network: Network; sheet: Sheet };
}[] {
  return [
    ...inSheetOrder(demo.all('sheet')).map((sheet) => ({
      name: plain(sheet.name),
      title: sheet.name,
      made: () => ({ network: demo, sheet }),
    })),
    ...Object.entries(gallery).map(([name, made]) => ({ name, title: sentence(name), made })),
  ];
}

export function drawPicture({ name, title, made }: ReturnType<typeof gallerySheets>[number]): GalleryPicture {
  const { network, sheet } = made();
  const scene = sheetScene(network, sheet, { measure: measureText, today: '2026-01-01' });
  return { name, title, scene, figures: sceneFigures(scene) };
}

export const svgOf = ({ scene }: GalleryPicture): string => diagramSvg(scene);

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** The page of the gallery: each picture with its figures. */
export function galleryPage(pictures: readonly GalleryPicture[]): string {
  const rows = pictures.map(
    ({ name, title, scene, figures }) =>
      `| [${title}](${name}.svg) | ${scene.plates.length} / ${scene.links.length} | ${figures.seenCrossings} (${figures.crossings}) | ${figures.turnedLabels} of ${figures.labels} | ${figures.pairsBeside} of ${figures.pairs} | ${figures.throughContainers} | ${percent(figures.zoom)} |`,
  );
  return `# Gallery

What drawings come out like: the sheets of the demo, and made-up networks of every shape. \`npm run gallery\` draws them
anew; a test holds them to the byte, and to figures that they must not get worse than.

| sheet | plates / links | crossings seen (every link counted) | labels upright | pairs side by side | foreign containers crossed | zoom in a window of 1,184 x 640 |
|---|---|---|---|---|---|---|
${rows.join('\n')}
`;
}
