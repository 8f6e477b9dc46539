import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { countField, idField, noted, refField, textField } from '../../fields/field.ts';
import { parseIp, parsePrefix } from '../../values/ip.ts';
import { ipField, prefixField } from '../../fields/ipField.ts';

/** A static route of a device: to a next hop, out of a port, or nowhere (a summary that is not to leak). */
export const routeSchema = z
  .strictObject({
    id: idField('Id'),
    deviceId: idField('Device'),
    vrfId: refField('VRF'),
    prefix: prefixField('Destination'),
    via: noted(ipField('Next hop').nullable(), { label: 'Next hop' }),
    viaPortId: refField('Out of'),
    discard: noted(z.boolean(), { label: 'Discard', help: 'Drops what matches nothing longer' }),
    distance: countField('Distance', 1, 255),
    notes: textField('Notes'),
  })
  .superRefine((route, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    const prefix = parsePrefix(route.prefix);
    const via = route.via === null ? null : parseIp(route.via);
    if (prefix !== null && via !== null && prefix.family !== via.family)
      issue('via', `is an IPv${via.family} address, the destination is IPv${prefix.family}`);
    const ways = [route.via !== null || route.viaPortId !== null, route.discard].filter(Boolean).length;
    if (ways !== 1) issue('via', 'is missing: give a next hop or a port, or discard');
  });
export type Route = z.infer<typeof routeSchema>;
export const blankRoute: Omit<Route, 'id' | 'deviceId' | 'prefix'> = {
  vrfId: null,
  via: null,
  viaPortId: null,
  discard: false,
  distance: 1,
  notes: null,
};

const asNumber = (label: string) => countField(label, 1, 4294967294);
export const addressFamilies = ['IPv4', 'IPv6'] as const;

/** One side of a BGP session (RFC 4271), as its device is set. */
export const bgpSessionSchema = z.strictObject({
  id: idField('Id'),
  deviceId: idField('Device'),
  vrfId: refField('VRF'),
  neighbour: ipField('Neighbour'),
  remoteAs: asNumber('AS of the neighbour'),
  families: noted(z.array(z.enum(addressFamilies)).min(1, 'are none'), { label: 'Families' }),
  announces: noted(z.array(prefixField('Prefix')).max(500, 'are more than 500'), {
    label: 'Announces',
    help: 'Prefixes that this side tells the neighbour',
    internal: true,
  }),
  notes: textField('Notes'),
});
export type BgpSession = z.infer<typeof bgpSessionSchema>;
export const blankBgpSession: Omit<BgpSession, 'id' | 'deviceId' | 'neighbour' | 'remoteAs'> = {
  vrfId: null,
  families: ['IPv4'],
  announces: [],
  notes: null,
};

/** A port's part in a group that shares a virtual address (VRRP, RFC 9568). */
export const redundancySchema = z.strictObject({
  id: idField('Id'),
  portId: idField('Port'),
  group: countField('Group', 1, 255),
  virtual: ipField('Virtual address'),
  priority: countField('Priority', 1, 255),
});
export type Redundancy = z.infer<typeof redundancySchema>;
export const blankRedundancy: Pick<Redundancy, 'priority'> = { priority: 100 };

/** `0` or `0.0.0.1`: an area is a 32-bit number, written either way (RFC 2328). */
export const isArea = (text: string): boolean =>
  (/^\d{1,10}$/.test(text) && Number(text) <= 0xffffffff) || parseIp(text)?.family === 4;

export const ospfNetworks = ['broadcast', 'point-to-point'] as const;
/** How a port takes part in OSPF (RFC 2328). A cost of null follows from the speed. */
export const ospfSchema = z.strictObject({
  area: z.string().refine(isArea, 'has an area that is neither a number nor like 0.0.0.1'),
  cost: z.int().min(1, 'has a cost below 1').max(65535, 'has a cost above 65535').nullable().default(null),
  passive: z.boolean().default(false),
  network: z.enum(ospfNetworks).default('broadcast'),
});
export type Ospf = z.infer<typeof ospfSchema>;

export const routeKind = defineKind({
  schema: routeSchema,
  one: 'static route',
  many: 'static routes',
  refs: {
    deviceId: { to: 'device', index: 'routesByDevice', onRemove: 'goes' },
    vrfId: { to: 'vrf', index: 'routesByVrf', onRemove: 'holds' },
    viaPortId: { to: 'port', index: 'routesByPort', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      what: 'prefix',
      key: (row) => `${row.deviceId} ${row.vrfId ?? ''} ${row.prefix} ${row.via ?? row.viaPortId ?? ''}`,
    },
  ],
  nameOf: (row) => row.prefix,
  titled: (row, title) => `${title('device', row.deviceId)} to ${row.prefix}`,
  facts: { prefix: 'addresses', via: 'addresses', notes: 'notes' },
  blank: blankRoute,
});

export const bgpSessionKind = defineKind({
  schema: bgpSessionSchema,
  one: 'BGP session',
  many: 'BGP sessions',
  refs: {
    deviceId: { to: 'device', index: 'bgpSessionsByDevice', onRemove: 'goes' },
    vrfId: { to: 'vrf', index: 'bgpSessionsByVrf', onRemove: 'holds' },
  },
  indexes: {},
  unique: [{ what: 'neighbour', key: (row) => `${row.deviceId} ${row.vrfId ?? ''} ${row.neighbour}` }],
  nameOf: (row) => row.neighbour,
  titled: (row, title) => `${title('device', row.deviceId)} to ${row.neighbour}`,
  facts: { neighbour: 'addresses', remoteAs: 'addresses', announces: 'addresses', notes: 'notes' },
  blank: blankBgpSession,
});

export const redundancyKind = defineKind({
  schema: redundancySchema,
  one: 'redundancy group',
  many: 'redundancy groups',
  refs: {
    portId: { to: 'port', index: 'redundanciesByPort', onRemove: 'goes' },
  },
  indexes: {
    redundanciesByVirtual: (row) => row.virtual,
  },
  unique: [{ what: 'group', key: (row) => `${row.portId} ${row.group} ${row.virtual}` }],
  nameOf: (row) => `group ${row.group}`,
  titled: (row, title) => `${title('port', row.portId)} group ${row.group}`,
  facts: { virtual: 'addresses' },
  blank: blankRedundancy,
});
