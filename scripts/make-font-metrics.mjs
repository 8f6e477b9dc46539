/** Writes the advances of the shipped fonts, so that text is measured alike in the browser, a worker and the server. */
import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import * as fontkit from 'fontkit';
import { format } from 'prettier';

const require = createRequire(import.meta.url);
const { houseFonts, fallbackFonts } = await import('./run-ts.mjs').then(({ runTs }) =>
  runTs('packages/drawing/src/fontFiles.ts'),
);
const open = ({ file }) => fontkit.openSync(require.resolve(file));
const isMark = (codePoint) => /\p{Mn}|\p{Me}/u.test(String.fromCodePoint(codePoint));
const advanceOf = (font, codePoint) =>
  isMark(codePoint)
    ? 0
    : Math.round((font.glyphForCodePoint(codePoint).advanceWidth / font.unitsPerEm) * 1000);

/** Runs of neighbouring code points of one advance, as [first, count, thousandths, first, count, …]. */
function runsOf(advances) {
  const runs = [];
  for (const [codePoint, advance] of [...advances].sort(([a], [b]) => a - b)) {
    const at = runs.length - 3;
    if (at >= 0 && runs[at] + runs[at + 1] === codePoint && runs[at + 2] === advance) runs[at + 1]++;
    else runs.push(codePoint, 1, advance);
  }
  return runs;
}

const result = {};
const names = { text: 'Atkinson Hyperlegible Next', mono: 'Atkinson Hyperlegible Mono' };
for (const [face, family] of Object.entries(names))
  for (const weight of [400, 600]) {
    const font = open(houseFonts.find((one) => one.family === family && one.weight === weight));
    const isGreek = (codePoint) => codePoint >= 0x370 && codePoint <= 0x3ff;
    const drawn = font.characterSet.filter((codePoint) => codePoint >= 0x20 && !isGreek(codePoint));
    const key = weight === 400 ? face : `${face}Strong`;
    result[key] = runsOf(new Map(drawn.map((codePoint) => [codePoint, advanceOf(font, codePoint)])));
  }

/** Greek, Cyrillic, Hebrew, Arabic, arrows, operators and shapes: others have the usual width. */
const measured = [
  [0x370, 0x3ff],
  [0x400, 0x45f],
  [0x5d0, 0x5ea],
  [0x600, 0x6ff],
  [0x2030, 0x205e],
  [0x2100, 0x213a],
  [0x2190, 0x22ff],
  [0x2500, 0x25ff],
];
/** Rounded up, so that few numbers say it: the widths of the house fonts, which set nearly all text, are exact. */
const step = 25;
const advances = new Map();
for (const font of fallbackFonts.filter(({ weight }) => weight === 400).map(open))
  for (const [from, to] of measured)
    for (let codePoint = from; codePoint <= to; codePoint++)
      if (!advances.has(codePoint) && font.hasGlyphForCodePoint(codePoint))
        advances.set(codePoint, Math.ceil(advanceOf(font, codePoint) / step) * step);
result.fallback = runsOf(advances);
const target = new URL('../packages/drawing/src/metrics/advances.json', import.meta.url);
const lines = Object.entries(result).map(([face, runs]) => `"${face}": ${JSON.stringify(runs)}`);
writeFileSync(target, await format(`{${lines.join(',')}}`, { parser: 'json', printWidth: 110 }));
console.log('wrote packages/drawing/src/metrics/advances.json');
