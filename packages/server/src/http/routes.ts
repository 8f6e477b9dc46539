import { contract } from '@visograph/api';
import { cableListHandlers } from './cableListRoutes.ts';
import { catalogueHandlers } from './catalogueRoutes.ts';
import { memberHandlers } from './memberRoutes.ts';
import { openApi } from './openapi.ts';
import { planHandlers } from './planRoutes.ts';
import { projectHandlers } from './projectRoutes.ts';
import type { Handlers } from './route.ts';
import { sessionHandlers } from './sessionRoutes.ts';
import { sheetHandlers } from './sheetRoutes.ts';
import { spreadsheetHandlers } from './spreadsheetRoutes.ts';

/** What is done for every call of the contract; one that is missing does not compile. */
export const handlers: Handlers = {
  ...sessionHandlers,
  ...projectHandlers,
  ...planHandlers,
  ...catalogueHandlers,
  ...spreadsheetHandlers,
  ...cableListHandlers,
  ...sheetHandlers,
  ...memberHandlers,
  'GET /openapi.json': async () => openApi(contract),
};
