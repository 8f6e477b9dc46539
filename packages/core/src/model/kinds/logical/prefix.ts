import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { notActive } from '../../values/status.ts';
import { idField, noted, refField, textField } from '../../fields/field.ts';
import { compareIp, holds, parseIp, parsePrefix } from '../../values/ip.ts';
import { ipField, prefixField } from '../../fields/ipField.ts';

export const prefixRoles = ['pool', 'subnet', 'transit', 'loopback'] as const;
export type PrefixRole = (typeof prefixRoles)[number];
export const rangeUses = ['DHCP', 'reserved'] as const;
/** Where a router stands in a subnet by convention. */
export const gatewayPlaces = ['first', 'last'] as const;

/** A run of addresses of a prefix kept for a use, both ends included. */
export const rangeSchema = z.strictObject({
  use: z.enum(rangeUses),
  from: ipField('From'),
  to: ipField('To'),
  note: z.string().max(120).default(''),
});
export type AddressRange = z.infer<typeof rangeSchema>;

export const prefixSchema = z
  .strictObject({
    id: idField('Id'),
    prefix: prefixField('Prefix'),
    vrfId: refField('VRF'),
    role: noted(z.enum(prefixRoles), { label: 'Role' }),
    name: textField('Name', 120),
    status: noted(z.enum(['planned', 'active', 'retired']), { label: 'Status' }),
    vlanId: refField('VLAN'),
    placeId: refField('Place'),
    gateway: noted(ipField('Gateway').nullable(), { label: 'Gateway' }),
    ranges: noted(z.array(rangeSchema).max(40, 'are more than 40'), { label: 'Ranges', internal: true }),
    notes: textField('Notes'),
  })
  .superRefine((row, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    const prefix = parsePrefix(row.prefix);
    if (prefix === null) return;
    if (prefix.family === 6 && prefix.value >> 118n === 0x3fan)
      issue(
        'prefix',
        'is link-local (fe80::/10): every link has it by itself, it cannot be planned (RFC 4291)',
      );
    if (prefix.family === 6 && prefix.value >> 120n === 0xffn)
      issue('prefix', 'is multicast (ff00::/8), not space for hosts (RFC 4291)');
    if (prefix.family === 4 && prefix.value >> 28n === 0xen)
      issue('prefix', 'is multicast (224.0.0.0/4), not space for hosts (RFC 5771)');
    const gateway = row.gateway === null ? null : parseIp(row.gateway);
    if (gateway !== null && !holds(prefix, gateway)) issue('gateway', `is outside ${row.prefix}`);
    if (row.role === 'pool' && row.gateway !== null)
      issue('gateway', 'is given for a pool, which has no hosts');
    if (row.role === 'pool' && row.vlanId !== null)
      issue('vlanId', 'is given for a pool, which has no hosts');
    row.ranges.forEach(({ from, to, use }, at) => {
      const [first, last] = [parseIp(from), parseIp(to)];
      if (first === null || last === null) return;
      if (!holds(prefix, first) || !holds(prefix, last))
        issue('ranges', `hold ${use} ${from} to ${to}, which is not inside ${row.prefix}`);
      else if (compareIp(first, last) > 0)
        issue('ranges', `hold ${use} ${from} to ${to}, which runs backwards`);
      for (const other of row.ranges.slice(at + 1)) {
        const [otherFirst, otherLast] = [parseIp(other.from), parseIp(other.to)];
        if (otherFirst === null || otherLast === null) continue;
        if (compareIp(first, otherLast) <= 0 && compareIp(otherFirst, last) <= 0)
          issue('ranges', `hold ${from} to ${to} and ${other.from} to ${other.to}, which overlap`);
      }
    });
  });
export type Prefix = z.infer<typeof prefixSchema>;

/** A prefix with nothing filled in. */
export const blankPrefix: Omit<Prefix, 'id' | 'prefix'> = {
  vrfId: null,
  role: 'subnet',
  name: null,
  status: 'active',
  vlanId: null,
  placeId: null,
  gateway: null,
  ranges: [],
  notes: null,
};

export const prefixKind = defineKind({
  schema: prefixSchema,
  one: 'prefix',
  many: 'prefixes',
  refs: {
    vrfId: { to: 'vrf', index: 'prefixesByVrf', onRemove: 'holds', none: 'global' },
    vlanId: { to: 'vlan', index: 'prefixesByVlan', onRemove: 'cleared' },
    placeId: { to: 'place', index: 'prefixesByPlace', onRemove: 'holds' },
  },
  indexes: {
    prefixesByStatus: (row) => notActive(row),
  },
  unique: [{ what: 'prefix', key: (row) => `${row.vrfId ?? ''} ${row.prefix}` }],
  nameOf: (row) => row.prefix,
  facts: { prefix: 'addresses', gateway: 'addresses', ranges: 'addresses', name: 'names', notes: 'notes' },
  blank: blankPrefix,
});
