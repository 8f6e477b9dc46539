import { allOf, type Reads } from '../model/network/reads.ts';

/** What says where a cloud's routes lead. */
export const routeReads: Reads = {
  place: ['kind', 'parentId'],
  device: ['status', 'placeId'],
  port: ['deviceId', 'vrfId'],
  prefix: ['prefix', 'vrfId', 'role', 'placeId', 'status'],
  address: ['address', 'vrfId', 'portId', 'use'],
  route: 'all',
  bgpSession: 'all',
  virtualNetwork: ['placeId', 'vrfId'],
  cloudSubnet: ['placeId', 'zoneId', 'prefixId', 'v6PrefixId', 'routeTableId', 'ruleSetId'],
  routeTable: ['placeId', 'hubId', 'learns'],
  cloudRoute: 'all',
  prefixList: ['prefixes'],
  gateway: 'all',
  hubAttachment: 'all',
  peering: ['aNetworkId', 'bNetworkId', 'aAccepted', 'bAccepted'],
};

/** What says which traffic rules let pass. */
export const ruleReads: Reads = {
  ruleSet: ['ties', 'remembers', 'ordered', 'otherwiseIn', 'otherwiseOut'],
  trafficRule: 'all',
  ruleSetUse: 'all',
  prefixList: ['prefixes'],
  address: ['address', 'vrfId', 'portId'],
  port: ['deviceId'],
};

/** What says who reaches what: routes, rules, public addresses and what is sent on. */
export const reachReads: Reads = allOf(routeReads, ruleReads, {
  publicAddress: 'all',
  instance: ['deviceId', 'facing', 'running'],
  balancerTarget: 'all',
});
