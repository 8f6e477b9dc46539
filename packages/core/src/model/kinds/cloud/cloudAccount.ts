import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, refField, textField } from '../../fields/field.ts';
import { labelsField } from './labels.ts';

/** What a place of the kind account is besides: whose cloud it is in. */
export const cloudAccountSchema = z.strictObject({
  id: idField('Id'),
  placeId: idField('Account'),
  profileId: refField('Provider profile'),
  number: textField('Account number', 60, 'As the provider writes it'),
  labels: labelsField,
  notes: textField('Notes'),
});
export type CloudAccount = z.infer<typeof cloudAccountSchema>;
export const blankCloudAccount: Omit<CloudAccount, 'id' | 'placeId'> = {
  profileId: null,
  number: null,
  labels: {},
  notes: null,
};

export const cloudAccountKind = defineKind({
  schema: cloudAccountSchema,
  one: 'account',
  many: 'accounts',
  refs: {
    placeId: { to: 'place', index: 'cloudAccountByPlace', onRemove: 'goes' },
    profileId: { to: 'providerProfile', index: 'cloudAccountsByProfile', onRemove: 'holds' },
  },
  indexes: {},
  unique: [uniqueBy<CloudAccount>('placeId')],
  nameOf: () => '',
  titled: (row, title) => title('place', row.placeId),
  facts: { number: 'serials', labels: 'notes', notes: 'notes' },
  blank: blankCloudAccount,
  section: 'cloudAccounts',
  uncounted: true,
});
