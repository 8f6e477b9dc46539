import type { Network } from '../model/network/network.ts';
import { placePath, placesWithin } from '../model/network/places.ts';
import { compareNames } from '../model/values/order.ts';
import { placeOfRow } from './placeOf.ts';
import { ruleOf } from './registry.ts';
import type { InOrder } from './told.ts';
import type { Reviewed } from './review.ts';

/** By what findings can be gone through. */
export const groupings = { rule: 'Rule', place: 'Place', thing: 'Thing' } as const;
export type Grouping = keyof typeof groupings;

export interface FindingGroup {
  key: string;
  title: string;
  bad: number;
  warn: number;
  /** The worst first. */
  items: InOrder[];
}

/** Findings about something in a scope; all of them where that is the whole project. */
export function inScope<F extends Pick<Reviewed, 'finding'>>(
  network: Network,
  findings: readonly F[],
  scopeId: string | null,
): F[] {
  if (scopeId === null) return [...findings];
  const within = placesWithin(network, scopeId);
  return findings.filter(({ finding }) =>
    finding.subjects.some((subject) => within.has(placeOfRow(network, subject) ?? '')),
  );
}

const nowhere = { key: '', title: 'Of no place' };

function groupOf(
  network: Network,
  { finding, told }: InOrder,
  by: Grouping,
): Pick<FindingGroup, 'key' | 'title'> {
  if (by === 'rule') return { key: finding.rule, title: ruleOf(finding).title };
  const [first] = finding.subjects;
  if (by === 'thing') return { key: `${first?.kind ?? ''}:${first?.id ?? ''}`, title: told.about[0] ?? '' };
  const places = finding.subjects.flatMap((subject) => placeOfRow(network, subject) ?? []);
  const [place] = places;
  return place === undefined ? nowhere : { key: place, title: placePath(network, place) };
}

/** Findings in groups: those with something bad first, then by what the groups are called. */
export function grouped(network: Network, findings: readonly InOrder[], by: Grouping): FindingGroup[] {
  const groups = new Map<string, FindingGroup>();
  for (const one of findings) {
    const { key, title } = groupOf(network, one, by);
    const group = groups.get(key) ?? { key, title, bad: 0, warn: 0, items: [] };
    groups.set(key, group);
    group[one.severity]++;
    group.items.push(one);
  }
  return [...groups.values()].sort(
    (a, b) =>
      Number(b.bad > 0) - Number(a.bad > 0) || compareNames(a.title, b.title) || compareNames(a.key, b.key),
  );
}
