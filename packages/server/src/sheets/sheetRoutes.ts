import { bundleManners, isOneOf, type Page, type Sheet } from '@visograph/core/model';
import {
  planOf,
  readTopology,
  sheetToDot,
  documentTitle,
  sheetToGraphml,
  shownGraph,
  sheetToTopology,
} from '@visograph/core/sheets';
import { answerOf, questionOf } from '@visograph/core/report';
import { zipSync, type Zippable } from 'fflate';
import { documentSetPdf } from '../reports/documentSet.ts';
import { printedSchedule } from '../reports/printedSchedule.ts';
import type { PrintedSchedule } from '../reports/schedulePdf.ts';
import type { MissingGlyphs, PrintedPages, PrintSheet } from './printing/order.ts';
import { print as drawn } from './printing/print.ts';
import { notFound, Refusal, refuseFile } from '../http/problem.ts';
import { fileAnswer, type FileAnswer, type JobCall, type Caller, type JobHandlers } from '../http/route.ts';

const day = (): string => new Date().toISOString().slice(0, 10);

/** A sheet read for printing, with its title block; refused when it asks for more than can be drawn. */
async function readSheet(
  call: Pick<Caller, 'network'>,
  sheetId: string,
  page: Partial<Page> = {},
  bundles: string | null = null,
): Promise<{ sheet: Sheet; print: PrintSheet }> {
  const { network, revision } = await call.network();
  const sheet = network.get('sheet', sheetId);
  if (sheet === null) throw notFound('This sheet');
  const plan = planOf(network, sheet, { today: day(), stamp: { revision, date: day() } });
  if (plan.tooMany !== null)
    throw new Refusal(
      422,
      'Too much for one sheet',
      `${sheet.name} asks for ${plan.tooMany} devices. Draw the sites, or choose a smaller scope.`,
    );
  if (bundles !== null && !isOneOf(bundleManners, bundles))
    throw new Refusal(
      422,
      'That is no way to draw bundles',
      `bundles is ${bundles}, not ${bundleManners.join(', ')}.`,
    );
  const drawn = bundles === null ? plan : { ...plan, bundles: { drawn: bundles, own: new Map() } };
  return { sheet, print: { name: sheet.name, plan: drawn, page: { ...sheet.page, ...page } } };
}

/** Schedules of the project as they are printed: of their own place, or of all. */
async function printedSchedules(
  call: Pick<Caller, 'network'>,
  ids: ReadonlySet<string>,
): Promise<PrintedSchedule[]> {
  const { network } = await call.network();
  return [...ids].map((id) => {
    const schedule = network.get('schedule', id);
    if (schedule === null) throw notFound('This schedule');
    const question = questionOf(schedule);
    const answer = answerOf(network, question, null, day());
    if (answer === null) throw notFound(`The built-in schedule ${question.of}`);
    const of = { scopeId: question.scopeId, today: day() };
    return printedSchedule(network, schedule.name, question, answer, of);
  });
}

const paged = async (
  call: Pick<Caller, 'network'> & { param: (name: 'sheet') => string },
  bundles: string | null = null,
): Promise<{ sheet: Sheet; print: PrintSheet }> => readSheet(call, call.param('sheet'), {}, bundles);

const mostScale = 4;

/** A file of each sheet in one archive, telling how far it is. */
async function printEach(call: JobCall<'POST /projects/:project/print-each'>): Promise<FileAnswer> {
  const prints: PrintSheet[] = [];
  for (const id of new Set(call.body.sheetIds))
    prints.push((await readSheet(call, id, call.body.page)).print);
  const files: Zippable = {};
  for (const sheet of prints) {
    const bytes = await drawn({ form: 'pdf', sheets: [sheet], title: documentTitle(sheet.plan) });
    files[freeName(files, sheet.name.replaceAll('/', '-'))] = bytes;
    call.tell(Object.keys(files).length, prints.length);
  }
  // A PDF is packed already; the time is always the same, so that the same sheets give the same bytes.
  return fileAnswer(
    'sheets.zip',
    'application/zip',
    zipSync(files, { level: 0, mtime: '1980-01-01T00:00:00Z' }),
  );
}

/** Two sheets may have one name. */
function freeName(taken: object, name: string): string {
  let free = `${name}.pdf`;
  for (let count = 2; free in taken; count++) free = `${name} (${count}).pdf`;
  return free;
}

