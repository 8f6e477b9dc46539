import type { Answer } from '@visograph/api';
import type { LineRow } from '../database/rows.ts';
import type { PlanMade } from './plans.ts';
import { planId } from '../http/meant.ts';
import { refuseProblems } from '../http/problem.ts';
import type { Handlers } from '../http/route.ts';

const described = (row: LineRow): Answer<'PUT /projects/:project/plans/:plan'> => ({
  id: row.id,
  name: row.name,
  purpose: row.purpose,
  revision: row.revision,
  madeBy: row.madeBy,
  madeAt: row.madeAt.toISOString(),
  thrownAway:
    row.thrownAwayAt === null ? null : { by: row.thrownAwayBy ?? '', at: row.thrownAwayAt.toISOString() },
});

function made(result: PlanMade): ReturnType<typeof described> {
  if (!result.ok) throw refuseProblems(result.problems);
  return described(result.plan);
}

export const planHandlers = {
  'GET /projects/:project/plans': async ({ projectId, services }) =>
    (await services.store.plans.list(projectId)).map(described),
  'POST /projects/:project/plans': async ({ account, body, projectId, services }) =>
    made(await services.store.plans.begin(projectId, account, body)),
  'GET /projects/:project/plans/:plan': async ({ projectId, param, services }) => {
    const of = { projectId, line: planId(param('plan')) };
    const row = await services.store.plans.find(of);
    if (row.thrownAwayAt !== null) return { ...described(row), base: null, conflicts: [] };
    const { base, conflicts, revision } = await services.store.readPlan(projectId, row.id);
    return { ...described(row), revision, base: base.revision, conflicts: [...conflicts] };
  },
  'PUT /projects/:project/plans/:plan': async ({ account, body, projectId, param, services }) =>
    made(await services.store.plans.change({ projectId, line: planId(param('plan')) }, account, body)),
} satisfies Partial<Handlers>;
