import { describe, expect, test } from '@jest/globals';
import { hostsFile, zoneFile, zoneNames } from '@visograph/core/addressing';
import { applyChanges } from '@visograph/core/change';
import { checkNetwork } from '@visograph/core/check';
import { readExchange, writeExchange, type ExchangeFile } from '@visograph/core/exchange';
import { inForce } from '@visograph/core/lens';
import {
  kindNames,
  Network,
  newProject,
  projections,
  blankSheet,
  projectionNatures,
  type Facet,
  type Kind,
  type Projection,
  type Sheet,
} from '@visograph/core/model';
import { reports } from '@visograph/core/report';
import { planOf, sheetToDot, sheetToGraphml, sheetToTopology, shownGraph } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import { diagramSvg } from '@visograph/drawing/svg';
import { sheetScene } from '@visograph/core/sheets';
import { readFileSync } from 'node:fs';
import { runs } from '../../core/src/testing/testRuns.ts';
import { switchedFile } from './testFiles.ts';

const demo = JSON.parse(
  readFileSync(new URL('../../../demo/marrow-sound-ferries.json', import.meta.url), 'utf8'),
) as ExchangeFile;

/** Numbers that look random and are always the same (mulberry32). */
function dice(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

function shuffled<T>(list: readonly T[], roll: () => number): T[] {
  const copy = [...list];
  for (let at = copy.length - 1; at > 0; at--) {
    const other = Math.floor(roll() * (at + 1));
    [copy[at], copy[other]] = [copy[other] as T, copy[at] as T];
  }
  return copy;
}

/** The file read anew: its rows get other ids, and come into the network in another order. */
function read(file: ExchangeFile, seed: number): Network {
  const roll = dice(seed);
  const mixed = Object.fromEntries(
    Object.entries(file).map(([key, value]) => [
      key,
      // What refers to its own kind is read in order: places by path, sheets by name.
      Array.isArray(value) && !['places', 'sheets', 'siteTemplates'].includes(key)
        ? shuffled<unknown>(value, roll)
        : value,
    ]),
  );
  const start = Network.of({ project: [newProject('Test')] });
  const result = readExchange(start, mixed);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  const applied = applyChanges(start, result.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  const rows = Object.fromEntries(
    kindNames.map((kind) => [kind, shuffled([...applied.network.all(kind)], roll)]),
  ) as Partial<{ [K in Kind]: never[] }>;
  return Network.of(rows);
}

const day = '2027-01-15';

/** A way to draw: how the model is read, and what is hidden. */
interface Way {
  projection: Projection;
  hidden?: Facet;
  reading?: Partial<Sheet['reading']>;
}
const plain: Way[] = projections.map((projection) => ({ projection }));
const nameless: Way[] = projections.map((projection) => ({ projection, hidden: 'names' }));
const otherwise: Way[] = [
  { projection: 'cabling', reading: { throughPanels: true, pairs: true, racks: true } },
  { projection: 'cabling', reading: { unfolded: true } },
  { projection: 'switching', reading: { unfolded: true } },
];

/** Every answer there is about a network, as text. */
function answers(network: Network, ways: readonly Way[]): Record<string, string> {
  const found: Record<string, string> = {};
  found['check'] = JSON.stringify(
    checkNetwork(network, '2026-11-30').map(({ rows: _rows, ...finding }) => finding),
    null,
    1,
  );
  found['check built'] = JSON.stringify(
    checkNetwork(inForce(network, { planned: false }), '2026-11-30').map(({ message }) => message),
  );
  for (const report of reports)
    found[`report ${report.key}`] = JSON.stringify(report.make(network, null).rows, null, 1);
  for (const { projection, hidden = '', reading = {} } of ways) {
    const sheet: Sheet = {
      ...blankSheet,
      id: 'a0000000-0000-7000-8000-000000000000',
      name: projection,
      projection,
      reading: { ...blankSheet.reading, ...reading },
      show: projectionNatures[projection].usual.filter((facet) => facet !== hidden),
    };
    const as = `${projection} ${hidden} ${JSON.stringify(reading)}`;
    const options = { measure: measureText, today: day, stamp: { revision: 0, date: day } };
    found[`draw ${as}`] = diagramSvg(sheetScene(network, sheet, options), {});
    const graph = shownGraph(planOf(network, sheet, { today: day, stamp: { revision: 0, date: day } }));
    found[`graphml ${as}`] = sheetToGraphml(projection, graph);
    found[`dot ${as}`] = sheetToDot(projection, graph);
    found[`topology ${as}`] = JSON.stringify(sheetToTopology(projection, graph), null, 1);
  }
  for (const zone of zoneNames(network)) found[`zone ${zone}`] = zoneFile(network, zone, 1) ?? '';
  found['hosts'] = hostsFile(network);
  found['export'] = JSON.stringify(writeExchange(network), null, 1);
  return found;
}

const same = (file: ExchangeFile, times: number, ways: readonly Way[]): void => {
  const first = answers(read(file, 1), ways);
  for (let seed = 2; seed <= times; seed++) {
    const next = answers(read(file, seed), ways);
    expect(Object.keys(next)).toEqual(Object.keys(first));
    const differ = Object.entries(first).flatMap(([key, text]) => {
      const [before, after] = [text.split('\n'), (next[key] ?? '').split('\n')];
      const at = before.findIndex((line, index) => line !== after[index]);
      return at < 0 ? [] : [`${key} line ${at}: ${before[at] ?? ''} / ${after[at] ?? ''}`.slice(0, 300)];
    });
    expect(differ).toEqual([]);
  }
};

describe('the same file gives the same answers, byte for byte, whatever its order and its ids', () => {
  test('the demo, read five times', () => same(demo, 5, plain));
  test('the demo with its names hidden', () =>
    same(
      demo,
      2,
      nameless.filter(({ projection }) => projection !== 'switching'),
    ));
  test('random networks, read five times', () => {
    for (let seed = 1; seed <= runs(3); seed++)
      same(switchedFile(dice(seed)), 5, [...plain, ...nameless, ...otherwise]);
  });
});
