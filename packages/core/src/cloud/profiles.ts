import type { GatewaySort, ProviderProfile, RuleSetSort } from '../model/kinds/cloud/providerProfile.ts';

const gateway = (
  sort: string,
  direction: GatewaySort['direction'],
  { translates = false, reach = 'regional', families = ['IPv4', 'IPv6'] }: Partial<GatewaySort> = {},
): GatewaySort => ({ sort, direction, families, translates, reach });

const interfaceRules: RuleSetSort = {
  sort: 'interface rules',
  ties: 'interfaces',
  remembers: true,
  ordered: false,
  otherwiseIn: 'deny',
  otherwiseOut: 'deny',
};

/**
 * Three providers that nobody has: what they offer differs as it does in the trade. The first has zonal subnets and two
 * sorts of rule set, the second regional subnets and rules in order alone, the third keeps few addresses and charges
 * translation by the region.
 */
export const builtInProfiles: readonly Omit<ProviderProfile, 'id'>[] = [
  {
    name: 'Skerrane',
    keptFirst: 4,
    keptLast: 1,
    subnets: 'zonal',
    longestBlock: 28,
    shortestBlock: 16,
    gateways: [
      gateway('open gateway', 'both'),
      gateway('translating gateway', 'out', { translates: true, reach: 'zonal', families: ['IPv4'] }),
      gateway('outward gateway', 'out', { families: ['IPv6'] }),
      gateway('tunnel gateway', 'between', { families: ['IPv4'] }),
      gateway('line gateway', 'between'),
      gateway('dial-in gateway', 'between', { families: ['IPv4'] }),
      gateway('published service', 'in'),
      gateway('region router', 'between'),
    ],
    ruleSets: [
      interfaceRules,
      { ...interfaceRules, sort: 'border rules', ties: 'subnets', remembers: false, ordered: true },
    ],
    words: {},
    limits: {
      networks: 5,
      blocks: 5,
      subnets: 200,
      peerings: 50,
      routes: 50,
      rules: 60,
      ruleSetsPerInterface: 5,
      publicAddresses: 10,
      attachments: 100,
    },
    notes: 'Invented. Four addresses are kept at the start of a subnet and one at its end.',
  },
  {
    name: 'Tornholt',
    keptFirst: 2,
    keptLast: 2,
    subnets: 'regional',
    longestBlock: 29,
    shortestBlock: 8,
    gateways: [
      gateway('edge door', 'both'),
      gateway('sender pool', 'out', { translates: true, families: ['IPv4'] }),
      gateway('far link', 'between'),
      gateway('leased link', 'between'),
      gateway('service door', 'in'),
      gateway('junction', 'between'),
    ],
    ruleSets: [
      {
        sort: 'traffic policy',
        ties: 'subnets',
        remembers: true,
        ordered: true,
        otherwiseIn: 'deny',
        otherwiseOut: 'allow',
      },
      {
        sort: 'host policy',
        ties: 'interfaces',
        remembers: true,
        ordered: true,
        otherwiseIn: 'deny',
        otherwiseOut: 'allow',
      },
    ],
    words: { network: 'domain', zone: 'hall', peering: 'joint' },
    limits: { networks: 15, subnets: 300, routes: 250, rules: 500, peerings: 25, publicAddresses: 20 },
    notes: 'Invented. Subnets reach over the zones of a region; rules are read in order.',
  },
  {
    name: 'Vellmark',
    keptFirst: 1,
    keptLast: 1,
    subnets: 'zonal',
    longestBlock: 28,
    shortestBlock: 16,
    gateways: [
      gateway('front gate', 'both'),
      gateway('back gate', 'out', { translates: true, families: ['IPv4'] }),
      gateway('tunnel end', 'between', { families: ['IPv4'] }),
      gateway('crossing', 'between'),
    ],
    ruleSets: [{ ...interfaceRules, sort: 'guard', otherwiseOut: 'allow' }],
    words: { instance: 'machine', ruleSet: 'guard', publicAddress: 'outer address' },
    limits: { networks: 3, subnets: 40, routes: 30, rules: 40, publicAddresses: 10 },
    notes: 'Invented. One rule set with everything outward allowed unless it says otherwise.',
  },
];

/** The sort of gateway that a profile offers for a purpose: the first that fits; null where it offers none. */
export const sortFor = (
  profile: Pick<ProviderProfile, 'gateways'> | null,
  fits: (sort: GatewaySort) => boolean,
): GatewaySort | null => profile?.gateways.find(fits) ?? null;
