import { editHeld } from '../../commands/edit.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { FactField } from '../../model/fields/factFields.ts';
import { held, type Kind, type Row } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { readNumber } from '../question/test.ts';
import { ownFieldOf } from '../question/source.ts';

/** The value that a typed text means for a fact, or why it means none. */
function meantBy(fact: FactField, text: string): { value: unknown } | { why: string } {
  const typed = text.trim();
  if (typed === '') return fact.optional ? { value: null } : { why: `${fact.label} cannot be left empty.` };
  if (fact.form === 'number') {
    const value = readNumber(typed);
    const unit = fact.unit === null ? '' : ` in ${fact.unit}`;
    return value === null
      ? { why: `“${typed}” is not a number: ${fact.label} takes one${unit}.` }
      : { value };
  }
  if (fact.form === 'yes or no') {
    const said = typed.toLowerCase();
    if (said !== 'yes' && said !== 'no') return { why: `${fact.label} is yes or no, not “${typed}”.` };
    return { value: said === 'yes' };
  }
  if (fact.form === 'choice') {
    const word = fact.words.find((one) => one.toLowerCase() === typed.toLowerCase());
    return word === undefined
      ? { why: `${fact.label} is one of ${fact.words.join(', ')}, not “${typed}”.` }
      : { value: word };
  }
  return { value: typed };
}

/**
 * Sets a fact of a row to what a text means, as it is typed into a cell. An own field goes when nothing is left in it.
 * Judged on the network; a text that means nothing for this fact, and a value that its kind does not take, are refused
 * with the field and what helps.
 */
export function editFact(network: Network, kind: Kind, row: Row, fact: FactField, text: string): Attempt {
  if (fact.form === 'row')
    return refuse(`${fact.label} is the name of another thing: choose it in the record.`);
  const own = ownFieldOf(fact.field);
  const meant = meantBy(fact, text);
  if ('why' in meant) return refuse(meant.why);
  if (own === null) {
    const { changes, sentence } = editHeld(network, kind, row, { [fact.field]: meant.value });
    return judged(network, changes, sentence);
  }
  const extra = Object.entries(Object(held(row)['extra'])).filter(([name]) => name !== own);
  const next = Object.fromEntries(meant.value === null ? extra : [...extra, [own, meant.value]]);
  const { changes, sentence } = editHeld(network, kind, row, { extra: next });
  return judged(network, changes, sentence);
}
