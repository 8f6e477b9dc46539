import { create, update, type Change } from '../change/change.ts';
import { judged, refuse, type Attempt } from '../commands/attempt.ts';
import type { Network } from '../model/network/network.ts';
import { newId } from '../model/values/ids.ts';
import { grouped } from '../model/values/numbers.ts';
import { labelText, type ThingLabel } from './labels.ts';

/**
 * Notes that labels are printed as they read now, so that they are left out until they read otherwise.
 *
 * @param on the day, year-month-day
 */
export function notePrinted(network: Network, labels: readonly ThingLabel[], on: string): Attempt {
  const changes = labels.map((label): Change | null => {
    const text = labelText(label);
    const known = network.find('printedLabelsBySubject', label.id).find(({ side }) => side === label.side);
    const { kind: subjectKind, id: subjectId, side } = label;
    if (known === undefined)
      return create('printedLabel', { id: newId(), subjectKind, subjectId, side, text, printedOn: on });
    return known.text === text ? null : update('printedLabel', known, { text, printedOn: on });
  });
  const count = changes.filter((change) => change !== null).length;
  if (count === 0) return refuse('All of these are noted as printed already.');
  return judged(network, changes, `Noted ${grouped(count)} ${count === 1 ? 'label' : 'labels'} as printed`);
}
