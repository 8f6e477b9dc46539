import { applyChanges } from '../../change/apply.ts';
import { remove, update } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import type { Network } from '../../model/network/network.ts';
import { placeChain, placeOfDevice } from '../../model/network/places.ts';
import { portTitle } from '../../model/network/ports.ts';
import { formatIp, holds, parseInterface, parsePrefix } from '../../model/values/ip.ts';
import { bridgingOf, numberingOfPort, vlanNumbered } from '../../switching/bridges.ts';
import { addressesOf } from '../management.ts';
import { nextFreeAddress, prefixOf } from '../plan.ts';
import { giveAddressText, takeBackAddress } from './interfaces.ts';

/** An address that fits a port, and why it does. */
export interface AddressOffer {
  address: string;
  /** The VRF of the subnet that it is of. */
  vrfId: string | null;
  why: string;
}

/** Of the subnets of a VLAN those of the place where a port is; all of them where none says so. */
function here(network: Network, port: Port, rows: readonly Prefix[]): readonly Prefix[] {
  const device = network.get('device', port.deviceId);
  const placeId = device === null ? null : placeOfDevice(network, device);
  const around = new Set(placeChain(network, placeId).map(({ id }) => id));
  const near = rows.filter((row) => around.has(row.placeId ?? ''));
  return near.length === 0 ? rows : near;
}

/** Subnets that a port lies in by what it is plugged into: those of its far end, then those of the VLAN it is in. */
function subnetsAt(network: Network, port: Port): { row: Prefix; why: string }[] {
  const far = network.get('port', bridgingOf(network).farOf(port.id));
  const beyond = far === null ? [] : addressesOf(network, far.id);
  const found = beyond.flatMap((address) => {
    const read = parseInterface(address.address);
    const row = read === null ? null : prefixOf(network, address.vrfId, read.address);
    return row === null || row.role === 'pool'
      ? []
      : [{ row, why: `beside ${portTitle(network, far?.id ?? null).replace(':', ' ')}` }];
  });
  const vid = port.vid ?? (far?.mode === 'access' ? far.untaggedVid : null);
  const numbered = port.vid === null ? far : port;
  const vlan =
    vid === null || numbered === null ? null : vlanNumbered(network, numberingOfPort(network, numbered), vid);
  const ofVlan = vlan === null ? [] : here(network, port, network.find('prefixesByVlan', vlan.id));
  return [...found, ...ofVlan.map((row) => ({ row, why: `VLAN ${vlan?.vid ?? ''} ${vlan?.name ?? ''}` }))];
}

/** The next free addresses that fit a port: of the subnet at its far end, and of its VLAN. */
export function addressOffers(network: Network, port: Port): AddressOffer[] {
  const offers = new Map<string, AddressOffer>();
  for (const { row, why } of subnetsAt(network, port)) {
    const [next, prefix] = [nextFreeAddress(network, row), parsePrefix(row.prefix)];
    if (next === null || prefix === null) continue;
    const address = `${formatIp(next)}/${prefix.length}`;
    if (!offers.has(address))
      offers.set(address, { address, vrfId: row.vrfId, why: `${why} · ${row.prefix}` });
  }
  return [...offers.values()];
}

/** Gives a port an address that was offered, in the VRF of its subnet. */
export const giveOffered = (network: Network, port: Port, { address, vrfId }: AddressOffer): Attempt =>
  giveAddressText(network, port, address, vrfId);

/** The VRF that an address means at a port that is in none: that of the subnet there that holds it. */
function vrfMeant(network: Network, port: Port, text: string): string | null | undefined {
  const typed = parseInterface(text.trim());
  if (typed === null || port.vrfId !== null) return undefined;
  const around = subnetsAt(network, port).find(({ row }) => {
    const prefix = parsePrefix(row.prefix);
    return prefix !== null && holds(prefix, typed.address);
  });
  return around?.row.vrfId;
}

/**
 * Makes the main address of a port what is written: given where it has none, changed where it has one, taken back where
 * nothing is written. Without a length it has that of the prefix it lies in.
 */
export function setPortAddress(network: Network, port: Port, text: string): Attempt {
  const [now] = addressesOf(network, port.id);
  const title = portTitle(network, port.id).replace(':', ' ');
  if (text.trim() === '')
    return now === undefined ? refuse(`${title} has no address.`) : takeBackAddress(network, now);
  if (now === undefined) return giveAddressText(network, port, text, vrfMeant(network, port, text));
  const back = applyChanges(network, [remove('address', now)]);
  if (!back.ok) return refuse(back.problems[0]?.message ?? `${now.address} cannot be changed.`);
  const given = giveAddressText(back.network, port, text, now.vrfId);
  if (!given.ok) return given;
  const made = given.set.changes.find((change) => change.kind === 'address' && change.op === 'create');
  const address = made?.kind === 'address' && made.op === 'create' ? made.after.address : now.address;
  return judged(network, [update('address', now, { address })], `Changed ${title} to ${address}`);
}
