import { z } from 'zod';

const measure = (label: string, least: number, most: number) =>
  z
    .number(`${label} is not a number`)
    .min(least, `${label} is below ${least} mm`)
    .max(most, `${label} is above ${most} mm`);
const count = (label: string, most: number) =>
  z
    .int(`${label} is not a whole number`)
    .min(1, `${label} is below 1`)
    .max(most, `${label} is above ${most}`);

/** Where labels stand on what they are printed on, all in millimetres. A tape is a page of one label. */
export const labelSizeSchema = z
  .strictObject({
    page: z.strictObject({ width: measure('Page width', 5, 1200), height: measure('Page height', 5, 1200) }),
    width: measure('Label width', 4, 400),
    height: measure('Label height', 4, 400),
    columns: count('Columns', 40),
    rows: count('Rows', 100),
    /** From the edges of the page to the first label. */
    left: measure('Left margin', 0, 400),
    top: measure('Top margin', 0, 400),
    /** Between labels. */
    gapAcross: measure('Gap between columns', 0, 100),
    gapDown: measure('Gap between rows', 0, 100),
  })
  .superRefine((size, context) => {
    const across = size.left + size.columns * size.width + (size.columns - 1) * size.gapAcross;
    const down = size.top + size.rows * size.height + (size.rows - 1) * size.gapDown;
    const over = (path: string, what: string, needed: number, has: number): void => {
      if (needed > has + 0.01)
        context.addIssue({
          code: 'custom',
          path: [path],
          message: `${what} need ${Math.round(needed * 10) / 10} mm of a page of ${has} mm: take fewer, smaller ones or a larger page`,
        });
    };
    over('columns', `${size.columns} columns`, across, size.page.width);
    over('rows', `${size.rows} rows`, down, size.page.height);
  });
export type LabelSize = z.infer<typeof labelSizeSchema>;

/** ISO 216. */
const a4 = { width: 210, height: 297 };

/** Labels that fill a page of A4, evenly from its middle. */
const sheet = (
  columns: number,
  rows: number,
  width: number,
  height: number,
  gapAcross = 0,
  gapDown = 0,
): LabelSize => ({
  page: a4,
  ...{ width, height, columns, rows, gapAcross, gapDown },
  left: Math.round(((a4.width - columns * width - (columns - 1) * gapAcross) / 2) * 100) / 100,
  top: Math.round(((a4.height - rows * height - (rows - 1) * gapDown) / 2) * 100) / 100,
});
const tape = (height: number, width: number): LabelSize => ({
  page: { width, height },
  ...{ width, height, columns: 1, rows: 1, left: 0, top: 0, gapAcross: 0, gapDown: 0 },
});

/** Common measures of label sheets and tapes. */
export const labelSizes: Readonly<Record<string, { title: string; size: LabelSize }>> = {
  'sheet-2x4': { title: 'Sheet of 8, 105 × 74 mm', size: sheet(2, 4, 105, 74) },
  'sheet-2x7': { title: 'Sheet of 14, 99 × 38 mm', size: sheet(2, 7, 99, 38.1, 2.5) },
  'sheet-3x7': { title: 'Sheet of 21, 63.5 × 38 mm', size: sheet(3, 7, 63.5, 38.1, 2.5) },
  'sheet-3x8': { title: 'Sheet of 24, 70 × 37 mm', size: sheet(3, 8, 70, 37) },
  'sheet-4x10': { title: 'Sheet of 40, 48.5 × 25.4 mm', size: sheet(4, 10, 48.5, 25.4) },
  'sheet-5x13': { title: 'Sheet of 65, 38 × 21 mm', size: sheet(5, 13, 38.1, 21.2, 2.5) },
  'sheet-7x27': { title: 'Sheet of 189, 25.4 × 10 mm', size: sheet(7, 27, 25.4, 10, 2.5) },
  'tape-9': { title: 'Tape 9 mm, 50 mm long', size: tape(9, 50) },
  'tape-12': { title: 'Tape 12 mm, 60 mm long', size: tape(12, 60) },
  'tape-18': { title: 'Tape 18 mm, 70 mm long', size: tape(18, 70) },
  'tape-24': { title: 'Tape 24 mm, 80 mm long', size: tape(24, 80) },
  'tape-36': { title: 'Tape 36 mm, 90 mm long', size: tape(36, 90) },
};

/** Where the label at a place stands on its page, in mm from the upper left corner; rows fill from the top. */
export function labelPlace(size: LabelSize, at: number): { page: number; x: number; y: number } {
  const each = size.columns * size.rows;
  const place = at % each;
  const [column, row] = [place % size.columns, Math.floor(place / size.columns)];
  return {
    page: Math.floor(at / each),
    x: size.left + column * (size.width + size.gapAcross),
    y: size.top + row * (size.height + size.gapDown),
  };
}
