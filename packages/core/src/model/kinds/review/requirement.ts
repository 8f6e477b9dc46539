import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, noted } from '../../fields/field.ts';
import { roleCodes } from '../../values/roles.ts';

/** The kinds of thing of which a finished document says certain facts. */
export const requirementKinds = ['device', 'rack', 'cable', 'circuit', 'prefix', 'place'] as const;
export type RequirementKind = (typeof requirementKinds)[number];

/** What is asked for of things by their status; what is retired is asked for nothing. */
export const requirementStatuses = ['any', 'planned', 'active'] as const;

/** A fact that must be there before the document is finished: of a kind, of devices of a role, by status. */
export const requirementSchema = z
  .strictObject({
    id: idField('Id'),
    on: noted(z.enum(requirementKinds), { label: 'Of' }),
    role: noted(z.enum(['any', ...roleCodes]), { label: 'Role' }),
    status: noted(z.enum(requirementStatuses), { label: 'Status' }),
    fact: nameField('Fact', 40),
  })
  .superRefine((row, context) => {
    if (row.on !== 'device' && row.role !== 'any')
      context.addIssue({ code: 'custom', path: ['role'], message: 'is given, but only devices have one' });
  });
export type Requirement = z.infer<typeof requirementSchema>;

export const requirementKind = defineKind({
  schema: requirementSchema,
  one: 'requirement',
  many: 'requirements',
  paper: true,
  refs: {},
  indexes: {},
  unique: [uniqueBy<Requirement>('fact', 'on', 'role', 'status')],
  nameOf: (row) => `${row.on} ${row.fact}`,
  facts: { fact: 'notes' },
  blank: { role: 'any', status: 'any' },
  section: 'requirements',
});
