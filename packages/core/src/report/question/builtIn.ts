import type { Question, Schedule } from '../../model/kinds/reports/schedule.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import type { Report } from '../registry.ts';
import { sourceOf } from './source.ts';

/**
 * A built-in schedule as a question: its own columns, all rows, in the order in which it makes them.
 *
 * @param scopeId the place that one looks at: what is asked next is kept from this
 */
export function builtInQuestion(network: Network, report: Report, scopeId: string | null = null): Question {
  const columns = sourceOf(network, report.key, scopeId)?.columns ?? [];
  return {
    of: report.key,
    scopeId: null,
    columns: columns
      .filter(({ own }) => own)
      .map(({ key }) => ({ key, title: null, width: null, total: null })),
    filters: [],
    groups: [],
    order: [],
    numbered: false,
    blankRepeats: false,
    notes: null,
  };
}

/** The question that a schedule is kept as. */
export const questionOf = ({ id: _id, name: _name, ...question }: Schedule): Question => question;

/** Schedules of the project by name. */
export const schedulesOf = (network: Network): Schedule[] =>
  [...network.all('schedule')].sort((a, b) => compareNames(a.name, b.name));

/** A schedule by its name, without regard to case; null: there is none. */
export const scheduleNamed = (network: Network, name: string): Schedule | null =>
  schedulesOf(network).find((one) => one.name.toLowerCase() === name.trim().toLowerCase()) ?? null;
