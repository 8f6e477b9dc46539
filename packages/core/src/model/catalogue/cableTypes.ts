import type { CatalogueModel } from '../kinds/catalogueModel.ts';

type CableTypeEntry = Pick<CatalogueModel, 'name' | 'medium' | 'ends' | 'jacket' | 'stockLengthsM'>;

/** Jacket colours of fibre follow TIA-598-D; those of copper and power are the demo network's own habit. */
export const cableTypeData: readonly CableTypeEntry[] = [
  {
    name: 'Cat 6 RJ45',
    medium: 'Cat 6',
    ends: ['RJ45', 'RJ45'],
    jacket: '#8A98A0',
    stockLengthsM: [0.5, 1, 2, 3, 5, 10, 20, 30, 50],
  },
  {
    name: 'Cat 6A RJ45',
    medium: 'Cat 6A',
    ends: ['RJ45', 'RJ45'],
    jacket: '#3D6FB4',
    stockLengthsM: [0.5, 1, 2, 3, 5, 7, 10, 15, 20, 30, 50, 90],
  },
  {
    name: 'OM4 duplex LC',
    medium: 'OM4',
    ends: ['LC', 'LC'],
    jacket: '#35A6A0',
    stockLengthsM: [1, 2, 3, 5, 10, 15, 20, 30, 50, 100],
  },
  {
    name: 'OS2 duplex LC',
    medium: 'OS2',
    ends: ['LC', 'LC'],
    jacket: '#D9B01F',
    stockLengthsM: [1, 2, 3, 5, 10, 15, 20, 30, 50, 100],
  },
  {
    name: 'twinax 10G',
    medium: 'twinax',
    ends: ['SFP+', 'SFP+'],
    jacket: '#20242B',
    stockLengthsM: [0.5, 1, 2, 3, 5],
  },
  {
    name: 'twinax 25G',
    medium: 'twinax',
    ends: ['SFP28', 'SFP28'],
    jacket: '#20242B',
    stockLengthsM: [0.5, 1, 2, 3],
  },
  {
    name: 'twinax 100G',
    medium: 'twinax',
    ends: ['QSFP28', 'QSFP28'],
    jacket: '#20242B',
    stockLengthsM: [0.5, 1, 2, 3],
  },
  {
    name: 'power C13–C14',
    medium: 'power',
    ends: ['C13', 'C14'],
    jacket: '#20242B',
    stockLengthsM: [0.5, 1, 1.5, 2, 3],
  },
  {
    name: 'power C19–C20',
    medium: 'power',
    ends: ['C19', 'C20'],
    jacket: '#20242B',
    stockLengthsM: [1, 1.5, 2, 3],
  },
  {
    name: 'console serial',
    medium: 'serial',
    ends: ['serial', 'serial'],
    jacket: '#5C7A99',
    stockLengthsM: [2, 3, 5],
  },
];
