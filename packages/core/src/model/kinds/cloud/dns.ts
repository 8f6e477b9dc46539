import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { countField, idField, nameField, noted, textField } from '../../fields/field.ts';
import { ipField, mayBeAddress } from '../../fields/ipField.ts';
import { parseIp } from '../../values/ip.ts';
import { isHostName } from '../logical/address.ts';
import { labelsField } from './labels.ts';

/** Names in zones may begin with an underscore (RFC 8552) or be a star for all others (RFC 4592). */
const isRecordName = (text: string): boolean =>
  text === '@' ||
  (text.length <= 253 &&
    text
      .split('.')
      .every(
        (label, at) => (label === '*' && at === 0) || /^[a-z0-9_]([a-z0-9_-]{0,61}[a-z0-9])?$/i.test(label),
      ));

const domainField = (label: string) =>
  noted(z.string().max(253).refine(isHostName, 'is not a domain of letters, digits and hyphens (RFC 1123)'), {
    label,
  });

/** A zone of names (RFC 1034): seen by everybody, or by the networks that it is tied to alone. */
export const dnsZoneSchema = z.strictObject({
  id: idField('Id'),
  name: domainField('Name'),
  isPrivate: noted(z.boolean(), { label: 'Private', help: 'Seen in the networks alone that it is tied to' }),
  ttlS: countField('Time to live', 0, 2147483647, 's'),
  labels: labelsField,
  notes: textField('Notes'),
});
export type DnsZone = z.infer<typeof dnsZoneSchema>;
const zoneTitle = (row: DnsZone): string => `${row.name}${row.isPrivate ? ' (private)' : ''}`;

export const dnsZoneKind = defineKind({
  schema: dnsZoneSchema,
  one: 'DNS zone',
  many: 'DNS zones',
  refs: {},
  indexes: {},
  unique: [uniqueBy<DnsZone>('name', 'isPrivate')],
  nameOf: (row) => row.name,
  titled: zoneTitle,
  facts: { name: 'names', labels: 'notes', notes: 'notes' },
  blank: { isPrivate: true, ttlS: 3600, labels: {}, notes: null },
  section: 'dnsZones',
});

/** A network in which a private zone is seen. */
export const dnsZoneUseSchema = z.strictObject({
  id: idField('Id'),
  zoneId: idField('Zone'),
  networkId: idField('Virtual network'),
});
export type DnsZoneUse = z.infer<typeof dnsZoneUseSchema>;

export const dnsZoneUseKind = defineKind({
  schema: dnsZoneUseSchema,
  one: 'use of a DNS zone',
  many: 'uses of DNS zones',
  refs: {
    zoneId: { to: 'dnsZone', index: 'zoneUsesByZone', onRemove: 'goes' },
    networkId: { to: 'place', index: 'zoneUsesByNetwork', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      ...uniqueBy<DnsZoneUse>('zoneId', 'networkId'),
      meanwhile: (row, name) =>
        `${name('dnsZone', row.zoneId)} is seen in ${name('place', row.networkId)} already.`,
    },
  ],
  nameOf: () => '',
  titled: (row, title) => `${title('dnsZone', row.zoneId)} in ${title('place', row.networkId)}`,
  facts: {},
  blank: {},
  section: 'dnsZoneUses',
  uncounted: true,
});

export const recordTypes = ['A', 'AAAA', 'CNAME', 'MX', 'NS', 'PTR', 'SRV', 'TXT'] as const;
export type RecordType = (typeof recordTypes)[number];

