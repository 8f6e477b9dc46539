import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, noted } from '../../fields/field.ts';

/**
 * A further end of a cable that has more than one on a side: leg 2, 3 … of a breakout, or the further plugs of a
 * trunk. Leg 1 is the cable's own end. A leg that hangs loose has no row.
 */
export const legSchema = z.strictObject({
  id: idField('Id'),
  cableId: idField('Cable'),
  side: noted(z.enum(['a', 'b']), { label: 'Side' }),
  number: noted(z.int().min(2, 'is below 2').max(72, 'is above 72'), { label: 'Leg' }),
  portId: idField('Port'),
});
export type Leg = z.infer<typeof legSchema>;

export const legKind = defineKind({
  schema: legSchema,
  one: 'leg',
  many: 'legs',
  refs: {
    cableId: { to: 'cable', index: 'legsByCable', onRemove: 'goes' },
    portId: { to: 'port', index: 'legByPort', onRemove: 'goes' },
  },
  indexes: {},
  unique: [{ what: 'number', key: (row) => `${row.cableId}:${row.side}:${row.number}` }],
  nameOf: (row) => `leg ${row.number}`,
  facts: {},
  blank: {},
  uncounted: true,
});
