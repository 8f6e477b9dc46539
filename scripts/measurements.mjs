/** Keeps the last runs of npm run bench, and writes docs/measurements.md from them. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format, resolveConfig } from 'prettier';
import { root } from './install.mjs';

/** So many runs are kept of each figure. */
const kept = 5;
const store = join(root, 'docs/measurements.json');
const page = join(root, 'docs/measurements.md');

const titles = {
  bench: 'A network of 10,000 devices, 205,000 ports, 95,700 cables',
  logical: 'VLANs and addresses',
  drawings: 'Drawing 300 plates and 492 links',
  sheetFigures: 'Drawings, by what they are of',
  drawFirst: 'Drawing first',
  lists: 'Lists brought in',
  reports: 'Schedules, checks, parts lists and labels',
  clouds: 'Clouds of 200 networks, and a sheet of one',
  beside: 'What others notice of an import',
  crowd: 'A crowd, five minutes',
  frames: 'Racks on the screen: 20 racks, 600 devices, 16,950 ports',
  sheetFrames: 'Sheets on the screen',
  ladderFrames: 'The address ladder on the screen',
};

const known = () => (existsSync(store) ? JSON.parse(readFileSync(store, 'utf8')) : {});

/** Adds a run of a part; figures that are no longer measured are forgotten. */
function withRun(before, figures, day) {
  return figures.map(({ work, unit, budget, value, ratio, against }) => {
    const runs = before.find((one) => one.work === work)?.runs ?? [];
    return { work, unit, budget, against, runs: [...runs, { day, value, ratio }].slice(-kept) };
  });
}

const short = (value) => Number(value.toPrecision(value < 10 ? 2 : 3)).toLocaleString('en');
const range = (values) => {
  const [least, most] = [short(Math.min(...values)), short(Math.max(...values))];
  return least === most ? least : `${least} – ${most}`;
};
const middle = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

function lineOf({ work, unit, budget, against, runs }, above) {
  const values = runs.map(({ value }) => value);
  const ratios = runs.flatMap(({ ratio }) => (ratio === null ? [] : [ratio]));
  const missed = budget !== null && middle(values) > budget;
  const name = work.includes(' › ') && work.startsWith(above) ? `… ${work.split(' › ').at(-1)}` : work;
  const goal = budget === null ? '' : `${short(budget)} ${unit}${missed ? ': **missed**' : ''}`;
  const ratio = ratios.length === 0 ? '' : `${range(ratios)} × ${against}`;
  return `| ${name} | ${range(values)} ${unit} | ${goal} | ${ratio} |`;
}

async function write(parts) {
  const text = [
    '# What was measured',
    '',
    `Written by \`npm run bench\`, which keeps the last ${kept} runs of each figure (docs/measurements.json): on 2 cores with Node 20 and PostgreSQL 15. The machine's own speed varies by a factor of two to three, so that a figure says little by itself: the last column compares it with a yardstick that was run right after it. A budget is missed when the run in the middle misses it.`,
  ];
  for (const [part, figures] of Object.entries(parts)) {
    const days = [...new Set(figures.flatMap(({ runs }) => runs.map(({ day }) => day)))].sort();
    text.push('', `## ${titles[part] ?? part}`, '', `Runs of ${days.join(', ')}.`, '');
    text.push('| work | measured | budget | against |', '| - | - | - | - |');
    let above = '\u0000';
    for (const figure of figures) {
      if (!figure.work.includes(' › ')) above = figure.work;
      text.push(lineOf(figure, above));
    }
  }
  const options = { ...(await resolveConfig(page)), parser: 'markdown' };
  writeFileSync(page, await format(`${text.join('\n')}\n`, options));
}

/** @param measured figures by part, as the parts tell them */
export async function keep(measured, day = new Date().toISOString().slice(0, 10)) {
  const parts = known();
  for (const [part, figures] of Object.entries(measured))
    parts[part] = withRun(parts[part] ?? [], figures, day);
  const ordered = Object.fromEntries(
    Object.keys(titles).flatMap((part) => (part in parts ? [[part, parts[part]]] : [])),
  );
  const options = { ...(await resolveConfig(store)), parser: 'json' };
  writeFileSync(store, await format(JSON.stringify(ordered), options));
  await write(ordered);
}
