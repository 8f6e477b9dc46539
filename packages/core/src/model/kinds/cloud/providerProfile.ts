import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { countField, inKeyOrder, idField, nameField, noted, textField } from '../../fields/field.ts';
import { keysOf } from '../../values/words.ts';
import { addressFamilies } from '../logical/routing.ts';

/** Which way a gateway lets connections be begun: from outside, from inside, from both, or between networks. */
export const gatewayDirections = ['in', 'out', 'both', 'between'] as const;
export type GatewayDirection = (typeof gatewayDirections)[number];
/** How far a thing of the cloud reaches: it stands in one zone and fails with it, or in the region as a whole. */
export const cloudReaches = ['zonal', 'regional'] as const;
export type CloudReach = (typeof cloudReaches)[number];
/** What a rule set is tied to. */
export const ruleSetTies = ['interfaces', 'subnets'] as const;
export type RuleSetTie = (typeof ruleSetTies)[number];
export const verdicts = ['allow', 'deny'] as const;
export type Verdict = (typeof verdicts)[number];

export const familiesField = noted(z.array(z.enum(addressFamilies)).min(1, 'are none'), {
  label: 'Families',
});

/** A sort of gateway that a provider offers: its name there, and what a new one of it is set to. */
export const gatewaySortSchema = z.strictObject({
  sort: nameField('Sort', 40),
  direction: z.enum(gatewayDirections),
  families: familiesField,
  translates: z.boolean(),
  reach: z.enum(cloudReaches),
});
export type GatewaySort = z.infer<typeof gatewaySortSchema>;

/** A sort of rule set that a provider offers. */
export const ruleSetSortSchema = z.strictObject({
  sort: nameField('Sort', 40),
  ties: z.enum(ruleSetTies),
  remembers: z.boolean(),
  ordered: z.boolean(),
  /** What becomes of what no rule speaks of. */
  otherwiseIn: z.enum(verdicts),
  otherwiseOut: z.enum(verdicts),
});
export type RuleSetSort = z.infer<typeof ruleSetSortSchema>;

/** What a provider may call otherwise than we do. */
export const profileWords = {
  account: 'account',
  region: 'region',
  zone: 'zone',
  network: 'virtual network',
  subnet: 'cloud subnet',
  routeTable: 'route table',
  gateway: 'gateway',
  ruleSet: 'rule set',
  instance: 'instance',
  peering: 'peering',
  publicAddress: 'public address',
} as const;
export type ProfileWord = keyof typeof profileWords;
export const profileWordNames: readonly ProfileWord[] = keysOf<ProfileWord>(profileWords);

/** What a provider limits, in words for people. */
export const limited = {
  networks: 'virtual networks in a region',
  blocks: 'blocks of a virtual network',
  subnets: 'cloud subnets in a virtual network',
  peerings: 'peerings of a virtual network',
  routes: 'routes in a route table',
  rules: 'rules in a rule set',
  ruleSetsPerInterface: 'rule sets on an interface',
  publicAddresses: 'public addresses in a region',
  attachments: 'attachments of a router of the region',
} as const;
export type Limited = keyof typeof limited;
export const limitedNames: readonly Limited[] = keysOf<Limited>(limited);

const wordsSchema = z
  .partialRecord(z.enum(profileWordNames), z.string().min(1, 'has an empty word').max(40))
  .overwrite(inKeyOrder)
  .default({});
const limitsSchema = z
  .partialRecord(z.enum(limitedNames), z.int().min(1, 'has a limit below 1').max(1_000_000))
  .overwrite(inKeyOrder)
  .default({});

/** What a provider offers, what it calls it, and where it ends. Data: a new provider is a row, not a program. */
export const providerProfileSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name', 60),
  keptFirst: noted(countField('Kept at the start', 1, 64), {
    label: 'Kept at the start',
    help: 'Addresses at the start of each IPv4 subnet that no instance gets, its first among them',
  }),
  keptLast: noted(countField('Kept at the end', 0, 64), {
    label: 'Kept at the end',
    help: 'Addresses at the end of each IPv4 subnet that no instance gets, its last among them',
  }),
  subnets: noted(z.enum(cloudReaches), { label: 'Subnets are' }),
  longestBlock: countField('Smallest IPv4 subnet', 8, 32),
  shortestBlock: countField('Largest IPv4 block', 8, 32),
  gateways: noted(z.array(gatewaySortSchema).max(30, 'are more than 30'), {
    label: 'Sorts of gateway',
    internal: true,
  }),
  ruleSets: noted(z.array(ruleSetSortSchema).max(10, 'are more than 10'), {
    label: 'Sorts of rule set',
    internal: true,
  }),
  words: noted(wordsSchema, { label: 'Words', internal: true }),
  limits: noted(limitsSchema, { label: 'Limits', internal: true }),
  notes: textField('Notes'),
});
export type ProviderProfile = z.infer<typeof providerProfileSchema>;

/** A profile with nothing filled in: the plainest that can be. */
export const blankProviderProfile: Omit<ProviderProfile, 'id' | 'name'> = {
  keptFirst: 1,
  keptLast: 1,
  subnets: 'zonal',
  longestBlock: 28,
  shortestBlock: 16,
  gateways: [],
  ruleSets: [],
  words: {},
  limits: {},
  notes: null,
};

export const providerProfileKind = defineKind({
  schema: providerProfileSchema,
  one: 'provider profile',
  many: 'provider profiles',
  refs: {},
  indexes: {},
  unique: [uniqueBy<ProviderProfile>('name')],
  nameOf: (row) => row.name,
  facts: {
    name: 'providers',
    gateways: 'providers',
    ruleSets: 'providers',
    words: 'providers',
    limits: 'providers',
    notes: 'notes',
  },
  blank: blankProviderProfile,
  section: 'providerProfiles',
});
