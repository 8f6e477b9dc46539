import type { GraphContainer, GraphNode } from '../graph/sheetGraph.ts';
import { borderRoom } from '../layout/cells.ts';
import { padding, titleHeight, up } from '../layout/lattice.ts';
import type { TextMeasure } from '../layout/textMeasure.ts';
import type { DrawingPlan } from './drawingPlan.ts';
import { boxAround, type Box, type Container } from './scene.ts';

/** The room that the title of a container takes along its upper edge. */
export const titleWidth = (title: string, measure: TextMeasure): number =>
  up(measure(title, 'textStrong', 12) + 32);

/** Outlines around the plates of each container, those around others first: that is how they are drawn. */
export function containersOf(
  plan: DrawingPlan,
  boxes: ReadonlyMap<string, Box>,
  measure: TextMeasure,
): Container[] {
  const { containers, nodes } = plan.graph;
  const members = new Map<string, GraphNode[]>();
  for (const node of nodes)
    if (node.containerId !== null)
      members.set(node.containerId, [...(members.get(node.containerId) ?? []), node]);
  const made = new Map<string, Container>();
  /** Those in whose outline the one that is being made lies: places that stand in each other are told once. */
  const around = new Set<string>();
  const make = (container: GraphContainer): Container => {
    const found = made.get(container.id);
    if (found !== undefined) return found;
    const own = members.get(container.id) ?? [];
    around.add(container.id);
    const inner = containers.filter((one) => one.parentId === container.id && !around.has(one.id)).map(make);
    around.delete(container.id);
    const outline = boxAround(
      [
        ...own.map((node) => boxes.get(node.id)).filter((box) => box !== undefined),
        ...inner.map((one) => one.box),
      ],
      padding,
    );
    const room = borderRoom(
      nodes.flatMap(({ id, border }) => {
        const size = border?.of === container.id ? boxes.get(id) : undefined;
        return border === undefined || size === undefined ? [] : [{ side: border.side, size }];
      }),
    );
    const result: Container = {
      id: container.id,
      form: container.form,
      title: container.title,
      box: {
        x: outline.x - room.left,
        y: outline.y - titleHeight - room.top,
        width: Math.max(outline.width + room.left + room.right, titleWidth(container.title, measure)),
        height: outline.height + titleHeight + room.top + room.bottom,
      },
      plateIds: [...own.map((node) => node.id), ...inner.flatMap((one) => one.plateIds)],
      parentId: container.parentId,
      sheetId: container.sheetId,
      ...(container.nature === undefined ? {} : { nature: container.nature }),
      faded: plan.manners.containers === 'faded',
      locked: plan.manners.containers === 'locked',
    };
    made.set(container.id, result);
    return result;
  };
  const all = containers.map(make);
  const depth = ({ parentId }: Container): number => {
    const seen = new Set<string>();
    for (let id = parentId; id !== null && !seen.has(id); id = made.get(id)?.parentId ?? null) seen.add(id);
    return seen.size;
  };
  return all.sort((a, b) => depth(a) - depth(b));
}

/** How large titles are in a drawing looked at from afar, in sheet units; where there is no room they are cut. */
const titleFromAfar = 18;
const titleInset = 12;

/** What the titles of containers cover, also from afar, for links to keep off. */
export const titleBoxes = (containers: readonly Container[], measure: TextMeasure): Box[] =>
  containers.map(({ box, title }) => {
    const last = title.split(' › ').at(-1) ?? title;
    const afar = titleInset + measure(last, 'textStrong', titleFromAfar);
    return {
      x: box.x,
      y: box.y,
      width: Math.max(titleWidth(title, measure) - 8, Math.min(box.width, afar)),
      height: 28,
    };
  });
