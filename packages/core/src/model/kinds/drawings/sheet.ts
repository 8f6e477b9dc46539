import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, nameField, noted, refField, uuid } from '../../fields/field.ts';
import { facets, type Facet } from '../../values/facts.ts';
import { roleCodes } from '../../values/roles.ts';
import { projections, usualFacets } from './projections.ts';

export { facets, type Facet };

/** Those that the labels of a link can tell. */
export const linkFacets = [
  'portNames',
  'addresses',
  'vlanTags',
  'subnets',
  'costs',
  'speeds',
  'cableLabels',
  'lengths',
  'media',
] as const;
export type LinkFacet = (typeof linkFacets)[number];
const facetList = (label: string) => noted(z.array(z.enum(facets)), { label, internal: true });

/** How links of one purpose that leave one plate are drawn: as one line, in lanes beside each other, each by itself. */
export const bundleManners = ['closed', 'open', 'never'] as const;
export type BundleManner = (typeof bundleManners)[number];
const bundlesSchema = z.strictObject({
  drawn: z.enum(bundleManners),
  /** Where a person wants it otherwise: by the device that the links leave, and what they are for. */
  own: z
    .array(
      z.strictObject({
        deviceId: uuid(),
        purpose: z.string().min(1).max(40),
        drawn: z.enum(bundleManners),
      }),
    )
    .max(500, 'are more than 500'),
});

/** What the arrows of a cloud sheet tell: where packets are sent, who may call whom, or nothing. */
export const arrowKinds = ['routes', 'rules', 'none'] as const;
export type ArrowKind = (typeof arrowKinds)[number];

/** How the model is turned into plates and links. */
export const readingSchema = z.strictObject({
  /** Panels are passed through: links join the active ends of each run. */
  throughPanels: z.boolean(),
  racks: z.boolean(),
  /** Devices of a redundant pair or stack, such as kq-fw-1 and kq-fw-2, are one plate. */
  pairs: z.boolean(),
  /** Folds that a person has opened, by their id; true opens all. */
  unfolded: z.union([z.literal(true), z.array(z.string().max(200)).max(2000)]),
  /** What happens to devices that come into the scope later: they place themselves, or wait in a tray. */
  newcomers: z.enum(['place', 'wait']),
  straight: z.boolean(),
  /** Ends of links say whole addresses, not only the part that the prefix of the link leaves open. */
  wholeAddresses: z.boolean().optional(),
  /** Devices that a person drew as one plate, "5 phones": each list is one. Those no longer there are passed over. */
  gathered: z.array(z.array(uuid()).min(2, 'is of fewer than two').max(2000)).max(500).optional(),
  bundles: bundlesSchema.optional(),
  /** Of a cloud sheet; routes where it is not said. */
  arrows: z.enum(arrowKinds).optional(),
});
export type Reading = z.infer<typeof readingSchema>;
/** How the ids of plates begin that a person gathered. */
export const ownFold = 'fold:own/';
export const plainReading: Reading = {
  throughPanels: false,
  racks: false,
  pairs: false,
  unfolded: [],
  newcomers: 'place',
  straight: false,
};

/** Width and height in millimetres, upright: ISO 216 and ANSI/ASME Y14.1. */
export const paperSizes = {
  A4: [210, 297],
  A3: [297, 420],
  A2: [420, 594],
  A1: [594, 841],
  A0: [841, 1189],
  Letter: [215.9, 279.4],
  Legal: [215.9, 355.6],
  Tabloid: [279.4, 431.8],
  'ANSI C': [431.8, 558.8],
  'ANSI D': [558.8, 863.6],
} as const;
export type PaperSize = keyof typeof paperSizes;
const isPaperSize = (name: string): name is PaperSize => name in paperSizes;
export const paperNames: readonly PaperSize[] = Object.keys(paperSizes).filter(isPaperSize);

export const pageSchema = z.strictObject({
  size: z.enum(paperNames),
  landscape: z.boolean(),
  marginMm: z.number().min(0, 'is negative').max(50, 'is above 50'),
  /** One page that the drawing is fitted to, or as many as it needs at the scale. */
  fit: z.boolean(),
  /** Size on tiled paper of what is 100 % on the screen (96 units an inch). */
  scale: z.number().min(0.1, 'is below 0.1').max(4, 'is above 4'),
  /** What is laid out is laid out for the shape of this paper, not for that of a window. */
  composed: z.boolean().optional(),
});
export type Page = z.infer<typeof pageSchema>;
export const plainPage: Page = { size: 'A3', landscape: true, marginMm: 10, fit: true, scale: 0.5 };

