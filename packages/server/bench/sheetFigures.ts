/** Part of npm run bench: how well sheets read, in figures: those of the demo, and made-up campuses. */
import { builtInModels } from '@visograph/core/catalogue';
import { readExchange } from '@visograph/core/exchange';
import { blankSheet, Network, newId, newProject, type Sheet } from '@visograph/core/model';
import { inSheetOrder, planOf, sceneFigures, sceneOf, type SceneFigures } from '@visograph/core/sheets';
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
  ...[24, 60, 300, 3000].map((plates): [string, Network, Sheet] => [
    `campus of ${plates}`,
    campus(plates, plates < 1000),
    { ...blankSheet, id: newId(), name: 'Campus' },
  ]),
];
/** Until a sheet of so many plates is finished, in ms, and until its draft is there. */
const finishedWithin = [
  { plates: 60, ms: 1000 },
  { plates: 300, ms: 2000 },
  { plates: 3000, ms: 6000 },
];
const draftWithin = 600;
const bounds: Partial<SceneFigures> = { overlappingPlates: 0, throughPlates: 0 };
const told: readonly (readonly [keyof SceneFigures, string])[] = [
  ['seenCrossings', 'crossings seen'],
  ['crossings', 'crossings, every link counted'],
  ['length', 'length'],
  ['bends', 'bends'],
  ['throughPlates', 'links through plates'],
  ['throughContainers', 'foreign containers crossed'],
  ['overlappingPlates', 'overlapping plates'],
  ['turnedLabels', 'turned labels'],
  ['coveredLabels', 'covered labels'],
];
for (const [name, network, sheet] of sheets) {
  const plan = planOf(network, sheet, { today: '2026-01-01' });
  let draftMs = 0;
  const started = performance.now();
  const [scene, ms] = await time(() =>
    sceneOf(plan, { measure: measureText, draft: () => void (draftMs = performance.now() - started) }),
  );
  const plates = scene.plates.length;
  const within = finishedWithin.find((one) => plates <= one.plates)?.ms ?? null;
  report.note(`${name}: ${plates} plates, ${scene.links.length} links, drawn in`, ms, 'ms', within);
  report.note('  its draft', draftMs, 'ms', plates <= 300 ? draftWithin : null);
  // Judging compares everything with everything: of the largest sheet it would take longer than drawing it.
  if (plates > 1000) continue;
  const [figures, judgedMs] = await time(() => sceneFigures(scene));
  for (const [key, words] of told) report.note(`  ${words}`, figures[key], '', bounds[key] ?? null);
  report.note('  pairs beside each other, share', figures.pairsBeside / Math.max(1, figures.pairs), '', null);
  report.note('  zoom in the window', figures.zoom, '', null);
  report.note('  judged in', judgedMs, 'ms', null);
}
report.finish();
