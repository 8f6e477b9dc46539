import { compareNames } from '../../model/values/order.ts';
import { pluralOf, roleCodes, roles } from '../../model/values/roles.ts';
import { formatVids } from '../../model/values/vids.ts';
import type { GraphLink } from '../graph/sheetGraph.ts';
import type { Bundle } from '../layout/bundles.ts';
import { grid } from '../layout/lattice.ts';
import { corners } from '../route/router.ts';
import type { Point, SceneBundle, SceneLabel, SceneLink } from './scene.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { abs, max, round } = Math;

/** Every point of the lattice along a way of level and upright pieces. */
export function stepsAlong(points: readonly Point[]): Point[] {
  const [first] = points;
  if (first === undefined) return [];
  const found: Point[] = [first];
  points.slice(1).forEach((to, at) => {
    const from = points[at] ?? to;
    const many = max(1, round((abs(to.x - from.x) + abs(to.y - from.y)) / grid));
    for (let step = 1; step <= many; step++)
      found.push({
        x: from.x + ((to.x - from.x) * step) / many,
        y: from.y + ((to.y - from.y) * step) / many,
      });
  });
  return found;
}

const keyOf = ({ x, y }: Point): string => `${x} ${y}`;

/** What the links of a bundle are for, as one says it. */
export function purposeText(purpose: string): string {
  const role = roleCodes.find((code) => code === purpose);
  return role === undefined ? purpose : pluralOf(role, roles[role].label);
}

/** `5 × 10G`, or each speed with its number, the most first; nothing where one is not told. */
function speedsText(links: readonly GraphLink[]): string {
  const counts = new Map<string, number>();
  for (const { sums } of links) {
    if (sums?.speeds === undefined) return '';
    const { count, each } = sums.speeds;
    counts.set(each, (counts.get(each) ?? 0) + count);
  }
  return [...counts]
    .sort((x, y) => y[1] - x[1] || compareNames(x[0], y[0]))
    .map(([each, count]) => `${count} × ${each}`)
    .join(', ');
}

/** The VLANs that all have in common, and how many more go over some; nothing where they are not told. */
function vlansText(links: readonly GraphLink[]): string {
  const sets = links.map(({ sums }) => sums?.vids);
  if (sets.every((vids) => vids === 'all')) return 'all VLANs';
  const listed = sets.flatMap((vids) => (vids === undefined ? [] : [vids === 'all' ? null : new Set(vids)]));
  if (listed.length < sets.length) return '';
  const every = new Set(listed.flatMap((vids) => (vids === null ? [] : [...vids])));
  const common = [...every].filter((vid) => listed.every((vids) => vids === null || vids.has(vid)));
  const more = every.size - common.length;
  const some = more === 0 ? '' : `${more} more on some`;
  if (common.length === 0) return more === 0 ? '' : `no VLAN in common, ${more} on some`;
  const inCommon = `VLAN ${formatVids(common.sort((x, y) => x - y))}`;
  return some === '' ? inCommon : `${inCommon} and ${some}`;
}

const sumsText = (links: readonly GraphLink[]): string =>
  [speedsText(links), vlansText(links)].filter((part) => part !== '').join(' · ');

/** A way, as far as it is shared: in steps from the hub. */
interface Member {
  link: SceneLink;
  steps: Point[];
  /** The last step that another link passes too. */
  shared: number;
  fromB: boolean;
}

function membersOf(links: readonly SceneLink[], { ends }: Bundle): Member[] {
  const passing = new Map<string, number>();
  const members = links.map((link): Member => {
    const fromB = ends.get(link.id) === 'b';
    const steps = stepsAlong(fromB ? link.points.slice().reverse() : link.points);
    for (const step of steps) passing.set(keyOf(step), (passing.get(keyOf(step)) ?? 0) + 1);
    return { link, steps, shared: 0, fromB };
  });
  for (const member of members) {
    let at = 0;
    while (
      at + 1 < member.steps.length &&
      (passing.get(keyOf(member.steps[at + 1] ?? { x: 0, y: 0 })) ?? 0) > 1
    )
      at++;
    member.shared = at;
  }
  return members;
}

/** The shared ways of all, each piece once. */
function trunkOf(members: readonly Member[]): Point[][] {
  const laid = new Set<string>();
  const pieces: Point[][] = [];
  for (const { steps, shared } of members) {
    let from = 0;
    while (from + 1 <= shared && laid.has(keyOf(steps[from + 1] ?? { x: 0, y: 0 }))) from++;
    if (from >= shared) continue;
    for (const step of steps.slice(0, shared + 1)) laid.add(keyOf(step));
    pieces.push(corners(steps.slice(from, shared + 1)));
  }
  return pieces;
}

/**
 * The bundles of a scene, and its links with what is drawn of each alone: from just before it leaves the others, so
 * that it turns off in a bow.
 *
 * @param nameOf what a plate is called; empty where names are hidden
 */
export function sceneBundles(
  links: readonly SceneLink[],
  bundles: readonly Bundle[],
  nameOf: (plateId: string) => string,
): { links: SceneLink[]; bundles: SceneBundle[] } {
  const byId = new Map(links.map((link) => [link.id, link]));
  const made: SceneBundle[] = [];
  for (const bundle of bundles) {
    const own = bundle.links.flatMap(({ id }) => byId.get(id) ?? []);
    const [first] = own;
    if (first === undefined) continue;
    const members = membersOf(own, bundle);
    let label: SceneLabel | null = null;
    for (const { link, steps, shared, fromB } of members) {
      const end = fromB ? link.b : link.a;
      label ??= end.label;
      const away = corners(steps.slice(max(0, shared - 1)));
      const hidden = { ...end, label: null };
      byId.set(link.id, {
        ...link,
        ...(fromB ? { b: hidden } : { a: hidden }),
        bundleId: bundle.id,
        drawn: fromB ? away.reverse() : away,
      });
    }
    const hub = bundle.ends.get(first.id) === 'b' ? first.b : first.a;
    const title = purposeText(bundle.purpose);
    const told = sumsText(bundle.links);
    const count = own.reduce((sum, { cableIds }) => sum + cableIds.length, 0);
    made.push({
      ...{ id: bundle.id, hubId: bundle.hub, side: hub.side, at: hub.at, label, title, told },
      purpose: bundle.purpose,
      open: bundle.open,
      toldLabel: null,
      linkIds: own.map(({ id }) => id),
      trunk: trunkOf(members),
      medium: own.every(({ medium }) => medium === first.medium) ? first.medium : null,
      shade: own.every(({ shade }) => JSON.stringify(shade) === JSON.stringify(first.shade))
        ? first.shade
        : null,
      spoken: [`${count} links${nameOf(bundle.hub) === '' ? '' : ` of ${nameOf(bundle.hub)}`}`, title, told]
        .filter((part) => part !== '')
        .join(', '),
      faded: own.every(({ faded }) => faded),
    });
  }
  return { links: links.map((link) => byId.get(link.id) ?? link), bundles: made };
}
