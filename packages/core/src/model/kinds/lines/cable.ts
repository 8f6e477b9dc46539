import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { notActive } from '../../values/status.ts';
import {
  amountField,
  countField,
  idField,
  nameField,
  noted,
  refField,
  textField,
} from '../../fields/field.ts';

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

/** What stands before the number at the end of a label, in lower case; null where it ends in none. */
function seriesOf(label: string): string | null {
  let end = label.length;
  while (end > 0 && label.charCodeAt(end - 1) >= 48 && label.charCodeAt(end - 1) <= 57) end--;
  if (end === label.length) return null;
  return label.slice(0, label[end - 1] === '-' ? end - 1 : end).toLowerCase();
}

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
    cablesBySite: (row) => seriesOf(row.label),
  },
  unique: [{ what: 'label', key: (row) => row.label }],
  nameOf: (row) => row.label,
  facts: { label: 'labels', lengthM: 'lengths', notes: 'notes' },
  blank: blankCable,
});
