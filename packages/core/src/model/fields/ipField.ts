import { z } from 'zod';
import { noted } from './field.ts';
import { formatIp, parseInterface, parseIp, readPrefix } from '../values/ip.ts';

/** How an address is written in a field: alone, with the length of its prefix, or the prefix itself. */
export type AddressForm = 'host' | 'interface' | 'prefix';
/** Which schemas are of addresses, so that it can be told of every kind which of its fields hold them. */
export const addressForms = z.registry<{ form: AddressForm }>();
const holding = <T extends z.ZodType>(form: AddressForm, schema: T): T => {
  addressForms.add(schema, { form });
  return schema;
};

const unlike = 'is not an address such as 10.40.8.1 or 2001:db8::1';

/** A text that may be an address, such as the value of a DNS record. */
export const mayBeAddress = <T extends z.ZodType>(schema: T): T => holding('host', schema);

/** A prefix in its one text: `10.40.8.0/22`, IPv6 after RFC 5952. */
export const prefixField = (label: string) =>
  noted(
    holding(
      'prefix',
      z.string().superRefine((text, context) => {
        const read = readPrefix(text);
        if (!read.ok) return context.addIssue({ code: 'custom', message: read.reason });
        const canonical = `${formatIp(read.prefix)}/${read.prefix.length}`;
        if (canonical !== text)
          context.addIssue({ code: 'custom', message: `is to be written ${canonical}` });
      }),
    ),
    { label },
  );

/** An address in its one text. */
export const ipField = (label: string, help?: string) =>
  noted(
    holding(
      'host',
      z.string().superRefine((text, context) => {
        const ip = parseIp(text);
        if (ip === null) context.addIssue({ code: 'custom', message: unlike });
        else if (formatIp(ip) !== text)
          context.addIssue({ code: 'custom', message: `is to be written ${formatIp(ip)}` });
      }),
    ),
    { label, help },
  );

/** An address with its prefix length, in its one text: `10.40.8.1/22`. */
export const interfaceField = (label: string) =>
  noted(
    holding(
      'interface',
      z.string().superRefine((text, context) => {
        const read = text.includes('/') ? parseInterface(text) : null;
        if (read === null)
          return context.addIssue({
            code: 'custom',
            message: 'is not an address with its prefix length, such as 10.40.8.1/22',
          });
        const canonical = `${formatIp(read.address)}/${read.length}`;
        if (canonical !== text)
          context.addIssue({ code: 'custom', message: `is to be written ${canonical}` });
      }),
    ),
    { label },
  );
