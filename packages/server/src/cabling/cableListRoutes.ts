import { schemas } from '@visograph/api';
import { readCableRows, type CableColumns } from '@visograph/core/cabling';
import { Refusal } from '../http/problem.ts';
import type { JobHandlers } from '../http/route.ts';
import { answerList, mostListRows } from '../project/answerList.ts';
import { sheetRows } from '../spreadsheets/sheetRows.ts';

function toldColumns(text: string | null): CableColumns | null {
  if (text === null) return null;
  try {
    const parsed = schemas.cableColumns.safeParse(JSON.parse(text));
    if (parsed.success) return parsed.data;
  } catch {
    // Told below, as for any other text that names no columns.
  }
  throw new Refusal(
    422,
    'The columns cannot be read',
    `“${text.slice(0, 80)}” names no columns of a cable list.`,
  );
}

export const cableListHandlers = {
  'POST /projects/:project/cable-list': async (call) => {
    const { query } = call;
    const columns = toldColumns(query('columns'));
    const making = query('make') === '1' ? { placeId: query('place') } : null;
    const rows = await sheetRows(call.body, mostListRows);
    return answerList(call, {
      rows,
      read: (network) => readCableRows(network, rows, columns, making),
      write: query('write') === '1',
      all: query('all') === '1',
    });
  },
} satisfies Partial<JobHandlers>;
