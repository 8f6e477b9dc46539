import type { PlacedEnd } from '../layout/ends.ts';
import type { Point } from '../scene/scene.ts';
import { legsOf, slideSpot, spotsOf, type DrawnLine, type Spot } from './lines.ts';
import { mostLooked, type Router } from './router.ts';

/** How often all lines that are not as good as can be are led again, now that all others are known. */
const rounds = 3;
const swapRounds = 4;
/** Up to so many lines ports change places where that saves crossings. */
const fewLines = 200;
/** How often lines that came to lie on others are led again with all care. */
const untangleRounds = 4;
/** States that may be looked at in all before lines stay as they are, and how many more to untangle them. */
const mostWork = 900_000;
const mostUntangling = 200_000;
const nearlyNothing = 0.01;

/** What is to be led, and with what. */
export interface Task {
  router: Router;
  lines: readonly DrawnLine[];
  /** The containers that a plate is in. */
  zonesOf: (plateId: string) => readonly number[];
}

const layLine = ({ router, zonesOf }: Task, line: DrawnLine, most = mostLooked): boolean =>
  router.lay(line.id, legsOf(line, zonesOf), most);

/** Leads a line again, and keeps what is better. */
function leadAgain(task: Task, line: DrawnLine, most?: number): boolean {
  const { router } = task;
  const before = router.judge(line.id).cost;
  const laid = router.takeUp(line.id);
  layLine(task, line, most);
  if (router.judge(line.id).cost < before - nearlyNothing && router.laid(line.id).ways.size >= laid.ways.size)
    return true;
  router.takeUp(line.id);
  router.putBack(line.id, laid);
  return false;
}

const upright = ({ side }: PlacedEnd): boolean => side === 'top' || side === 'bottom';
const along = ({ ends }: Spot): number => {
  const [end] = ends;
  return end === undefined ? 0 : upright(end) ? end.at.x : end.at.y;
};
const widthOf = ({ ends }: Spot): number => {
  const [end] = ends;
  if (end === undefined) return 0;
  const label = ends.find((one) => one.label !== null)?.label;
  return label === undefined || label === null ? 12 : upright(end) ? label.box.width : 16;
};

/** Whether the labels of spots beside each other keep off each other after two have changed places. */
const roomy = (sorted: readonly Spot[]): boolean =>
  sorted.every((spot, at) => {
    const next = sorted[at + 1];
    return (
      next === undefined || along(next) - along(spot) >= Math.min(16, (widthOf(spot) + widthOf(next)) / 2)
    );
  });

function exchange(router: Router, one: Spot, other: Spot): void {
  const [p, q] = [one.ends[0]?.at, other.ends[0]?.at];
  if (p === undefined || q === undefined) return;
  const by: Point = { x: q.x - p.x, y: q.y - p.y };
  slideSpot(router, one, by);
  slideSpot(router, other, { x: -by.x, y: -by.y });
  for (const end of [...one.ends, ...other.ends]) router.open(end.stub);
}

/** Lets two lines of one side of a plate change places where that saves crossings or turns. */
function swapOn(task: Task, side: readonly Spot[], most: number): boolean {
  const { router } = task;
  const sorted = [...side].sort((a, b) => along(a) - along(b));
  let better = false;
  for (let at = 0; at < sorted.length; at++)
    for (let other = at + 1; other < sorted.length; other++) {
      const [one, two] = [sorted[at], sorted[other]];
      if (one === undefined || two === undefined || one.line === two.line) continue;
      if (router.looked > most) return better;
      const judged = (): number => router.judge(one.line.id).cost + router.judge(two.line.id).cost;
      const crossing = router.judge(one.line.id).crossings > 0 && router.judge(two.line.id).crossings > 0;
      if (!crossing || !router.cross(one.line.id, two.line.id)) continue;
      const before = judged();
      const laid = [one.line, two.line].map((line) => router.takeUp(line.id));
      exchange(router, one, two);
      for (const line of [one.line, two.line]) layLine(task, line);
      [sorted[at], sorted[other]] = [two, one];
      if (judged() < before - nearlyNothing && roomy(sorted)) {
        better = true;
        continue;
      }
      [sorted[at], sorted[other]] = [one, two];
      for (const line of [one.line, two.line]) router.takeUp(line.id);
      exchange(router, one, two);
      [one.line, two.line].forEach((line, which) => {
        const was = laid[which];
        if (was !== undefined) router.putBack(line.id, was);
      });
    }
  return better;
}

/** Whether a line could be better: it crosses, lies on another, or turns more than once or twice. */
const improvable = (router: Router, line: DrawnLine): boolean => {
  const { crossings, shared, turns } = router.judge(line.id);
  return crossings + shared > 0 || turns > 2 * line.drafts.length;
};

/** Leads those lines again that could be better; tells whether any is. */
function leadRound(task: Task, most: number): boolean {
  let better = false;
  for (const line of task.lines)
    if (task.router.looked < most && improvable(task.router, line)) better = leadAgain(task, line) || better;
  return better;
}

/** Lays all lines, the shortest first. */
export function layAll(task: Task): void {
  for (const line of task.lines) layLine(task, line);
}

/** Leads those lines once more that could be better now that all others are known. */
export const leadAgainOnce = (task: Task): void => void leadRound(task, mostWork);

/** How often the lines cross each other. */
export const crossingsOf = ({ router, lines }: Task): number =>
  lines.reduce((sum, { id }) => sum + router.judge(id).crossings, 0) / 2;

/** Of more lines nobody follows each: they stay as they were led. */
const mostRefined = 1200;

/** Takes time to make lines that were led better: ports change places, and no line is left on another. */
export function refineAll(task: Task): void {
  const { router, lines } = task;
  if (lines.length > mostRefined) return;
  const most = router.looked + mostWork;
  for (let round = 1; round < rounds; round++) if (!leadRound(task, most)) break;
  if (lines.length <= fewLines)
    for (let round = 0; round < swapRounds; round++) {
      let better = false;
      for (const side of spotsOf(lines)) better = swapOn(task, side, most) || better;
      better = leadRound(task, most) || better;
      if (!better) break;
    }
  for (let round = 0; round < untangleRounds; round++) {
    const tangled = lines.filter((line) => router.judge(line.id).shared > 1);
    if (tangled.length === 0) break;
    let better = false;
    for (const line of tangled)
      if (router.looked <= most + mostUntangling) better = leadAgain(task, line, 8 * mostLooked) || better;
    if (!better) break;
  }
}
