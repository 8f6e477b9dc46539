import { z } from 'zod';
import { recordTypes } from '../../model/kinds/cloud/dns.ts';
import { protocols, transportProtocols } from '../../model/kinds/cloud/ports.ts';
import { gatewayDirections, verdicts } from '../../model/kinds/cloud/providerProfile.ts';
import { addressStays } from '../../model/kinds/cloud/publicAddress.ts';
import { ruleDirections } from '../../model/kinds/cloud/ruleSet.ts';
import { parseInterface, parseIp, parsePrefix } from '../../model/values/ip.ts';

/** What is read of an account: lists of things that name each other by ids of the account's own. */
const id = z.string().min(1).max(120);
const name = z.string().trim().min(1).max(120);
const prefix = z.string().refine((text) => parsePrefix(text) !== null, 'is no prefix in CIDR form');
const address = z.string().refine((text) => parseInterface(text) !== null, 'is no address with a length');

const port = z.int().min(1).max(65535);

/** What runs in an account, as an account tells it. */
export const observedRoles = ['VM', 'CH', 'LB', 'DB', 'FN', 'ST', 'QU'] as const;

/** The lists whose items carry labels. */
export const labelledLists = [
  'networks',
  'subnets',
  'gateways',
  'instances',
  'ruleSets',
  'publicAddresses',
] as const;
export type LabelledList = (typeof labelledLists)[number];

/** The lists of an account, each with the shape of its items. */
export const observedItems = {
  networks: z.strictObject({ id, name, region: name, blocks: z.array(prefix).max(20) }),
  prefixLists: z.strictObject({ id, name, prefixes: z.array(prefix).max(1000) }),
  routeTables: z.strictObject({ id, name, networkId: id }),
  ruleSets: z.strictObject({ id, name, networkId: id, remembers: z.boolean(), ordered: z.boolean() }),
  subnets: z.strictObject({
    ...{ id, name, networkId: id, zone: name.nullable(), routeTableId: id.nullable() },
    ...{ prefix: prefix.nullable(), v6Prefix: prefix.nullable() },
  }),
  gateways: z.strictObject({
    ...{ id, name, networkId: id.nullable(), region: name, direction: z.enum(gatewayDirections) },
    translates: z.boolean(),
  }),
  peerings: z.strictObject({
    ...{ id, name, aNetworkId: id, bNetworkId: id, aAccepted: z.boolean(), bAccepted: z.boolean() },
  }),
  instances: z.strictObject({
    ...{ id, name, networkId: id.nullable(), region: name, role: z.enum(observedRoles) },
    ...{ size: name.nullable(), running: z.boolean() },
  }),
  interfaces: z.strictObject({
    ...{ id, instanceId: id, name, networkId: id.nullable() },
    ...{ addresses: z.array(address).max(60), ruleSetIds: z.array(id).max(20) },
  }),
  routes: z.strictObject({
    ...{ id, routeTableId: id, prefix: prefix.nullable(), prefixListId: id.nullable() },
    ...{ through: z.enum(['gateway', 'peering', 'interface', 'nowhere']), throughId: id.nullable() },
  }),
  rules: z.strictObject({
    ...{ id, ruleSetId: id, position: z.int().min(1).max(100_000) },
    ...{ direction: z.enum(ruleDirections), verdict: z.enum(verdicts), protocol: z.enum(protocols) },
    ...{ ports: z.string().max(200).nullable(), prefix: prefix.nullable() },
    ...{ prefixListId: id.nullable(), peerSetId: id.nullable() },
  }),
  publicAddresses: z.strictObject({
    ...{ id, address: z.string().refine((text) => parseIp(text) !== null, 'is no address') },
    ...{ region: name.nullable(), stays: z.enum(addressStays) },
    ...{ interfaceId: id.nullable(), gatewayId: id.nullable() },
  }),
  targets: z.strictObject({
    ...{ id, balancerId: id, instanceId: id, protocol: z.enum(transportProtocols), listens: port, port },
  }),
  zones: z.strictObject({
    ...{ id, name: z.string().min(1).max(253), isPrivate: z.boolean(), networkIds: z.array(id).max(100) },
  }),
  records: z.strictObject({
    ...{ id, zoneId: id, name: z.string().min(1).max(253), type: z.enum(recordTypes) },
    ...{ value: z.string().min(1).max(2000), ttlS: z.int().min(0).nullable() },
  }),
  labels: z.strictObject({
    ...{ id, of: z.enum(labelledLists), ofId: id },
    ...{ key: z.string().min(1).max(40), value: z.string().max(200) },
  }),
} as const;
export type ObservedList = keyof typeof observedItems;
const isList = (text: string): text is ObservedList => text in observedItems;
/** The lists in the order in which their items name each other. */
export const observedLists: readonly ObservedList[] = Object.keys(observedItems).filter(isList);

/** All of an account, as it was read. */
export const observedAccount = z.strictObject({
  networks: z.array(observedItems.networks),
  prefixLists: z.array(observedItems.prefixLists),
  routeTables: z.array(observedItems.routeTables),
  ruleSets: z.array(observedItems.ruleSets),
  subnets: z.array(observedItems.subnets),
  gateways: z.array(observedItems.gateways),
  peerings: z.array(observedItems.peerings),
  instances: z.array(observedItems.instances),
  interfaces: z.array(observedItems.interfaces),
  routes: z.array(observedItems.routes),
  rules: z.array(observedItems.rules),
  publicAddresses: z.array(observedItems.publicAddresses),
  targets: z.array(observedItems.targets),
  zones: z.array(observedItems.zones),
  records: z.array(observedItems.records),
  labels: z.array(observedItems.labels),
});
export type ObservedAccount = z.infer<typeof observedAccount>;
export const nothingObserved = (): ObservedAccount => ({
  networks: [],
  prefixLists: [],
  routeTables: [],
  ruleSets: [],
  subnets: [],
  gateways: [],
  peerings: [],
  instances: [],
  interfaces: [],
  routes: [],
  rules: [],
  publicAddresses: [],
  targets: [],
  zones: [],
  records: [],
  labels: [],
});
