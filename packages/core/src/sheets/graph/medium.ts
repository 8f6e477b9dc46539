import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';

/** How a link is stroked. */
export type Medium =
  | 'copper'
  | 'fibre'
  | 'twinax'
  | 'power'
  | 'circuit'
  | 'radio'
  | 'tunnel'
  | 'peering'
  | 'uplink'
  | 'seat'
  | 'route'
  | 'rule'
  | 'other';

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
  tunnel: 'tunnel',
  peering: 'peering, attachment',
  uplink: 'to the internet',
  seat: 'stands there too',
  route: 'is sent to',
  rule: 'may call',
  other: 'other',
};
