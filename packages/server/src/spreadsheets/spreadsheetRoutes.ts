import type { JobHandlers } from '../http/route.ts';
import { sheetRows } from './sheetRows.ts';

const rowLimit = 20_000;

export const spreadsheetHandlers = {
  'POST /projects/:project/spreadsheet': async ({ body }) => {
    const rows = await sheetRows(body, rowLimit);
    return { rows };
  },
} satisfies Partial<JobHandlers>;
