import { sparse } from '../../exchange/sparse.ts';
import { rowsByTitle, titleOf } from '../../exchange/sections.ts';
import type { Staging } from '../../exchange/staging.ts';
import type { ExchangeFile, WaiverEntry } from '../../exchange/format.ts';
import { isKind, kindNames, type Kind } from '../../model/kinds.ts';
import type { Waiver } from '../../model/kinds/review/waiver.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { compareNames } from '../../model/values/order.ts';
import { aboutKey, factMark, type Finding } from '../finding.ts';
import { rulesByKey } from '../registry.ts';

/**
 * Waivers in a file. What they are about is named, and the facts they stand on are marked with names in place of ids;
 * reading one finds the finding that says the same in the network of the file.
 */
const uuids = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;

/** "device kq-core-1": a row from outside of its file, with the name of its kind as the model calls it. */
function fileName(network: Network, kind: Kind, id: string): string {
  return `${kind} ${titleOf(network, kind, id) ?? ''}`;
}

/** Puts names in place of the ids in a text. */
const namedIn =
  (network: Network) =>
  (text: string): string =>
    text.replace(uuids, (id) => {
      const kind = kindNames.find((one) => network.get(one, id) !== null);
      return kind === undefined ? id : fileName(network, kind, id);
    });

const namesOf = (network: Network, about: readonly { kind: string; id: string }[]): string[] =>
  about
    .flatMap(({ kind, id }) =>
      isKind(kind) && network.get(kind, id) !== null ? [fileName(network, kind, id)] : [],
    )
    .sort(compareNames);

/** What a rule finds about exactly these things. */
function foundAbout(network: Network, { rule, about }: Pick<Waiver, 'rule' | 'about'>): Finding[] {
  const key = aboutKey(about);
  return (rulesByKey.get(rule)?.findings(network) ?? []).filter(({ subjects }) => aboutKey(subjects) === key);
}

export function waiverEntries(network: Network): WaiverEntry[] {
  const named = namedIn(network);
  return [...network.all('waiver')]
    .map((waiver): WaiverEntry => {
      const { rule, about, reason, by, madeOn, until } = waiver;
      const held = foundAbout(network, waiver).find(({ facts }) => factMark(facts) === waiver.facts);
      return {
        rule,
        about: namesOf(network, about),
        facts: held === undefined ? waiver.facts : factMark(held.facts, named),
        ...sparse({ reason, by, since: madeOn, until }),
      };
    })
    .sort(
      (a, b) =>
        compareNames(a.rule, b.rule) ||
        compareNames(a.about.join('\n'), b.about.join('\n')) ||
        compareNames(a.facts, b.facts) ||
        compareNames(a.reason, b.reason),
    );
}

/** The rows of those names that are there and called so by themselves alone. */
function rowsNamed(
  network: Network,
  names: readonly string[],
  titles: Map<Kind, Map<string, string | null>>,
): Waiver['about'] {
  return names.flatMap((text) => {
    const [kind = ''] = text.split(' ', 1);
    if (!isKind(kind)) return [];
    const known = titles.get(kind) ?? rowsByTitle(network, kind);
    titles.set(kind, known);
    const id = known.get(text.slice(kind.length + 1).toLowerCase());
    return id == null ? [] : [{ kind, id }];
  });
}

/** Reads them after all else: what they hold back must be there to be found. */
export function readWaivers(staging: Staging, file: ExchangeFile): void {
  const { waivers = [] } = file;
  if (waivers.length === 0) return;
  const { network } = staging;
  const named = namedIn(network);
  const titles = new Map<Kind, Map<string, string | null>>();
  const taken = new Set<string>();
  waivers.forEach(({ rule, about, facts, reason, by, since, until = null }, index) => {
    const names = [...about].sort(compareNames).join('\n');
    const findings = rulesByKey.get(rule)?.findings(network) ?? [];
    const finding = findings.find(
      (one) => namesOf(network, one.subjects).join('\n') === names && factMark(one.facts, named) === facts,
    );
    const what =
      finding === undefined
        ? { about: rowsNamed(network, about, titles), facts }
        : { about: finding.subjects.map(({ kind, id }) => ({ kind, id })), facts: factMark(finding.facts) };
    const existing = network
      .find('waiversByRule', rule)
      .find(
        (one) =>
          !taken.has(one.id) && one.facts === what.facts && aboutKey(one.about) === aboutKey(what.about),
      );
    if (existing !== undefined) taken.add(existing.id);
    staging.put(
      'waiver',
      { id: existing?.id ?? newId(), rule, ...what, reason, by, madeOn: since, until },
      `$.waivers[${index}]`,
    );
  });
}
