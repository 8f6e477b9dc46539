import type { BundleManner } from '../../model/kinds/drawings/sheet.ts';
import type { Role } from '../../model/values/roles.ts';
import type { GraphLink, GraphNode, SheetGraph } from '../graph/sheetGraph.ts';

/** From so many far plates on, links of one purpose are one drawn line: at two it would hide that there are two ways. */
export const leastFar = 3;

/** Links of one purpose that leave one side of a plate together; the hub is that plate. */
export interface Bundle {
  id: string;
  hub: string;
  purpose: string;
  /** It is always drawn in lanes. */
  open: boolean;
  links: GraphLink[];
  /** At which end of each of its links the hub is. */
  ends: Map<string, 'a' | 'b'>;
}

const served: ReadonlySet<Role> = new Set(['SV', 'ST']);

/** What a link is for, as seen from one of its plates: management, or what stands at its other end. */
function purposeOf(link: GraphLink, far: GraphNode): string {
  if (link.management) return 'management';
  return served.has(far.role) ? 'servers' : far.role;
}

/** Whether a link may be drawn as one with others. Circuits, subnets and what is blocked are told one by one. */
const mayJoin = (link: GraphLink): boolean => {
  const kind = link.cables[0]?.kind;
  return (
    link.medium !== 'circuit' &&
    kind !== 'circuit' &&
    kind !== 'prefix' &&
    kind !== 'port' &&
    (link.blocked ?? null) === null
  );
};

export interface BundleWishes {
  /** How the bundle of a hub and purpose is to be drawn. */
  drawn: (hub: GraphNode, purpose: string) => BundleManner;
  /** Links that go their own way: bent or straightened by hand. */
  alone: ReadonlySet<string>;
}

/**
 * The bundles of a sheet: links of one plate, side and purpose that lead to three other plates or more. A link
 * is in one at most, in that with the most far plates.
 *
 * @param sideOf on which side of a plate a link leaves it
 */
export function bundlesOf(
  graph: SheetGraph,
  sideOf: (link: GraphLink, end: 'a' | 'b') => string,
  { drawn, alone }: BundleWishes,
): Bundle[] {
  const nodes = new Map(graph.nodes.map((node) => [node.id, node]));
  const groups = new Map<string, Bundle>();
  for (const link of graph.links) {
    if (!mayJoin(link) || alone.has(link.id)) continue;
    for (const end of ['a', 'b'] as const) {
      const hub = nodes.get(link[end]);
      const far = nodes.get(link[end === 'a' ? 'b' : 'a']);
      if (hub === undefined || far === undefined || hub === far) continue;
      if (hub.form === 'place' || hub.form === 'subnet' || far.form === 'place' || far.form === 'subnet')
        continue;
      const purpose = purposeOf(link, far);
      const manner = drawn(hub, purpose);
      if (manner === 'never') continue;
      const id = `${hub.id}|${purpose}|${JSON.stringify(link.shade)}|${sideOf(link, end)}`;
      const group: Bundle = groups.get(id) ?? {
        ...{ id, hub: hub.id, purpose, open: manner === 'open' },
        links: [],
        ends: new Map(),
      };
      group.links.push(link);
      group.ends.set(link.id, end);
      groups.set(id, group);
    }
  }
  const farOf = ({ hub, links }: Bundle): number =>
    new Set(links.map((link) => (link.a === hub ? link.b : link.a))).size;
  const taken = new Set<string>();
  const found: Bundle[] = [];
  const largest = [...groups.values()]
    .map((group) => ({ group, far: farOf(group) }))
    .sort((x, y) => y.far - x.far);
  for (const { group } of largest) {
    const links = group.links.filter((link) => !taken.has(link.id));
    const bundle = { ...group, links };
    if (farOf(bundle) < leastFar) continue;
    for (const link of links) taken.add(link.id);
    found.push(bundle);
  }
  return found;
}

/** The bundle of each link that is in one. */
export const bundleOfLink = (bundles: readonly Bundle[]): Map<string, Bundle> =>
  new Map(bundles.flatMap((bundle) => bundle.links.map((link) => [link.id, bundle] as const)));
