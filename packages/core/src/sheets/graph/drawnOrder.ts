import { compareNames } from '../../model/values/order.ts';
import type { GraphContainer, GraphLink, GraphNode, SheetGraph } from './sheetGraph.ts';

/** Two texts become one number that is the same wherever it is worked out (FNV-1a, 32 bit). */
function hash(text: string): number {
  let value = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) value = Math.imul(value ^ text.charCodeAt(at), 0x01000193);
  return value >>> 0;
}

const rounds = 4;

/**
 * A number for each node that follows from what is seen of it and of what it is joined to (colour refinement). Nodes
 * of one number can change places without a difference.
 */
export function seenAs(nodes: readonly GraphNode[], links: readonly GraphLink[]): Map<string, number> {
  let labels = new Map(
    nodes.map(({ id, form, role, name, lines, containerId }) => [
      id,
      hash(JSON.stringify([form, role, name, lines, containerId === null])),
    ]),
  );
  for (let round = 0; round < rounds; round++) {
    const around = new Map<string, string[]>();
    const tell = (id: string, text: string): void => {
      const there = around.get(id);
      if (there === undefined) around.set(id, [text]);
      else there.push(text);
    };
    for (const { a, b, aPort, bPort, text, medium } of links) {
      tell(a, JSON.stringify([aPort, bPort, text, medium, labels.get(b)]));
      tell(b, JSON.stringify([bPort, aPort, text, medium, labels.get(a)]));
    }
    labels = new Map(
      nodes.map(({ id }) => [id, hash(JSON.stringify([labels.get(id), (around.get(id) ?? []).sort()]))]),
    );
  }
  return labels;
}

const compareTexts = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** Containers by their titles from the outermost in. */
function titlesOf(containers: readonly GraphContainer[]): Map<string, string> {
  const byId = new Map(containers.map((container) => [container.id, container]));
  return new Map(
    containers.map((container) => {
      const titles: string[] = [];
      const seen = new Set<string>();
      for (
        let at: GraphContainer | undefined = container;
        at !== undefined && !seen.has(at.id);
        at = byId.get(at.parentId ?? '')
      ) {
        titles.unshift(at.title);
        seen.add(at.id);
      }
      return [container.id, titles.join('\n')];
    }),
  );
}

/**
 * The same graph with its nodes, links and containers in an order that follows from what is seen of them alone: by
 * name, then by where they stand, then by what they are joined to. Whatever is worked out from it is the same however
 * the rows were ordered and whatever their ids are. Nodes that nothing seen tells apart can change places without a
 * difference.
 */
export function inDrawnOrder(graph: SheetGraph): SheetGraph {
  const titles = titlesOf(graph.containers);
  const whereOf = ({ containerId }: GraphNode): string => titles.get(containerId ?? '') ?? '';
  const told = new Map(graph.nodes.map((node) => [node, JSON.stringify([node.form, node.role, node.lines])]));
  const byText = (a: GraphNode, b: GraphNode): number =>
    compareNames(a.name, b.name) ||
    compareNames(whereOf(a), whereOf(b)) ||
    compareTexts(told.get(a) ?? '', told.get(b) ?? '');
  const nodes = graph.nodes.slice().sort(byText);
  const alike = nodes.some((node, at) => {
    const before = nodes[at - 1];
    return before !== undefined && byText(before, node) === 0;
  });
  if (alike) {
    const labels = seenAs(graph.nodes, graph.links);
    nodes.sort((a, b) => byText(a, b) || (labels.get(a.id) ?? 0) - (labels.get(b.id) ?? 0));
  }
  const rank = new Map(nodes.map(({ id }, at) => [id, at]));
  const endsOf = ({ a, b }: GraphLink): [number, number] => {
    const [p, q] = [rank.get(a) ?? 0, rank.get(b) ?? 0];
    return p <= q ? [p, q] : [q, p];
  };
  const textOf = (link: GraphLink): string =>
    (rank.get(link.a) ?? 0) <= (rank.get(link.b) ?? 0)
      ? JSON.stringify([link.aPort, link.bPort, link.text, link.medium, link.jacket])
      : JSON.stringify([link.bPort, link.aPort, link.text, link.medium, link.jacket]);
  const links = graph.links
    .map((link) => ({ link, ends: endsOf(link), text: textOf(link) }))
    .sort((x, y) => x.ends[0] - y.ends[0] || x.ends[1] - y.ends[1] || compareNames(x.text, y.text))
    .map(({ link }) => link);
  const stubs = graph.stubs
    .slice()
    .sort(
      (x, y) =>
        (rank.get(x.a) ?? 0) - (rank.get(y.a) ?? 0) ||
        compareNames(x.aPort, y.aPort) ||
        compareNames(x.text, y.text),
    );
  const containers = graph.containers
    .slice()
    .sort((x, y) => compareNames(titles.get(x.id) ?? '', titles.get(y.id) ?? ''));
  return { nodes, links, stubs, containers };
}
