import { held, keyRulesOf, withFields, type Kind, type Row } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { asChange, type Change } from './change.ts';
import { freeValue } from './freeValue.ts';

/** A new row that is called otherwise than was proposed for it. */
export interface Recalled {
  kind: Kind;
  from: string;
  to: string;
}

/** What new rows are called by proposal: where two people begin one at the same moment, both are offered the same. */
const proposed: Partial<Record<Kind, string>> = {
  device: 'name',
  cable: 'label',
  circuit: 'number',
  sheet: 'name',
  rack: 'name',
};

/**
 * New rows whose proposed name, label or number somebody else has taken meanwhile are counted on to the next free one;
 * all else stays as it was wished.
 *
 * @param network the newest, in which the changes are to be made
 */
export function recalledWhereTaken(
  network: Network,
  changes: readonly Change[],
): { changes: Change[]; recalled: Recalled[] } {
  const spoken = new Map<Kind, Set<string>>();
  const keyOf = (kind: Kind, at: number, row: Row): string =>
    keyRulesOf(kind)[at]?.key(row).toLowerCase() ?? '';
  const ruleAt = (kind: Kind): number => keyRulesOf(kind).findIndex(({ what }) => what === proposed[kind]);
  for (const change of changes) {
    const at = ruleAt(change.kind);
    if (change.op !== 'create' || at < 0) continue;
    const keys = spoken.get(change.kind) ?? new Set<string>();
    spoken.set(change.kind, keys.add(keyOf(change.kind, at, change.after)));
  }
  const recalled: Recalled[] = [];
  const next = changes.map((change): Change => {
    const { kind } = change;
    const [at, field] = [ruleAt(kind), proposed[kind]];
    if (change.op !== 'create' || at < 0 || field === undefined) return change;
    if (network.holderOf(kind, at, keyOf(kind, at, change.after)) === null) return change;
    const keys = spoken.get(kind) ?? new Set<string>();
    const to = freeValue(network, kind, change.after, at, keys);
    if (typeof to !== 'string') return change;
    const after = withFields(change.after, { [field]: to });
    keys.add(keyOf(kind, at, after));
    recalled.push({ kind, from: String(held(change.after)[field]), to });
    return asChange({ ...change, after });
  });
  return { changes: next, recalled };
}
