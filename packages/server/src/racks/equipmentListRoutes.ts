import { readEquipmentRows } from '@visograph/core/racks';
import type { JobHandlers } from '../http/route.ts';
import { answerList, mostListRows } from '../project/answerList.ts';
import { sheetRows } from '../spreadsheets/sheetRows.ts';

export const equipmentListHandlers = {
  'POST /projects/:project/equipment-list': async (call) => {
    const { file, wish, write, all } = call.body;
    const rows = await sheetRows(Buffer.from(file, 'base64'), mostListRows);
    return answerList(call, {
      rows,
      read: (network) => readEquipmentRows(network, rows, wish),
      write,
      all,
    });
  },
} satisfies Partial<JobHandlers>;
