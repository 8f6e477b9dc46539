import { z } from 'zod';
import { amountField, countField, idField, nameField, noted, textField } from '../field.ts';

export const rackSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name'),
  placeId: idField('Place'),
  units: countField('Units', 1, 60, 'U'),
  numbering: noted(z.enum(['up', 'down']), { label: 'Numbering', help: 'up: unit 1 is at the bottom' }),
  position: countField('Position', 0, 999),
  massLimitKg: amountField('Mass limit', 5000, 'kg'),
  notes: textField('Notes'),
});
export type Rack = z.infer<typeof rackSchema>;
