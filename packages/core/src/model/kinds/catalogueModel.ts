import { z } from 'zod';
import { connectorNames } from '../connectors.ts';
import { amountField, countField, idField, nameField, noted, textField } from '../field.ts';
import { expandPortPattern } from '../portPattern.ts';
import { roleCodes } from '../roles.ts';

export const portRoles = [
  'network',
  'uplink',
  'management',
  'console',
  'powerIn',
  'powerOut',
  'passThrough',
] as const;
export const media = ['Cat 5e', 'Cat 6', 'Cat 6A', 'OM3', 'OM4', 'OS2', 'twinax', 'power', 'serial'] as const;

const pattern = nameField('Pattern', 60).superRefine((text, context) => {
  const result = expandPortPattern(text);
  if (!result.ok) context.addIssue({ code: 'custom', message: result.reason });
});

/** Ports a model brings: names from a pattern, what they are, and how they sit on the face. */
export const portGroupSchema = z.strictObject({
  pattern,
  connector: z.enum(connectorNames),
  speedBps: amountField('Speed', 1e13, 'bit/s').default(null),
  role: z.enum(portRoles).default('network'),
  face: z.enum(['front', 'rear']).default('front'),
  rows: z.int().min(1).max(4).default(1),
  /** down: 1 above 2, as on most switches; across: a row is filled before the next begins. */
  order: z.enum(['down', 'across']).default('down'),
  /** A gap after every so many columns; 0 for none. */
  block: z.int().min(0).max(48).default(0),
  /** For pass-through ports: the names of their partners on the other face, in the same order. */
  rearPattern: pattern.nullable().default(null),
});
export type PortGroup = z.infer<typeof portGroupSchema>;

/** An entry of the catalogue: a hardware model, or a cable type. */
export const modelSchema = z
  .strictObject({
    id: idField('Id'),
    form: noted(z.enum(['device', 'cable']), { label: 'Form' }),
    maker: noted(nameField('Maker', 40).nullable(), { label: 'Maker', help: 'Empty for a generic model' }),
    name: nameField('Name'),
    role: noted(z.enum(roleCodes).nullable(), { label: 'Role' }),
    units: countField('Units', 0, 60, 'U'),
    fullDepth: noted(z.boolean(), { label: 'Full depth', help: 'Fills front and rear of its units' }),
    massKg: amountField('Mass', 2000, 'kg'),
    maxPowerW: amountField('Maximum power', 100000, 'W'),
    portGroups: noted(z.array(portGroupSchema).max(20), { label: 'Port groups', internal: true }),
    medium: noted(z.enum(media).nullable(), { label: 'Medium' }),
    ends: noted(z.array(z.enum(connectorNames)).length(2).nullable(), { label: 'Plugs', internal: true }),
    jacket: noted(
      z
        .string()
        .regex(/^#[0-9A-Fa-f]{6}$/, 'is not a colour such as #E3C233')
        .nullable(),
      { label: 'Jacket colour' },
    ),
    stockLengthsM: noted(z.array(z.number().positive().max(100000)).max(40), {
      label: 'Stock lengths',
      unit: 'm',
      internal: true,
    }),
    notes: textField('Notes'),
  })
  .superRefine((model, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    if (model.form === 'cable' && model.medium === null)
      issue('medium', 'is missing: a cable type needs its medium');
    if (model.form === 'device' && model.role === null)
      issue('role', 'is missing: a hardware model needs its role');
    const seen = new Set<string>();
    for (const group of model.portGroups) {
      for (const text of [group.pattern, group.rearPattern]) {
        const names = text === null ? null : expandPortPattern(text);
        if (names === null || !names.ok) continue;
        for (const name of names.names) {
          if (seen.has(name.toLowerCase())) issue('portGroups', `yields the port name ${name} twice`);
          seen.add(name.toLowerCase());
        }
      }
      const rear = group.rearPattern === null ? null : expandPortPattern(group.rearPattern);
      const front = expandPortPattern(group.pattern);
      if (rear?.ok && front.ok && rear.names.length !== front.names.length) {
        issue(
          'portGroups',
          `${group.pattern} has ${front.names.length} ports but its rear ${group.rearPattern ?? ''} has ${rear.names.length}`,
        );
      }
    }
  });
export type CatalogueModel = z.infer<typeof modelSchema>;
