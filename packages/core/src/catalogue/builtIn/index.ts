import { blankModel, type CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { newId } from '../../model/values/ids.ts';
import { cableTypes } from './cableTypes.ts';
import { compute } from './compute.ts';
import { edge } from './edge.ts';
import { endpoints } from './endpoints.ts';
import type { Entry } from './entry.ts';
import { generic } from './generic.ts';
import { modules } from './modules.ts';
import { passive } from './passive.ts';
import { power } from './power.ts';
import { switches } from './switches.ts';
import { transceivers } from './transceivers.ts';
import { wireless } from './wireless.ts';

const made = (form: CatalogueModel['form'], entries: readonly Entry[]): CatalogueModel[] =>
  entries.map((entry) => ({
    ...blankModel,
    form,
    units: form === 'device' ? 1 : 0,
    ...entry,
    id: newId(),
  }));

let all: CatalogueModel[] | null = null;

/** The catalogue that ships with the product: every new project begins with it. Makers and figures are invented. */
export function builtInModels(): readonly CatalogueModel[] {
  all ??= [
    ...made('device', [
      ...switches,
      ...edge,
      ...wireless,
      ...compute,
      ...endpoints,
      ...passive,
      ...power,
      ...generic,
    ]),
    ...made('module', modules),
    ...made('transceiver', transceivers),
    ...made('cable', cableTypes),
  ];
  return all;
}
