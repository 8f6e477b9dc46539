import { z } from 'zod';
import { idField, nameField, textField } from '../field.ts';

/** A module in a slot of a device: it brings ports and draws power as its model says. */
export const moduleSchema = z.strictObject({
  id: idField('Id'),
  deviceId: idField('Device'),
  slot: nameField('Slot', 30),
  modelId: idField('Model'),
  serial: textField('Serial', 80),
  notes: textField('Notes'),
});
export type Module = z.infer<typeof moduleSchema>;
