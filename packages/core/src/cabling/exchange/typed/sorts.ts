import { firstOfTheirRole } from '../../../catalogue/generic.ts';
import { modelTitle } from '../../../model/kinds.ts';
import type { CatalogueModel } from '../../../model/kinds/equipment/catalogueModel.ts';
import type { Network } from '../../../model/network/network.ts';
import { roleNamed, roleOfName } from '../../../model/values/roleWords.ts';
import { roles } from '../../../model/values/roles.ts';

/** A model by its title, its name or its part number; null where there is none, or several of that name. */
export function modelNamed(network: Network, text: string): CatalogueModel | null {
  const word = text.trim().toLowerCase();
  const titled = network.findOne('modelByTitle', word);
  if (titled?.form === 'device') return titled;
  const alike = [...network.all('model')].filter(
    (model) =>
      model.form === 'device' &&
      (model.name.toLowerCase() === word || model.partNumber?.toLowerCase() === word),
  );
  return alike.length === 1 ? (alike[0] ?? null) : null;
}

/** What a device of a typed line is to be: of a model, and named by the pattern of the place or from a beginning. */
export interface Sort {
  model: CatalogueModel;
  /** The beginning of the names; null where the place's pattern says it. */
  stem: string | null;
}

/** Reads "access", "routers" or "AX-2424P". Null where the catalogue has no model for it. */
export function sortOf(network: Network, text: string): Sort | null {
  const model = modelNamed(network, text);
  if (model !== null) return { model, stem: null };
  const role = roleNamed(text);
  const generic = firstOfTheirRole(network, role ?? roleOfName(text));
  if (generic === null) return null;
  return { model: generic, stem: role === null ? text.trim() : null };
}

/** How a model is written so that it is read as the same: its role where it is the first without a maker. */
export const sortText = (network: Network, model: CatalogueModel): string =>
  model.role !== null && firstOfTheirRole(network, model.role)?.id === model.id
    ? roles[model.role].label
    : modelTitle(model);
