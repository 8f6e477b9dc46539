/*
 * A topology as it is typed, one statement a line. The form:
 *
 *   line     = [ statement ] [ "#" whatever ]
 *   statement= device | links | each | shape | what | where
 *   device   = name                                      rt-1
 *   links    = end "--" end { "--" end } [ extent ]      edge-1 ge0/1 -- core-1 te1/1 10G
 *            | name name [ extent ]                      core-1 core-2 x2
 *   each     = number sort "each" ("to" | "on") names [ extent ]     3 access each to core-1 core-2
 *   shape    = ("ring" | "row" | "mesh") ( names | "of" number sort ) [ extent ]   ring of 5 routers
 *   what     = names ":" sort                            sw-1 sw-2: AX-2424P
 *   where    = "in" path ":" names                       in "Harbour/Data room": sw-1 sw-2
 *   end      = name [ port ]
 *   extent   = { "x" number | number ("M" | "G") }       in parallel, and how fast
 *   names    = name { [ "," ] name }
 *   sort     = a role, a model, or the beginning of names to be numbered
 *
 * Names with spaces, and words that would mean something else, stand in double quotes.
 */

import { mostParallel } from '../../commands/join.ts';

export interface TypedEnd {
  device: string;
  port: string | null;
}
/** How many beside each other, and how fast in bit/s where it was said. */
export interface Extent {
  count: number;
  speedBps: number | null;
}
export const shapes = ['ring', 'row', 'mesh'] as const;
export type TypedShape = (typeof shapes)[number];

export type Statement =
  | { form: 'devices'; names: string[] }
  | { form: 'links'; ends: TypedEnd[]; extent: Extent }
  | { form: 'each'; count: number; sort: string; to: string[]; extent: Extent }
  | { form: 'shape'; shape: TypedShape; names: string[]; extent: Extent }
  | { form: 'shapeOf'; shape: TypedShape; count: number; sort: string; extent: Extent }
  | { form: 'what'; names: string[]; sort: string }
  | { form: 'where'; path: string; names: string[] };

export interface TypedLine {
  /** Counted from 1. */
  number: number;
  text: string;
  /** Null where the line is empty, a note, or wrong. */
  statement: Statement | null;
  /** Why it cannot be read, and how to write it. */
  problem: string | null;
}

/** Devices that one line can make. */
export const mostAtOnce = 200;

interface Token {
  text: string;
  quoted: boolean;
}

