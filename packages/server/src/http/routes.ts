import { contract } from '@visograph/api';
import { catalogueHandlers } from '../catalogue/catalogueRoutes.ts';
import { fieldHandlers } from '../field/fieldRoutes.ts';
import { accountHandlers } from '../people/accountRoutes.ts';
import { invitationHandlers } from '../people/invitationRoutes.ts';
import { memberHandlers } from '../people/memberRoutes.ts';
import { healthHandlers } from './healthRoutes.ts';
import { openApi } from './openapi.ts';
import { planHandlers } from '../plans/planRoutes.ts';
import { editHandlers } from '../project/editRoutes.ts';
import { startHandlers } from '../project/startRoutes.ts';
import { standingHandlers } from '../project/standingRoutes.ts';
import { projectHandlers } from '../project/projectRoutes.ts';
import { jobRoutes } from '../jobs/jobRoutes.ts';
import type { Handlers } from './route.ts';
import { sessionHandlers } from '../people/sessionRoutes.ts';

/** What is done for every call that is answered at once; one that is missing does not compile. */
export const handlers: Handlers = {
  ...healthHandlers,
  ...sessionHandlers,
  ...projectHandlers,
  ...editHandlers,
  ...startHandlers,
  ...planHandlers,
  ...catalogueHandlers,
  ...memberHandlers,
  ...invitationHandlers,
  ...accountHandlers,
  ...standingHandlers,
  ...fieldHandlers,
  ...jobRoutes,
  'GET /openapi.json': async () => openApi(contract),
};
