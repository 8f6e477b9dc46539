import { derived } from '../model/network/derived.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import type { Role } from '../model/values/roles.ts';

const generics = derived<ReadonlyMap<Role, CatalogueModel[]>>(
  (network) => {
    const found = new Map<Role, CatalogueModel[]>();
    for (const model of network.all('model'))
      if (
        model.form === 'device' &&
        model.maker === null &&
        model.role !== null &&
        model.part === null &&
        !model.retired
      )
        found.set(model.role, [...(found.get(model.role) ?? []), model]);
    for (const list of found.values())
      list.sort(
        (a, b) =>
          a.units - b.units || a.portGroups.length - b.portGroups.length || compareNames(a.name, b.name),
      );
    return found;
  },
  (before, _network, touched) => (touched.some((row) => row.kind === 'model') ? null : before),
);

/** Models without a maker of a role, smallest first: for what is only known by what it does. */
export const genericModels = (network: Network, role: Role): readonly CatalogueModel[] =>
  generics(network).get(role) ?? [];

/** The one that a device of a role is made of where nothing more is known; null where there is none. */
export const firstOfTheirRole = (network: Network, role: Role): CatalogueModel | null =>
  genericModels(network, role)[0] ?? null;
