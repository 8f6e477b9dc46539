import { type CatalogueModel } from '@visograph/core/model';
import { fieldsOf } from '../database/rows.ts';
import type { Handlers } from '../http/route.ts';

export const catalogueHandlers = {
  'GET /catalogue/shared': async ({ services }) => {
    const rows = await services
      .knex('model')
      .join('project', 'project.id', 'model.projectId')
      .where('model.sharing', 'accepted')
      .where('model.retired', false)
      .orderBy(['model.maker', 'model.name'])
      .limit(5000)
      .select('project.name as projectName', ...fieldsOf('model').map((field) => `model.${field}`));
    return rows.map(({ projectName, ...model }: { projectName: string } & CatalogueModel) => ({
      project: projectName,
      model,
    }));
  },
} satisfies Partial<Handlers>;
