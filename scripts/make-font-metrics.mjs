/** Writes the advances of the shipped fonts, so that text is measured alike in the browser, a worker and the server. */
import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import * as fontkit from 'fontkit';
import { format } from 'prettier';

const require = createRequire(import.meta.url);
const files = {
  text: '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf',
  textStrong:
    '@expo-google-fonts/atkinson-hyperlegible-next/600SemiBold/AtkinsonHyperlegibleNext_600SemiBold.ttf',
  mono: '@expo-google-fonts/atkinson-hyperlegible-mono/400Regular/AtkinsonHyperlegibleMono_400Regular.ttf',
  monoStrong:
    '@expo-google-fonts/atkinson-hyperlegible-mono/600SemiBold/AtkinsonHyperlegibleMono_600SemiBold.ttf',
};
const characters = [
  ...Array.from({ length: 0x17f - 0x20 }, (_, at) => String.fromCodePoint(0x20 + at)),
  ...'–—‘’“”…·›×→←⇄',
];
const result = {};
for (const [face, file] of Object.entries(files)) {
  const font = fontkit.openSync(require.resolve(file));
  const advances = {};
  for (const character of characters) {
    const glyph = font.glyphForCodePoint(character.codePointAt(0));
    if (glyph.id !== 0) advances[character] = Math.round((glyph.advanceWidth / font.unitsPerEm) * 1000);
  }
  result[face] = advances;
}
const target = new URL('../packages/drawing/src/metrics/advances.json', import.meta.url);
writeFileSync(target, await format(JSON.stringify(result), { parser: 'json', printWidth: 110 }));
console.log('wrote packages/drawing/src/metrics/advances.json');
