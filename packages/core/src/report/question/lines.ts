import type { Question } from '../../model/kinds/reports/schedule.ts';
import type { Cell, Column } from '../table.ts';
import type { Answer } from './answer.ts';
import { groupText, headsOf, rowCells, totalCell } from './layout.ts';

/** A line of a schedule as it is printed, drawn or kept in a workbook, cell by cell below the heads. */
export interface ScheduleLine {
  form: 'group' | 'row' | 'total';
  level: number;
  cells: Cell[];
}

/**
 * Heads and lines of an answer: a group's heading in the first cell with what is worked out of it in the cells of its
 * columns, and what is worked out of all rows in a last line.
 *
 * @param most so many of its lines, and the last one
 */
export function scheduleLines(
  answer: Answer,
  { numbered, blankRepeats }: Pick<Question, 'numbered' | 'blankRepeats'>,
  most = Infinity,
): { heads: Column[]; lines: ScheduleLine[] } {
  const heads = headsOf(answer, numbered);
  const totals = (line: { totals: Answer['totals'] }, first: string): Cell[] =>
    heads.map(({ key }, at) => {
      const column = answer.columns.find((one) => one.key === key);
      const value = column?.total == null ? null : totalCell(column.total, line.totals[key] ?? null);
      if (at > 0) return value;
      return value === null ? first : `${first} · ${value}`;
    });
  const depth = Math.max(-1, ...answer.lines.map((line) => (line.form === 'group' ? line.level : -1))) + 1;
  const lines = answer.lines.slice(0, most).map((line, position): ScheduleLine => {
    if (line.form === 'group')
      return { form: 'group', level: line.level, cells: totals(line, groupText(answer, line)) };
    const cells = rowCells(answer, position, blankRepeats);
    return { form: 'row', level: depth, cells: heads.map(({ key }) => cells[key] ?? null) };
  });
  if (Object.keys(answer.totals).length > 0)
    lines.push({ form: 'total', level: 0, cells: totals(answer, 'In all') });
  return { heads, lines };
}