/** A saved choice of what is shown, such as "For the field team". */
export const viewSchema = z.strictObject({
  name: z.string().trim().min(1, 'is empty').max(60),
  show: z.array(z.enum(facets)),
  faded: z.array(z.enum(facets)),
  locked: z.array(z.enum(facets)),
});
export type FacetView = z.infer<typeof viewSchema>;

/** A group a person made on a sheet: devices and marks by id. Those that are no longer there are passed over. */
export const groupSchema = z.strictObject({
  id: uuid(),
  name: z.string().trim().min(1, 'is empty').max(60),
  members: z.array(uuid()).max(5000),
  state: z.enum(['shown', 'faded', 'hidden', 'locked']),
});
export type SheetGroup = z.infer<typeof groupSchema>;

/** Lines below the name of a plate, with facts in braces; by role, or for all that have none of their own. */
const templatesSchema = z.partialRecord(z.enum(['all', ...roleCodes]), z.string().max(300));
export type Templates = z.infer<typeof templatesSchema>;

/** One saved drawing: how the model is read, for which place, and what is shown. Never facts. */
export const sheetSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name'),
  projection: noted(z.enum(projections), { label: 'Projection' }),
  scopeId: refField('Scope'),
  vlanId: refField('VLAN'),
  vrfId: refField('VRF'),
  picked: noted(z.boolean(), {
    label: 'Picked devices only',
    help: 'Draws the devices put on it by hand rather than all of a place',
  }),
  show: facetList('Shown'),
  faded: facetList('Faded'),
  locked: facetList('Locked'),
  reading: noted(readingSchema, { label: 'Reading', internal: true }),
  templates: noted(templatesSchema, { label: 'Label templates', internal: true }),
  colourBy: noted(z.string().min(1).max(60), { label: 'Colour by' }),
  page: noted(pageSchema, { label: 'Page', internal: true }),
  views: noted(z.array(viewSchema).max(30, 'are more than 30'), { label: 'Saved views', internal: true }),
  groups: noted(z.array(groupSchema).max(60, 'are more than 60'), { label: 'Groups', internal: true }),
  position: noted(z.int().min(1, 'is below 1').max(100_000, 'is above 100000').nullable(), {
    label: 'Order',
    help: 'Among the sheets of the project; those without one come last, by name',
  }),
});
export type Sheet = z.infer<typeof sheetSchema>;

/** A sheet on which nothing was chosen yet. */
export const blankSheet: Omit<Sheet, 'id' | 'name'> = {
  projection: 'cabling',
  scopeId: null,
  vlanId: null,
  vrfId: null,
  picked: false,
  show: [...usualFacets],
  faded: [],
  locked: [],
  reading: plainReading,
  templates: {},
  colourBy: 'role',
  page: plainPage,
  views: [],
  groups: [],
  position: null,
};

export type FacetState = 'shown' | 'faded' | 'locked' | 'hidden';
export const facetStates: readonly FacetState[] = ['shown', 'faded', 'locked', 'hidden'];

export const facetState = (sheet: Pick<Sheet, 'show' | 'faded' | 'locked'>, facet: Facet): FacetState =>
  !sheet.show.includes(facet)
    ? 'hidden'
    : sheet.faded.includes(facet)
      ? 'faded'
      : sheet.locked.includes(facet)
        ? 'locked'
        : 'shown';

export const sheetKind = defineKind({
  schema: sheetSchema,
  one: 'sheet',
  many: 'sheets',
  paper: true,
  refs: {
    scopeId: { to: 'place', index: 'sheetsByScope', onRemove: 'holds', none: 'root' },
    vlanId: { to: 'vlan', index: 'sheetsByVlan', onRemove: 'cleared' },
    vrfId: { to: 'vrf', index: 'sheetsByVrf', onRemove: 'cleared' },
  },
  indexes: {},
  unique: [{ what: 'name', key: (row) => row.name }],
  nameOf: (row) => row.name,
  facts: { name: 'names', views: 'names', groups: 'names', templates: 'notes', colourBy: 'notes' },
  blank: blankSheet,
});