export const sheetHandlers = {
  'GET /projects/:project/sheets/:sheet/svg': async (call) => {
    const { sheet, print } = await paged(call, call.query('bundles'));
    const bytes = await drawn({ form: 'svg', sheet: print });
    return fileAnswer(`${sheet.name}.svg`, 'image/svg+xml', bytes);
  },
  'GET /projects/:project/sheets/:sheet/png': async (call) => {
    const scale = Number(call.query('scale') ?? 2);
    if (!(scale >= 0.1 && scale <= mostScale))
      throw new Refusal(422, 'The scale cannot be drawn', `scale is not a number from 0.1 to ${mostScale}.`);
    const { sheet, print } = await paged(call, call.query('bundles'));
    const transparent = call.query('transparent') === '1';
    const bytes = await drawn({ form: 'png', sheet: print, scale, transparent });
    return fileAnswer(`${sheet.name}.png`, 'image/png', bytes);
  },
  'GET /projects/:project/sheets/:sheet/pdf': async (call) => {
    const { sheet, print } = await paged(call, call.query('bundles'));
    const bytes = await drawn({
      form: 'pdf',
      sheets: [print],
      title: documentTitle(print.plan),
    });
    return fileAnswer(`${sheet.name}.pdf`, 'application/pdf', bytes);
  },
  'GET /projects/:project/sheets/:sheet/pages': async (call) => {
    const { print } = await paged(call, call.query('bundles'));
    const bytes = await drawn({ form: 'pages', sheet: print });
    return JSON.parse(bytes.toString('utf8')) as PrintedPages;
  },
  'POST /projects/:project/missing-glyphs': async (call) => {
    const sheets: PrintSheet[] = [];
    for (const id of new Set(call.body.sheetIds)) sheets.push((await readSheet(call, id)).print);
    const bytes = await drawn({ form: 'missing', sheets });
    return JSON.parse(bytes.toString('utf8')) as MissingGlyphs;
  },
  'POST /projects/:project/print': async (call) => {
    const { body } = call;
    const sheets: PrintSheet[] = [];
    for (const id of new Set(body.sheetIds)) sheets.push((await readSheet(call, id, body.page)).print);
    const schedules = await printedSchedules(call, new Set(body.scheduleIds ?? []));
    const title = body.title ?? (sheets.length === 1 ? (sheets[0]?.name ?? 'Sheet') : 'Sheets');
    if (sheets.length + schedules.length === 0)
      throw new Refusal(422, 'Nothing to print', 'sheetIds and scheduleIds are empty. Name at least one.');
    const whole = body.contents === true || schedules.length > 0;
    const { revision } = await call.network();
    const under = `r${revision} · ${day()}`;
    const bytes = whole
      ? await documentSetPdf({ title, under, sheets, schedules }, call.tell)
      : await drawn({ form: 'pdf', sheets, title }, call.tell);
    return fileAnswer(`${title}.pdf`, 'application/pdf', bytes);
  },
  'POST /projects/:project/print-each': printEach,
  'GET /projects/:project/sheets/:sheet/graph': async (call) => {
    const { sheet, print } = await paged(call);
    const format = call.query('format') ?? 'graphml';
    if (format === 'dot')
      return fileAnswer(
        `${sheet.name}.dot`,
        'text/vnd.graphviz',
        sheetToDot(documentTitle(print.plan), shownGraph(print.plan)),
      );
    if (format === 'topology')
      return fileAnswer(
        `${sheet.name}.topology.json`,
        'application/json',
        `${JSON.stringify(sheetToTopology(documentTitle(print.plan), shownGraph(print.plan)), null, 2)}\n`,
      );
    if (format === 'graphml')
      return fileAnswer(
        `${sheet.name}.graphml`,
        'application/graphml+xml',
        sheetToGraphml(documentTitle(print.plan), shownGraph(print.plan)),
      );
    throw new Refusal(
      422,
      'The format is not known',
      `There is no format ${format}. There are graphml, dot and topology.`,
    );
  },
  'POST /topology': async ({ body, query }) => {
    const read = readTopology(body, query('place'));
    if (!read.ok) throw refuseFile(read.problems);
    return read.file;
  },
} satisfies Partial<JobHandlers>;
