import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import * as reply from './schemas.ts';

const xlsx = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** What the network comes to when it is bought. */
export const purchase = {
  'GET /projects/:project/parts': endpoint({
    access: 'reader',
    job: 'short',
    summary:
      'A parts list worked out: its lines, what keeps it from being ordered; or as CSV (RFC 4180) or a workbook (ISO/IEC 29500)',
    network: 'read',
    query: {
      list: 'The name of a parts list of the project',
      by: 'section, supplier or place; left out: section',
      on: 'The day whose prices and licences count; left out: today (UTC)',
      format: 'csv or xlsx; left out: JSON',
    },
    answers: reply.parts,
    files: ['text/csv', xlsx],
  }),
  'GET /projects/:project/quotation': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'A quotation with its sums: as JSON, a workbook (ISO/IEC 29500) or PDF (ISO 32000)',
    network: 'read',
    query: {
      number: 'Its number',
      revision: 'Which revision; left out: the last',
      format: 'xlsx or pdf; left out: JSON',
    },
    answers: z.object({ quotation: reply.quotation, totals: reply.totals }),
    files: [xlsx, 'application/pdf'],
  }),
};
