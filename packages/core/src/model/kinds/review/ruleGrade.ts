import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, noted, textField } from '../../fields/field.ts';

/** How bad what a rule finds is in this project; off: it is not asked for. */
export const grades = ['bad', 'warn', 'off'] as const;
export type Grade = (typeof grades)[number];

/** A rule that this project takes otherwise than the rule itself does. */
export const ruleGradeSchema = z.strictObject({
  id: idField('Id'),
  rule: nameField('Rule', 60),
  grade: noted(z.enum(grades), { label: 'Grade' }),
  reason: textField('Reason', 500),
});
export type RuleGrade = z.infer<typeof ruleGradeSchema>;

export const ruleGradeKind = defineKind({
  schema: ruleGradeSchema,
  one: 'grade of a rule',
  many: 'grades of rules',
  paper: true,
  refs: {},
  indexes: {},
  unique: [uniqueBy<RuleGrade>('rule')],
  nameOf: (row) => row.rule,
  facts: { rule: 'notes', reason: 'notes' },
  blank: { reason: null },
  section: 'ruleGrades',
});
