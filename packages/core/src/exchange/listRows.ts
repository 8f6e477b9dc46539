/** One row of a list from a spreadsheet: what it comes to, or why it cannot be taken. */
export interface ListRow {
  /** Number of the row in the sheet, from 1. */
  row: number;
  label: string;
  does: 'new' | 'same' | 'changes' | 'cannot';
  /** What is made, what changes with both values, or why not. */
  detail: string;
}

/** Why a row cannot be taken, as the end of a sentence: said to whoever brought the list. */
export class Wrong extends Error {}

export const countOf = (rows: readonly ListRow[], does: ListRow['does']): number =>
  rows.filter((one) => one.does === does).length;
