import { outlineOf } from './outline.ts';
import { runsOf, type Run } from './runs.ts';

const escapes: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };
const decoded = (text: string): string =>
  text.replace(
    /&(?:#x([0-9a-f]+)|#(\d+)|(\w+));/gi,
    (whole, hex?: string, decimal?: string, name?: string) => {
      if (hex !== undefined) return String.fromCodePoint(parseInt(hex, 16));
      if (decimal !== undefined) return String.fromCodePoint(Number(decimal));
      return escapes[name ?? ''] ?? whole;
    },
  );
const encoded = (text: string): string =>
  text.replace(/[&<>]/g, (character) => ({ '&': '&amp;', '<': '&lt;' })[character] ?? '&gt;');

const textElement = /(<text\b[^>]*>)([\s\S]*?)(<\/text>)/g;

/** The texts that a drawing shows, each once, in the order in which they are drawn. */
export function textsOf(svg: string): string[] {
  const found = new Set<string>();
  for (const [, , inside = ''] of svg.matchAll(textElement)) {
    const text = decoded(inside.replace(/<[^>]*>/g, ''));
    if (text.trim() !== '') found.add(text);
  }
  return [...found];
}

const weightOf = (opening: string): 400 | 600 => (opening.includes('font-weight="600"') ? 600 : 400);
/** An attribute of a tag as it stands there, or null. */
export const attribute = (tag: string, name: string): string | null =>
  new RegExp(`\\s${name}="([^"]*)"`).exec(tag)?.[1] ?? null;

const isPlain = (runs: readonly Run[]): boolean => runs.length === 1 && runs[0]?.family === null;

/**
 * The drawing with every text in runs of one font from left to right, for a writer that takes one font for each text
 * and knows no scripts. Texts that the house fonts draw are left as they are.
 */
export const withRuns = (svg: string): string =>
  svg.replace(textElement, (_whole, opening: string, inside: string, closing: string) => {
    const parts = inside.replace(/[^<>]+(?![^<]*>)/g, (part) => {
      const runs = runsOf(decoded(part), weightOf(opening));
      if (isPlain(runs)) return part;
      return runs
        .map(({ text, family }) => {
          const font = family === null ? '' : ` font-family="${family}"`;
          return `<tspan${font}>${encoded(text)}</tspan>`;
        })
        .join('');
    });
    return `${opening}${parts}${closing}`;
  });

const rounded = (value: number): number => Math.round(value * 1000) / 1000;

/** A stroke below a text, as thick and as low as a browser draws it. */
const underline = (x: number, y: number, width: number, size: number): string =>
  `M${rounded(x)} ${rounded(y + size * 0.1)}h${rounded(width)}v${rounded(size * 0.06)}h${rounded(-width)}Z`;

/** What says of a text how it is set: of no use to an outline. */
const setting = /\s(?:x|y|font-family|font-weight|font-size|text-anchor|text-decoration|xml:space)="[^"]*"/g;

/**
 * The drawing with the outlines of letters in the place of every text that the house fonts do not draw alone: for a
 * picture, whose maker does not place the letters of all scripts.
 */
export const withOutlines = (svg: string): string =>
  svg.replace(textElement, (whole: string, opening: string, inside: string) => {
    const weight = weightOf(opening);
    const runs = runsOf(decoded(inside.replace(/<[^>]*>/g, '')), weight);
    if (isPlain(runs)) return whole;
    const size = Number(attribute(opening, 'font-size') ?? 16);
    const own = attribute(opening, 'font-family')?.split(',')[0] ?? '';
    const outlines = runs.map(({ text, family }) => outlineOf(text, family ?? own, weight, size));
    const width = outlines.reduce((sum, one) => sum + one.width, 0);
    const back = { start: 0, middle: 0.5, end: 1 }[attribute(opening, 'text-anchor') ?? 'start'] ?? 0;
    const left = Number(attribute(opening, 'x') ?? 0) - back * width;
    const y = Number(attribute(opening, 'y') ?? 0);
    let x = left;
    const paths = outlines.map((one) => {
      const path = one.pathAt(x, y);
      x += one.width;
      return path;
    });
    if (attribute(opening, 'text-decoration') === 'underline') paths.push(underline(left, y, width, size));
    return `${opening.replace('<text', '<path').replace(setting, '').replace(/>$/, '')} d="${paths.join('')}"/>`;
  });
