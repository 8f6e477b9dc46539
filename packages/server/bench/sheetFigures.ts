/** Part of npm run bench: how well sheets read, in figures: those of the demo, and made-up campuses. */
import { builtInModels } from '@visograph/core/catalogue';
import { readExchange } from '@visograph/core/exchange';
import { blankSheet, Network, newId, newProject, type Sheet } from '@visograph/core/model';
import { inSheetOrder, sceneFigures, sheetScene, type SceneFigures } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import { readFile } from 'node:fs/promises';
import { campus } from '../../core/src/testing/testCampus.ts';
import { Report, time } from './figures.ts';

const report = new Report();
const file: unknown = JSON.parse(await readFile('demo/marrow-sound-ferries.json', 'utf8'));
const begun = Network.of({ project: [newProject('Demo')], model: [...builtInModels()] });
const read = readExchange(begun, file);
if (!read.ok) throw new Error(read.problems[0]?.message);
const demo = read.network;
const sheets: [string, Network, Sheet][] = [
  ...inSheetOrder(demo.all('sheet')).map((sheet): [string, Network, Sheet] => [sheet.name, demo, sheet]),
  ...[24, 60, 300].map((plates): [string, Network, Sheet] => [
    `campus of ${plates}`,
    campus(plates),
    { ...blankSheet, id: newId(), name: 'Campus' },
  ]),
];
const bounds: Partial<SceneFigures> = { overlappingPlates: 0, throughPlates: 0 };
const told: readonly (readonly [keyof SceneFigures, string])[] = [
  ['crossings', 'crossings'],
  ['length', 'length'],
  ['bends', 'bends'],
  ['throughPlates', 'links through plates'],
  ['throughContainers', 'foreign containers crossed'],
  ['overlappingPlates', 'overlapping plates'],
  ['turnedLabels', 'turned labels'],
  ['coveredLabels', 'covered labels'],
];
for (const [name, network, sheet] of sheets) {
  const [scene, ms] = await time(() =>
    sheetScene(network, sheet, { measure: measureText, today: '2026-01-01' }),
  );
  const [figures, judgedMs] = await time(() => sceneFigures(scene));
  report.note(
    `${name}: ${scene.plates.length} plates, ${scene.links.length} links, drawn in`,
    ms,
    'ms',
    null,
  );
  for (const [key, words] of told) report.note(`  ${words}`, figures[key], '', bounds[key] ?? null);
  report.note('  pairs beside each other, share', figures.pairsBeside / Math.max(1, figures.pairs), '', null);
  report.note('  zoom in the window', figures.zoom, '', null);
  report.note('  judged in', judgedMs, 'ms', null);
}
report.finish();
