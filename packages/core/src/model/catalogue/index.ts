import type { CatalogueModel } from '../kinds/catalogueModel.ts';
import { newId } from '../ids.ts';
import { cableTypeData } from './cableTypes.ts';
import { hardwareData } from './hardware.ts';

const blank: Omit<CatalogueModel, 'id' | 'name'> = {
  form: 'device',
  maker: null,
  role: null,
  units: 1,
  fullDepth: true,
  massKg: null,
  maxPowerW: null,
  portGroups: [],
  medium: null,
  ends: null,
  jacket: null,
  stockLengthsM: [],
  notes: null,
};

let made: CatalogueModel[] | null = null;

/** The catalogue that ships with the product: every new project begins with it. Makers and figures are invented. */
export function builtInModels(): readonly CatalogueModel[] {
  made ??= [
    ...hardwareData.map((entry) => ({ ...blank, id: newId(), ...entry })),
    ...cableTypeData.map((entry) => ({ ...blank, id: newId(), form: 'cable' as const, units: 0, ...entry })),
  ];
  return made;
}