/** Words, quoted names, and the signs `--`, `:` and `,` of a line, up to a `#`; null where a quote is left open. */
function tokensOf(line: string): Token[] | null {
  const tokens: Token[] = [];
  const pattern = /\s*(?:#.*$|"([^"]*)"|(,)|(--(?=\s|$))|(:(?=\s|$))|([^\s",:#][^\s",:]*))/y;
  for (let at = 0; at < line.length; at = pattern.lastIndex) {
    if (line.slice(at).trim() === '') break;
    pattern.lastIndex = at;
    const found = pattern.exec(line);
    if (found === null) return null;
    const [, quoted, comma, dashes, colon, word] = found;
    if (quoted !== undefined) tokens.push({ text: quoted, quoted: true });
    else if (comma === undefined) {
      const text = dashes ?? colon ?? word;
      if (text !== undefined) tokens.push({ text, quoted: false });
    }
  }
  return tokens;
}

const times = /^x(\d{1,6})$/i;
const speed = /^(\d{1,4}(?:\.\d)?)(M|G)$/i;
const isSign = ({ text, quoted }: Token, sign: string): boolean => !quoted && text.toLowerCase() === sign;

/** Takes `x2` and `10G` off the end. */
function extentOf(tokens: Token[]): { rest: Token[]; extent: Extent } | string {
  const rest = [...tokens];
  const extent: Extent = { count: 1, speedBps: null };
  for (;;) {
    const last = rest.at(-1);
    if (last === undefined || last.quoted) break;
    const [count, rate] = [times.exec(last.text), speed.exec(last.text)];
    if (count === null && rate === null) break;
    if (count !== null) {
      extent.count = Number(count[1]);
      if (extent.count < 1 || extent.count > mostParallel)
        return `${last.text}: 1 to ${mostParallel} cables can lie in parallel.`;
    }
    if (rate !== null) extent.speedBps = Number(rate[1]) * (rate[2]?.toUpperCase() === 'G' ? 1e9 : 1e6);
    rest.pop();
  }
  return { rest, extent };
}

const whole = (text: string): number | null => (/^\d{1,6}$/.test(text) ? Number(text) : null);
const textOf = (tokens: readonly Token[]): string => tokens.map(({ text }) => text).join(' ');

function end(tokens: readonly Token[]): TypedEnd | string {
  const [device, port, ...more] = tokens;
  if (device === undefined) return 'An end is missing beside “--”. Write a device on both sides.';
  if (more.length > 0)
    return `“${textOf(tokens)}” has more than a device and a port. Put names with spaces in double quotes.`;
  return { device: device.text, port: port?.text ?? null };
}

function links(tokens: Token[]): Statement | string {
  const read = extentOf(tokens);
  if (typeof read === 'string') return read;
  const sides: Token[][] = [[]];
  for (const token of read.rest)
    if (isSign(token, '--')) sides.push([]);
    else sides.at(-1)?.push(token);
  const ends: TypedEnd[] = [];
  for (const side of sides) {
    const one = end(side);
    if (typeof one === 'string') return one;
    ends.push(one);
  }
  const inner = ends.slice(1, -1).find((one) => one.port !== null);
  if (inner !== undefined)
    return `${inner.device} stands between two others: a port there would hold two cables. Write two lines.`;
  return { form: 'links', ends, extent: read.extent };
}

function each(tokens: Token[], at: number): Statement | string {
  const [first, ...between] = tokens.slice(0, at);
  const count = first === undefined ? null : whole(first.text);
  if (count === null || between.length === 0)
    return 'Write how many and what before “each”, such as: 3 access each to core-1 core-2';
  const preposition = tokens[at + 1];
  if (preposition === undefined || !(isSign(preposition, 'to') || isSign(preposition, 'on')))
    return 'Write “each to” and the devices they are joined to.';
  const read = extentOf(tokens.slice(at + 2));
  if (typeof read === 'string') return read;
  if (read.rest.length === 0) return 'Name the devices they are joined to after “each to”.';
  if (count < 1 || count > mostAtOnce) return `${count}: one line makes 1 to ${mostAtOnce} devices.`;
  const to = read.rest.map(({ text }) => text);
  return { form: 'each', count, sort: textOf(between), to, extent: read.extent };
}

function shapeLine(shape: TypedShape, tokens: Token[]): Statement | string {
  const read = extentOf(tokens);
  if (typeof read === 'string') return read;
  const { rest, extent } = read;
  const least = shape === 'ring' ? 3 : 2;
  const [first, second, ...sort] = rest;
  if (first !== undefined && isSign(first, 'of')) {
    const count = second === undefined ? null : whole(second.text);
    if (count === null || sort.length === 0) return `Write how many and what, such as: ${shape} of 5 routers`;
    if (count < least || count > mostAtOnce)
      return `A ${shape} has ${least} to ${mostAtOnce} devices; ${count} were asked for.`;
    return { form: 'shapeOf', shape, count, sort: textOf(sort), extent };
  }
  const names = rest.map(({ text }) => text);
  if (names.length < least) return `A ${shape} has at least ${least} devices: name them after “${shape}”.`;
  if (new Set(names.map((name) => name.toLowerCase())).size < names.length)
    return `A device is named twice in this ${shape}.`;
  return { form: 'shape', shape, names, extent };
}

function statementOf(tokens: Token[]): Statement | string {
  const [first] = tokens;
  if (first === undefined) return 'The line is empty.';
  const colon = tokens.findIndex((token) => isSign(token, ':'));
  const names = (list: readonly Token[]): string[] => list.map(({ text }) => text);
  if (isSign(first, 'in')) {
    if (colon < 2 || colon === tokens.length - 1)
      return 'Write the place, a colon and the devices, such as: in "Harbour": sw-1 sw-2';
    return { form: 'where', path: textOf(tokens.slice(1, colon)), names: names(tokens.slice(colon + 1)) };
  }
  if (colon >= 0) {
    if (colon === 0 || colon === tokens.length - 1)
      return 'Write devices, a colon and what they are, such as: sw-1 sw-2: switch';
    return { form: 'what', names: names(tokens.slice(0, colon)), sort: textOf(tokens.slice(colon + 1)) };
  }
  const shape = shapes.find((one) => isSign(first, one));
  if (shape !== undefined) return shapeLine(shape, tokens.slice(1));
  const word = tokens.findIndex((token) => isSign(token, 'each'));
  if (word >= 0) return each(tokens, word);
  if (tokens.some((token) => isSign(token, '--'))) return links(tokens);
  const read = extentOf(tokens);
  if (typeof read === 'string') return read;
  const { rest, extent } = read;
  if (rest.length === 1 && tokens.length === 1) return { form: 'devices', names: names(rest) };
  if (rest.length === 2) {
    const ends = rest.map(({ text }) => ({ device: text, port: null }));
    return { form: 'links', ends, extent };
  }
  return `“${textOf(tokens)}” cannot be read. Write -- between the two ends, such as: edge-1 ge0/1 -- core-1 te1/1`;
}

/** "sw-1:" is the name and a colon, "core-1:te1/1" a device and its port. */
const spaced = (line: string): string =>
  line.replace(/"[^"]*"|#.*$|:/g, (piece) => (piece === ':' ? ' : ' : piece));
/** A colon with no space around it stands between a device and its port. */
const ported = (line: string): string =>
  line.replace(/"[^"]*"|#.*$|(\S):(?=\S)/g, (piece, before: string | undefined) =>
    before === undefined ? piece : `${before} `,
  );

/** Reads a typed topology line by line; a line that cannot be read says so and leaves the others standing. */
export function readTyped(text: string): TypedLine[] {
  return text.split(/\r?\n/).map((line, index) => {
    const one = { number: index + 1, text: line };
    const tokens = tokensOf(spaced(ported(line)));
    if (tokens === null)
      return { ...one, statement: null, problem: 'A double quote is left open. Close it behind the name.' };
    if (tokens.length === 0) return { ...one, statement: null, problem: null };
    const statement = statementOf(tokens);
    return typeof statement === 'string'
      ? { ...one, statement: null, problem: statement }
      : { ...one, statement, problem: null };
  });
}

const plain = /^[^\s",:#]+$/;
const reserved = ['in', 'each', '--', ...shapes];

/** A name as it can be typed: in quotes where it would be read as something else. */
export function typedName(name: string): string {
  const means =
    !plain.test(name) ||
    reserved.includes(name.toLowerCase()) ||
    times.test(name) ||
    speed.test(name) ||
    whole(name) !== null;
  return means ? `"${name.replaceAll('"', '')}"` : name;
}
