import { route, type Route } from './route.ts';
import { sheetRows } from './sheetRows.ts';

const sizeLimit = 5 * 1024 * 1024;
const rowLimit = 20_000;

export const spreadsheetRoutes: readonly Route[] = [
  route<Buffer>({
    method: 'post',
    path: '/projects/:project/spreadsheet',
    access: 'editor',
    summary:
      'The cells of an .xlsx or .csv file as text, for an import that is then previewed; writes nothing',
    bytesLimit: sizeLimit,
    handle: async ({ body }) => {
      const rows = await sheetRows(body, rowLimit);
      return { rows };
    },
  }),
];
