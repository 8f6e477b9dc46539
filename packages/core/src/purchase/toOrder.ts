import type { Subject } from '../change/removal.ts';
import type { Day } from '../model/values/day.ts';
import type { Finding } from '../check/finding.ts';
import { ruleOf } from '../check/registry.ts';
import type { Reviewed } from '../check/review.ts';
import type { PartsList } from '../model/kinds/purchase/partsList.ts';
import type { Network } from '../model/network/network.ts';
import { modelTitle } from '../model/kinds.ts';
import { moneyText } from '../model/values/money.ts';
import { metresText } from '../model/values/numbers.ts';
import { countedBy } from './needs.ts';
import type { PartGap } from './part.ts';
import type { PartLine, PartsAnswer } from './partsOf.ts';

/** What keeps a list from being ordered, or should be looked at before. */
export interface OrderConcern {
  severity: 'bad' | 'warn';
  text: string;
  /** The line, or null where it is about the list. */
  line: string | null;
  things: readonly Subject[];
}

/** Rules of which the findings say that what is ordered would not work together. */
export const orderRules: readonly string[] = [
  'link-optics',
  'link-light',
  'link-reach',
  'link-medium',
  'link-plug',
  'link-poe',
  'link-speed',
  'link-strand',
  'strand-missing',
  'poe-over-budget',
  'rack-over-limit',
  'licence-missing',
  'single-fed',
  'inlets-one-feed',
];
/** Findings that one looks at, and may order in spite of. */
const onlyLookedAt: readonly string[] = ['licence-missing', 'single-fed', 'inlets-one-feed'];

const gapTexts: Record<PartGap, string> = {
  'no model': 'Choose the model',
  'generic model': 'It stands for a kind of gear: choose what it really is',
  'no cable type': 'Choose the type',
  'no length': 'Give the length, or draw the way it takes',
  'no stock length reaches': 'It is not made that long: choose another type or go by a panel',
  'no cord fits': 'No cord of the catalogue fits, or it is not known into what it is plugged',
};

/** What is ordered with a list, where it will stand, and what it is plugged into: by id. */
interface Concerned {
  ordered: ReadonlySet<string>;
  racks: ReadonlySet<string>;
  neighbours: ReadonlySet<string>;
}

function concernedBy(network: Network, list: PartsList): Concerned {
  const { devices, cables } = countedBy(network, list);
  const ordered = new Set<string>();
  const racks = new Set<string>();
  const neighbours = new Set<string>();
  const deviceAt = (portId: string | null): string | null => network.get('port', portId)?.deviceId ?? null;
  for (const { id, status, rackId } of devices) {
    if (status !== 'planned') continue;
    ordered.add(id);
    if (rackId !== null) racks.add(rackId);
  }
  for (const { id, status, aPortId, bPortId } of cables) {
    const ends = [deviceAt(aPortId), deviceAt(bPortId)].filter((end) => end !== null);
    if (status === 'planned') ordered.add(id);
    if (status !== 'planned' && !ends.some((end) => ordered.has(end))) continue;
    for (const end of ends) neighbours.add(end);
  }
  return { ordered, racks, neighbours };
}

/** Whether what was found is about something that is ordered, its rack being too full, or what feeds it feeding too much. */
function isConcerned(network: Network, { rule, subjects }: Finding, concerned: Concerned): boolean {
  return subjects.some(({ kind, id }) => {
    if (concerned.ordered.has(id)) return true;
    if (kind === 'port') return concerned.ordered.has(network.get('port', id)?.deviceId ?? '');
    if (rule === 'rack-over-limit') return concerned.racks.has(id);
    return rule === 'poe-over-budget' && concerned.neighbours.has(id);
  });
}

