import { inForce } from '../lens/inForce.ts';
import type { CloudSubnet } from '../model/kinds/cloud/cloudSubnet.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Network } from '../model/network/network.ts';
import { effectiveRoutes, defaultRoute } from './effectiveRoutes.ts';
import { gatewayOf, instancesOf, subnetsOf, zonesAround, zonesOf } from './inventory.ts';

/** A zonal gateway that subnets of other zones send through. */
export interface ServedAcross {
  deviceId: string;
  /** The zone that the gateway stands in. */
  zoneId: string;
  subnets: CloudSubnet[];
}

/** The zone that a zonal gateway stands in; null where it is regional, or nobody has said. */
export function zoneOfGateway(network: Network, deviceId: string): string | null {
  const found = gatewayOf(network, deviceId);
  if (found === null || found.gateway.reach === 'regional') return null;
  const zones = zonesOf(network, found.device);
  return zones.length === 1 ? (zones[0]?.id ?? null) : null;
}

/** Zonal gateways of a network that serve subnets of other zones, by name. */
export function servedAcross(network: Network, networkId: string): ServedAcross[] {
  const found = new Map<string, ServedAcross>();
  for (const subnet of subnetsOf(network, networkId)) {
    const routes = effectiveRoutes(network, subnet);
    for (const family of [4, 6] as const) {
      const way = defaultRoute(routes, family)?.way;
      if (way?.by !== 'gateway') continue;
      const zoneId = zoneOfGateway(network, way.deviceId);
      if (zoneId === null || subnet.zoneId === zoneId) continue;
      const entry = found.get(way.deviceId) ?? { deviceId: way.deviceId, zoneId, subnets: [] };
      if (!entry.subnets.includes(subnet)) entry.subnets.push(subnet);
      found.set(way.deviceId, entry);
    }
  }
  return [...found.values()];
}

/** What fails with a zone of a network's region. */
export interface ZoneLoss {
  zoneId: string;
  /** Instances that stand in that zone alone. */
  gone: Device[];
  /** Of these, what nothing else does: no standby of it, and no other target of its load balancer, stands elsewhere. */
  missed: Device[];
  /** Subnets of other zones whose way out goes with it. */
  cutOff: CloudSubnet[];
  /** Load balancers that are left without a target. */
  withoutTarget: Device[];
}

/** What a lost zone means for a virtual network, zone by zone. */
export function zoneLosses(whole: Network, networkId: string): ZoneLoss[] {
  const network = inForce(whole);
  const instances = instancesOf(network, networkId);
  const standsIn = new Map(
    instances.map((device) => [device.id, zonesOf(network, device).map(({ id }) => id)]),
  );
  const across = servedAcross(network, networkId);
  return zonesAround(network, networkId).map(({ id: zoneId }) => {
    const isGone = (deviceId: string): boolean => {
      const zones = standsIn.get(deviceId) ?? [];
      return zones.length === 1 && zones[0] === zoneId;
    };
    const gone = instances.filter(({ id }) => isGone(id));
    const withoutTarget = instances.filter((device) => {
      const targets = network.find('targetsByBalancer', device.id);
      return targets.length > 0 && !isGone(device.id) && targets.every(({ deviceId }) => isGone(deviceId));
    });
    return {
      zoneId,
      gone,
      missed: gone.filter((device) => !isCovered(network, device, isGone)),
      cutOff: across.filter((one) => one.zoneId === zoneId).flatMap(({ subnets }) => subnets),
      withoutTarget,
    };
  });
}

/** Whether something elsewhere does what a lost instance did. */
function isCovered(network: Network, device: Device, isGone: (deviceId: string) => boolean): boolean {
  const standbys = network.find('instancesByStandbyFor', device.id).map(({ deviceId }) => deviceId);
  const master = network.findOne('instanceByDevice', device.id)?.standbyForId ?? null;
  if ([...standbys, ...(master === null ? [] : [master])].some((id) => !isGone(id))) return true;
  return network
    .find('targetsByDevice', device.id)
    .some(({ balancerId, listens, protocol }) =>
      network
        .find('targetsByBalancer', balancerId)
        .some((one) => one.listens === listens && one.protocol === protocol && !isGone(one.deviceId)),
    );
}
