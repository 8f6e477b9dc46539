import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, nameField, noted, refField, textField } from '../../fields/field.ts';
import { vidSchema, vidsSchema } from '../../values/vids.ts';
import { colourField } from './vrf.ts';

/** A numbering of VLANs. It holds in the places that name it, and in what is inside them. */
export const vlanNumberingSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name', 40).refine(
    (name) => !name.includes('/'),
    'contains a slash, which separates numbering and number',
  ),
  notes: textField('Notes'),
});
export type VlanNumbering = z.infer<typeof vlanNumberingSchema>;

export const vlanSchema = z.strictObject({
  id: idField('Id'),
  numberingId: idField('VLAN numbering'),
  vid: noted(vidSchema, { label: 'Number' }),
  name: nameField('Name', 60),
  purpose: textField('Purpose', 200),
  colour: colourField,
  vrfId: refField('VRF'),
  unused: noted(z.boolean(), {
    label: 'Parking',
    help: 'Ports are put here to be cut off: nothing is meant to use it',
  }),
  notes: textField('Notes'),
});
export type Vlan = z.infer<typeof vlanSchema>;

/** A VLAN with nothing filled in. */
export const blankVlan: Omit<Vlan, 'id' | 'numberingId' | 'vid' | 'name'> = {
  purpose: null,
  colour: 0,
  vrfId: null,
  unused: false,
  notes: null,
};

export const portModes = ['access', 'trunk', 'routed'] as const;
export type PortMode = (typeof portModes)[number];

/** How a kind of port is set, to be given to many. */
export const portProfileSchema = z
  .strictObject({
    id: idField('Id'),
    name: nameField('Name', 40),
    mode: noted(z.enum(portModes), { label: 'Mode' }),
    untaggedVid: noted(vidSchema.nullable(), { label: 'Untagged VLAN' }),
    taggedVids: noted(vidsSchema.nullable(), { label: 'Tagged VLANs' }),
    voiceVid: noted(vidSchema.nullable(), { label: 'Voice VLAN' }),
    notes: textField('Notes'),
  })
  .superRefine((profile, context) => {
    for (const { field, message } of switchingFaults(profile))
      context.addIssue({ code: 'custom', path: [field], message });
  });
export type PortProfile = z.infer<typeof portProfileSchema>;

/** What VLANs a port takes part in. */
export interface PortSwitching {
  mode: PortMode | null;
  untaggedVid: number | null;
  taggedVids: number[] | 'all' | null;
  voiceVid: number | null;
}

/** What contradicts itself in how a port is set. */
export function switchingFaults({
  mode,
  untaggedVid,
  taggedVids,
  voiceVid,
}: PortSwitching): { field: keyof PortSwitching; message: string }[] {
  const faults: { field: keyof PortSwitching; message: string }[] = [];
  if (mode !== 'trunk' && taggedVids !== null)
    faults.push({ field: 'taggedVids', message: 'are given although the port is not a trunk' });
  if (mode !== 'access' && voiceVid !== null)
    faults.push({ field: 'voiceVid', message: 'is given although the port is not an access port' });
  if ((mode === null || mode === 'routed') && untaggedVid !== null)
    faults.push({ field: 'untaggedVid', message: `is given although the port is ${mode ?? 'not switched'}` });
  if (untaggedVid !== null && Array.isArray(taggedVids) && taggedVids.includes(untaggedVid))
    faults.push({
      field: 'taggedVids',
      message: `hold ${untaggedVid}, which goes untagged on the same port`,
    });
  if (untaggedVid !== null && voiceVid === untaggedVid)
    faults.push({ field: 'voiceVid', message: `is ${voiceVid}, which goes untagged on the same port` });
  return faults;
}

export const vlanNumberingKind = defineKind({
  schema: vlanNumberingSchema,
  one: 'VLAN numbering',
  many: 'VLAN numberings',
  refs: {},
  indexes: {
    vlanNumberingByName: (row) => row.name.toLowerCase(),
  },
  unique: [{ what: 'name', key: (row) => row.name }],
  nameOf: (row) => row.name,
  facts: { name: 'vlans', notes: 'notes' },
  blank: {},
});

export const vlanKind = defineKind({
  schema: vlanSchema,
  one: 'VLAN',
  many: 'VLANs',
  refs: {
    numberingId: { to: 'vlanNumbering', index: 'vlansByNumbering', onRemove: 'holds' },
    vrfId: { to: 'vrf', index: 'vlansByVrf', onRemove: 'holds' },
  },
  indexes: {
    vlanByNumber: (row) => `${row.numberingId}/${row.vid}`,
  },
  unique: [
    {
      what: 'vid',
      key: (row) => `${row.numberingId}/${row.vid}`,
      next: (row) => (row.vid < 4094 ? row.vid + 1 : null),
    },
    { what: 'name', key: (row) => `${row.numberingId}/${row.name}` },
  ],
  nameOf: (row) => `${row.vid} ${row.name}`,
  titled: (row) => `VLAN ${row.vid} ${row.name}`,
  facts: { vid: 'vlans', name: 'vlans', purpose: 'vlans', notes: 'notes' },
  blank: blankVlan,
});

export const portProfileKind = defineKind({
  schema: portProfileSchema,
  one: 'port profile',
  many: 'port profiles',
  refs: {},
  indexes: {
    portProfileByName: (row) => row.name.toLowerCase(),
  },
  unique: [{ what: 'name', key: (row) => row.name }],
  nameOf: (row) => row.name,
  facts: { name: 'vlans', untaggedVid: 'vlans', taggedVids: 'vlans', voiceVid: 'vlans', notes: 'notes' },
  blank: {},
});