function ofLine(network: Network, line: PartLine, day: Day, currency: string): OrderConcern[] {
  const { part, order, toBuy, things, key, offer } = line;
  const what = part.lengthM === null ? part.what : `${part.what}, ${metresText(part.lengthM)}`;
  const concerns: OrderConcern[] = [];
  const tell = (severity: OrderConcern['severity'], text: string): void =>
    void concerns.push({ severity, text, line: key, things });
  if (toBuy === 0) return [];
  if (part.gap !== null) tell('bad', `${what}: ${gapTexts[part.gap]}.`);
  const model = network.get('model', part.modelId);
  if (part.licence === null && model?.endOfSale != null && model.endOfSale <= day) {
    const next = model.replacedBy;
    tell(
      'bad',
      `${modelTitle(model)} is no longer sold since ${model.endOfSale}. ${next === null ? 'Choose another model; nobody wrote down what replaces it' : `${next} replaces it`}.`,
    );
  }
  if (offer === null) {
    if (part.gap === null) tell('warn', `${what}: no price is known.`);
  } else if (offer.currency !== currency) {
    tell(
      'warn',
      `${what}: its price is ${moneyText({ priceMinor: offer.unitMinor, currency: offer.currency })}, the list is in ${currency}.`,
    );
  }
  if (offer !== null && order > toBuy)
    tell('warn', `${what}: ${order} are ordered for ${toBuy}, as they come in packs of ${offer.pack}.`);
  return concerns;
}

/** Reservations of a list that no store can keep, or that nothing in it needs. */
function ofStock(network: Network, list: PartsList, { lines }: PartsAnswer): OrderConcern[] {
  return network.find('reservedPartsByList', list.id).flatMap((kept): OrderConcern[] => {
    const same = <R extends { placeId: string; lengthM: number | null }>(rows: R[]): R[] =>
      rows.filter(({ placeId, lengthM }) => placeId === kept.placeId && lengthM === kept.lengthM);
    const onHand = same(network.find('stockByModel', kept.modelId)).reduce(
      (sum, { count }) => sum + count,
      0,
    );
    const all = same(network.find('reservedPartsByModel', kept.modelId)).reduce(
      (sum, { count }) => sum + count,
      0,
    );
    const model = network.get('model', kept.modelId);
    const what = `${model === null ? 'a part' : modelTitle(model)}${kept.lengthM === null ? '' : ` ${kept.lengthM} m`}`;
    const store = network.get('place', kept.placeId)?.name ?? 'its store';
    const line = lines.find(
      ({ part }) => part.modelId === kept.modelId && part.lengthM === kept.lengthM && part.licence === null,
    );
    const told: OrderConcern[] = [];
    if (all > onHand)
      told.push({
        severity: 'bad',
        text: `${store} has ${onHand} of ${what}, and ${all} are reserved there. Reserve fewer, or receive what is missing.`,
        line: line?.key ?? null,
        things: [],
      });
    if (line === undefined || line.reserved > line.planned + line.spares)
      told.push({
        severity: 'warn',
        text: `${kept.count} of ${what} are reserved in ${store}, more than the list needs. Give back what is too many.`,
        line: line?.key ?? null,
        things: [],
      });
    return told;
  });
}

/**
 * Whether a list can be ordered as it is: what of its lines is not known, and what the rules find about the things that
 * are planned of it, their racks and what feeds them. The worst first, then in the order of the list.
 *
 * @param found what is to be mended in the network on that day (`reviewOf`)
 */
export function toOrder(
  network: Network,
  list: PartsList,
  answer: PartsAnswer,
  day: Day,
  found: readonly Pick<Reviewed, 'finding' | 'severity'>[],
): OrderConcern[] {
  const concernsOfLines = answer.lines.flatMap((line) => ofLine(network, line, day, list.currency));
  const concerned = list.kitId === null && list.counts !== 'in place' ? concernedBy(network, list) : null;
  const told =
    concerned === null
      ? []
      : found
          .filter(
            ({ finding }) => orderRules.includes(finding.rule) && isConcerned(network, finding, concerned),
          )
          .map(({ finding, severity }): OrderConcern => ({
            severity: onlyLookedAt.includes(finding.rule) ? 'warn' : severity,
            text: ruleOf(finding).says(finding, network),
            ...{ line: null, things: finding.subjects },
          }))
          .sort((a, b) => (a.text < b.text ? -1 : a.text > b.text ? 1 : 0));
  const all = [...concernsOfLines, ...ofStock(network, list, answer), ...told];
  return [
    ...all.filter(({ severity }) => severity === 'bad'),
    ...all.filter(({ severity }) => severity === 'warn'),
  ];
}
