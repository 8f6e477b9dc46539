import { compareNames } from '../../model/values/order.ts';
import { inDrawnOrder } from './drawnOrder.ts';
import type { GraphNode, SheetGraph } from './sheetGraph.ts';

/** A name is begun by the site where at least this share of a sheet's names begins so. */
const leastShared = 0.4;
const marks = /[-_./ ]/;

/** What names of a sheet begin with, up to their first mark, where it only says which site they are of. */
function siteMarks(nodes: readonly GraphNode[]): Set<string> {
  const count = new Map<string, number>();
  for (const { name } of nodes) {
    const begin = marks.test(name) ? (name.split(marks)[0] ?? '') : '';
    if (begin !== '') count.set(begin, (count.get(begin) ?? 0) + 1);
  }
  return new Set(
    [...count].filter(([, often]) => often >= leastShared * nodes.length).map(([begin]) => begin),
  );
}

/** A sheet with what is asked of it again and again. */
class Side {
  readonly nodes: readonly GraphNode[];
  readonly near = new Map<string, Set<string>>();
  private readonly sites: ReadonlySet<string>;

  constructor(graph: SheetGraph) {
    const { nodes, links } = inDrawnOrder(graph);
    this.nodes = nodes;
    this.sites = siteMarks(nodes);
    for (const { id } of nodes) this.near.set(id, new Set());
    for (const { a, b } of links) {
      this.near.get(a)?.add(b);
      this.near.get(b)?.add(a);
    }
  }

  /** A name without the site that it begins with. */
  tail({ name }: GraphNode): string {
    const begin = name.split(marks)[0] ?? '';
    return this.sites.has(begin) ? name.slice(begin.length + 1) : name;
  }
}

const sort = ({ form, role }: GraphNode): string => `${form} ${role}`;

/**
 * Which plate of one sheet stands for which of another: those of a role that are called alike but for their site;
 * then those of a role that have most counterparts as neighbours; then those left of a role, in the order of their
 * names. A place has one counterpart: plates of one place are not spread over two.
 *
 * @returns by the id of a plate of `to` the id of its counterpart in `from`
 */
export function counterparts(from: SheetGraph, to: SheetGraph): Map<string, string> {
  const [there, here] = [new Side(from), new Side(to)];
  const found = new Map<string, string>();
  const taken = new Set<string>();
  const places = new Map<string, string>();
  const placesTaken = new Map<string, string>();
  const agree = (one: GraphNode, other: GraphNode): boolean => {
    const [own, its] = [one.containerId ?? '', other.containerId ?? ''];
    return (
      (places.get(own) ?? its) === its &&
      (placesTaken.get(its) ?? own) === own &&
      (own === '') === (its === '')
    );
  };
  const pair = (one: GraphNode, other: GraphNode): void => {
    found.set(one.id, other.id);
    taken.add(other.id);
    places.set(one.containerId ?? '', other.containerId ?? '');
    placesTaken.set(other.containerId ?? '', one.containerId ?? '');
  };
  const left = (): GraphNode[] => here.nodes.filter(({ id }) => !found.has(id));
  const free = (one: GraphNode): GraphNode[] =>
    there.nodes.filter((other) => !taken.has(other.id) && sort(other) === sort(one) && agree(one, other));

  for (const one of left()) {
    const other = free(one).find((node) => there.tail(node) === here.tail(one));
    if (other !== undefined) pair(one, other);
  }
  /** How many neighbours of a plate have a counterpart beside another. */
  const shared = (one: GraphNode, other: GraphNode): number => {
    let count = 0;
    for (const id of here.near.get(one.id) ?? [])
      if (there.near.get(other.id)?.has(found.get(id) ?? '') === true) count++;
    return count;
  };
  for (let again = true; again;) {
    again = false;
    for (const one of left()) {
      const best = free(one)
        .map((other) => ({ other, count: shared(one, other) }))
        .sort((a, b) => b.count - a.count)[0];
      if (best === undefined || best.count === 0) continue;
      pair(one, best.other);
      again = true;
    }
  }
  for (const one of left().sort((a, b) => compareNames(here.tail(a), here.tail(b)))) {
    const [other] = free(one);
    if (other !== undefined) pair(one, other);
  }
  return found;
}
