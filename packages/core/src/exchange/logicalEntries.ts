import { z } from 'zod';
import { addressUses } from '../model/kinds/logical/address.ts';
import { lacpModes, portForms } from '../model/kinds/lines/port.ts';
import { prefixSchema, rangeSchema } from '../model/kinds/logical/prefix.ts';
import { addressFamilies, ospfSchema } from '../model/kinds/logical/routing.ts';
import { siteTemplateSchema, templatePartSchema } from '../model/kinds/logical/siteTemplate.ts';
import { portSpanningTreeSchema } from '../model/kinds/logical/spanningTree.ts';
import { portModes, vlanSchema } from '../model/kinds/logical/vlan.ts';
import { vrfSchema } from '../model/kinds/logical/vrf.ts';
import { vidSchema, vidsSchema } from '../model/values/vids.ts';

const name = z.string().min(1);
const text = z.string().nullable().optional();
const vid = vidSchema.nullable().optional();
const vids = vidsSchema.nullable().optional();

export const vrfEntry = vrfSchema.omit({ id: true }).partial().extend({ name });

export const vlanEntry = vlanSchema
  .omit({ id: true, numberingId: true, vrfId: true })
  .partial()
  .extend({ vid: vidSchema, name, vrf: text.describe('Name of the VRF its prefixes are in') });

export const vlanNumberingEntry = z.strictObject({ name, notes: text, vlans: z.array(vlanEntry).optional() });

export const portProfileEntry = z.strictObject({
  name,
  mode: z.enum(portModes),
  untagged: vid,
  tagged: vids,
  voice: vid,
  notes: text,
});

const { prefix, role, status, gateway } = prefixSchema.shape;
export const prefixEntry = z.strictObject({
  prefix,
  vrf: text.describe('Name of the VRF; left out for the global table'),
  role: role.optional(),
  name: text,
  status: status.optional(),
  vlan: text.describe('VLAN numbering and number: shore/20'),
  place: text.describe('Path of the place it serves'),
  gateway: gateway.optional(),
  ranges: z.array(rangeSchema).optional(),
  notes: text,
});

/** An address of a port: its text alone where nothing else is to be said. */
export const portAddressEntry = z.union([
  z.string(),
  z.strictObject({
    address: name,
    vrf: text.describe('Where it is not that of the port'),
    use: z.enum(addressUses).optional(),
    dnsName: text,
    notes: text,
  }),
]);

/** An address that no port has. */
export const reservedEntry = z.strictObject({ address: name, vrf: text, dnsName: text, notes: text });

/** What of a port is configured, beside its connector. */
export const logicalPortFields = {
  form: z.enum(portForms).optional(),
  mode: z.enum(portModes).nullable().optional(),
  untagged: vid,
  tagged: vids.describe('VLAN numbers in order, or "all"'),
  voice: vid,
  vlanNumbering: text.describe('Numbering that holds on this port, where it is not that of its place'),
  members: z.array(name).optional().describe('Of an aggregate: names of ports of the same device'),
  lacp: z.enum(lacpModes).nullable().optional(),
  over: text.describe('Port of the same device that a subinterface or a tunnel runs over'),
  vid: vid.describe('Of a VLAN interface or a subinterface'),
  innerVid: vid,
  vrf: text,
  farAddress: text,
  ospf: ospfSchema.nullable().optional(),
  spanningTree: portSpanningTreeSchema.nullable().optional(),
  addresses: z.array(portAddressEntry).optional(),
  redundancy: z
    .array(z.strictObject({ group: z.int(), virtual: name, priority: z.int().optional() }))
    .optional()
    .describe('Its part in groups that share a virtual address'),
};

export const routeEntry = z.strictObject({
  vrf: text,
  prefix: name,
  via: text,
  out: text.describe('Port of the same device'),
  discard: z.boolean().optional(),
  distance: z.int().optional(),
  notes: text,
});

export const bgpEntry = z.strictObject({
  vrf: text,
  neighbour: name,
  remoteAs: z.int(),
  families: z.array(z.enum(addressFamilies)).optional(),
  announces: z.array(name).optional().describe('Prefixes that this side tells the neighbour'),
  notes: text,
});

export const siteTemplateEntry = siteTemplateSchema
  .omit({ id: true, parts: true })
  .partial()
  .extend({ name, parts: z.array(templatePartSchema) });
