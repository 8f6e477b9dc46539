import type { AskedFilter, Question } from '../../model/kinds/reports/schedule.ts';
import { takesValue } from '../../model/kinds/reports/schedule.ts';
import { scopeTitle } from '../../cabling/reports/cables.ts';
import type { Network } from '../../model/network/network.ts';
import { sourceOf, type Source } from './source.ts';

/** What a column is called: by the question, by itself, or by its key where it is no more. */
const titleIn = (source: Source | null, question: Question, key: string): string =>
  question.columns.find((column) => column.key === key)?.title ?? source?.byKey.get(key)?.label ?? key;

/** "Role is switch", "Serial is empty". */
export const filterText = (title: string, { test, value }: AskedFilter): string =>
  takesValue(test) ? `${title} ${test} ${value.trim() === '' ? '…' : value}` : `${title} ${test}`;

const listed = (parts: readonly string[]): string =>
  parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1) ?? ''}`;

/** A part of a question in words; `about` says which, for whoever would change it. */
export interface QuestionPart {
  about: 'of' | 'columns' | 'filters' | 'groups' | 'order';
  text: string;
}

/**
 * A question as one reads it: "Device schedule of Kelder Quay", "where Role is switch", "grouped by Place", "by Name",
 * "7 columns".
 */
export function questionParts(network: Network, question: Question, scopeId: string | null): QuestionPart[] {
  const place = question.scopeId ?? scopeId;
  const source = sourceOf(network, question.of, place);
  const title = (key: string): string => titleIn(source, question, key);
  const { filters, groups, order, columns } = question;
  const parts: (QuestionPart | null)[] = [
    {
      about: 'of',
      text: `${source?.report.title ?? question.of} of ${place === null ? 'all sites' : scopeTitle(network, place)}`,
    },
    filters.length === 0
      ? null
      : {
          about: 'filters',
          text: `where ${listed(filters.map((filter) => filterText(title(filter.key), filter)))}`,
        },
    groups.length === 0 ? null : { about: 'groups', text: `grouped by ${listed(groups.map(title))}` },
    order.length === 0
      ? null
      : {
          about: 'order',
          text: `in order of ${listed(order.map(({ key, descending }) => `${title(key)}${descending ? ', downwards' : ''}`))}`,
        },
    { about: 'columns', text: `${columns.length} ${columns.length === 1 ? 'column' : 'columns'}` },
  ];
  return parts.filter((part) => part !== null);
}
