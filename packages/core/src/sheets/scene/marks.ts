import type { Mark } from '../../model/kinds/drawings/mark.ts';
import type { DrawingPlan } from './drawingPlan.ts';
import { setText, type TextBlock } from './richText.ts';
import { boxAround, type Box, type Point, type SceneMark } from './scene.ts';
import { setTable } from './table.ts';
import type { TextMeasure } from '../layout/textMeasure.ts';

const inset = 10;
const nothing: TextBlock = { runs: [], width: 0, height: 0 };
const written: readonly Mark['form'][] = ['note', 'callout', 'rectangle', 'ellipse', 'polygon', 'dimension'];

/** The nearest point of a box to a point outside it. */
const edge = (box: Box, from: Point): Point => ({
  x: Math.max(box.x, Math.min(box.x + box.width, from.x)),
  y: Math.max(box.y, Math.min(box.y + box.height, from.y)),
});
const centre = (box: Box): Point => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 });

/** Notes, shapes, lines and pictures of a sheet with their text set; notes grow with their text. */
export function sceneMarks(
  plan: DrawingPlan,
  boxes: ReadonlyMap<string, Box>,
  measure: TextMeasure,
): SceneMark[] {
  return plan.marks.map(({ mark, plateId, text, table, faded, locked }): SceneMark => {
    const points = mark.points.map((point) => ({ x: mark.x + point.x, y: mark.y + point.y }));
    const tabled = table === null ? null : setTable(table, mark.height, measure);
    const set =
      written.includes(mark.form) && text !== ''
        ? setText(text, Math.max(40, mark.width - 2 * inset), measure)
        : nothing;
    const grows = mark.form === 'note' || mark.form === 'callout';
    const box: Box =
      points.length > 0
        ? boxAround(points.map((point) => ({ ...point, width: 0, height: 0 })))
        : {
            x: mark.x,
            y: mark.y,
            width: tabled?.text.width ?? mark.width,
            height:
              tabled?.text.height ??
              (grows ? Math.max(mark.height, set.height + 2 * inset - 6) : mark.height),
          };
    const target = plateId === null ? undefined : boxes.get(plateId);
    const leader: Point[] = [];
    if (mark.form === 'callout' && target !== undefined) {
      const to = edge(target, centre(box));
      leader.push(edge(box, to), to);
    }
    return {
      id: mark.id,
      form: mark.form,
      box,
      points,
      leader,
      text:
        mark.form === 'enclosure'
          ? { ...nothing, runs: [{ x: 12, y: 17, text, face: 'textStrong', size: 12, href: null }] }
          : (tabled?.text ?? {
              ...set,
              runs: set.runs.map((run) => ({ ...run, x: run.x + inset, y: run.y + inset - 4 })),
            }),
      rules: tabled?.rules ?? [],
      tone: mark.tone,
      filled: mark.filled,
      opacity: mark.opacity,
      level: mark.level,
      picture: mark.picture,
      sheetId: mark.linkSheetId,
      spoken:
        table !== null
          ? `schedule: ${table.title}, ${table.rows.filter(({ heading }) => !heading).length} rows`
          : text === ''
            ? mark.form
            : `${mark.form}: ${text.slice(0, 120)}`,
      faded,
      locked,
    };
  });
}
