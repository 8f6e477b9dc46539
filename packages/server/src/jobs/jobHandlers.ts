import { cableListHandlers } from '../cabling/cableListRoutes.ts';
import { spreadsheetHandlers } from '../spreadsheets/spreadsheetRoutes.ts';
import { fieldJobs } from '../field/fieldRoutes.ts';
import type { JobHandlers } from '../http/route.ts';
import { fileHandlers } from '../project/fileRoutes.ts';
import { largeEditHandlers } from '../project/editRoutes.ts';
import { purchaseHandlers } from '../purchase/purchaseRoutes.ts';
import { equipmentListHandlers } from '../racks/equipmentListRoutes.ts';
import { labelHandlers } from '../reports/labelRoutes.ts';
import { scheduleHandlers } from '../reports/scheduleRoutes.ts';
import { reviewHandlers } from '../review/reviewRoutes.ts';
import { sheetHandlers } from '../sheets/sheetRoutes.ts';

/** What is done for every call that is a job; one that is missing does not compile. */
export const jobHandlers: JobHandlers = {
  ...fileHandlers,
  ...spreadsheetHandlers,
  ...cableListHandlers,
  ...equipmentListHandlers,
  ...sheetHandlers,
  ...largeEditHandlers,
  ...reviewHandlers,
  ...scheduleHandlers,
  ...labelHandlers,
  ...purchaseHandlers,
  ...fieldJobs,
};
