import type { Subject } from '../change/removal.ts';
import type { Day } from '../model/values/day.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import { partSections, type PartsList, type ServiceRule } from '../model/kinds/purchase/partsList.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { placeChain } from '../model/network/places.ts';
import { compareNames } from '../model/values/order.ts';
import { heldOn, licenceNeeds, licenceText } from './licences.ts';
import { countedBy, needsOf, needsOfKit, type Counted } from './needs.ts';
import { partKey, plainPart, type Need, type Part } from './part.ts';
import { offerOf, type Offer } from './prices.ts';

/** One line of a parts list. Counts are pieces, or whole metres of what is sold by the metre. */
export interface PartLine {
  key: string;
  part: Part;
  planned: number;
  inPlace: number;
  spares: number;
  /** Kept for this list in stores. */
  reserved: number;
  /** On hand in stores and kept for nobody. */
  inStock: number;
  /** Licences that are held beyond what is in place needs. */
  held: number;
  /** What is planned and spare, less what is reserved and held. */
  toBuy: number;
  /** That, in whole packs. */
  order: number;
  offer: Offer | null;
  /** What is ordered, in the currency of the list; null where no price in it is known. */
  amountMinor: number | null;
  /** What it stands for. */
  things: readonly Subject[];
  /** How many, by the site they are for; null: in no place. */
  bySite: ReadonlyMap<string | null, number>;
}

export interface PartsAnswer {
  lines: readonly PartLine[];
  /** The sum of the amounts that are known, in minor units. */
  totalMinor: number;
  /** How many lines that are ordered have no price in the currency. */
  unpriced: number;
}

/** The least whole number that is no smaller; what is a hair above one by floating point is that one. */
export const wholeUp = (value: number): number => Math.max(0, Math.ceil(value - 1e-6));

/** So many, and as many more as whole packs make of it. */
export const inPacks = (count: number, pack: number): number => Math.ceil(count / pack) * pack;

interface Gathered {
  part: Part;
  planned: number;
  inPlace: number;
  offer?: Offer | null;
  things: Map<string, Subject>;
  bySite: Map<string | null, number>;
}

/** Lines by their part, as they are gathered. */
class Lines {
  readonly all = new Map<string, Gathered>();
  private readonly sites = new Map<string | null, string | null>();

  constructor(private readonly network: Network) {}

  private siteOf(placeId: string | null): string | null {
    const known = this.sites.get(placeId);
    if (known !== undefined) return known;
    const chain = placeChain(this.network, placeId);
    const site = chain.find(({ kind }) => kind === 'site') ?? chain[0];
    this.sites.set(placeId, site?.id ?? null);
    return site?.id ?? null;
  }

  add({ part, count, state, placeId, thing }: Need): Gathered {
    const key = partKey(part);
    const line: Gathered = this.all.get(key) ?? {
      ...{ part, planned: 0, inPlace: 0 },
      ...{ things: new Map<string, Subject>(), bySite: new Map<string | null, number>() },
    };
    this.all.set(key, line);
    if (state === 'planned') line.planned += count;
    else line.inPlace += count;
    if (thing !== null) line.things.set(`${thing.kind}:${thing.id}`, thing);
    const site = this.siteOf(placeId);
    line.bySite.set(site, (line.bySite.get(site) ?? 0) + count);
    return line;
  }
}

/** How many of what a service is counted by there are among the things of a list. */
function timesOf(network: Network, { per, role }: ServiceRule, counted: Counted, devices: readonly Device[]) {
  switch (per) {
    case 'list':
      return 1;
    case 'device':
      return devices.filter((device) => role === null || device.role === role).length;
    case 'cable':
      return counted.cables.length;
    case 'rack':
      return new Set(devices.flatMap(({ rackId }) => rackId ?? [])).size;
    case 'site':
      return new Set(
        devices.flatMap((device) => {
          const rack = network.get('rack', device.rackId);
          const chain = placeChain(network, rack?.placeId ?? device.placeId);
          return chain.find(({ kind }) => kind === 'site')?.id ?? chain[0]?.id ?? [];
        }),
      ).size;
  }
}

/** Licences that what is counted needs, as lines; those of what is planned are to be had, the others are in place. */
function addLicences(network: Network, lines: Lines, devices: readonly Device[]): void {
  for (const { model, licence, devices: of } of licenceNeeds(network, devices)) {
    const part = plainPart('Licences', `${licenceText(licence)} for ${modelTitle(model)}`, {
      modelId: model.id,
      licence: licence.name,
    });
    for (const device of of) {
      const placeId = network.get('rack', device.rackId)?.placeId ?? device.placeId;
      const state = device.status === 'planned' ? 'planned' : 'in place';
      lines.add({ part, count: 1, state, placeId, thing: { kind: 'device', id: device.id } });
    }
  }
}

