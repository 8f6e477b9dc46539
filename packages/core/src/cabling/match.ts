import { connectors, type Connector } from '../model/connectors.ts';
import type { Port } from '../model/kinds/port.ts';
import type { CatalogueModel } from '../model/kinds/catalogueModel.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network.ts';
import { cableAt } from '../model/ports.ts';

type PortShape = Pick<Port, 'id' | 'connector' | 'speedBps' | 'role'>;

/** Cage families that a direct-attach plug of one form also fits: an SFP28 cage takes SFP+ and SFP plugs. */
const cageTakes: Partial<Record<Connector, readonly Connector[]>> = {
  'SFP+': ['SFP'],
  SFP28: ['SFP+', 'SFP'],
  QSFP28: ['QSFP+'],
};

/** Top speed in bit/s of balanced copper over a full channel (TIA-568.2-D: 100 m). */
const copperSpeedBps: Partial<Record<NonNullable<CatalogueModel['medium']>, number>> = {
  'Cat 5e': 1e9,
  'Cat 6': 1e9,
  'Cat 6A': 1e10,
  'Cat 7': 1e10,
};
const copperReachM = 100;

/** Media in the order in which they are offered where several would do. */
const preference: readonly CatalogueModel['medium'][] = [
  'twinax',
  'Cat 6',
  'Cat 6A',
  'Cat 5e',
  'Cat 7',
  'active twinax',
  'active optical',
  'OM4',
  'OS2',
  'OM5',
  'OM3',
];
/** Media that end in plugs of their own and need no optic in the cage. */
const withoutOptic: readonly CatalogueModel['medium'][] = ['twinax', 'active twinax', 'active optical'];

/** Whether a cable's plug goes into the port: directly, or for fibre in a cage through an optic. */
export function plugFits(plug: Connector, port: Connector | null): boolean {
  if (port === null || plug === port) return true;
  if (cageTakes[port]?.includes(plug) === true) return true;
  if (plug === 'MPO') return port === 'QSFP28' || port === 'QSFP+';
  return connectors[port].family === 'cage' && plug === 'LC';
}

/** Whether a cable type joins the two ports, in either direction. */
export function typeFits(type: Pick<CatalogueModel, 'ends'>, a: PortShape, b: PortShape): boolean {
  const [left, right] = type.ends ?? [];
  if (left === undefined || right === undefined) return false;
  return (
    (plugFits(left, a.connector) && plugFits(right, b.connector)) ||
    (plugFits(left, b.connector) && plugFits(right, a.connector))
  );
}

export const cableTypes = (network: Network): CatalogueModel[] =>
  [...network.all('model')].filter((model) => model.form === 'cable' && !model.retired);

/** Why two ports cannot be joined, or null when they can. Does not look at whether they are free. */
export function mismatch(types: readonly CatalogueModel[], a: PortShape, b: PortShape): string | null {
  if (a.id === b.id) return 'the same port';
  const power = [a.role, b.role].filter((role) => role === 'powerIn' || role === 'powerOut');
  if (power.length === 1) return 'power to data';
  if (power.length === 2 && a.role === b.role)
    return a.role === 'powerIn' ? 'both take power' : 'both give power';
  if (a.connector !== null && b.connector !== null && !types.some((type) => typeFits(type, a, b))) {
    return `no cable from ${connectors[a.connector].label} to ${connectors[b.connector].label}`;
  }
  return null;
}

export interface BEnd {
  port: Port;
  /** Why the port cannot be chosen; null when it can. */
  refused: string | null;
}

/** The ports of a device as B ends for a port: those that are free and match first in port order, with reasons for the rest. */
export function bEnds(network: Network, a: Port, ports: readonly Port[]): BEnd[] {
  const types = cableTypes(network);
  return ports.map((port) => {
    const cable = cableAt(network, port.id);
    return { port, refused: cable !== null ? cable.label : mismatch(types, a, port) };
  });
}

export interface CableOffer {
  type: CatalogueModel;
  /** The stock length proposed, in metres; null when the length is not known or no stock is stated. */
  lengthM: number | null;
  reason: string;
}

const gigabits = (bps: number): string => (bps >= 1e9 ? `${bps / 1e9}G` : `${bps / 1e6}M`);

/**
 * Cable types that join two ports, best first: those plugged without an optic before those that need one, and
 * within that the one that carries the ports' speed at least cost of medium. `neededM` picks the stock length.
 */
export function cableOffers(network: Network, a: Port, b: Port, neededM: number | null): CableOffer[] {
  const speed = Math.min(a.speedBps ?? Infinity, b.speedBps ?? Infinity);
  const offers: (CableOffer & { rank: number })[] = [];
  for (const type of cableTypes(network)) {
    if (!typeFits(type, a, b)) continue;
    const copper = type.medium === null ? undefined : copperSpeedBps[type.medium];
    if (copper !== undefined && Number.isFinite(speed) && copper < speed) continue;
    if (copper !== undefined && neededM !== null && neededM > copperReachM) continue;
    const stock = type.stockLengthsM
      .filter((length) => neededM === null || length >= neededM)
      .sort((x, y) => x - y)[0];
    if (neededM !== null && stock === undefined && type.stockLengthsM.length > 0) continue;
    const optic =
      [a, b].some((port) => port.connector !== null && connectors[port.connector].family === 'cage') &&
      !withoutOptic.includes(type.medium);
    const reason = optic
      ? 'needs an optic in each cage'
      : copper !== undefined && Number.isFinite(speed)
        ? `carries ${gigabits(speed)} up to ${copperReachM} m`
        : 'plugs into both ports';
    const place = preference.indexOf(type.medium);
    const rank = (optic ? 100 : 0) + (place < 0 ? preference.length : place);
    offers.push({ type, lengthM: neededM === null ? null : (stock ?? neededM), reason, rank });
  }
  return offers
    .sort((x, y) => x.rank - y.rank || (modelTitle(x.type) < modelTitle(y.type) ? -1 : 1))
    .map(({ type, lengthM, reason }) => ({ type, lengthM, reason }));
}
