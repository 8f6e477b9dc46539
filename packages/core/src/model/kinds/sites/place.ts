import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { isOneOf } from '../../values/words.ts';
import { amountField, idField, nameField, noted, refField, textField } from '../../fields/field.ts';

/** From the outermost in. A vessel or a vehicle is a site; any depth may be skipped. */
export const premisesKinds = ['site', 'building', 'floor', 'room', 'row'] as const;
/** Places of a cloud: an account holds regions, a region its zones and virtual networks. */
export const cloudPlaceKinds = ['account', 'region', 'zone', 'network'] as const;
export const placeKinds = [...premisesKinds, ...cloudPlaceKinds] as const;
export type PlaceKind = (typeof placeKinds)[number];
export type CloudPlaceKind = (typeof cloudPlaceKinds)[number];
export const isCloudPlaceKind = (kind: PlaceKind): kind is CloudPlaceKind => isOneOf(cloudPlaceKinds, kind);
/** What a place of a kind is called. */
export const placeKindTitle = (kind: PlaceKind): string => (kind === 'network' ? 'virtual network' : kind);

const degrees = (label: string, most: number) =>
  noted(z.number().min(-most, `is below -${most}`).max(most, `is above ${most}`).nullable(), {
    label,
    unit: '°',
    help: 'Decimal degrees, WGS 84',
  });

/** Where a place lies within its site, from a corner that all its places share. */
const metres = (label: string) =>
  noted(z.number().min(-5000, 'is below -5000').max(5000, 'is above 5000').nullable(), {
    label,
    unit: 'm',
    help: 'From a corner that all places of the site share',
  });

export const placeSchema = z
  .strictObject({
    id: idField('Id'),
    name: nameField('Name').refine(
      (name) => !name.includes('/'),
      'contains a slash, which separates places in a path',
    ),
    kind: noted(z.enum(placeKinds), { label: 'Kind' }),
    parentId: refField('Inside'),
    code: noted(
      z
        .string()
        .regex(/^[A-Za-z0-9]{1,8}$/, 'is not 1 to 8 letters or digits')
        .nullable(),
      { label: 'Site code', help: 'Starts device names and cable labels of the site' },
    ),
    address: textField('Street address', 300),
    latitude: degrees('Latitude', 90),
    longitude: degrees('Longitude', 180),
    contacts: textField('Contacts', 1000, 'One person a line: name, duty, telephone'),
    trayHeightM: amountField('Tray height', 30, 'm', 'Height of the cable tray above the floor'),
    eastM: metres('East'),
    northM: metres('North'),
    levelM: metres('Level'),
    vlanNumberingId: refField('VLAN numbering'),
    notes: textField('Notes'),
  })
  .superRefine((place, context) => {
    if ((place.latitude === null) !== (place.longitude === null)) {
      const field = place.latitude === null ? 'latitude' : 'longitude';
      context.addIssue({
        code: 'custom',
        path: [field],
        message: 'is missing although the other coordinate is given',
      });
    }
  });
export type Place = z.infer<typeof placeSchema>;

/** A place with nothing filled in. */
export const blankPlace: Omit<Place, 'id' | 'name' | 'kind'> = {
  parentId: null,
  code: null,
  address: null,
  latitude: null,
  longitude: null,
  contacts: null,
  trayHeightM: null,
  eastM: null,
  northM: null,
  levelM: null,
  vlanNumberingId: null,
  notes: null,
};

export const placeKind = defineKind({
  schema: placeSchema,
  one: 'place',
  many: 'places',
  refs: {
    parentId: { to: 'place', index: 'placesByParent', onRemove: 'holds', none: 'root' },
    vlanNumberingId: { to: 'vlanNumbering', index: 'placesByVlanNumbering', onRemove: 'holds' },
  },
  indexes: {},
  unique: [
    { what: 'name', key: (row) => `${row.parentId ?? ''}/${row.name}` },
    { what: 'code', key: (row) => row.code ?? '' },
  ],
  nameOf: (row) => row.name,
  facts: {
    name: 'names',
    code: 'names',
    address: 'whereabouts',
    latitude: 'whereabouts',
    longitude: 'whereabouts',
    contacts: 'whereabouts',
    notes: 'notes',
  },
  blank: blankPlace,
});
