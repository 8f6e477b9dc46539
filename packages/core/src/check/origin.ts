import type { Change } from '../change/change.ts';
import { rewound } from '../change/rewind.ts';
import type { Subject } from '../change/removal.ts';
import type { Network } from '../model/network/network.ts';
import { aboutKey, type Rule } from './finding.ts';

/** Which finding is meant, whatever its figures were at the time: what a rule finds about these things. */
export interface Sought {
  rule: Rule;
  about: readonly Subject[];
}

/** Whether a rule finds anything about these things. */
export function isFound(network: Network, { rule, about }: Sought): boolean {
  const key = aboutKey(about);
  return rule.findings(network).some(({ subjects }) => aboutKey(subjects) === key);
}

/** Fields by which rows come into force or go out of it: what they carry comes and goes with them. */
const brings = new Set(['status']);

/** Whether an entry can have brought or taken what the rule finds. */
const matters = ({ reads }: Rule, changes: readonly Change[]): boolean =>
  changes.some((change) => {
    const fields = reads[change.kind];
    if (change.op !== 'update')
      return fields !== undefined || 'status' in (change.op === 'create' ? change.after : change.before);
    const touched = Object.keys(change.after);
    if (touched.some((field) => brings.has(field))) return true;
    return fields !== undefined && (fields === 'all' || touched.some((field) => fields.includes(field)));
  });

/** Going back through a history, newest first: where a finding came from, as far as one has gone. */
export interface Search {
  /** The network before all entries that were gone through. */
  network: Network;
  /** The place in the list of the entry that brought it; null: it was there before all of them. */
  broughtBy: number | null;
}

/**
 * Which of these entries brought a finding that is there in a network: the last one before which it was not there.
 * @param entries the changes of each entry, the newest first, down from the one that made the network
 */
export function origin(network: Network, sought: Sought, entries: readonly (readonly Change[])[]): Search {
  let now = network;
  let waiting: (readonly Change[])[] = [];
  for (const [at, changes] of entries.entries()) {
    waiting.unshift(changes);
    if (!matters(sought.rule, changes)) continue;
    const before = rewound(now, waiting);
    waiting = [];
    if (!isFound(before, sought)) return { network: before, broughtBy: at };
    now = before;
  }
  return { network: waiting.length === 0 ? now : rewound(now, waiting), broughtBy: null };
}
