import { describe, expect, test } from '@jest/globals';
import { builtInModels } from '../../core/src/catalogue/builtIn/index.ts';
import { renderToStaticMarkup } from 'react-dom/server';
import { RackCables } from './Cables.tsx';
import { contrast, fades, luminance } from './contrast.ts';
import { night, paper } from './tokens.ts';

describe('what stands out on what', () => {
  test('black on white is 21, a colour on itself 1, whichever comes first', () => {
    expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 5);
    expect(contrast('#FFFFFF', '#000000')).toBeCloseTo(21, 5);
    expect(contrast('#D9B01F', '#D9B01F')).toBe(1);
    // Mid grey of sRGB, from the table of IEC 61966-2-1.
    expect(luminance('#777777')).toBeCloseTo(0.1845, 3);
  });

  test('every jacket of the catalogue is seen on Paper and at Night: by itself or by its edge', () => {
    const jackets = [...new Set(builtInModels().flatMap(({ jacket }) => jacket ?? []))];
    expect(jackets.length).toBeGreaterThan(4);
    for (const tokens of [paper, night]) {
      expect(fades(tokens.inkSoft, tokens.surface)).toBe(false);
      for (const jacket of [...jackets, '#FFFFFF', '#000000']) {
        const drawn = renderToStaticMarkup(
          <RackCables
            cables={[{ cableId: 'one', d: 'M0 0L9 9', jacket, spoken: '', portIds: [] }]}
            tokens={tokens}
            lit={new Set()}
          />,
        );
        const strokes = [...drawn.matchAll(/stroke="(#[0-9A-Fa-f]{6})"/g)].map((match) => match[1] ?? '');
        expect(strokes.at(-1)).toBe(jacket);
        expect(strokes.some((stroke) => contrast(stroke, tokens.surface) >= 3)).toBe(true);
      }
    }
  });
});
