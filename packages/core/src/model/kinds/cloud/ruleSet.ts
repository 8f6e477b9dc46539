import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { countField, idField, nameField, noted, refField, textField } from '../../fields/field.ts';
import { prefixField } from '../../fields/ipField.ts';
import { labelsField } from './labels.ts';
import { hasPorts, portsField, protocols } from './ports.ts';
import { ruleSetTies, verdicts } from './providerProfile.ts';

/**
 * Rules for what may pass: at interfaces or at the border of subnets. One that remembers lets the answers of what it
 * let through pass; one that does not looks at them again. Ordered: the first rule that fits decides; otherwise a rule
 * that denies wins over those that allow. `otherwise` is for what no rule speaks of.
 */
export const ruleSetSchema = z.strictObject({
  id: idField('Id'),
  placeId: refField('Virtual network'),
  name: nameField('Name', 60),
  sort: noted(nameField('Sort', 40).nullable(), {
    label: 'Sort',
    help: 'What the provider calls it: one of its profile',
  }),
  ties: noted(z.enum(ruleSetTies), { label: 'Tied to' }),
  remembers: noted(z.boolean(), { label: 'Remembers connections' }),
  ordered: noted(z.boolean(), { label: 'In order', help: 'The first rule that fits decides' }),
  otherwiseIn: noted(z.enum(verdicts), { label: 'Otherwise inward' }),
  otherwiseOut: noted(z.enum(verdicts), { label: 'Otherwise outward' }),
  labels: labelsField,
  notes: textField('Notes'),
});
export type RuleSet = z.infer<typeof ruleSetSchema>;
export const blankRuleSet: Omit<RuleSet, 'id' | 'name'> = {
  placeId: null,
  sort: null,
  ties: 'interfaces',
  remembers: true,
  ordered: false,
  otherwiseIn: 'deny',
  otherwiseOut: 'deny',
  labels: {},
  notes: null,
};

export const ruleSetKind = defineKind({
  schema: ruleSetSchema,
  one: 'rule set',
  many: 'rule sets',
  refs: { placeId: { to: 'place', index: 'ruleSetsByNetwork', onRemove: 'goes' } },
  indexes: {},
  unique: [uniqueBy<RuleSet>('name', 'placeId')],
  nameOf: (row) => row.name,
  titled: (row, title) => (row.placeId === null ? row.name : `${title('place', row.placeId)}/${row.name}`),
  facts: { name: 'names', sort: 'providers', labels: 'notes', notes: 'notes' },
  blank: blankRuleSet,
  section: 'ruleSets',
});

export const ruleDirections = ['in', 'out'] as const;

/** One rule: which way, whether, what, and with whom; without a peer, with everybody. */
export const trafficRuleSchema = z
  .strictObject({
    id: idField('Id'),
    setId: idField('Rule set'),
    position: countField('Position', 1, 100_000),
    direction: noted(z.enum(ruleDirections), { label: 'Direction' }),
    verdict: noted(z.enum(verdicts), { label: 'Verdict' }),
    protocol: noted(z.enum(protocols), { label: 'Protocol' }),
    ports: portsField,
    prefix: noted(prefixField('Prefix').nullable(), { label: 'Prefix' }),
    listId: refField('Named list'),
    peerSetId: refField('Members of rule set'),
    notes: textField('Notes', 400),
  })
  .superRefine((row, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    if (row.ports !== null && !hasPorts(row.protocol))
      issue(
        'ports',
        `are given although ${row.protocol === 'any' ? 'any protocol' : row.protocol} has none: leave them empty, or choose TCP or UDP`,
      );
    if ([row.prefix, row.listId, row.peerSetId].filter((peer) => peer !== null).length > 1)
      issue('prefix', 'is given beside another peer: a rule has one, or none for everybody');
    const family = row.prefix === null ? null : row.prefix.includes(':') ? 6 : 4;
    if ((row.protocol === 'ICMP' && family === 6) || (row.protocol === 'ICMPv6' && family === 4))
      issue('prefix', `is IPv${family ?? ''}, which ${row.protocol} does not go with`);
  });
export type TrafficRule = z.infer<typeof trafficRuleSchema>;
export const blankTrafficRule: Omit<TrafficRule, 'id' | 'setId' | 'position'> = {
  direction: 'in',
  verdict: 'allow',
  protocol: 'TCP',
  ports: null,
  prefix: null,
  listId: null,
  peerSetId: null,
  notes: null,
};

export const trafficRuleKind = defineKind({
  schema: trafficRuleSchema,
  one: 'rule',
  many: 'rules',
  refs: {
    setId: { to: 'ruleSet', index: 'rulesBySet', onRemove: 'goes' },
    listId: { to: 'prefixList', index: 'rulesByList', onRemove: 'holds' },
    peerSetId: { to: 'ruleSet', index: 'rulesByPeerSet', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      ...uniqueBy<TrafficRule>('setId', 'direction', 'position'),
      next: (row) => row.position + 1,
    },
  ],
  nameOf: (row) => `${row.direction} ${row.position}`,
  titled: (row, title) => `${title('ruleSet', row.setId)} ${row.direction} ${row.position}`,
  facts: { ports: 'protocols', prefix: 'addresses', notes: 'notes' },
  blank: blankTrafficRule,
  section: 'trafficRules',
});

/** An interface that a rule set is tied to. */
export const ruleSetUseSchema = z.strictObject({
  id: idField('Id'),
  setId: idField('Rule set'),
  portId: idField('Interface'),
});
export type RuleSetUse = z.infer<typeof ruleSetUseSchema>;

export const ruleSetUseKind = defineKind({
  schema: ruleSetUseSchema,
  one: 'use of a rule set',
  many: 'uses of rule sets',
  refs: {
    setId: { to: 'ruleSet', index: 'ruleSetUsesBySet', onRemove: 'goes' },
    portId: { to: 'port', index: 'ruleSetUsesByPort', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      ...uniqueBy<RuleSetUse>('setId', 'portId'),
      meanwhile: (row, name) =>
        `${name('port', row.portId)} has the rule set ${name('ruleSet', row.setId)} already.`,
    },
  ],
  nameOf: () => '',
  titled: (row, title) => `${title('ruleSet', row.setId)} on ${title('port', row.portId)}`,
  facts: {},
  blank: {},
  section: 'ruleSetUses',
  uncounted: true,
});
