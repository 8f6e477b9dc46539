const forbidden: readonly [RegExp, string][] = [
  [/<\s*script\b/i, 'a script'],
  [/<\s*(foreignObject|iframe|object|embed|handler|set|animate\w*)\b/i, 'embedded content'],
  [/\son\w+\s*=/i, 'an event handler'],
  [/(href|src)\s*=\s*["']?\s*(?!["']?#)(?!["']?data:image\/(png|jpeg);)/i, 'a link to somewhere else'],
  [/url\(\s*["']?\s*(?!["']?#)/i, 'a link to somewhere else'],
  [/@import|javascript:|<!ENTITY|<!DOCTYPE/i, 'something that is not a drawing'],
];

const mostElements = 20_000;
const mostDepth = 60;
/** Elements that are drawn once all that is used again is put in its places. */
const mostDrawn = 100_000;

/** A part of a drawing that others may refer to: its own elements, and the parts that they refer to. */
interface Part {
  elements: number;
  refers: string[];
}
const newPart = (): Part => ({ elements: 0, refers: [] });

const tag =
  /<!--[\s\S]*?-->|<!\[CDATA\[[\s\S]*?\]\]>|<\?[\s\S]*?\?>|<(\/?)([A-Za-z][\w:.-]*)((?:[^<>"']|"[^"]*"|'[^']*')*?)(\/?)>/g;
const reference = /(?:href\s*=\s*["']?\s*|url\(\s*["']?\s*)#([^"')\s>]+)/gi;

/** The parts of a drawing by their ids, '' for all of it; or what is wrong with it. */
function partsOf(text: string): Map<string, Part> | string {
  const parts = new Map<string, Part>([['', newPart()]]);
  /** The elements that are open, each with the id that it has. */
  const open: (string | null)[] = [];
  let elements = 0;
  for (const [, closing, , attributes = '', alone] of text.matchAll(tag)) {
    if (closing === undefined) continue;
    if (closing === '/') {
      open.pop();
      continue;
    }
    if (++elements > mostElements) return `holds more than ${mostElements} elements: make it simpler`;
    if (open.length >= mostDepth) return `holds elements within each other more than ${mostDepth} deep`;
    const id = /\sid\s*=\s*["']?([^"'\s>]+)/i.exec(` ${attributes}`)?.[1] ?? null;
    if (id !== null && !parts.has(id)) parts.set(id, newPart());
    const refers = [...attributes.matchAll(reference)].map(([, to = '']) => to);
    for (const holder of ['', ...open, id]) {
      const part = holder === null ? undefined : parts.get(holder);
      if (part === undefined) continue;
      part.elements++;
      part.refers.push(...refers);
    }
    if (alone !== '/') open.push(id);
  }
  return parts;
}

/** How many elements a part comes to with all that it refers to; Infinity where that never ends. */
function drawnCount(
  parts: ReadonlyMap<string, Part>,
  id: string,
  known: Map<string, number>,
  above: ReadonlySet<string>,
): number {
  const part = parts.get(id);
  if (part === undefined) return 0;
  const before = known.get(id);
  if (before !== undefined) return before;
  if (above.has(id)) return Infinity;
  const within = new Set([...above, id]);
  const count = part.refers.reduce((sum, to) => sum + drawnCount(parts, to, known, within), part.elements);
  known.set(id, count);
  return count;
}

/** What an SVG text may not hold, in words, or null when it is a plain drawing of a size that can be drawn. */
export function svgFault(text: string): string | null {
  if (!/^\s*(<\?xml[^>]*\?>\s*)?(<!--[\s\S]*?-->\s*)*<svg[\s>]/i.test(text)) return 'is not an SVG picture';
  const found = forbidden.find(([pattern]) => pattern.test(text));
  if (found !== undefined) return `holds ${found[1]}, which is not kept`;
  const closed = (from: string, to: string): boolean => text.lastIndexOf(from) <= text.lastIndexOf(to);
  if (!closed('<!--', '-->') || !closed('<![CDATA[', ']]>') || !closed('<?', '?>'))
    return 'is a damaged SVG picture: it breaks off';
  const parts = partsOf(text);
  if (typeof parts === 'string') return parts;
  const drawn = drawnCount(parts, '', new Map(), new Set());
  if (drawn === Infinity) return 'holds a part that uses itself';
  return drawn > mostDrawn
    ? `draws more than ${mostDrawn} elements once what it uses is put in: make it simpler`
    : null;
}