/** What a record of a type holds, and why a text is none of it; null: it is well. */
export function valueFault(type: RecordType, value: string): string | null {
  const name = (text: string): boolean => isRecordName(text.replace(/\.$/, '')) || text === '.';
  switch (type) {
    case 'A':
      return parseIp(value)?.family === 4 ? null : 'is not an IPv4 address such as 10.64.1.10';
    case 'AAAA':
      return parseIp(value)?.family === 6 ? null : 'is not an IPv6 address such as 2001:db8::1';
    case 'CNAME':
    case 'NS':
    case 'PTR':
      return name(value) ? null : 'is not a name such as app.example.';
    case 'MX': {
      const [preference, exchange, ...more] = value.split(/\s+/);
      const good = /^\d{1,5}$/.test(preference ?? '') && Number(preference) <= 65535 && name(exchange ?? '');
      return good && more.length === 0 ? null : 'is not a preference and a name such as 10 mail.example.';
    }
    case 'SRV': {
      const parts = value.split(/\s+/);
      const numbers = parts.slice(0, 3).every((part) => /^\d{1,5}$/.test(part) && Number(part) <= 65535);
      return parts.length === 4 && numbers && name(parts[3] ?? '')
        ? null
        : 'is not priority, weight, port and name such as 10 5 443 app.example. (RFC 2782)';
    }
    case 'TXT':
      return value.length > 0 ? null : 'is empty';
  }
}

/** One record of a zone: name relative to the zone (`@` for the zone itself), type and value (RFC 1035). */
export const dnsRecordSchema = z
  .strictObject({
    id: idField('Id'),
    zoneId: idField('Zone'),
    name: noted(
      z.string().refine(isRecordName, 'is not a name within the zone such as app, or @ for the zone'),
      {
        label: 'Name',
      },
    ),
    type: noted(z.enum(recordTypes), { label: 'Type' }),
    value: noted(mayBeAddress(nameField('Value', 2000)), { label: 'Value' }),
    ttlS: noted(countField('Time to live', 0, 2147483647, 's').nullable(), {
      label: 'Time to live',
      unit: 's',
      help: 'That of the zone where it is empty',
    }),
  })
  .superRefine((row, context) => {
    const fault = valueFault(row.type, row.value);
    if (fault !== null) context.addIssue({ code: 'custom', path: ['value'], message: fault });
    if (row.type === 'CNAME' && row.name === '@')
      context.addIssue({
        code: 'custom',
        path: ['type'],
        message: 'CNAME cannot stand at the zone itself, which has other records (RFC 1034, 3.6.2)',
      });
  });
export type DnsRecord = z.infer<typeof dnsRecordSchema>;

export const blankDnsRecord: Pick<DnsRecord, 'ttlS'> = { ttlS: null };

export const dnsRecordKind = defineKind({
  schema: dnsRecordSchema,
  one: 'DNS record',
  many: 'DNS records',
  refs: { zoneId: { to: 'dnsZone', index: 'recordsByZone', onRemove: 'goes' } },
  indexes: { dnsRecordsByValue: (row) => row.value },
  unique: [
    {
      ...uniqueBy<DnsRecord>('zoneId', 'name', 'type', 'value'),
      meanwhile: (row, name) =>
        `${name('dnsZone', row.zoneId)} holds ${row.name} ${row.type} ${row.value} already.`,
    },
  ],
  nameOf: (row) => `${row.name} ${row.type}`,
  titled: (row, title) => `${row.name} ${row.type} in ${title('dnsZone', row.zoneId)}`,
  facts: { name: 'names', value: 'addresses' },
  blank: blankDnsRecord,
  section: 'dnsRecords',
});

/** Questions for a domain that a network sends to servers elsewhere, such as those of the premises. */
export const dnsForwardSchema = z.strictObject({
  id: idField('Id'),
  networkId: idField('Virtual network'),
  domain: domainField('Domain'),
  servers: noted(z.array(ipField('Server')).min(1, 'are none').max(8, 'are more than 8'), {
    label: 'Servers',
    internal: true,
  }),
});
export type DnsForward = z.infer<typeof dnsForwardSchema>;

export const dnsForwardKind = defineKind({
  schema: dnsForwardSchema,
  one: 'DNS forwarding',
  many: 'DNS forwardings',
  refs: { networkId: { to: 'place', index: 'forwardsByNetwork', onRemove: 'goes' } },
  indexes: {},
  unique: [uniqueBy<DnsForward>('domain', 'networkId')],
  nameOf: (row) => row.domain,
  titled: (row, title) => `${row.domain} from ${title('place', row.networkId)}`,
  facts: { domain: 'names', servers: 'addresses' },
  blank: {},
  section: 'dnsForwards',
});
