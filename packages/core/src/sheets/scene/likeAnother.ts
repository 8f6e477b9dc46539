import { counterparts } from '../graph/likeness.ts';
import type { SheetGraph } from '../graph/sheetGraph.ts';
import { snap } from '../layout/lattice.ts';
import type { TextMeasure } from '../layout/textMeasure.ts';
import type { DrawingPlan } from './drawingPlan.ts';
import { positionsAround } from './positions.ts';
import { boxAround, overlap, type Box, type Plate, type Point } from './scene.ts';
import { settingOf } from './setting.ts';

/** Less than this share of a sheet has counterparts: then it is not like the other. */
export const leastAlike = 0.5;
/** An arrangement is spread by steps of this much, up to so much, where plates are larger than those it was made with. */
const spreadStep = 0.05;
const mostSpread = 4;

/** How much of a sheet has a counterpart on another, from 0 to 1. */
export const alike = (from: SheetGraph, to: SheetGraph): number =>
  to.nodes.length === 0 ? 0 : counterparts(from, to).size / to.nodes.length;

/** An arrangement that is carried over. */
export interface CarriedOver {
  /** By plate id, for all plates that are not locked, in sheet units. */
  at: Map<string, Point>;
  /** How many of them stand as their counterparts do. */
  matched: number;
}

const anyOverlap = (boxes: readonly Box[]): boolean =>
  boxes.some((box, at) => boxes.slice(at + 1).some((other) => overlap(box, other, 8)));

/**
 * Arranges a sheet like another: each plate stands where its counterpart stands there, spread as far as larger plates
 * need it; what has none stands near what it belongs to. Locked plates stay.
 *
 * @param standing the plates of the other sheet as they are drawn
 */
export function likeAnother(
  from: SheetGraph,
  standing: readonly Pick<Plate, 'id' | 'box'>[],
  plan: DrawingPlan,
  measure: TextMeasure,
): CarriedOver {
  const setting = settingOf(plan, measure);
  const { graph } = setting.plan;
  const boxes = new Map(standing.map(({ id, box }) => [id, box]));
  const locked = new Map<string, Point>();
  for (const { id } of graph.nodes) {
    const wish = plan.plates.get(id);
    if (wish?.locked === true && wish.at !== null) locked.set(id, wish.at);
  }
  const wanted = new Map<string, Box>();
  for (const [id, other] of counterparts(from, graph)) {
    const box = boxes.get(other);
    const { width = 0, height = 0 } = setting.sizes.get(id) ?? {};
    if (box === undefined || locked.has(id)) continue;
    wanted.set(id, {
      x: box.x + (box.width - width) / 2,
      y: box.y + (box.height - height) / 2,
      width,
      height,
    });
  }
  const { x: left, y: top } = boxAround([...wanted.values()]);
  const spread = (across: number, down: number): Map<string, Box> =>
    new Map(
      [...wanted].map(([id, box]) => {
        const [x, y] = [left + (box.x - left) * across, top + (box.y - top) * down];
        return [id, { ...box, x: snap(x), y: snap(y) }];
      }),
    );
  let placed = spread(1, 1);
  // Names make plates wide: rows stay rows as long as that is enough.
  for (const both of [false, true])
    for (let by = 1; by <= mostSpread && anyOverlap([...placed.values()]); by += spreadStep)
      placed = spread(by, both ? by : 1);
  const kept = new Map<string, Point>(locked);
  const taken: Box[] = [...locked].map(([id, at]) => {
    const { width = 0, height = 0 } = setting.sizes.get(id) ?? {};
    return { ...at, width, height };
  });
  for (const [id, box] of placed) {
    if (taken.some((other) => overlap(box, other))) continue;
    kept.set(id, { x: box.x, y: box.y });
    taken.push(box);
  }
  const matched = kept.size - locked.size;
  const at = positionsAround(setting, kept);
  for (const id of locked.keys()) at.delete(id);
  return { at, matched };
}
