import { type CatalogueModel } from '@visograph/core';
import { fieldsOf } from '../database/rows.ts';
import { route, type Route } from './route.ts';

/** A model that an owner of another project accepted for everybody. */
export interface SharedModel {
  project: string;
  model: CatalogueModel;
}

export const catalogueRoutes: readonly Route[] = [
  route({
    method: 'get',
    path: '/catalogue/shared',
    access: 'signedIn',
    summary: 'Models accepted for the whole organisation, with the project each comes from',
    handle: async ({ services }): Promise<SharedModel[]> => {
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
  }),
];
