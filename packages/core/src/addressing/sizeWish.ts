import { bitsOf, readPrefix, usable, type IpPrefix } from '../model/values/ip.ts';
import type { Place } from '../model/kinds/sites/place.ts';
import type { Network } from '../model/network/network.ts';
import { byName } from '../model/values/order.ts';
import { placePath, placesWithin } from '../model/network/places.ts';

/** The length of the smallest prefix with room for so many hosts. */
export function lengthForHosts(family: 4 | 6, hosts: number): number {
  for (let length = bitsOf(family) - 2; length > 0; length--)
    if (usable({ family, value: 0n, length }).count >= BigInt(hosts)) return length;
  return 0;
}

/** What somebody asks the address plan for: one prefix, or so many of a length, each perhaps for a place. */
export type SizeWish =
  | { ok: true; form: 'prefix'; prefix: IpPrefix }
  | { ok: true; form: 'sizes'; length: number; count: number; places: Place[] }
  | { ok: false; why: string };

const mostBlocks = 1024;
const no = (why: string): SizeWish => ({ ok: false, why });

/** Places of a kind inside a named one: "floor of Kelder Quay". */
function placesOf(network: Network, kind: string, name: string): Place[] | string {
  const wanted = name.trim().toLowerCase();
  const outer = [...network.all('place')].find(
    (place) => place.name.toLowerCase() === wanted || placePath(network, place.id).toLowerCase() === wanted,
  );
  if (outer === undefined) return `There is no place ${name.trim()}.`;
  const places = [...placesWithin(network, outer.id)].flatMap((id) => network.get('place', id) ?? []);
  const found = places.filter((place) => place.kind === kind.toLowerCase()).sort(byName);
  return found.length > 0 ? found : `${outer.name} has no ${kind.toLowerCase()}.`;
}

/**
 * Reads what is typed into the calculator: `10.40.8.0/22`; `/29`; `/29 x 12` or `12 x /29`; `500 hosts` or `room for
 * 500 hosts`; `one /24 per floor of Kelder Quay`. Lengths are of the family of the pool that is asked.
 */
export function readSizeWish(network: Network, text: string, family: 4 | 6): SizeWish {
  const trimmed = text.trim();
  if (/^[\da-f:.]+\/\d+$/i.test(trimmed)) {
    const read = readPrefix(trimmed);
    return read.ok ? { ok: true, form: 'prefix', prefix: read.prefix } : no(`“${trimmed}” ${read.reason}.`);
  }
  const size = (length: number, count: number, places: Place[] = []): SizeWish => {
    if (length < 1 || length > bitsOf(family))
      return no(`/${length} is no length of IPv${family}: they go from /1 to /${bitsOf(family)}.`);
    if (count < 1 || count > mostBlocks) return no(`${count} is not between 1 and ${mostBlocks}.`);
    return { ok: true, form: 'sizes', length, count, places };
  };
  const per =
    /^(?:(?:one|a|an|1)\s+)?\/(\d{1,3})\s+(?:per|for each|for every)\s+(\w+)\s+(?:of|in|at)\s+(.+)$/i.exec(
      trimmed,
    );
  if (per !== null) {
    const places = placesOf(network, (per[2] ?? '').replace(/s$/i, ''), per[3] ?? '');
    return typeof places === 'string' ? no(places) : size(Number(per[1]), places.length, places);
  }
  const hosts = /^(?:room\s+for\s+)?(\d{1,9})\s*hosts?$/i.exec(trimmed);
  if (hosts !== null) return size(lengthForHosts(family, Number(hosts[1])), 1);
  const many = /^\/(\d{1,3})(?:\s*[x×*]\s*(\d{1,5}))?$/i.exec(trimmed);
  if (many !== null) return size(Number(many[1]), Number(many[2] ?? 1));
  const counted = /^(\d{1,5})\s*[x×*]\s*\/(\d{1,3})$/i.exec(trimmed);
  if (counted !== null) return size(Number(counted[2]), Number(counted[1]));
  return no(
    `“${trimmed}” is not understood. Write 10.40.8.0/22, /24, /29 x 12, 500 hosts, or one /24 per floor of a place.`,
  );
}
