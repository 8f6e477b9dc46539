import type { GraphLink, GraphNode, SheetGraph } from '../../graph/sheetGraph.ts';
import { grid, padding, snap, titleHeight, up, type Measures } from '../lattice.ts';
import { loopRows, smallestRing, stringsOf } from '../strings.ts';
import type { Frame } from './frame.ts';
import type { Field } from './field.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { max, min, sqrt } = Math;

const columnGap = 40;
/** Between two rows, beside what their labels and the lines that turn there need. */
const rowGap = 16;
/** The room in steps of the lattice that each line asks for which turns between two rows, and the most of it. */
const laneSteps = 0.3;
const mostLanes = 14;

/** Plates of one band beside each other. */
export interface Row {
  band: number;
  /** Plates that stay beside each other in this order, or the opposite one: single ones, pairs, chains. */
  units: number[][];
  /** Half of a ring: it is not changed. */
  fixed: boolean;
  top: number;
  tall: number;
}

/** Plates in rows, or groups on shelves: a container, or what stands in none. Left and top are those on the sheet. */
export interface Group {
  id: string;
  /** It has an outline and a title. */
  outlined: boolean;
  titleWidth: number;
  /** All plates in it, also of the groups inside. */
  plates: number[];
  rows: Row[];
  inner: Group[];
  /** The inner groups: shelves of columns of groups. */
  shelves: Group[][][];
  /** The mean of its plates; parties beyond the scope stand further down. */
  band: number;
  left: number;
  top: number;
  width: number;
  height: number;
}

/** What is asked about plates side by side and about the links of a group. */
export interface Surroundings {
  field: Field;
  gap: (left: number, right: number) => number;
  /** Links that touch a plate of a group without groups inside. */
  linksOf: ReadonlyMap<Group, readonly GroupLink[]>;
  nodes: readonly GraphNode[];
}
interface GroupLink {
  a: number;
  b: number;
  /** The drawn line: that of its bundle, or its own. */
  line: string;
  medium: GraphLink['medium'];
  /** The text of a subnet stands along it. */
  told: boolean;
}

/** Moves a group with all that is in it. */
export function moveTo(field: Field, group: Group, left: number, top: number): void {
  const [dx, dy] = [left - group.left, top - group.top];
  if (dx === 0 && dy === 0) return;
  for (const plate of group.plates) {
    field.x[plate] = (field.x[plate] ?? 0) + dx;
    field.y[plate] = (field.y[plate] ?? 0) + dy;
  }
  const shift = (one: Group): void => {
    one.left += dx;
    one.top += dy;
    for (const row of one.rows) row.top += dy;
    one.inner.forEach(shift);
  };
  shift(group);
}

/** How wide a row is with the room between its plates. */
export function rowWidth({ field, gap }: Pick<Surroundings, 'field' | 'gap'>, row: Row): number {
  let width = 0;
  let before = -1;
  for (const unit of row.units)
    for (const plate of unit) {
      width += (field.sizes[plate]?.width ?? 0) + (before < 0 ? 0 : gap(before, plate));
      before = plate;
    }
  return width;
}

/** Puts the plates of a row beside each other, in the middle of its group. */
export function packRow(around: Pick<Surroundings, 'field' | 'gap'>, group: Group, row: Row): void {
  const { field, gap } = around;
  let x = group.left + snap((group.width - rowWidth(around, row)) / 2);
  let before = -1;
  for (const unit of row.units)
    for (const plate of unit) {
      if (before >= 0) x += gap(before, plate);
      field.x[plate] = x;
      field.y[plate] = row.top + snap((row.tall - (field.sizes[plate]?.height ?? 0)) / 2);
      x += field.sizes[plate]?.width ?? 0;
      before = plate;
    }
}

