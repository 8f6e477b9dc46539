import { speedText } from '../../model/values/speed.ts';
import { compareNames } from '../../model/values/order.ts';
import type { Shade } from '../../sheets/graph/shading.ts';
import type { LinkSums } from '../../sheets/graph/sheetGraph.ts';
import { line, say, told, type Told, type ToldLink, type ToldStub } from '../../sheets/graph/told.ts';
import type { Wire, WireEnd } from './wires.ts';
import { metresText } from '../../model/values/numbers.ts';

/** More parallel cables of one medium than this between two plates are drawn as one bundle. */
const mostParallel = 4;

/** "1/1–12" for a bundle's ports at one end, or their number when they do not count on. */
export function portsText(names: readonly string[]): string {
  const sorted = [...names].filter((name) => name !== '').sort(compareNames);
  const first = sorted[0] ?? '';
  const last = sorted.at(-1) ?? '';
  if (sorted.length <= 1) return first;
  const start = /^(.*?)(\d+)$/.exec(first);
  const end = /^(.*?)(\d+)$/.exec(last);
  const counts = start?.[1] === end?.[1] && Number(end?.[2]) - Number(start?.[2]) === sorted.length - 1;
  return counts ? `${first}–${end?.[2] ?? ''}` : `${sorted.length} ports`;
}

/** The aggregate that all of these are members of. */
const tieOf = (ends: readonly WireEnd[]): string | null => {
  const first = ends[0]?.aggregateId ?? null;
  return ends.every((end) => end.aggregateId === first) ? first : null;
};

/** What stands at one end of some wires: their ports, and VLANs and address where these are of one. */
function endText(ends: readonly WireEnd[]): Told {
  const [first] = ends;
  if (first === undefined) return told();
  const tags = ends.every((end) => end.tags === first.tags) ? first.tags : '';
  const address = ends.every((end) => end.address === first.address) ? first.address : '';
  return told(
    say(portsText(ends.map((end) => end.port)), 'portNames'),
    say(tags, 'vlanTags'),
    say(address, 'addresses'),
  );
}

const lengthText = (metres: number): string => metresText(Math.round(metres * 10) / 10);

function middleText(members: readonly Wire[]): Told {
  const [first] = members;
  if (first === undefined) return told();
  const one = members.every((wire) => wire.line.id === first.line.id);
  const same = <T>(of: (wire: Wire) => T): T | null =>
    members.every((wire) => of(wire) === of(first)) ? of(first) : null;
  const type = same((wire) => wire.type);
  const speed = same((wire) => wire.speedBps);
  const length = one ? first.lengthM : null;
  return told(
    say(one ? (first.line.provider ?? '') : '', 'names', 'cableLabels'),
    say(one ? first.line.label : `${members.length} cables`, 'cableLabels'),
    say(type ?? '', 'media'),
    say(speed === null ? '' : speedText(speed), 'speeds'),
    say(length === null ? '' : lengthText(length), 'lengths'),
  );
}

/** How many cables of one speed; nothing where they differ or it is not known. */
function sumsOf(members: readonly Wire[]): { sums?: LinkSums } {
  const speed = members[0]?.speedBps ?? null;
  if (speed === null || members.some(({ speedBps }) => speedBps !== speed)) return {};
  return { sums: { speeds: { count: members.length, each: speedText(speed) } } };
}

/** Wires between the same two plates as links: up to four beside each other, more of one medium as a bundle. */
export function bundle(
  wires: readonly Wire[],
  nodeOf: (end: WireEnd) => string | null,
  shadeOf: (wire: Wire) => Shade | null,
): ToldLink[] {
  const groups = new Map<string, Wire[]>();
  for (const wire of wires) {
    const [a, b] = [nodeOf(wire.a), nodeOf(wire.b)];
    if (a === null || b === null || a === b) continue;
    const key = `${a < b ? `${a}|${b}` : `${b}|${a}`}|${wire.medium}`;
    groups.set(key, [...(groups.get(key) ?? []), wire]);
  }
  // The legs of one breakout are links of their own.
  const legs = new Map<Wire, string>();
  const seen = new Map<string, number>();
  for (const wire of wires) {
    const before = seen.get(wire.line.id) ?? 0;
    if (before > 0) legs.set(wire, `/${before + 1}`);
    seen.set(wire.line.id, before + 1);
  }
  const linkOf = (members: readonly Wire[]): ToldLink | null => {
    const [first] = members;
    const a = first === undefined ? null : nodeOf(first.a);
    const b = first === undefined ? null : nodeOf(first.b);
    if (first === undefined || a === null || b === null) return null;
    const ends = members.map((wire) => (nodeOf(wire.a) === a ? [wire.a, wire.b] : [wire.b, wire.a]));
    const lines = new Map(members.flatMap((wire) => wire.lines).map((line) => [line.id, line]));
    const endOf = (side: 0 | 1): Told => endText(ends.flatMap((end) => end[side] ?? []));
    return {
      id: members.length === 1 ? `${first.line.id}${legs.get(first) ?? ''}` : `bundle:${first.line.id}`,
      of: first.line,
      cables: [...lines.values()],
      a,
      b,
      aPort: endOf(0),
      bPort: endOf(1),
      ties: [tieOf(ends.flatMap((end) => end[0] ?? [])), tieOf(ends.flatMap((end) => end[1] ?? []))],
      aOrdinal: first.a.ordinal,
      medium: first.medium,
      jacket: first.jacket,
      shade: shadeOf(first),
      text: middleText(members),
      management: members.every((wire) => wire.management),
      ...sumsOf(members),
    };
  };
  const links: (ToldLink | null)[] = [];
  const single = (end: WireEnd): boolean => {
    const id = nodeOf(end);
    return id === end.device?.id || id?.startsWith('pair:') === true || end.device === null;
  };
  for (const members of groups.values()) {
    const folded = members.some((wire) => !single(wire.a) || !single(wire.b));
    const circuits = members[0]?.line.kind === 'circuit';
    if ((members.length > mostParallel || folded) && !circuits) links.push(linkOf(members));
    else for (const wire of members) links.push(linkOf([wire]));
  }
  return links.filter((link) => link !== null);
}

/** Wires of which one end alone is on the sheet: stubs that name the far end. */
export function stubsOf(wires: readonly Wire[], nodeOf: (end: WireEnd) => string | null): ToldStub[] {
  return wires.flatMap((wire): ToldStub[] => {
    const [a, b] = [nodeOf(wire.a), nodeOf(wire.b)];
    if ((a === null) === (b === null)) return [];
    const [near, far] = a === null ? [wire.b, wire.a] : [wire.a, wire.b];
    return [
      {
        id: `stub:${wire.key}`,
        of: wire.line,
        cables: wire.lines,
        a: a ?? b ?? '',
        aPort: endText([near]),
        aOrdinal: near.ordinal,
        medium: wire.medium,
        jacket: wire.jacket,
        text: line(say(far.device?.name ?? far.provider ?? '', 'names'), say(far.port, 'portNames')),
      },
    ];
  });
}
