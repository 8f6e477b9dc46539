import { z } from 'zod';
import { defineKind } from '../kind.ts';
import { notActive } from '../status.ts';
import { amountField, countField, idField, nameField, noted, refField, textField } from '../field.ts';

export const cableStatuses = ['planned', 'active', 'retired'] as const;

export const cableSchema = z
  .strictObject({
    id: idField('Id'),
    label: nameField('Label', 40),
    typeId: refField('Type'),
    lengthM: amountField('Length', 100000, 'm'),
    splices: countField('Splices', 0, 99),
    status: noted(z.enum(cableStatuses), { label: 'Status' }),
    aPortId: refField('A port'),
    bPortId: refField('B port'),
    notes: textField('Notes'),
  })
  .superRefine((cable, context) => {
    if (cable.aPortId !== null && cable.aPortId === cable.bPortId) {
      context.addIssue({ code: 'custom', path: ['bPortId'], message: 'is the same port as the A end' });
    }
  });
export type Cable = z.infer<typeof cableSchema>;

/** A cable with nothing filled in: plugged in nowhere. */
export const blankCable: Omit<Cable, 'id' | 'label'> = {
  typeId: null,
  lengthM: null,
  splices: 0,
  status: 'active',
  aPortId: null,
  bPortId: null,
  notes: null,
};

export const cableKind = defineKind({
  schema: cableSchema,
  one: 'cable',
  many: 'cables',
  refs: {
    typeId: { to: 'model', index: 'cablesByType', onRemove: 'holds' },
    aPortId: { to: 'port', index: 'cablesByPort', onRemove: 'cleared' },
    bPortId: { to: 'port', index: 'cablesByPort', onRemove: 'cleared' },
  },
  indexes: {
    cablesByStatus: (row) => notActive(row),
    cableByLabel: (row) => row.label.toLowerCase(),
    cablesBySite: (row) => /^(.*?)-?\d+$/.exec(row.label)?.[1]?.toLowerCase() ?? null,
  },
  unique: [{ what: 'label', key: (row) => row.label }],
  nameOf: (row) => row.label,
  facts: { label: 'labels', lengthM: 'lengths', notes: 'notes' },
  blank: blankCable,
});
