import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, nameField, noted, textField } from '../../fields/field.ts';
import { vidSchema } from '../../values/vids.ts';
import { gatewayPlaces, prefixRoles } from './prefix.ts';

/** One prefix that every site made from a template gets. */
export const templatePartSchema = z.strictObject({
  name: z.string().min(1).max(120),
  length: z.int().min(8).max(128),
  vid: vidSchema.nullable().default(null),
  role: z.enum(prefixRoles).default('subnet'),
  gateway: z.enum(gatewayPlaces).nullable().default('first'),
  /** Share of the hosts handed out by DHCP, from the end, in per cent. */
  dhcpShare: z.int().min(0).max(90).default(0),
  /** The neighbour of the same size stays free, so that the prefix can double. */
  growth: z.boolean().default(false),
});
export type TemplatePart = z.infer<typeof templatePartSchema>;

/** What address space a site of a kind gets. */
export const siteTemplateSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name', 60),
  parts: noted(z.array(templatePartSchema).min(1, 'are none').max(60, 'are more than 60'), {
    label: 'Prefixes',
    internal: true,
  }),
  notes: textField('Notes'),
});
export type SiteTemplate = z.infer<typeof siteTemplateSchema>;

export const siteTemplateKind = defineKind({
  schema: siteTemplateSchema,
  one: 'site template',
  many: 'site templates',
  paper: true,
  refs: {},
  indexes: {
    siteTemplateByName: (row) => row.name.toLowerCase(),
  },
  unique: [{ what: 'name', key: (row) => row.name }],
  nameOf: (row) => row.name,
  facts: { name: 'names', parts: 'names', notes: 'notes' },
  blank: {},
});
