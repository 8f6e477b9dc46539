import { create } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { DemandedLabel } from '../../model/kinds/cloud/demandedLabel.ts';
import type { PrefixList } from '../../model/kinds/cloud/prefixList.ts';
import { newId } from '../../model/values/ids.ts';
import { formatPrefix, readPrefix } from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';
import type { Made } from './places.ts';

/** Prefixes under one name, for rules and routes; each once, as it is canonically written. */
export function addPrefixList(
  network: Network,
  wish: { name: string; prefixes: readonly string[] },
): Made<{ list: PrefixList }> {
  const prefixes = new Set<string>();
  for (const text of wish.prefixes) {
    const read = readPrefix(text);
    if (!read.ok) return refuse(`“${text}” ${read.reason}.`);
    prefixes.add(formatPrefix(read.prefix));
  }
  const list: PrefixList = { id: newId(), name: wish.name.trim(), prefixes: [...prefixes], notes: null };
  const attempt = judged(
    network,
    [create('prefixList', list)],
    `Added the list ${list.name} of ${list.prefixes.length} ${list.prefixes.length === 1 ? 'prefix' : 'prefixes'}`,
  );
  return attempt.ok ? { ...attempt, list } : attempt;
}

/** Demands a label of every thing of a sort; those that lack it are found. */
export const demandLabel = (network: Network, wish: Pick<DemandedLabel, 'key' | 'on'>): Attempt =>
  judged(
    network,
    [create('demandedLabel', { id: newId(), key: wish.key.trim(), on: wish.on })],
    `Demanded the label ${wish.key.trim()} of ${wish.on}`,
  );
