import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, nameField, textField } from '../../fields/field.ts';

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

export const moduleKind = defineKind({
  schema: moduleSchema,
  one: 'module',
  many: 'modules',
  refs: {
    deviceId: { to: 'device', index: 'modulesByDevice', onRemove: 'goes' },
    modelId: { to: 'model', index: 'modulesByModel', onRemove: 'holds' },
  },
  indexes: {},
  unique: [{ what: 'slot', key: (row) => `${row.deviceId}:${row.slot}` }],
  nameOf: (row) => row.slot,
  titled: (row, title) => `${title('device', row.deviceId)} slot ${row.slot}`,
  facts: { slot: 'portNames', serial: 'serials', notes: 'notes' },
  blank: {},
});
