import { scopeTitle } from '@visograph/core/cabling';
import { isDay } from '@visograph/core/check';
import { questionSchema, type Network, type Question } from '@visograph/core/model';
import {
  answerOf,
  answerTable,
  findReport,
  questionOf,
  scheduleLines,
  scheduleNamed,
  tableToCsv,
  toldAnswer,
} from '@visograph/core/report';
import { notFound, Refusal } from '../http/problem.ts';
import { fileAnswer, type JobCall, type JobHandlers } from '../http/route.ts';
import { workbook, xlsxType } from '../spreadsheets/workbook.ts';
import { printedSchedule } from './printedSchedule.ts';
import { schedulePdf } from './schedulePdf.ts';

type Call = JobCall<'GET /projects/:project/schedule'>;

const notUnderstood = (detail: string): Refusal => new Refusal(400, 'The request is not understood', detail);

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw notUnderstood(
      'question is not JSON. Give one such as {"of": "devices", "columns": [{"key": "name", …}], …}.',
    );
  }
}

/** The question that a call names or brings, and what it is called. @throws Refusal */
function asked(call: Call, network: Network): { question: Question; title: string } {
  const [name, text] = [call.query('name'), call.query('question')];
  if (name !== null) {
    const schedule = scheduleNamed(network, name);
    if (schedule === null) throw notFound(`The schedule ${name}`);
    return { question: questionOf(schedule), title: schedule.name };
  }
  if (text === null) throw notUnderstood('Say which schedule: its name, or a question.');
  const read = questionSchema.safeParse(parsed(text));
  if (!read.success) {
    const [first] = read.error.issues;
    throw notUnderstood(`question.${first?.path.join('.') ?? ''} ${first?.message ?? 'is not understood'}.`);
  }
  const title = call.query('title')?.slice(0, 120) ?? findReport(read.data.of)?.title ?? read.data.of;
  return { question: read.data, title };
}

function dayOf(text: string | null): string {
  if (text === null) return new Date().toISOString().slice(0, 10);
  if (isDay(text)) return text;
  throw notUnderstood(`on is ${text.slice(0, 20)}, not a day such as 2027-03-01.`);
}

/** Schedules as their questions, answered: to read, and as files. */
export const scheduleHandlers = {
  'GET /projects/:project/schedule': async (call) => {
    const { network } = await call.network();
    const { question, title } = asked(call, network);
    const today = dayOf(call.query('on'));
    const scope = call.query('scope');
    const scopeId = question.scopeId ?? (scope === '' ? null : scope);
    if (scopeId !== null && network.get('place', scopeId) === null) throw notFound(`The place ${scopeId}`);
    const answer = answerOf(network, question, scopeId, today);
    if (answer === null) throw notFound(`The built-in schedule ${question.of}`);
    const place = scopeTitle(network, scopeId);
    const fileName = `${title} - ${place}`;
    switch (call.query('format')) {
      case 'csv': {
        const csv = tableToCsv(answerTable(answer, question.numbered));
        return fileAnswer(`${fileName}.csv`, 'text/csv; charset=utf-8', `\uFEFF${csv}`);
      }
      case 'xlsx': {
        const { heads, lines } = scheduleLines(answer, { ...question, blankRepeats: false });
        const rows = lines.map(({ form, level, cells }) => ({ cells, level, strong: form !== 'row' }));
        const notes = (question.notes ?? '').split('\n').filter((line) => line.trim() !== '');
        return fileAnswer(`${fileName}.xlsx`, xlsxType, await workbook(title, heads, rows, notes));
      }
      case 'pdf': {
        const pages = printedSchedule(network, title, question, answer, { scopeId, today });
        return fileAnswer(`${fileName}.pdf`, 'application/pdf', await schedulePdf(pages));
      }
      default:
        return toldAnswer(answer, question);
    }
  },
} satisfies Partial<JobHandlers>;
