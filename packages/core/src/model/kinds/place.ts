import { z } from 'zod';
import { idField, nameField, noted, refField, textField } from '../field.ts';

export const placeKinds = ['site', 'building', 'floor', 'room', 'row'] as const;

export const placeSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name').refine(
    (name) => !name.includes('/'),
    'contains a slash, which separates places in a path',
  ),
  kind: noted(z.enum(placeKinds), { label: 'Kind' }),
  parentId: refField('Inside'),
  code: noted(
    z
      .string()
      .regex(/^[A-Za-z0-9]{1,8}$/, 'is not 1 to 8 letters or digits')
      .nullable(),
    { label: 'Site code', help: 'Starts device names and cable labels of the site' },
  ),
  notes: textField('Notes'),
});
export type Place = z.infer<typeof placeSchema>;
