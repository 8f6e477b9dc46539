import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';

/** How a link is stroked. */
export type Medium = 'copper' | 'fibre' | 'twinax' | 'power' | 'circuit' | 'radio' | 'other';

const media: Record<NonNullable<CatalogueModel['medium']>, Medium> = {
  'Cat 5e': 'copper',
  'Cat 6': 'copper',
  'Cat 6A': 'copper',
  'Cat 7': 'copper',
  OM3: 'fibre',
  OM4: 'fibre',
  OM5: 'fibre',
  OS2: 'fibre',
  twinax: 'twinax',
  'active twinax': 'twinax',
  'active optical': 'fibre',
  coax: 'copper',
  power: 'power',
  serial: 'other',
};

export const drawnMedium = (type: CatalogueModel | null): Medium =>
  type?.medium ? media[type.medium] : 'other';

/** What each stroke stands for, in the words of the key. */
export const mediumNames: Record<Medium, string> = {
  copper: 'copper',
  fibre: 'fibre',
  twinax: 'twinax',
  power: 'power',
  circuit: 'circuit',
  radio: 'radio hop',
  other: 'other',
};
