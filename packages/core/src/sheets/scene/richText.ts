import { lexer, type MarkedToken, type Token } from 'marked';
import type { FontFace, TextMeasure } from '../layout/textMeasure.ts';

/** A piece of text in one face, from the left end of its base line. */
export interface TextRun {
  x: number;
  y: number;
  text: string;
  face: FontFace;
  size: number;
  /** Drawn as a link; addresses other than http, https and mailto are left as plain text. */
  href: string | null;
}

export interface TextBlock {
  runs: TextRun[];
  width: number;
  height: number;
}

interface Piece {
  text: string;
  face: FontFace;
  href: string | null;
}
interface Paragraph {
  pieces: Piece[];
  size: number;
  indent: number;
  mark: string;
  gap: number;
}

const bodySize = 13;
const headingSizes = [19, 16, 14];
const safeHref = /^(https?:|mailto:)/i;
/** Entities that the reader of Markdown leaves in plain text. */
const entities: Record<string, string> = {
  '&amp;': '&',
  '&lt;': '<',
  '&gt;': '>',
  '&quot;': '"',
  '&#39;': "'",
};
const plain = (text: string): string =>
  text.replace(/&(amp|lt|gt|quot|#39);/g, (entity) => entities[entity] ?? entity);

/** A token of Markdown as it is, with no extension of it. */
const known = (token: Token): MarkedToken => token as MarkedToken;

function inline(tokens: readonly Token[] | undefined, face: FontFace, href: string | null): Piece[] {
  return (tokens ?? []).map(known).flatMap((token): Piece[] => {
    switch (token.type) {
      case 'strong':
        return inline(token.tokens, 'textStrong', href);
      case 'em':
      case 'del':
        return inline(token.tokens, face, href);
      case 'codespan':
        return [{ text: plain(token.text), face: 'mono', href }];
      case 'link': {
        const to = token.href;
        return inline(token.tokens, face, safeHref.test(to) ? to : null);
      }
      case 'br':
        return [{ text: '\n', face, href: null }];
      case 'text':
      case 'escape':
        return 'tokens' in token && token.tokens !== undefined
          ? inline(token.tokens, face, href)
          : [{ text: plain(token.text), face, href }];
      // Markup other than Markdown is shown as it was typed, never read.
      default:
        return [{ text: plain(token.raw), face, href }];
    }
  });
}

function paragraphs(tokens: readonly Token[], indent = 0, mark = ''): Paragraph[] {
  let first = mark;
  return tokens.map(known).flatMap((token): Paragraph[] => {
    const here = first;
    if (token.type !== 'space') first = '';
    const base = { size: bodySize, indent, mark: here, gap: 6 };
    switch (token.type) {
      case 'space':
        return [];
      case 'heading':
        return [
          {
            ...base,
            pieces: inline(token.tokens, 'textStrong', null),
            size: headingSizes[token.depth - 1] ?? bodySize,
            gap: 8,
          },
        ];
      case 'list': {
        return token.items.flatMap((item, at) =>
          paragraphs(
            item.tokens,
            indent + 18,
            token.ordered ? `${(token.start === '' ? 1 : token.start) + at}.` : '•',
          ).map((one) => ({ ...one, gap: 2 })),
        );
      }
      case 'blockquote':
        return paragraphs(token.tokens, indent + 18, here);
      case 'code':
        return token.text
          .split('\n')
          .map((line) => ({ ...base, gap: 0, pieces: [{ text: line, face: 'mono' as const, href: null }] }));
      default:
        return [
          {
            ...base,
            pieces:
              'tokens' in token && token.tokens !== undefined
                ? inline(token.tokens, 'text', null)
                : [{ text: plain(token.raw.trim()), face: 'text', href: null }],
          },
        ];
    }
  });
}

/** Quotes and lists within each other beyond this are text: a reader of Markdown takes a stack as deep. */
const mostNested = 12;
const marker = String.raw`[^\S\n]*(?:>|(?:[-*+]|\d{1,9}[.)])(?=[^\S\n]))`;
const tooNested = new RegExp(`^((?:${marker}){${mostNested}})(${marker})`, 'gm');
/** The same text with the marks of what is nested too deep taken for what they are written as. */
const shallow = (markdown: string): string =>
  markdown.replace(tooNested, (_all, kept: string, over: string) => {
    const sign = over.search(/[>*+.)-]/);
    return `${kept}${over.slice(0, sign)}\\${over.slice(sign)}`;
  });

/** As many letters of a word, from its start, as fit into a width: at least one, and never half of one. */
function fitting(word: string, room: number, width: (text: string) => number): number {
  let [fits, over] = [0, 1];
  while (over < word.length && width(word.slice(0, over)) <= room) [fits, over] = [over, over * 2];
  over = Math.min(over, word.length);
  if (width(word.slice(0, over)) <= room) return word.length;
  while (over - fits > 1) {
    const middle = Math.floor((fits + over) / 2);
    if (width(word.slice(0, middle)) <= room) fits = middle;
    else over = middle;
  }
  const cutsLetter = /[\uD800-\uDBFF]$/.test(word.slice(0, fits)) && fits < word.length;
  const whole = cutsLetter ? fits - 1 : fits;
  return whole > 0 ? whole : (word.codePointAt(0) ?? 0) > 0xffff ? 2 : 1;
}

/** Words with the white space before them; line ends stay words of their own. */
const wordsOf = (text: string): string[] => text.match(/\n|[^\S\n]*[^\s]+|[^\S\n]+$/g) ?? [];

/**
 * Text in Markdown (CommonMark) set in lines of at most `width` sheet units: headings, lists, bold, code and links.
 * HTML in it is shown as typed. The first base line stands below y = 0.
 */
export function setText(markdown: string, width: number, measure: TextMeasure): TextBlock {
  const runs: TextRun[] = [];
  let y = 0;
  let widest = 0;
  paragraphs(lexer(shallow(markdown))).forEach((paragraph, index) => {
    const { size, indent } = paragraph;
    if (index > 0) y += paragraph.gap;
    let x = indent;
    const line = Math.round(size * 1.4);
    y += line;
    if (paragraph.mark !== '')
      runs.push({ x: indent - 14, y, text: paragraph.mark, face: 'text', size, href: null });
    for (const { text, face, href } of paragraph.pieces) {
      for (const word of wordsOf(text)) {
        if (word === '\n') {
          x = indent;
          y += line;
          continue;
        }
        const starting = x === indent;
        let shown = starting ? word.trimStart() : word;
        if (!starting && x + measure(shown, face, size) > width) {
          x = indent;
          y += line;
          shown = word.trimStart();
        }
        // A word longer than the line is cut into pieces that fit.
        const wide = (text: string): number => measure(text, face, size);
        for (;;) {
          const fits = fitting(shown, width - x, wide);
          if (fits >= shown.length) break;
          runs.push({ x, y, text: shown.slice(0, fits), face, size, href });
          widest = Math.max(widest, width);
          shown = shown.slice(fits);
          x = indent;
          y += line;
        }
        if (shown === '') continue;
        const last = runs.at(-1);
        if (
          last !== undefined &&
          !starting &&
          x > indent &&
          last.y === y &&
          last.face === face &&
          last.href === href
        )
          last.text += shown;
        else runs.push({ x, y, text: shown, face, size, href });
        x += measure(shown, face, size);
        widest = Math.max(widest, x);
      }
    }
  });
  return { runs, width: widest, height: y === 0 ? 0 : y + 5 };
}
