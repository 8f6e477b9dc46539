import { contract } from '@visograph/api';
import { cableListHandlers } from '../cabling/cableListRoutes.ts';
import { catalogueHandlers } from '../catalogue/catalogueRoutes.ts';
import { memberHandlers } from '../people/memberRoutes.ts';
import { equipmentListHandlers } from '../racks/equipmentListRoutes.ts';
import { openApi } from './openapi.ts';
import { planHandlers } from '../plans/planRoutes.ts';
import { startHandlers } from '../project/startRoutes.ts';
import { projectHandlers } from '../project/projectRoutes.ts';
import type { Handlers } from './route.ts';
import { sessionHandlers } from '../people/sessionRoutes.ts';
import { sheetHandlers } from '../sheets/sheetRoutes.ts';
import { spreadsheetHandlers } from '../catalogue/spreadsheetRoutes.ts';

/** What is done for every call of the contract; one that is missing does not compile. */
export const handlers: Handlers = {
  ...sessionHandlers,
  ...projectHandlers,
  ...startHandlers,
  ...planHandlers,
  ...catalogueHandlers,
  ...spreadsheetHandlers,
  ...cableListHandlers,
  ...equipmentListHandlers,
  ...sheetHandlers,
  ...memberHandlers,
  'GET /openapi.json': async () => openApi(contract),
};
