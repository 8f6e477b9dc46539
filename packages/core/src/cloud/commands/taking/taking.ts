import { create, type Change } from '../../../change/change.ts';
import { removal, type Subject } from '../../../change/removal.ts';
import type { Kind } from '../../../model/kinds.ts';
import type { Device } from '../../../model/kinds/equipment/device.ts';
import type { Port } from '../../../model/kinds/lines/port.ts';
import { blankPrefix } from '../../../model/kinds/logical/prefix.ts';
import type { Place } from '../../../model/kinds/sites/place.ts';
import { childPlaces } from '../../../model/network/places.ts';
import type { Network } from '../../../model/network/network.ts';
import { newId } from '../../../model/values/ids.ts';
import { networksIn, vrfOf } from '../../inventory.ts';

/** What stands in the way of taking one difference over. */
export class Refused extends Error {}
export const missing = (what: string, name: string): never => {
  throw new Refused(`${what} ${name} is not documented. Take that over first.`);
};
/** A word of a list, as an account told it. */
export function oneOf<W extends string>(words: readonly W[], text: string, what: string): W {
  const found = words.find((word) => word === text);
  if (found === undefined) throw new Refused(`“${text}” is no ${what}.`);
  return found;
}

/** The model while difference after difference is taken over. */
export class Taking {
  constructor(
    readonly network: Network,
    readonly accountId: string,
  ) {}

  /** Splits `network/name rest` at the first name of a network that it begins with. */
  inNetwork(key: string): { place: Place; rest: string } {
    const place = networksIn(this.network, this.accountId)
      .filter(({ name }) => key.startsWith(`${name}/`))
      .sort((a, b) => b.name.length - a.name.length)[0];
    if (place === undefined) return missing('The network', key.split('/')[0] ?? '');
    return { place, rest: key.slice(place.name.length + 1) };
  }
  networkNamed(name: string): Place {
    return (
      networksIn(this.network, this.accountId).find((one) => one.name === name) ??
      missing('The network', name)
    );
  }
  region(name: string): Place {
    return (
      childPlaces(this.network, this.accountId).find((one) => one.kind === 'region' && one.name === name) ??
      missing('The region', name)
    );
  }
  zone(place: Place, name: string): string | null {
    if (name === '') return null;
    const zone = childPlaces(this.network, place.parentId).find(
      (one) => one.kind === 'zone' && one.name === name,
    );
    return (zone ?? missing('The zone', name)).id;
  }
  table(place: Place, name: string) {
    return (
      this.network.find('routeTablesByNetwork', place.id).find((one) => one.name === name) ??
      missing('The route table', name)
    );
  }
  set(place: Place, name: string) {
    return (
      this.network.find('ruleSetsByNetwork', place.id).find((one) => one.name === name) ??
      missing('The rule set', name)
    );
  }
  subnet(key: string) {
    const { place, rest } = this.inNetwork(key);
    return (
      this.network.find('cloudSubnetsByNetwork', place.id).find(({ name }) => name === rest) ??
      missing('The subnet', key)
    );
  }
  /** Whether a network is one of the account. */
  isOwn(networkId: string): boolean {
    return networksIn(this.network, this.accountId).some(({ id }) => id === networkId);
  }
  list(name: string) {
    return [...this.network.all('prefixList')].find((one) => one.name === name) ?? missing('The list', name);
  }
  device(name: string): Device {
    return this.network.findOne('deviceByName', name) ?? missing('The device', name);
  }
  nic(key: string): { device: Device; port: Port } {
    const at = key.lastIndexOf(':');
    const device = this.device(key.slice(0, at));
    const name = key.slice(at + 1);
    const port = this.network.findOne('portByName', `${device.id}:${name}`);
    return { device, port: port ?? missing('The interface', key) };
  }

  /** A prefix of a network: that which is there, or a new one. */
  prefix(place: Place, text: string, name: string): { id: string | null; changes: Change[] } {
    if (text === '') return { id: null, changes: [] };
    const vrfId = vrfOf(this.network, place.id);
    const known = this.network
      .find('prefixesByPlace', place.id)
      .find((one) => one.prefix === text && one.role !== 'pool');
    if (known !== undefined) return { id: known.id, changes: [] };
    const id = newId();
    const row = { ...blankPrefix, ...{ id, prefix: text, vrfId, placeId: place.id, name } };
    return { id, changes: [create('prefix', row)] };
  }

  without(kind: Kind, id: string): Change[] {
    const subject: Subject = { kind, id };
    return removal(this.network, [subject]).changes;
  }
}

/** What was read of a thing, by name. */
export type Facts = Readonly<Record<string, string>>;
/** What taking over one difference of a sort comes to. */
export interface Ways {
  added: (taking: Taking, key: string, facts: Facts) => (Change | null)[];
  changed: (taking: Taking, key: string, facts: Facts) => (Change | null)[];
  gone: (taking: Taking, key: string) => (Change | null)[];
}

/** A list of texts as a fact has it. */
export const texts = (list: string): string[] => (list === '' ? [] : list.split(', '));