/** Works out how large a group in rows is, and where its rows stand: with room for the labels and lines between. */
export function measureRows(around: Surroundings, group: Group): void {
  const { field, linksOf } = around;
  const links = linksOf.get(group) ?? [];
  const rowOf = new Map(
    group.rows.flatMap((row, at) => row.units.flatMap((unit) => unit.map((plate) => [plate, at] as const))),
  );
  const count = group.rows.length;
  const spans = links.map((link) => {
    const [from, to] = [rowOf.get(link.a) ?? count, rowOf.get(link.b) ?? count];
    return { ...link, from: min(from, to), to: max(from, to) };
  });
  const sizesOf = (row: Row | undefined) =>
    (row?.units ?? []).flatMap((unit) => unit.flatMap((plate) => field.sizes[plate] ?? []));
  const beyond = (reach: number): number => (group.outlined ? up(max(0, reach - padding)) : 0);
  const places = group.plates.some((plate) => around.nodes[plate]?.form === 'place');
  let y = group.top + (group.outlined ? padding + titleHeight : 0);
  y += beyond(max(0, ...sizesOf(group.rows[0]).map(({ reachUp }) => reachUp)));
  group.rows.forEach((row, at) => {
    row.tall = max(...sizesOf(row).map(({ height }) => height));
    row.top = y;
    const turning = new Set(
      spans.flatMap(({ from, to, line }) =>
        (from === at && to > at) || (to === at + 1 && from <= at) ? [line] : [],
      ),
    ).size;
    const reachDown = max(0, ...sizesOf(row).map((size) => size.reachDown));
    const next = group.rows[at + 1];
    // Links between two rows of one band were taken for level: their labels need room too.
    const levelLabels = next?.band === row.band ? 3 * grid : 0;
    const reach = reachDown + max(levelLabels, ...sizesOf(next).map(({ reachUp }) => reachUp));
    const down = spans.filter(({ from, to }) => from === at && to > at && to < count);
    // The text of a subnet stands along its link; the name of a circuit lies across it, upright between sites.
    const named = down.some(({ medium }) => medium === 'circuit') ? (places ? 112 : 40) : 0;
    const forNames = down.some(({ told }) => told) ? 32 : named;
    y +=
      row.tall +
      (at === count - 1
        ? beyond(reachDown)
        : up(reach + rowGap + forNames + min(mostLanes, turning * laneSteps) * grid));
  });
  const sides = group.outlined ? 2 * padding : 0;
  group.height = up(y - group.top) + (group.outlined ? padding : 0);
  group.width = up(max(group.titleWidth, ...group.rows.map((row) => rowWidth(around, row) + sides)));
  for (const row of group.rows) packRow(around, group, row);
}

const stemOf = (name: string): string | null => /^(.*?)\d+$/.exec(name)?.[1] ?? null;

/** Chains, redundant pairs and single plates of a row; rings are taken out before. */
function unitsOf(
  row: readonly number[],
  field: Field,
  nodes: readonly GraphNode[],
  near: ReadonlyMap<string, readonly string[]>,
): number[][] {
  const at = (id: string): number => field.of.get(id) ?? 0;
  const strings = stringsOf(
    row.map((plate) => field.ids[plate] ?? ''),
    near,
  );
  const unitOf = new Map<number, number[]>();
  for (const { ids } of strings) {
    const unit = ids.map(at);
    for (const plate of unit) unitOf.set(plate, unit);
  }
  const single = row.filter((plate) => !unitOf.has(plate));
  single.forEach((plate, which) => {
    const [own, stem] = [nodes[plate], stemOf(nodes[plate]?.name ?? '')];
    if (own === undefined || stem === null || unitOf.has(plate)) return;
    const other = single
      .slice(which + 1)
      .find(
        (one) =>
          !unitOf.has(one) &&
          nodes[one]?.role === own.role &&
          stemOf(nodes[one].name) === stem &&
          near.get(own.id)?.includes(nodes[one].id) === true,
      );
    if (other !== undefined) for (const one of [plate, other]) unitOf.set(one, [plate, other]);
  });
  return [...new Set(row.map((plate) => unitOf.get(plate) ?? [plate]))];
}

/**
 * Plates in rows by band, no row wider than asked where that can be; rings as loops of two rows.
 *
 * @param longest how long a chain may be before it goes on in another row
 */
