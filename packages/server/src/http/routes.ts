import { cableListRoutes } from './cableListRoutes.ts';
import { catalogueRoutes } from './catalogueRoutes.ts';
import { memberRoutes } from './memberRoutes.ts';
import { openApi } from './openapi.ts';
import { planRoutes } from './planRoutes.ts';
import { projectRoutes } from './projectRoutes.ts';
import { route, type Route } from './route.ts';
import { sessionRoutes } from './sessionRoutes.ts';
import { sheetRoutes } from './sheetRoutes.ts';
import { spreadsheetRoutes } from './spreadsheetRoutes.ts';

const own: readonly Route[] = [
  ...sessionRoutes,
  ...projectRoutes,
  ...planRoutes,
  ...catalogueRoutes,
  ...spreadsheetRoutes,
  ...cableListRoutes,
  ...sheetRoutes,
  ...memberRoutes,
];

/** Every route there is, with who may call it. */
export const routes: readonly Route[] = [
  ...own,
  route({
    method: 'get',
    path: '/openapi.json',
    access: 'public',
    summary: 'This description',
    handle: async () => openApi(own),
  }),
];
