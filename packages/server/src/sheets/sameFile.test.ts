import { describe, expect, test } from '@jest/globals';
import { builtInModels } from '@visograph/core/catalogue';
import { readExchange, type ExchangeFile } from '@visograph/core/exchange';
import { Network, newProject } from '@visograph/core/model';
import { sheetScene } from '@visograph/core/sheets';
import { readFileSync } from 'node:fs';
import { measureText } from '@visograph/drawing';
import { diagramSvg } from '@visograph/drawing/svg';

const demo = JSON.parse(
  readFileSync(new URL('../../../../demo/marrow-sound-ferries.json', import.meta.url), 'utf8'),
) as ExchangeFile;

/** The same file with the rows of each section in another order; the ids of what is read are new each time. */
function shuffled(file: ExchangeFile, seed: number): ExchangeFile {
  let state = seed;
  const next = (): number => (state = (state * 1_103_515_245 + 12_345) % 2_147_483_648) / 2_147_483_648;
  const mixed = (rows: readonly unknown[]): unknown[] => {
    const list = [...rows];
    for (let at = list.length - 1; at > 0; at--) {
      const other = Math.floor(next() * (at + 1));
      [list[at], list[other]] = [list[other], list[at]];
    }
    return list;
  };
  const sections = ['devices', 'cables', 'circuits', 'racks', 'prefixes'] as const;
  return {
    ...file,
    ...Object.fromEntries(sections.map((section) => [section, mixed(file[section] ?? [])])),
  };
}

function svgs(file: ExchangeFile): Map<string, string> {
  const begun = Network.of({ project: [newProject('Demo')], model: [...builtInModels()] });
  const read = readExchange(begun, file);
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return new Map(
    [...read.network.all('sheet')].map((sheet) => [
      sheet.name,
      diagramSvg(sheetScene(read.network, sheet, { measure: measureText, today: '2026-01-01' })),
    ]),
  );
}

describe('the same file, the same picture', () => {
  const first = svgs(demo);
  test.each([1, 2])('to the byte, whatever the ids and the order of rows (%d)', (seed) => {
    const again = svgs(shuffled(demo, seed));
    expect(again.size).toBe(first.size);
    for (const [name, svg] of first) expect([name, again.get(name) === svg]).toEqual([name, true]);
  });
});
