import { inForce } from '../lens/inForce.ts';
import type { CloudPriceList, PricedThing } from '../model/kinds/cloud/cloudPrice.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Network } from '../model/network/network.ts';
import { cloudPlaceAround, isInCloud } from '../model/network/cloudPlaces.ts';
import { placesWithin } from '../model/network/places.ts';
import { byName, compareNames } from '../model/values/order.ts';
import type { Day } from '../model/values/day.ts';
import { gatewayOf, networksOfDevice, zonesOf } from './inventory.ts';
import { wayOut } from './wayOut.ts';
import { zoneOfGateway } from './zones.ts';

/** Hours of a month as they are charged: 365 days of 24 hours in twelve parts. */
export const hoursPerMonth = 730;

/** One thing that costs money each month, by what it is, where it is and whose it is. */
export interface CostLine {
  /** What is paid for. */
  of: PricedThing;
  which: string | null;
  /** The device or address that it is of. */
  kind: 'device' | 'publicAddress' | 'flowEstimate';
  id: string;
  name: string;
  networkId: string | null;
  zoneId: string | null;
  labels: Readonly<Record<string, string>>;
  /** Hours or GB. */
  amount: number;
  unit: 'h' | 'GB';
  /** In millionths of the currency; null: the list has no price for it. */
  millionths: number | null;
}
export interface CloudCost {
  currency: string;
  list: CloudPriceList;
  lines: CostLine[];
  /** Of what is priced. */
  total: number;
  /** How many lines have no price. */
  unpriced: number;
}

/** The list that holds on a day for a profile: the latest that has begun; null: there is none. */
export const listOn = (network: Network, profileId: string | null, day: Day): CloudPriceList | null =>
  network
    .find('cloudPriceListsByProfile', profileId ?? '')
    .filter(({ validFrom }) => validFrom <= day)
    .sort((a, b) => compareNames(a.validFrom, b.validFrom) || byName(a, b))
    .at(-1) ?? null;

type Price = (of: PricedThing, which?: string | null) => number | null;
function pricesOf(network: Network, listId: string): Price {
  const known = new Map(
    network
      .find('cloudPricesByList', listId)
      .map(({ of, which, millionths }) => [`${of} ${which ?? ''}`, millionths]),
  );
  return (of, which = null) => known.get(`${of} ${which ?? ''}`) ?? known.get(`${of} `) ?? null;
}

/** What one thing costs by a list, in millionths per hour or GB; null: the list has no price for it. */
export const priceIn = (
  network: Network,
  listId: string,
  of: PricedThing,
  which: string | null,
): number | null => pricesOf(network, listId)(of, which);

interface Scope {
  network: Network;
  within: ReadonlySet<string>;
  price: Price;
}

const monthly = (price: number | null, amount: number): number | null =>
  price === null ? null : Math.round(price * amount);

function aboutDevice(network: Network, device: Device): Pick<CostLine, 'networkId' | 'zoneId' | 'labels'> {
  const [networkId = null] = networksOfDevice(network, device);
  const zones = zonesOf(network, device);
  return { networkId, zoneId: zones.length === 1 ? (zones[0]?.id ?? null) : null, labels: device.extra };
}

const inScope = ({ within }: Scope, placeId: string | null): boolean =>
  placeId !== null && within.has(placeId);

function deviceLines(scope: Scope): CostLine[] {
  const { network, price } = scope;
  return [...network.all('device')]
    .filter((device) => isInCloud(network, device) && inScope(scope, device.placeId))
    .sort(byName)
    .flatMap((device) => {
      const base = {
        kind: 'device' as const,
        id: device.id,
        name: device.name,
        ...aboutDevice(network, device),
      };
      const gateway = gatewayOf(network, device.id)?.gateway ?? null;
      const instance = network.findOne('instanceByDevice', device.id);
      const hours = instance?.running === false ? 0 : hoursPerMonth;
      const of = gateway === null ? ('instance' as const) : ('gateway' as const);
      const which = gateway === null ? (instance?.size ?? null) : gateway.sort;
      const lines: CostLine[] = [
        { ...base, of, which, amount: hours, unit: 'h', millionths: monthly(price(of, which), hours) },
      ];
      const gb = instance?.storageGb ?? null;
      if (gb !== null && gb > 0)
        lines.push({
          ...base,
          of: 'storage',
          which: null,
          amount: gb,
          unit: 'GB',
          millionths: monthly(price('storage'), gb),
        });
      const joins = network.countOf('hubAttachmentsByHub', device.id);
      if (joins > 0) {
        const amount = joins * hoursPerMonth;
        lines.push({
          ...base,
          of: 'attachment',
          which: null,
          amount,
          unit: 'h',
          millionths: monthly(price('attachment'), amount),
        });
      }
      return lines;
    });
}

