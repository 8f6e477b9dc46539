import { z } from 'zod';
import type { LineRow } from '../database/rows.ts';
import type { PlanMade } from '../store/plans.ts';
import { refuseProblems } from './problem.ts';
import { route, type Route } from './route.ts';

const nameSchema = z.string().trim().min(1, 'is empty').max(80, 'is longer than 80 characters');
const purposeSchema = z.string().trim().max(2000, 'is longer than 2000 characters').nullable();

const described = (row: LineRow) => ({
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

export const planRoutes: readonly Route[] = [
  route({
    method: 'get',
    path: '/projects/:project/plans',
    access: 'reader',
    summary: 'The plans of the project, those thrown away too; plan=… in any other call works in one',
    handle: async ({ projectId, services }) => (await services.store.plans.list(projectId)).map(described),
  }),
  route({
    method: 'post',
    path: '/projects/:project/plans',
    access: 'editor',
    summary: 'Begin a plan: a line of history over as built',
    body: z.strictObject({ name: nameSchema, purpose: purposeSchema.default(null) }),
    handle: async ({ account, body, projectId, services }) =>
      made(await services.store.plans.begin(projectId, account, body)),
  }),
  route({
    method: 'get',
    path: '/projects/:project/plans/:plan',
    access: 'reader',
    summary: 'A plan, and where it and as built contradict each other, change by change with both values',
    handle: async ({ projectId, param, services }) => {
      const of = { projectId, line: param('plan') };
      const row = await services.store.plans.find(of);
      if (row.thrownAwayAt !== null) return { ...described(row), base: null, conflicts: [] };
      const { base, conflicts, revision } = await services.store.readPlan(projectId, row.id);
      return { ...described(row), revision, base: base.revision, conflicts };
    },
  }),
  route({
    method: 'put',
    path: '/projects/:project/plans/:plan',
    access: 'editor',
    summary: 'Rename a plan, say what it is for, throw it away or bring it back',
    body: z.strictObject({
      name: nameSchema.optional(),
      purpose: purposeSchema.optional(),
      thrownAway: z.boolean().optional(),
    }),
    handle: async ({ account, body, projectId, param, services }) =>
      made(await services.store.plans.change({ projectId, line: param('plan') }, account, body)),
  }),
];