/** Of a licence how many are held on a day beyond those that devices in place, of the whole project, need. */
function spareLicences(network: Network, day: Day): (part: Part) => number {
  const active = [...network.all('device')].filter(({ status }) => status === 'active');
  const used = new Map(
    licenceNeeds(network, active).map(({ model, licence, devices }) => [
      `${model.id}/${licence.name}`,
      devices.length,
    ]),
  );
  return ({ modelId, licence }) =>
    modelId === null || licence === null
      ? 0
      : Math.max(0, heldOn(network, modelId, licence, day) - (used.get(`${modelId}/${licence}`) ?? 0));
}

/** On hand in all stores and kept for no list. */
function freeInStores(network: Network, { modelId, lengthM, licence }: Part): number {
  if (modelId === null || licence !== null) return 0;
  const of = <R extends { lengthM: number | null; count: number }>(rows: R[]): number =>
    rows.filter((row) => row.lengthM === lengthM).reduce((sum, { count }) => sum + count, 0);
  return Math.max(
    0,
    of(network.find('stockByModel', modelId)) - of(network.find('reservedPartsByModel', modelId)),
  );
}

/** What is planned, what is in place, or both: as the list says. */
const isCounted = ({ counts }: PartsList, state: Need['state']): boolean =>
  counts === 'both' || counts === state;

/**
 * A parts list worked out: every part that its things need, how many are in place, spare, reserved in stores, and to be
 * bought, in packs and money. Prices are those of the day. Lines stand by section, then by name and length.
 */
export function partsOf(network: Network, list: PartsList, day: Day): PartsAnswer {
  const kit = network.get('kit', list.kitId);
  const all: Counted = kit === null ? countedBy(network, list) : { devices: [], cables: [], racks: [] };
  const ofState = (thing: { status: string }): boolean =>
    thing.status !== 'retired' && isCounted(list, thing.status === 'planned' ? 'planned' : 'in place');
  const lines = new Lines(network);
  const needs = kit === null ? needsOf(network, all) : needsOfKit(network, kit.contents, list.kitTimes);
  for (const need of needs) if (kit !== null || isCounted(list, need.state)) lines.add(need);
  const devices = all.devices.filter(ofState);
  addLicences(network, lines, devices);
  const counted: Counted = { ...all, cables: all.cables.filter(ofState) };
  for (const rule of list.services) {
    const count = timesOf(network, rule, counted, devices);
    if (count === 0) continue;
    const line = lines.add({
      part: plainPart('Services', rule.name),
      ...{ count, state: 'planned', placeId: null, thing: null },
    });
    line.offer = ownOffer(rule.unitMinor, list.currency);
  }
  for (const { name, partNumber, count, unitMinor } of list.further) {
    const part = plainPart('Further parts', name, { partNumber });
    const line = lines.add({ part, count, state: 'planned', placeId: null, thing: null });
    line.offer = ownOffer(unitMinor, list.currency);
  }
  const reservations = network.find('reservedPartsByList', list.id);
  const spareLicence = spareLicences(network, day);
  const answer = [...lines.all].map(([key, gathered]): PartLine => {
    const { part } = gathered;
    const planned = wholeUp(gathered.planned);
    const inPlace = wholeUp(gathered.inPlace);
    const rules = list.spares.filter(({ of }) => of === part.section);
    const spares = Math.max(
      0,
      ...rules.map(({ percent, least }) => Math.max(least, wholeUp(((planned + inPlace) * percent) / 100))),
    );
    const reserved = reservations
      .filter(({ modelId, lengthM }) => modelId === part.modelId && lengthM === part.lengthM)
      .reduce((sum, { count }) => sum + (part.licence === null ? count : 0), 0);
    const held = Math.min(planned, spareLicence(part));
    const toBuy = Math.max(0, planned + spares - reserved - held);
    const offer = gathered.offer === undefined ? offerOf(network, part, day, list.currency) : gathered.offer;
    const order = inPacks(toBuy, offer?.pack ?? 1);
    return {
      ...{ key, part, planned, inPlace, spares, reserved, held, toBuy, order, offer },
      inStock: freeInStores(network, part),
      amountMinor: offer?.currency === list.currency ? order * offer.unitMinor : null,
      things: [...gathered.things.values()],
      bySite: gathered.bySite,
    };
  });
  const sorted = answer.sort(
    (a, b) =>
      partSections.indexOf(a.part.section) - partSections.indexOf(b.part.section) ||
      compareNames(a.part.what, b.part.what) ||
      (a.part.lengthM ?? 0) - (b.part.lengthM ?? 0),
  );
  return {
    lines: sorted,
    totalMinor: sorted.reduce((sum, { amountMinor }) => sum + (amountMinor ?? 0), 0),
    unpriced: sorted.filter(({ amountMinor, order }) => amountMinor === null && order > 0).length,
  };
}

const ownOffer = (unitMinor: number | null, currency: string): Offer | null =>
  unitMinor === null ? null : { unitMinor, currency, supplier: null, list: null, pack: 1 };
