import { inForce } from '../lens/inForce.ts';
import type { CloudPriceList } from '../model/kinds/cloud/cloudPrice.ts';
import type { Network } from '../model/network/network.ts';
import { hoursPerMonth, priceIn } from './cost.ts';
import { gatewaysOf, instancesOf, zonesAround, zonesOf } from './inventory.ts';
import { wayOut } from './wayOut.ts';
import { zoneOfGateway } from './zones.ts';

/** What one way of translating costs each month, in millionths; null where a price is not known. */
export interface TranslationCost {
  gateways: number;
  /** Of the gateways by the hour. */
  hours: number | null;
  /** GB that cross zones on the way to a gateway, and what they cost. */
  crossingGb: number;
  crossing: number | null;
  total: number | null;
}
export interface TranslationCosts {
  /** As it is documented. */
  now: TranslationCost;
  /** One gateway for all zones, in the zone that sends most: the others lose their way out with that zone. */
  once: TranslationCost;
  /** One in each zone that sends anything: nothing crosses, no zone depends on another. */
  each: TranslationCost;
}

const sum = (a: number | null, b: number | null): number | null => (a === null || b === null ? null : a + b);

/**
 * What translating gateways of a network cost, and what it would cost to have one for all zones or one in each, by what
 * is reckoned to flow to the internet. What passes through a gateway is charged alike in all of them and left out. Null:
 * nothing of the network goes out through a zonal gateway.
 */
export function translationCosts(
  whole: Network,
  networkId: string,
  list: CloudPriceList,
): TranslationCosts | null {
  const network = inForce(whole);
  const zonal = gatewaysOf(network, networkId).filter(
    ({ gateway }) => gateway.translates && gateway.reach === 'zonal',
  );
  const [first] = zonal;
  if (first === undefined) return null;
  const perHour = priceIn(network, list.id, 'gateway', first.gateway.sort);
  const perGb = priceIn(network, list.id, 'acrossZones', null);
  /** GB that leave each zone through translation, and of these what crosses to the gateway now. */
  const fromZone = new Map<string, number>();
  let crossingNow = 0;
  for (const device of instancesOf(network, networkId)) {
    const [zone, ...more] = zonesOf(network, device);
    if (zone === undefined || more.length > 0) continue;
    const [port] = network.find('everyPortByDevice', device.id);
    const way = port === undefined ? null : wayOut(network, port.id);
    if (way?.by !== 'translation') continue;
    const gb = network
      .find('flowsFrom', device.id)
      .filter(({ toId }) => toId === null)
      .reduce((all, { gbPerMonth }) => all + gbPerMonth, 0);
    fromZone.set(zone.id, (fromZone.get(zone.id) ?? 0) + gb);
    const gatewayZone = zoneOfGateway(network, way.deviceId);
    if (gatewayZone !== null && gatewayZone !== zone.id) crossingNow += gb;
  }
  const all = [...fromZone.values()].reduce((total, gb) => total + gb, 0);
  const most = Math.max(0, ...fromZone.values());
  const costOf = (gateways: number, crossingGb: number): TranslationCost => {
    const hours = perHour === null ? null : Math.round(perHour * gateways * hoursPerMonth);
    const crossing = crossingGb === 0 ? 0 : perGb === null ? null : Math.round(perGb * crossingGb);
    return { gateways, hours, crossingGb, crossing, total: sum(hours, crossing) };
  };
  const zones = Math.max(1, fromZone.size, fromZone.size === 0 ? zonesAround(network, networkId).length : 0);
  return {
    now: costOf(zonal.length, crossingNow),
    once: costOf(1, all - most),
    each: costOf(zones, 0),
  };
}
