import { create, type Change } from '../../change/change.ts';
import { collide, obstacle, spanText } from '../../change/constraints/rackSpace.ts';
import { Wrong } from '../../exchange/listRows.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { blankPlace, premisesKinds, type Place } from '../../model/kinds/sites/place.ts';
import { blankRack, type Rack } from '../../model/kinds/sites/rack.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath } from '../../model/network/places.ts';

/** Places and racks that a list names: found, or made when that is wished; and who stands where in the racks. */
export class Whereabouts {
  private readonly places = new Map<string, Place | Wrong>();
  private readonly made = new Map<string, Place>();
  private readonly madeRacks = new Map<string, Rack>();
  private readonly racksById = new Map<string, Rack>();
  private readonly standing = new Map<string, Device[]>();

  constructor(
    private readonly network: Network,
    private readonly makeMissing: boolean,
    /** Devices that the list says the place of: where they stood until now does not count. */
    private readonly moving: (id: string) => boolean,
  ) {}

  /** A place by its path, or by its name or code where only one answers to it. */
  place(text: string): Place {
    const key = text.toLowerCase();
    let found = this.places.get(key);
    if (found === undefined) {
      found = this.search(text);
      this.places.set(key, found);
    }
    if (found instanceof Wrong) throw found;
    return found;
  }

  private search(text: string): Place | Wrong {
    const names = text.split(/[/›>]/).map((name) => name.trim());
    if (names.some((name) => name === '')) return new Wrong(`the place “${text}” has an empty name in it`);
    if (names.length === 1) {
      const word = text.toLowerCase();
      const alike = [...this.network.all('place'), ...this.made.values()].filter(
        (place) => place.name.toLowerCase() === word || place.code?.toLowerCase() === word,
      );
      if (alike.length === 1 && alike[0] !== undefined) return alike[0];
      if (alike.length > 1)
        return new Wrong(`there are ${alike.length} places called ${text}: write the whole path of one`);
    }
    let parent: Place | null = null;
    for (const [depth, name] of names.entries()) {
      const next: Place | null =
        this.child(parent, name) ??
        (this.makeMissing ? this.make(parent, name, depth === names.length - 1) : null);
      if (next === null)
        return new Wrong(
          `there is no place ${names.slice(0, depth + 1).join('/')}: add it, or let missing places be made`,
        );
      parent = next;
    }
    return parent ?? new Wrong('it names no place');
  }

  private child(parent: Place | null, name: string): Place | null {
    const word = name.toLowerCase();
    const parentId = parent?.id ?? null;
    return (
      this.network
        .find('placesByParent', parentId ?? 'root')
        .find((place) => place.name.toLowerCase() === word) ??
      [...this.made.values()].find(
        (place) => place.parentId === parentId && place.name.toLowerCase() === word,
      ) ??
      null
    );
  }

  /** The innermost place of a path is a room, those around it are site, building and floor; each within its parent. */
  private make(parent: Place | null, name: string, innermost: boolean): Place {
    const within = parent === null ? 0 : premisesKinds.findIndex((kind) => kind === parent.kind) + 1;
    const usual = parent !== null && innermost ? premisesKinds.indexOf('room') : 0;
    const place: Place = {
      ...blankPlace,
      id: newId(),
      name,
      kind: premisesKinds[Math.max(within, usual)] ?? 'row',
      parentId: parent?.id ?? null,
    };
    this.made.set(place.id, place);
    return place;
  }

  /** A rack by its name; one that is made stands in the place of its row. */
  rack(name: string, place: Place | null): Rack {
    const key = name.toLowerCase();
    const found = this.network.findOne('rackByName', key) ?? this.madeRacks.get(key) ?? null;
    if (found === null) {
      if (!this.makeMissing)
        throw new Wrong(`there is no rack ${name}: add it, or let missing places and racks be made`);
      if (place === null) throw new Wrong(`there is no rack ${name}, and no place is given to make it in`);
      const beside = [
        ...this.network.find('racksByPlace', place.id),
        ...[...this.madeRacks.values()].filter((rack) => rack.placeId === place.id),
      ];
      const rack: Rack = {
        ...blankRack,
        id: newId(),
        name,
        placeId: place.id,
        position: Math.max(0, ...beside.map((one) => one.position)) + 1,
      };
      this.madeRacks.set(key, rack);
      this.racksById.set(rack.id, rack);
      return rack;
    }
    if (place !== null && !this.chain(found.placeId).includes(place.id))
      throw new Wrong(`rack ${found.name} stands in ${this.path(found.placeId)}, not in ${place.name}`);
    return found;
  }

  private chain(placeId: string | null): string[] {
    const ids: string[] = [];
    for (let id = placeId; id !== null;) {
      ids.push(id);
      id = (this.network.get('place', id) ?? this.made.get(id))?.parentId ?? null;
    }
    return ids;
  }

  private path(placeId: string): string {
    const there = placePath(this.network, placeId);
    return there === '' ? (this.made.get(placeId)?.name ?? '') : there;
  }

  /** Where a device stands, in words. */
  text(device: Device): string {
    const rack = this.rackOf(device.rackId);
    if (rack !== null) return `${rack.name} ${device.unit === null ? 'at the side' : spanText(device)}`;
    return device.placeId === null ? '' : this.path(device.placeId);
  }

  private rackOf(id: string | null): Rack | null {
    return this.network.get('rack', id) ?? this.racksById.get(id ?? '') ?? null;
  }

  /** Takes the space of a device in its rack; throws where it is beyond the rack or another stands there. */
  take(device: Device): void {
    const rack = this.rackOf(device.rackId);
    if (rack === null || device.unit === null) return;
    if (device.unit + device.units > rack.units + 1)
      throw new Wrong(`it would fill ${spanText(device)}, but ${rack.name} has ${rack.units} units`);
    const there =
      this.standing.get(rack.id) ??
      this.network.find('devicesByRack', rack.id).filter((one) => !this.moving(one.id));
    this.standing.set(rack.id, there);
    const other = there.find((one) => one.id !== device.id && collide(device, one));
    if (other !== undefined)
      throw new Wrong(`it cannot stand at ${spanText(device)} of ${rack.name}: ${obstacle(device, other)}`);
    there.push(device);
  }

  /** What had to be made for these devices, outer places first. */
  changesFor(devices: readonly Device[]): Change[] {
    const used = new Set(devices.map((one) => one.rackId));
    const racks = [...this.madeRacks.values()].filter((rack) => used.has(rack.id));
    const wanted = new Set(
      [...devices.map((one) => one.placeId), ...racks.map((rack) => rack.placeId)].flatMap((id) =>
        this.chain(id),
      ),
    );
    return [
      ...[...this.made.values()]
        .filter((place) => wanted.has(place.id))
        .map((place) => create('place', place)),
      ...racks.map((rack) => create('rack', rack)),
    ];
  }
}
