import { z } from 'zod';
import { countField, idField, nameField } from '../field.ts';

export const projectSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name'),
  labelDigits: countField('Digits in a cable label', 3, 8),
});
export type Project = z.infer<typeof projectSchema>;
