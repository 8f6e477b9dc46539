import { builtInModels } from '../builtIn/index.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { newId } from '../../model/values/ids.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Staging } from '../../exchange/staging.ts';

/** A model by title: in the file or the network, otherwise from the built-in catalogue, which is then taken over. */
export function findModel(
  staging: Staging,
  title: string,
  form: CatalogueModel['form'],
  at: string,
): CatalogueModel | null {
  const key = title.toLowerCase();
  const known = staging.network.findOne('modelByTitle', key);
  if (known !== null && known.form === form) return known;
  const builtIn = builtInModels().find(
    (model) => modelTitle(model).toLowerCase() === key && model.form === form,
  );
  if (known === null && builtIn !== undefined) {
    const row = { ...builtIn, id: newId() };
    staging.put('model', row, at);
    return row;
  }
  const what = {
    cable: 'cable type',
    device: 'hardware model',
    module: 'module',
    transceiver: 'transceiver',
  }[form];
  staging.problem(at, `There is no ${what} “${title}”. Add it under models, or correct the name.`);
  return null;
}