export function rowsOf(
  plates: readonly number[],
  around: Pick<Surroundings, 'field' | 'gap' | 'nodes'>,
  near: ReadonlyMap<string, readonly string[]>,
  { widest, longest }: { widest: number; longest: number },
): Row[] {
  const { field, nodes } = around;
  const byBand = new Map<number, number[]>();
  for (const plate of plates) {
    const band = field.bands[plate] ?? 0;
    byBand.set(band, [...(byBand.get(band) ?? []), plate]);
  }
  const rows: Row[] = [];
  const rowFrom = (band: number, units: number[][], fixed: boolean): Row => ({
    band,
    units,
    fixed,
    top: 0,
    tall: 0,
  });
  for (const [band, all] of [...byBand].sort((a, b) => a[0] - b[0])) {
    const ids = all.map((plate) => field.ids[plate] ?? '');
    const rings = stringsOf(ids, near).filter((one) => one.ring && one.ids.length >= smallestRing);
    const ringed = new Set(rings.flatMap((one) => one.ids.map((id) => field.of.get(id) ?? 0)));
    const others = all.filter((plate) => !ringed.has(plate));
    let row = rowFrom(band, [], false);
    const fits = (unit: number[]): boolean =>
      rowWidth(around, { ...row, units: [...row.units, unit] }) <= widest;
    let turned = false;
    for (const unit of unitsOf(others, field, nodes, near)) {
      let rest = unit;
      // A chain too long for a row goes on below, back the other way.
      while (rest.length > 1 && rowWidth(around, rowFrom(band, [rest], false)) > longest) {
        let many = 1;
        while (
          many < rest.length &&
          rowWidth(around, rowFrom(band, [rest.slice(0, many + 1)], false)) <= longest
        )
          many++;
        if (row.units.length > 0) rows.push(row);
        const piece = rest.slice(0, many);
        rows.push(rowFrom(band, [turned ? piece.reverse() : piece], true));
        turned = !turned;
        row = rowFrom(band, [], false);
        rest = rest.slice(many);
      }
      if (rest !== unit) {
        rows.push(rowFrom(band, [turned ? [...rest].reverse() : rest], true));
        continue;
      }
      if (row.units.length > 0 && !fits(rest)) {
        rows.push(row);
        row = rowFrom(band, [], false);
      }
      row.units.push(rest);
    }
    if (row.units.length > 0) rows.push(row);
    for (const ring of rings)
      for (const half of loopRows(ring.ids))
        rows.push(rowFrom(band, [half.map((id) => field.of.get(id) ?? 0)], true));
  }
  return rows;
}

/** Rows are never wrapped to less. */
const narrowest = 480;
/** More plates in no container than this stand in rows of their own instead of one by one where they fit best. */
const mostFree = 40;
/** Below what has a container, where nothing says otherwise. */
const outsideBand = 3;

