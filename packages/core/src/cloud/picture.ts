import type { CloudSubnet } from '../model/kinds/cloud/cloudSubnet.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Place } from '../model/kinds/sites/place.ts';
import type { Network } from '../model/network/network.ts';
import { byName, compareNames } from '../model/values/order.ts';
import {
  gatewayOf,
  gatewaysOf,
  instancesOf,
  prefixesOf,
  seatsIn,
  seatsOfDevice,
  subnetsOf,
  zonesAround,
  type GatewayDevice,
} from './inventory.ts';
import { natureOf, natures, type Nature } from './nature.ts';

/** What stands in a subnet, with its first address there. */
export interface Seated {
  device: Device;
  address: string;
  isGateway: boolean;
}
export interface PictureSubnet {
  subnet: CloudSubnet;
  nature: Nature;
  /** Its prefixes, IPv4 first. */
  prefixes: string[];
  seated: Seated[];
}
/** Subnets that do the same in each zone. */
export interface PictureTier {
  name: string;
  nature: Nature;
  /** By zone, in the order of the zones; those without a zone reach over all of them. */
  zones: PictureSubnet[][];
  regional: PictureSubnet[];
}
/** A virtual network as a picture: zones side by side, tiers below each other, gateways at the border. */
export interface NetworkPicture {
  zones: Place[];
  tiers: PictureTier[];
  /** Gateways that stand in no subnet: those that face the internet, and those between networks. */
  outer: GatewayDevice[];
  between: GatewayDevice[];
  /** What stands at the network and in none of its subnets. */
  loose: Device[];
}

/** The name of a subnet without that of its zone: what subnets of one tier have in common. */
export function tierName(network: Network, { name, zoneId }: Pick<CloudSubnet, 'name' | 'zoneId'>): string {
  const zone = network.get('place', zoneId)?.name ?? '';
  if (zone === '' || !name.includes(zone)) return name;
  const bare = name
    .replace(zone, '')
    .replace(/^[-_. ]+|[-_. ]+$/g, '')
    .replace(/[-_. ]{2,}/g, '-');
  return bare === '' ? name : bare;
}

function pictured(network: Network, subnet: CloudSubnet): PictureSubnet {
  const seen = new Set<string>();
  const seated = seatsIn(network, subnet).flatMap(({ portId, row }): Seated[] => {
    const device = network.get('device', network.get('port', portId)?.deviceId ?? null);
    if (device === null || seen.has(device.id)) return [];
    seen.add(device.id);
    const address = row.address.replace(/\/\d+$/, '');
    return [{ device, address, isGateway: gatewayOf(network, device.id) !== null }];
  });
  return {
    subnet,
    nature: natureOf(network, subnet).nature,
    prefixes: prefixesOf(network, subnet).map(({ row }) => row.prefix),
    seated: seated.sort((a, b) => Number(b.isGateway) - Number(a.isGateway) || byName(a.device, b.device)),
  };
}

/** The picture of a virtual network, the most open tier on top. */
export function networkPicture(network: Network, networkId: string): NetworkPicture {
  const zones = zonesAround(network, networkId);
  const tiers = new Map<string, PictureTier>();
  for (const subnet of subnetsOf(network, networkId)) {
    const one = pictured(network, subnet);
    const name = tierName(network, subnet);
    const tier = tiers.get(name) ?? { name, nature: one.nature, zones: zones.map(() => []), regional: [] };
    // A tier is as open as the most open of its subnets.
    if (natures.indexOf(one.nature) < natures.indexOf(tier.nature)) tier.nature = one.nature;
    const column = zones.findIndex(({ id }) => id === subnet.zoneId);
    (column < 0 ? tier.regional : (tier.zones[column] ?? tier.regional)).push(one);
    tiers.set(name, tier);
  }
  const free = gatewaysOf(network, networkId).filter(
    ({ device }) => seatsOfDevice(network, device.id).length === 0,
  );
  return {
    zones,
    tiers: [...tiers.values()].sort(
      (a, b) => natures.indexOf(a.nature) - natures.indexOf(b.nature) || compareNames(a.name, b.name),
    ),
    outer: free.filter(({ gateway }) => gateway.direction !== 'between'),
    between: free.filter(({ gateway }) => gateway.direction === 'between'),
    loose: instancesOf(network, networkId).filter(({ id }) => seatsOfDevice(network, id).length === 0),
  };
}
