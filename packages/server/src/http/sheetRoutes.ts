import {
  pageSchema,
  planOf,
  readTopology,
  sheetToDot,
  documentTitle,
  sheetToGraphml,
  shownGraph,
  sheetToTopology,
  type Page,
  type Sheet,
} from '@visograph/core';
import { z } from 'zod';
import type { MissingGlyphs, PrintSheet } from '../printing/order.ts';
import { attach } from './attach.ts';
import { notFound, Refusal, refuseFile } from './problem.ts';
import { route, type Call, type Route } from './route.ts';

const day = (): string => new Date().toISOString().slice(0, 10);

/** A sheet read for printing, with its title block; refused when it asks for more than can be drawn. */
async function readSheet(
  call: Call<unknown>,
  sheetId: string,
  page: Partial<Page> = {},
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
  return { sheet, print: { name: sheet.name, plan, page: { ...sheet.page, ...page } } };
}

const paged = async (call: Call<unknown>): Promise<{ sheet: Sheet; print: PrintSheet }> =>
  readSheet(call, call.param('sheet'));

const printBody = z.strictObject({
  sheetIds: z.array(z.uuid()).min(1, 'are none').max(200, 'are more than 200'),
  title: z.string().max(200).optional(),
  page: pageSchema.partial().optional(),
});

const missingBody = printBody.pick({ sheetIds: true });

const mostScale = 4;

/** A file of each sheet, one after the other, in lines of JSON with progress; leaving the request stops it. */
async function printEach(call: Call<z.infer<typeof printBody>>): Promise<undefined> {
  const { body, response, services } = call;
  const prints: PrintSheet[] = [];
  for (const id of body.sheetIds) prints.push((await readSheet(call, id, body.page)).print);
  let gone = false;
  response.on('close', () => {
    gone = true;
  });
  response.status(200).type('application/x-ndjson');
  let done = 0;
  for (const sheet of prints) {
    if (gone) return undefined;
    const bytes = await services.press.print({
      form: 'pdf',
      sheets: [sheet],
      title: documentTitle(sheet.plan),
    });
    done++;
    response.write(
      `${JSON.stringify({ done, of: prints.length, name: `${sheet.name}.pdf`, data: bytes.toString('base64') })}\n`,
    );
  }
  response.end();
  return undefined;
}

export const sheetRoutes: readonly Route[] = [
  route({
    method: 'get',
    path: '/projects/:project/sheets/:sheet/svg',
    access: 'reader',
    summary: 'A sheet as SVG with its fonts inside',
    handle: async (call) => {
      const { sheet, print } = await paged(call);
      const bytes = await call.services.press.print({ form: 'svg', sheet: print });
      attach(call, `${sheet.name}.svg`, 'image/svg+xml', bytes);
      return undefined;
    },
  }),
  route({
    method: 'get',
    path: '/projects/:project/sheets/:sheet/png',
    access: 'reader',
    summary: 'A sheet as PNG; scale=1 to 4, transparent=1 leaves the paper out',
    handle: async (call) => {
      const scale = Number(call.query('scale') ?? 2);
      if (!(scale >= 0.1 && scale <= mostScale))
        throw new Refusal(
          422,
          'The scale cannot be drawn',
          `scale is not a number from 0.1 to ${mostScale}.`,
        );
      const { sheet, print } = await paged(call);
      const transparent = call.query('transparent') === '1';
      const bytes = await call.services.press.print({ form: 'png', sheet: print, scale, transparent });
      attach(call, `${sheet.name}.png`, 'image/png', bytes);
      return undefined;
    },
  }),
  route({
    method: 'get',
    path: '/projects/:project/sheets/:sheet/pdf',
    access: 'reader',
    summary: 'A sheet as PDF on its paper',
    handle: async (call) => {
      const { sheet, print } = await paged(call);
      const bytes = await call.services.press.print({
        form: 'pdf',
        sheets: [print],
        title: documentTitle(print.plan),
      });
      attach(call, `${sheet.name}.pdf`, 'application/pdf', bytes);
      return undefined;
    },
  }),
  route({
    method: 'get',
    path: '/projects/:project/sheets/:sheet/pages',
    access: 'reader',
    summary: 'A sheet as one SVG for each page of its paper, for the printing of the browser',
    handle: async (call) => {
      const { print } = await paged(call);
      const bytes = await call.services.press.print({ form: 'pages', sheet: print });
      return JSON.parse(bytes.toString('utf8')) as unknown;
    },
  }),
  route<z.infer<typeof missingBody>>({
    method: 'post',
    path: '/projects/:project/missing-glyphs',
    access: 'reader',
    summary: 'The texts of sheets with characters that no font here has: they would be printed as boxes',
    body: missingBody,
    handle: async (call) => {
      const sheets: PrintSheet[] = [];
      for (const id of call.body.sheetIds) sheets.push((await readSheet(call, id)).print);
      const bytes = await call.services.press.print({ form: 'missing', sheets });
      return JSON.parse(bytes.toString('utf8')) as MissingGlyphs;
    },
  }),
  route<z.infer<typeof printBody>>({
    method: 'post',
    path: '/projects/:project/print',
    access: 'reader',
    summary: 'Several sheets in one PDF with a bookmark for each; page overrules the paper of all of them',
    body: printBody,
    handle: async (call) => {
      const { body } = call;
      const sheets: PrintSheet[] = [];
      for (const id of body.sheetIds) sheets.push((await readSheet(call, id, body.page)).print);
      const title = body.title ?? (sheets.length === 1 ? (sheets[0]?.name ?? 'Sheet') : 'Sheets');
      attach(
        call,
        `${title}.pdf`,
        'application/pdf',
        await call.services.press.print({ form: 'pdf', sheets, title }),
      );
      return undefined;
    },
  }),
  route<z.infer<typeof printBody>>({
    method: 'post',
    path: '/projects/:project/print-each',
    access: 'reader',
    summary: 'A PDF of each sheet, in lines of JSON with progress and the file as base64',
    body: printBody,
    handle: printEach,
  }),
  route({
    method: 'get',
    path: '/projects/:project/sheets/:sheet/graph',
    access: 'reader',
    summary: 'What a sheet shows as a graph: format=graphml, dot, or topology (RFC 8345)',
    handle: async (call) => {
      const { sheet, print } = await paged(call);
      const format = call.query('format') ?? 'graphml';
      if (format === 'dot')
        attach(
          call,
          `${sheet.name}.dot`,
          'text/vnd.graphviz',
          sheetToDot(documentTitle(print.plan), shownGraph(print.plan)),
        );
      else if (format === 'topology')
        attach(
          call,
          `${sheet.name}.topology.json`,
          'application/json',
          `${JSON.stringify(sheetToTopology(documentTitle(print.plan), shownGraph(print.plan)), null, 2)}\n`,
        );
      else if (format === 'graphml')
        attach(
          call,
          `${sheet.name}.graphml`,
          'application/graphml+xml',
          sheetToGraphml(documentTitle(print.plan), shownGraph(print.plan)),
        );
      else
        throw new Refusal(
          422,
          'The format is not known',
          `There is no format ${format}. There are graphml, dot and topology.`,
        );
      return undefined;
    },
  }),
  route<string>({
    method: 'post',
    path: '/topology',
    access: 'signedIn',
    summary: 'Turns a network topology (RFC 8345, JSON) into an exchange file; writes nothing',
    textLimit: 20 * 1024 * 1024,
    handle: async ({ body, query }) => {
      const read = readTopology(body, query('place'));
      if (!read.ok) throw refuseFile(read.problems);
      return read.file;
    },
  }),
];