/** The groups of a sheet: its containers with what is in them, and what stands in none. */
export function groupsOf(
  graph: SheetGraph,
  field: Field,
  { titleWidth, pairGap }: Measures,
  near: ReadonlyMap<string, readonly string[]>,
  lineOf: (link: GraphLink) => string,
  { aspect, folding }: Pick<Frame, 'aspect' | 'folding'>,
): { root: Group; around: Surroundings } {
  const gaps = new Map<number, number>();
  const many = field.ids.length;
  for (const { a, b } of field.pulls) {
    const [left, right] = [field.ids[a] ?? '', field.ids[b] ?? ''];
    if (near.get(left)?.includes(right) !== true) continue;
    gaps.set(a * many + b, pairGap(left, right));
    gaps.set(b * many + a, pairGap(right, left));
  }
  const linksOf = new Map<Group, GroupLink[]>();
  const around: Surroundings = {
    field,
    nodes: graph.nodes,
    linksOf,
    gap: (left, right) => gaps.get(left * many + right) ?? columnGap,
  };
  const members = new Map<string, number[]>();
  graph.nodes.forEach(({ containerId }, plate) => {
    const key = containerId ?? '';
    const there = members.get(key);
    if (there === undefined) members.set(key, [plate]);
    else there.push(plate);
  });
  const known = new Set(graph.containers.map(({ id }) => id));
  const inside = new Map<string, string[]>();
  for (const { id, parentId } of graph.containers) {
    const key = parentId !== null && known.has(parentId) ? parentId : '';
    inside.set(key, [...(inside.get(key) ?? []), id]);
  }
  /** How wide the rows of some plates may be, for all of them to have the shape of the frame. */
  const widestOf = (plates: readonly number[], share: number): number => {
    const area = plates.reduce((sum, plate) => {
      const { width, height, reachUp, reachDown } = field.sizes[plate] ?? {
        width: 0,
        height: 0,
        reachUp: 0,
        reachDown: 0,
      };
      const linked = (field.pullsOf[plate]?.length ?? 0) > 0;
      return sum + (width + 48) * (height + reachUp + reachDown + (linked ? 64 : rowGap));
    }, 0);
    return max(narrowest, sqrt(area * aspect * share));
  };
  const widest = widestOf(
    graph.nodes.map((_, plate) => plate),
    1.6,
  );
  const groupOf = (id: string, outlined: boolean, plates: number[], inner: Group[]): Group => {
    const all = [...plates, ...inner.flatMap((one) => one.plates)];
    const sum = all.reduce((total, plate) => total + (field.bands[plate] ?? 0), 0);
    const outside = all.every((plate) => {
      const node = graph.nodes[plate];
      return node?.outside === true && node.form !== 'provider';
    });
    return {
      ...{ id, outlined, plates: all, inner, left: 0, top: 0, width: 0, height: 0 },
      titleWidth: outlined ? titleWidth(id) : 0,
      rows:
        inner.length === 0
          ? rowsOf(plates, around, near, {
              widest: min(widest, widestOf(plates, folding)),
              longest: widest,
            })
          : [],
      shelves: [],
      band: sum / max(1, all.length) + (outside && outlined ? outsideBand : 0),
    };
  };
  const seen = new Set<string>();
  const containerOf = (id: string): Group[] => {
    if (seen.has(id)) return [];
    seen.add(id);
    const inner = (inside.get(id) ?? []).flatMap(containerOf);
    const own = members.get(id) ?? [];
    if (inner.length === 0 && own.length === 0) return [];
    return [
      inner.length === 0
        ? groupOf(id, true, own, [])
        : groupOf(id, true, [], [...(own.length === 0 ? [] : [groupOf('', false, own, [])]), ...inner]),
    ];
  };
  const outer = (inside.get('') ?? []).flatMap(containerOf);
  // What a loop of places leaves out stands at the top like what has no place.
  const placed = new Set(outer.flatMap((group) => group.plates));
  const free = graph.nodes.flatMap((_, plate) => (placed.has(plate) ? [] : [plate]));
  const alone = outer.length > 0 && free.length <= mostFree;
  const root =
    outer.length === 0
      ? groupOf('', false, free, [])
      : groupOf(
          '',
          false,
          [],
          [
            ...(alone
              ? free.map((plate) => groupOf('', false, [plate], []))
              : free.length > 0
                ? [groupOf('', false, free, [])]
                : []),
            ...outer,
          ],
        );
  const leafOf = new Map<number, Group>();
  const note = (group: Group): void => {
    if (group.inner.length === 0) {
      linksOf.set(group, []);
      for (const plate of group.plates) leafOf.set(plate, group);
    } else group.inner.forEach(note);
  };
  note(root);
  for (const link of graph.links) {
    const [a, b] = [field.of.get(link.a) ?? 0, field.of.get(link.b) ?? 0];
    const told = link.cables[0]?.kind === 'prefix' && link.text !== '';
    const one: GroupLink = { a, b, line: lineOf(link), medium: link.medium, told };
    for (const group of new Set([leafOf.get(a), leafOf.get(b)]))
      if (group !== undefined) linksOf.get(group)?.push(one);
  }
  return { root, around };
}

/** How wide groups above each other are together. */
export const columnWidth = (column: readonly Group[]): number => max(...column.map(({ width }) => width));

/** The groups of plates in rows, inside a group or the group itself. */
export const leavesOf = (group: Group): Group[] =>
  group.inner.length === 0 ? [group] : group.inner.flatMap(leavesOf);
/** The groups with groups on shelves, those inside others first. */
export const shelvedIn = (group: Group): Group[] =>
  group.inner.length === 0 ? [] : [...group.inner.flatMap(shelvedIn), group];
