import { applyChanges } from '../change/apply.ts';
import type { Change, ChangeSet } from '../change/change.ts';
import type { Network } from '../model/network/network.ts';

/** A change set, or why it cannot be made. */
export type Attempt = { ok: true; set: ChangeSet } | { ok: false; why: string };

export const refuse = (why: string): { ok: false; why: string } => ({ ok: false, why });

/** Tries changes on a network; those that change nothing are left out. The first problem is the reason. */
export function judged(network: Network, changes: readonly (Change | null)[], sentence: string): Attempt {
  const made = changes.filter((change) => change !== null);
  const applied = applyChanges(network, made);
  if (!applied.ok) return refuse(applied.problems[0]?.message ?? 'It cannot be done.');
  return { ok: true, set: { changes: made, sentence } };
}
