import { create, remove, update, type ChangeSet } from '../../change/change.ts';
import { newId } from '../../model/values/ids.ts';
import { blankMark, type Mark, type MarkForm } from '../../model/kinds/drawings/mark.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';

const counted = (marks: readonly Mark[]): string =>
  marks.length === 1 ? (marks[0]?.form ?? '') : `${marks.length} marks`;

/** Puts a note, shape, line or picture on a sheet. Enclosures stand behind the plates, all else in front. */
export function addMark(sheet: Sheet, form: MarkForm, fields: Partial<Mark>): ChangeSet & { markId: string } {
  const behind = form === 'enclosure' || form === 'picture';
  const mark: Mark = {
    ...blankMark,
    level: behind ? -1 : 1,
    ...fields,
    id: newId(),
    sheetId: sheet.id,
    form,
  };
  return {
    markId: mark.id,
    changes: [create('mark', mark)],
    sentence: `Added ${/^[aeiou]/.test(form) ? 'an' : 'a'} ${form} to sheet ${sheet.name}`,
  };
}

export function changeMark(sheet: Sheet, mark: Mark, fields: Partial<Mark>, what = 'Changed'): ChangeSet {
  const change = update('mark', mark, fields);
  return {
    changes: change === null ? [] : [change],
    sentence: `${what} the ${mark.form} on sheet ${sheet.name}`,
  };
}

export const removeMarks = (sheet: Sheet, marks: readonly Mark[]): ChangeSet => ({
  changes: marks.map((mark) => remove('mark', mark)),
  sentence: `Removed ${counted(marks)} from sheet ${sheet.name}`,
});

/** Copies of marks, on the same sheet or another, moved by so much. */
export function copyMarks(
  sheet: Sheet,
  marks: readonly Mark[],
  by: { x: number; y: number },
): ChangeSet & { markIds: string[] } {
  const copies = marks.map((mark) => ({
    ...mark,
    id: newId(),
    sheetId: sheet.id,
    x: mark.x + by.x,
    y: mark.y + by.y,
    locked: false,
  }));
  return {
    markIds: copies.map((copy) => copy.id),
    changes: copies.map((copy) => create('mark', copy)),
    sentence: `Copied ${counted(marks)} to sheet ${sheet.name}`,
  };
}

/** Brings marks in front of all others, or behind the plates. */
export function orderMarks(
  network: Network,
  sheet: Sheet,
  marks: readonly Mark[],
  to: 'front' | 'back',
): ChangeSet {
  const levels = network.find('marksBySheet', sheet.id).map((mark) => mark.level);
  const level = to === 'front' ? Math.max(1, ...levels) + 1 : Math.min(-1, ...levels) - 1;
  const bounded = Math.max(-1000, Math.min(1000, level));
  return {
    changes: marks
      .map((mark) => update('mark', mark, { level: bounded }))
      .filter((change) => change !== null),
    sentence: `Brought ${counted(marks)} to the ${to} on sheet ${sheet.name}`,
  };
}
