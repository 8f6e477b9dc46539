/** Part of npm run bench: what drawing first costs: a pulled line, and a topology as it is typed. */
import { builtInModels } from '@visograph/core/catalogue';
import { joinDevices, takeOverTyped, typing } from '@visograph/core/cabling';
import { blankSheet, newId, Network, newProject } from '@visograph/core/model';
import { planOf, sceneOf } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import { campus } from '../../core/src/testing/testCampus.ts';
import { median, Report, time } from './figures.ts';

const report = new Report();
const today = '2026-01-01';
const start = Network.of({ project: [newProject('Blank')], model: [...builtInModels()] });
const sheet = { ...blankSheet, id: newId(), name: 'Blank' };

/** Sixty lines: a core, its edge, and twenty pairs of access switches with what hangs on them. */
const lines = [
  'core-1 core-2 x2',
  'edge-1 -- core-1 10G',
  'edge-2 -- core-2 10G',
  'mesh edge-1 edge-2 fw-1 fw-2',
  ...Array.from({ length: 28 }, (_, at) => `acc-${at + 1} -- core-${(at % 2) + 1}`),
  ...Array.from({ length: 28 }, (_, at) => `${(at % 3) + 1} phones each on acc-${at + 1}`),
];
const typed = (): ReturnType<typeof takeOverTyped> => takeOverTyped(start, lines.join('\n'), null);

const draw = (network: Network, quick: boolean): unknown =>
  sceneOf(planOf(network, sheet, { today }), { measure: measureText, quick });
const whole: number[] = [];
const letters: number[] = [];
const drafts: number[] = [];
const draws: number[] = [];
for (let round = 0; round < 7; round++) {
  const [result, ms] = await time(typed);
  if (result.lines.some((line) => line.problem !== null)) throw new Error('a line is wrong');
  whole.push(ms);
  // As it is typed: all lines stand but the last, of which a letter is added.
  const read = typing(null);
  const text = lines.join('\n');
  read(start, text.slice(0, -1));
  const [after, letterMs] = await time(() => read(start, text));
  const [, draftMs] = await time(() => draw(after.network, true));
  const [, drawMs] = await time(() => draw(after.network, false));
  letters.push(letterMs);
  drafts.push(letterMs + draftMs);
  draws.push(letterMs + drawMs);
}
const { network } = typed();
const size = `${lines.length} lines, ${network.count('device')} devices, ${network.count('cable')} cables`;
report.note(`a typed topology of ${size}, pasted`, median(whole), 'ms', null);
report.note('  one letter more', median(letters), 'ms', null);
report.note('  and drawn, links as elbows', median(drafts), 'ms', 100);
report.note('  and drawn, links routed (beside the screen)', median(draws), 'ms', null);

const large = campus(300);
const full = large.draft();
for (const model of builtInModels()) full.put('model', { ...model, id: newId() });
const stocked = full.finish();
const switches = [...stocked.all('device')].filter((device) => device.role === 'SW');
const joins: number[] = [];
for (const [at, device] of switches.slice(0, 60).entries()) {
  const other = switches[at + 1];
  if (other === undefined) break;
  const [made, ms] = await time(() => joinDevices(stocked, { aDeviceId: device.id, bDeviceId: other.id }));
  if (!made.ok) throw new Error(made.why);
  joins.push(ms);
}
report.note(
  `a line pulled between two of ${stocked.count('device')} devices, median of ${joins.length}`,
  median(joins),
  'ms',
  150,
);
report.note('  the longest', Math.max(...joins), 'ms', 150);
report.finish();
