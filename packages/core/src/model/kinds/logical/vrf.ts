import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, nameField, noted, textField } from '../../fields/field.ts';
import { parseIp } from '../../values/ip.ts';

/** VLANs and VRFs take a colour of a fixed set, by its place in it. */
export const colourCount = 12;
export const colourField = noted(
  z
    .int()
    .min(0, 'is not a colour of the set')
    .max(colourCount - 1, 'is not a colour of the set'),
  { label: 'Colour' },
);

/** `65010:40` or `10.43.255.1:40` (RFC 4364 section 4.2). */
const isRouteDistinguisher = (text: string): boolean => {
  const colon = text.lastIndexOf(':');
  const [administrator, assigned] = [text.slice(0, colon), Number(text.slice(colon + 1))];
  if (colon < 1 || !/^\d+$/.test(text.slice(colon + 1))) return false;
  if (parseIp(administrator)?.family === 4) return assigned <= 0xffff;
  if (!/^\d+$/.test(administrator)) return false;
  const number = Number(administrator);
  return number <= 0xffff ? assigned <= 0xffffffff : number <= 0xffffffff && assigned <= 0xffff;
};

export const vrfSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name', 40),
  routeDistinguisher: noted(
    z.string().refine(isRouteDistinguisher, 'is not a number or an address, a colon and a number').nullable(),
    { label: 'Route distinguisher', help: 'RFC 4364: 65010:40 or 10.43.255.1:40' },
  ),
  colour: colourField,
  notes: textField('Notes'),
});
export type Vrf = z.infer<typeof vrfSchema>;

/** A VRF with nothing filled in. */
export const blankVrf: Omit<Vrf, 'id' | 'name'> = { routeDistinguisher: null, colour: 0, notes: null };

export const vrfKind = defineKind({
  schema: vrfSchema,
  one: 'VRF',
  many: 'VRFs',
  refs: {},
  indexes: {
    vrfByName: (row) => row.name.toLowerCase(),
  },
  unique: [
    { what: 'name', key: (row) => row.name },
    { what: 'routeDistinguisher', key: (row) => row.routeDistinguisher ?? '' },
  ],
  nameOf: (row) => row.name,
  facts: { name: 'names', routeDistinguisher: 'addresses', notes: 'notes' },
  blank: blankVrf,
});
