import { create, update } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { Question, Schedule } from '../../model/kinds/reports/schedule.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { findReport } from '../registry.ts';

/** A question as it is kept: what it lists is there, and columns stand once each. */
function tidied(question: Question): Question | string {
  if (findReport(question.of) === null)
    return `There is no built-in schedule “${question.of}” to list rows of. Choose another.`;
  const columns = new Map(question.columns.map((column) => [column.key, column]));
  if (columns.size === 0) return 'A schedule has at least one column. Choose one.';
  return { ...question, columns: [...columns.values()], groups: [...new Set(question.groups)] };
}

/** Keeps a question under a name of its own. */
export function keepSchedule(network: Network, question: Question, name: string): Attempt & { id: string } {
  const id = newId();
  const kept = tidied(question);
  if (typeof kept === 'string') return { ...refuse(kept), id };
  const tidy = name.trim();
  if (tidy === '') return { ...refuse('The schedule has no name. Give it one.'), id };
  return {
    ...judged(network, [create('schedule', { id, name: tidy, ...kept })], `Kept the schedule ${tidy}`),
    id,
  };
}

/** Keeps another question, or another name, under a schedule that is there. */
export function changeSchedule(
  network: Network,
  schedule: Schedule,
  fields: Partial<Question> & { name?: string },
): Attempt {
  const { id: _id, name, ...question } = schedule;
  const kept = tidied({ ...question, ...fields });
  if (typeof kept === 'string') return refuse(kept);
  const next = (fields.name ?? name).trim();
  if (next === '') return refuse('The schedule has no name. Give it one.');
  const change = update('schedule', schedule, { ...kept, name: next });
  const sentence = next === name ? `Changed the schedule ${name}` : `Renamed the schedule ${name} to ${next}`;
  return judged(network, [change], sentence);
}

/** Deletes a schedule, with the tables on sheets that show its rows. */
export function removeSchedule(network: Network, schedule: Schedule): Attempt {
  const { changes } = removal(network, [{ kind: 'schedule', id: schedule.id }]);
  const tables = changes.filter((change) => change.kind === 'mark').length;
  const sheets = tables === 0 ? '' : `, and ${tables} ${tables === 1 ? 'table' : 'tables'} of it on sheets`;
  return judged(network, changes, `Deleted the schedule ${schedule.name}${sheets}`);
}