function addressLines(scope: Scope): CostLine[] {
  const { network, price } = scope;
  return [...network.all('publicAddress')]
    .filter(({ placeId }) => inScope(scope, placeId))
    .sort((a, b) => compareNames(a.address, b.address))
    .map((row) => {
      const device = network.get('device', network.get('port', row.portId)?.deviceId ?? null);
      const of = row.portId === null ? ('keptAddress' as const) : ('publicAddress' as const);
      return {
        ...{ kind: 'publicAddress' as const, id: row.id, name: row.address, of, which: null },
        ...(device === null
          ? { networkId: null, zoneId: null, labels: row.labels }
          : aboutDevice(network, device)),
        ...{ amount: hoursPerMonth, unit: 'h' as const, millionths: monthly(price(of), hoursPerMonth) },
      };
    });
}

/** Whether what a device sends to a zonal gateway leaves its zone on the way. */
function inOtherZone(network: Network, from: Device, gatewayId: string): boolean {
  const zoneId = zoneOfGateway(network, gatewayId);
  const zones = zonesOf(network, from).map(({ id }) => id);
  return zoneId !== null && zones.length > 0 && !zones.includes(zoneId);
}

/** Through what a flow passes that is charged by the GB. */
function passesOf(
  network: Network,
  from: Device,
  to: Device | null,
): { of: PricedThing; which: string | null }[] {
  if (to === null) {
    const port = network.find('everyPortByDevice', from.id).sort(byName)[0];
    const way = port === undefined ? null : wayOut(network, port.id);
    const outbound = { of: 'outbound' as const, which: null };
    if (way?.by !== 'translation') return [outbound];
    const sort = gatewayOf(network, way.deviceId)?.gateway.sort ?? null;
    return [
      outbound,
      { of: 'gatewayTraffic', which: sort },
      ...(inOtherZone(network, from, way.deviceId) ? [{ of: 'acrossZones' as const, which: null }] : []),
    ];
  }
  const [a, b] = [from, to].map((one) => cloudPlaceAround(network, one.placeId, 'region')?.id ?? null);
  if (b === null) return [{ of: 'outbound', which: null }];
  if (a !== b) return [{ of: 'acrossRegions', which: null }];
  const [zonesA, zonesB] = [from, to].map((one) => zonesOf(network, one).map(({ id }) => id));
  const shared = zonesA?.some((id) => zonesB?.includes(id) === true) ?? false;
  const known = (zonesA?.length ?? 0) > 0 && (zonesB?.length ?? 0) > 0;
  return known && !shared ? [{ of: 'acrossZones', which: null }] : [];
}

function flowLines(scope: Scope): CostLine[] {
  const { network, price } = scope;
  return [...network.all('flowEstimate')]
    .flatMap((flow) => {
      const from = network.get('device', flow.fromId);
      const to = network.get('device', flow.toId);
      if (from === null || !inScope(scope, from.placeId) || (flow.toId !== null && to === null)) return [];
      const name = `${from.name} to ${to?.name ?? 'the internet'}`;
      return passesOf(network, from, to).map(({ of, which }): CostLine => ({
        ...{ kind: 'flowEstimate', id: flow.id, name, of, which, ...aboutDevice(network, from) },
        ...{ amount: flow.gbPerMonth, unit: 'GB', millionths: monthly(price(of, which), flow.gbPerMonth) },
      }));
    })
    .sort((a, b) => compareNames(a.name, b.name) || compareNames(a.of, b.of));
}

/**
 * What a cloud costs each month by a price list: instances, storage, gateways and addresses by the hour, and traffic by
 * what is reckoned to flow. What the list has no price for is named and not guessed.
 */
export function cloudCost(whole: Network, scopeId: string | null, list: CloudPriceList): CloudCost {
  const network = inForce(whole);
  const within = placesWithin(network, scopeId);
  // A virtual network or zone is paid for with what its account keeps beside it.
  const scope: Scope = { network, within, price: pricesOf(network, list.id) };
  const lines = [...deviceLines(scope), ...addressLines(scope), ...flowLines(scope)];
  return {
    currency: list.currency,
    list,
    lines,
    total: lines.reduce((sum, { millionths }) => sum + (millionths ?? 0), 0),
    unpriced: lines.filter(({ millionths }) => millionths === null).length,
  };
}

/** What costs are summed by. */
export type CostBy = 'network' | 'zone' | 'kind' | { label: string };
export interface CostSum {
  /** The id of a network or zone, what is paid for, or the value of a label; null: none. */
  key: string | null;
  millionths: number;
  lines: number;
}

/** Costs summed by network, zone, what is paid for or a label, the largest first. */
export function costsBy({ lines }: Pick<CloudCost, 'lines'>, by: CostBy): CostSum[] {
  const sums = new Map<string | null, CostSum>();
  for (const line of lines) {
    const key =
      by === 'network'
        ? line.networkId
        : by === 'zone'
          ? line.zoneId
          : by === 'kind'
            ? line.of
            : (line.labels[by.label] ?? null);
    const sum = sums.get(key) ?? { key, millionths: 0, lines: 0 };
    sums.set(key, { key, millionths: sum.millionths + (line.millionths ?? 0), lines: sum.lines + 1 });
  }
  return [...sums.values()].sort(
    (a, b) => b.millionths - a.millionths || compareNames(a.key ?? '', b.key ?? ''),
  );
}
