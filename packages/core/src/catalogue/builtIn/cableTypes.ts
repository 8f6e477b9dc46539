import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import type { Entry } from './entry.ts';

type Ends = NonNullable<CatalogueModel['ends']>;

/** `base` is the price of the plugs and `perM` of each metre, in cents. */
const cable = (
  name: string,
  medium: CatalogueModel['medium'],
  ends: Ends,
  jacket: string,
  stockLengthsM: number[],
  [base, perM]: [number, number],
  strands: number | null = null,
  more: Partial<Entry> = {},
): Entry => ({
  name,
  medium,
  ends,
  jacket,
  stockLengthsM,
  stockPricesMinor: stockLengthsM.map((length) => Math.round(base + length * perM)),
  currency: 'EUR',
  strands,
  ...more,
});

const patch = [0.5, 1, 2, 3, 5, 7, 10, 15, 20, 30, 50, 90];
const fibre = [1, 2, 3, 5, 10, 15, 20, 30, 50, 100];

/** Jacket colours of fibre follow TIA-598-D; those of copper and power are the demo network's own habit. */
export const cableTypes: readonly Entry[] = [
  cable('Cat 5e RJ45', 'Cat 5e', ['RJ45', 'RJ45'], '#A9A294', [0.5, 1, 2, 3, 5, 10, 20, 30, 50], [90, 35]),
  cable('Cat 6 RJ45', 'Cat 6', ['RJ45', 'RJ45'], '#8A98A0', [0.5, 1, 2, 3, 5, 10, 20, 30, 50], [120, 50]),
  cable('Cat 6A RJ45', 'Cat 6A', ['RJ45', 'RJ45'], '#3D6FB4', patch, [210, 85]),
  cable('Cat 7 RJ45', 'Cat 7', ['RJ45', 'RJ45'], '#5B6B8C', patch, [260, 120]),
  cable('OM3 duplex LC', 'OM3', ['LC', 'LC'], '#35A6A0', fibre, [480, 70], 2),
  cable('OM4 duplex LC', 'OM4', ['LC', 'LC'], '#35A6A0', fibre, [620, 95], 2),
  cable('OM5 duplex LC', 'OM5', ['LC', 'LC'], '#9BB53C', fibre, [840, 140], 2),
  cable('OM4 duplex SC', 'OM4', ['SC', 'SC'], '#35A6A0', fibre, [640, 95], 2),
  cable(
    'OM4 trunk MPO-12',
    'OM4',
    ['MPO', 'MPO'],
    '#35A6A0',
    [3, 5, 10, 15, 20, 30, 50, 100],
    [4200, 380],
    12,
  ),
  cable('OS2 duplex LC', 'OS2', ['LC', 'LC'], '#D9B01F', fibre, [560, 60], 2),
  cable('OS2 duplex SC', 'OS2', ['SC', 'SC'], '#D9B01F', fibre, [560, 60], 2),
  cable('OS2 LC to SC', 'OS2', ['LC', 'SC'], '#D9B01F', [1, 2, 3, 5, 10, 15], [590, 60], 2),
  cable('twinax 10G', 'twinax', ['SFP+', 'SFP+'], '#20242B', [0.5, 1, 2, 3, 5], [1400, 300]),
  cable('twinax 25G', 'twinax', ['SFP28', 'SFP28'], '#20242B', [0.5, 1, 2, 3], [2600, 600]),
  cable('twinax 100G', 'twinax', ['QSFP28', 'QSFP28'], '#20242B', [0.5, 1, 2, 3], [5200, 1100]),
  cable('active twinax 10G', 'active twinax', ['SFP+', 'SFP+'], '#20242B', [5, 7, 10], [3400, 350]),
  cable(
    'active optical 25G',
    'active optical',
    ['SFP28', 'SFP28'],
    '#35A6A0',
    [3, 5, 10, 15, 20, 30],
    [6800, 220],
  ),
  cable(
    'active optical 100G',
    'active optical',
    ['QSFP28', 'QSFP28'],
    '#35A6A0',
    [3, 5, 10, 15, 20, 30],
    [14800, 320],
  ),
  cable('Cat 6 crossed', 'Cat 6', ['RJ45', 'RJ45'], '#B5533C', [1, 2, 3, 5, 10], [140, 50], null, {
    crossed: true,
  }),
  cable(
    'breakout 100G to 4 × 25G',
    'twinax',
    ['QSFP28', 'SFP28'],
    '#20242B',
    [0.5, 1, 2, 3],
    [7800, 1900],
    null,
    { legsB: 4 },
  ),
  cable(
    'breakout 40G to 4 × 10G',
    'twinax',
    ['QSFP+', 'SFP+'],
    '#20242B',
    [0.5, 1, 2, 3, 5],
    [5200, 900],
    null,
    {
      legsB: 4,
    },
  ),
  cable('OM4 harness MPO to 4 × LC', 'OM4', ['MPO', 'LC'], '#35A6A0', [1, 2, 3, 5, 10], [5400, 420], 8, {
    legsB: 4,
  }),
  cable('OM4 harness MPO to 6 × LC', 'OM4', ['MPO', 'LC'], '#35A6A0', [1, 2, 3, 5, 10], [6100, 480], 12, {
    legsB: 6,
  }),
  cable('OM4 trunk 2 × MPO-12', 'OM4', ['MPO', 'MPO'], '#35A6A0', [10, 20, 30, 50, 100], [7600, 640], 24, {
    legsA: 2,
    legsB: 2,
    polarity: 'reversed',
  }),
  cable('OM4 trunk MPO-24', 'OM4', ['MPO', 'MPO'], '#35A6A0', [5, 10, 20, 30, 50], [7200, 610], 24),
  cable('OS2 trunk 24 strands LC', 'OS2', ['LC', 'LC'], '#D9B01F', [20, 30, 50, 100, 200], [14800, 290], 24, {
    legsA: 12,
    legsB: 12,
  }),
  cable('OS2 trunk 48 strands LC', 'OS2', ['LC', 'LC'], '#D9B01F', [20, 50, 100, 200], [26500, 520], 48, {
    legsA: 24,
    legsB: 24,
  }),
  cable('OS2 outdoor 24 strands', 'OS2', ['splice', 'splice'], '#2B2B2B', [], [0, 0], 24, {
    legsA: 12,
    legsB: 12,
    stockPricesMinor: [],
  }),
  cable('OS2 pigtail LC', 'OS2', ['LC', 'splice'], '#D9B01F', [1, 2, 3], [380, 60], 2),
  cable('coax antenna', 'coax', ['coax', 'coax'], '#2B2B2B', [1, 2, 5, 10], [900, 240]),
  cable('power C13–C14', 'power', ['C13', 'C14'], '#20242B', [0.5, 1, 1.5, 2, 3], [290, 110]),
  cable('power C19–C20', 'power', ['C19', 'C20'], '#20242B', [1, 1.5, 2, 3], [780, 240]),
  cable('power C13–C20', 'power', ['C13', 'C20'], '#20242B', [1, 2, 3], [520, 180]),
  cable('DC lead', 'power', ['DC', 'DC'], '#5A2E2E', [1, 2, 3, 5], [150, 90]),
  cable('console serial', 'serial', ['serial', 'serial'], '#5C7A99', [2, 3, 5], [450, 90]),
];
