import type { TitleBlock } from '../scene/scene.ts';
import { compareNames } from '../../model/values/order.ts';
import type { Manners } from './manners.ts';
import { seenAs } from './drawnOrder.ts';
import type { GraphContainer, GraphLink, SheetGraph } from './sheetGraph.ts';

/**
 * What a sheet shows as a graph to be given away: what is hidden is left out, names of nodes and links in the file are
 * numbers in an order that follows from what is seen, so that they tell nothing and are always the same.
 */
export function shownGraph({ graph, manners }: { graph: SheetGraph; manners: Manners }): SheetGraph {
  const containers = manners.containers === 'hidden' ? [] : graph.containers;
  const nodes = manners.devices === 'hidden' ? [] : graph.nodes;
  const links = manners.devices === 'hidden' || manners.links === 'hidden' ? [] : graph.links;
  const labels = seenAs(nodes, links);
  const titles = new Map(containers.map(({ id, title }) => [id, title]));
  const byTitle = (a: string | null, b: string | null): number =>
    compareNames(titles.get(a ?? '') ?? '', titles.get(b ?? '') ?? '');
  const ordered = nodes
    .slice()
    .sort(
      (a, b) =>
        compareNames(a.name, b.name) ||
        byTitle(a.containerId, b.containerId) ||
        (labels.get(a.id) ?? 0) - (labels.get(b.id) ?? 0),
    );
  const nodeIds = new Map(ordered.map(({ id }, at) => [id, `n${at + 1}`]));
  const place = (id: string): number => Number((nodeIds.get(id) ?? 'n0').slice(1));
  const least = (container: GraphContainer): number =>
    Math.min(...ordered.flatMap((node, at) => (node.containerId === container.id ? [at] : [])), Infinity);
  const boxes = containers.slice().sort((a, b) => compareNames(a.title, b.title) || least(a) - least(b) || 0);
  const boxIds = new Map(boxes.map(({ id }, at) => [id, `c${at + 1}`]));
  const text = ({ aPort, bPort, text: middle, medium }: GraphLink): string =>
    JSON.stringify([aPort, bPort, middle, medium]);
  const turned = (link: GraphLink): GraphLink =>
    place(link.a) <= place(link.b)
      ? link
      : { ...link, a: link.b, b: link.a, aPort: link.bPort, bPort: link.aPort };
  return {
    nodes: ordered.map((node) => ({
      ...node,
      id: nodeIds.get(node.id) ?? '',
      containerId: boxIds.get(node.containerId ?? '') ?? null,
    })),
    links: links
      .map(turned)
      .sort(
        (x, y) =>
          place(x.a) - place(y.a) ||
          place(x.b) - place(y.b) ||
          compareNames(x.aPort, y.aPort) ||
          (text(x) < text(y) ? -1 : text(x) > text(y) ? 1 : 0),
      )
      .map((link, at) => ({
        ...link,
        id: `e${at + 1}`,
        a: nodeIds.get(link.a) ?? '',
        b: nodeIds.get(link.b) ?? '',
      })),
    stubs: [],
    containers: boxes.map((box) => ({
      ...box,
      id: boxIds.get(box.id) ?? '',
      parentId: boxIds.get(box.parentId ?? '') ?? null,
    })),
  };
}

/** What a file of a sheet is called inside: nothing of its own where the title block is hidden. */
export const documentTitle = (plan: { titleBlock: TitleBlock | null }): string =>
  plan.titleBlock?.title ?? 'Drawing';
