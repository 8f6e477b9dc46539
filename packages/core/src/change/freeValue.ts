import { held, keyRulesOf, withFields, type Kind, type Row } from '../model/kinds.ts';
import type { Unique } from '../model/fields/kind.ts';
import type { Network } from '../model/network/network.ts';

/** So many values are tried before none is offered. */
const mostTries = 5000;
const named = new Set(['name', 'label', 'number', 'code']);

/** `kq-acc-09` → `kq-acc-10`: the number at the end counted on with as many digits; without one, `-2` behind it. */
function countedOn(text: string): string {
  const digits = /\d{1,12}$/.exec(text)?.[0];
  if (digits === undefined) return `${text}-2`;
  return text.slice(0, -digits.length) + String(Number(digits) + 1).padStart(digits.length, '0');
}

function after(rule: Unique<Row>, row: Row): string | number | null {
  if (rule.next !== undefined) return rule.next(row);
  const value = held(row)[rule.what];
  return named.has(rule.what) && typeof value === 'string' ? countedOn(value) : null;
}

/**
 * The next value of a field that nobody has: where a name, label, number or address is taken, this one is offered.
 *
 * @param at the rule among `keyRulesOf(kind)` that the value breaks
 * @param kept keys that are spoken for besides, in lower case
 * @returns null where none can be said
 */
export function freeValue(
  network: Network,
  kind: Kind,
  row: Row,
  at: number,
  kept: { has: (key: string) => boolean } = new Set<string>(),
): string | number | null {
  const rule = keyRulesOf(kind)[at];
  if (rule === undefined) return null;
  let tried = row;
  for (let tries = 0; tries < mostTries; tries++) {
    const value = after(rule, tried);
    if (value === null) return null;
    tried = withFields(tried, { [rule.what]: value });
    const key = rule.key(tried).toLowerCase();
    if (!kept.has(key) && network.holderOf(kind, at, key) === null) return value;
  }
  return null;
}
