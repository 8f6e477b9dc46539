import { scopeTitle } from '@visograph/core/cabling';
import { grouped, type Network, type Question } from '@visograph/core/model';
import { scheduleLines, type Answer } from '@visograph/core/report';
import type { PrintedSchedule } from './schedulePdf.ts';

/** An answer as it is printed: its title, of which place and day it is, what is wrong with the question, its lines. */
export function printedSchedule(
  network: Network,
  title: string,
  question: Question,
  answer: Answer,
  { scopeId, today }: { scopeId: string | null; today: string },
): PrintedSchedule {
  const rows = `${grouped(answer.count)} ${answer.count === 1 ? 'row' : 'rows'}`;
  return {
    title,
    under: [`${scopeTitle(network, scopeId)} · ${rows} · ${today}`, ...answer.problems],
    notes: question.notes,
    ...scheduleLines(answer, question),
  };
}
