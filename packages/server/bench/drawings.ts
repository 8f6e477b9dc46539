/** Part of npm run bench: drawings of a made-up campus, against a plain layered layout of the same graph. */
import { blankSheet, newId } from '@visograph/core/model';
import { planOf, sceneOf, type Scene } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import ELK, { type ElkExtendedEdge } from 'elkjs';
import { campus } from '../../core/src/testing/testCampus.ts';
import { drawingFigures, type Figures } from '../../core/src/testing/testDrawing.ts';
import { print } from '../src/sheets/printing/print.ts';
import { Report, time } from './figures.ts';

const report = new Report();
const today = '2026-01-01';
const network = campus(300);
const sheet = { ...blankSheet, id: newId(), name: 'Campus' };

const [plan, planMs] = await time(() => planOf(network, sheet, { today }));
const [scene, sceneMs] = await time(() => sceneOf(plan, { measure: measureText }));
const [, quickMs] = await time(() => sceneOf(plan, { measure: measureText, quick: true }));
const size = `${scene.plates.length} plates, ${scene.links.length} links in ${scene.containers.length} containers`;
report.note(`read, lay out and route ${size}`, (planMs + sceneMs) / 1000, 's', 2);
report.note('  the draft that is shown first', planMs + quickMs, 'ms', null);

const tell = (of: string, figures: Figures, bounds: Partial<Figures>): void => {
  const note = (name: string, key: keyof Figures): void =>
    report.note(`  ${of}: ${name}`, figures[key], '', bounds[key] ?? null);
  note('overlapping plates', 'overlappingPlates');
  note('links through plates', 'throughPlates');
  note('crossings', 'crossings');
  note('pairs of links on each other', 'onEachOther');
  note('bends', 'bends');
  note('width to height', 'aspect');
};
const figuresOf = ({ plates, links }: Scene): Figures =>
  drawingFigures(
    plates.map((plate) => plate.box),
    links.map((link) => link.points),
  );
tell('ours', figuresOf(scene), { overlappingPlates: 0, throughPlates: 0, aspect: 3 });

const elk = new ELK();
const [layered, elkMs] = await time(() =>
  elk.layout({
    id: 'root',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'DOWN',
      'elk.edgeRouting': 'ORTHOGONAL',
    },
    children: scene.plates.map(({ id, box }) => ({ id, width: box.width, height: box.height })),
    edges: scene.links.map(({ id, a, b }) => ({ id, sources: [a.plateId], targets: [b.plateId] })),
  }),
);
const sections = (layered.edges ?? []).map((edge) => {
  const [section] = (edge as ElkExtendedEdge).sections ?? [];
  return section === undefined ? [] : [section.startPoint, ...(section.bendPoints ?? []), section.endPoint];
});
const boxes = (layered.children ?? []).map(({ x = 0, y = 0, width = 0, height = 0 }) => ({
  x,
  y,
  width,
  height,
}));
tell('plain layered, no containers', drawingFigures(boxes, sections), {});
report.note('  plain layered, no containers: time', elkMs / 1000, 's', null);

const printSheet = { name: 'Campus', plan, page: sheet.page };
const [, pdfMs] = await time(() => print({ form: 'pdf', sheets: [printSheet], title: 'Campus' }));
report.note('PDF of it, its layout included', pdfMs / 1000, 's', 3);
const [, svgMs] = await time(() => print({ form: 'svg', sheet: printSheet }));
report.note('SVG of it, its layout included', svgMs / 1000, 's', null);
const [, pngMs] = await time(() => print({ form: 'png', sheet: printSheet, scale: 1, transparent: false }));
report.note('PNG of it, its layout included', pngMs / 1000, 's', null);
report.finish();
