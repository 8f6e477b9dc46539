import { z } from 'zod';
import { connectorNames } from '../../values/connectors.ts';
import { amountField, nameField } from '../../fields/field.ts';
import { expandPortPattern } from '../../values/portPattern.ts';

export const portRoles = [
  'network',
  'uplink',
  'management',
  'console',
  'powerIn',
  'powerOut',
  'panel',
] as const;
export const mdiTypes = ['auto', 'MDI', 'MDI-X'] as const;
export type PortRole = (typeof portRoles)[number];

const pattern = nameField('Pattern', 60).superRefine((text, context) => {
  const result = expandPortPattern(text);
  if (!result.ok) context.addIssue({ code: 'custom', message: result.reason });
});

/** Ports a model brings: names from a pattern, what they are, and how they sit on the face. */
export const portGroupSchema = z.strictObject({
  pattern,
  connector: z.enum(connectorNames),
  speedBps: amountField('Speed', 1e13, 'bit/s').default(null),
  role: z.enum(portRoles).default('network'),
  face: z.enum(['front', 'rear']).default('front'),
  rows: z.int().min(1).max(4).default(1),
  /** down: 1 above 2, as on most switches; across: a row is filled before the next begins. */
  order: z.enum(['down', 'across']).default('down'),
  /** A gap after every so many columns; 0 for none. */
  block: z.int().min(0).max(48).default(0),
  /** For pass-through ports: the names of their partners on the other face, in the same order. */
  rearPattern: pattern.nullable().default(null),
  /** In a cassette the partners differ: several of these ports share one rear port, strand after strand. */
  rearConnector: z.enum(connectorNames).nullable().default(null),
  /** How the pairs of a copper port are wired (IEEE 802.3 clause 14.5.2); auto crosses by itself as needed. */
  mdi: z.enum(mdiTypes).default('auto'),
  /** Highest class of powered device each port can feed (IEEE 802.3bt table 145-11); null: no PoE. */
  poeClass: z.int().min(1).max(8).nullable().default(null),
  /** The phase these power outlets hang on, in a three-phase strip. */
  phase: z.int().min(1).max(3).nullable().default(null),
});
export type PortGroup = z.infer<typeof portGroupSchema>;

/** The names of a group on one of its faces; empty where the pattern cannot be read. */
export function groupNames(
  group: PortGroup,
  side: 'own' | 'other',
  slot: number | string = 1,
): readonly string[] {
  const text = side === 'own' ? group.pattern : group.rearPattern;
  const result = text === null ? null : expandPortPattern(text, slot);
  return result?.ok ? result.names : [];
}
