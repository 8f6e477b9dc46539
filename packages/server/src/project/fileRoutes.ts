import type { Answer } from '@visograph/api';
import { scopeTitle } from '@visograph/core/cabling';
import { parseExchange, readExchange, writeExchange } from '@visograph/core/exchange';
import { type Network, type Rack } from '@visograph/core/model';
import { elevationScene, withCables, plateFacts, type ElevationWishes } from '@visograph/core/racks';
import { findReport, tableToCsv } from '@visograph/core/report';
import { isColourBy, shadingOf } from '@visograph/core/sheets';
import { elevationSvg } from '@visograph/drawing/svg';
import { readFile } from 'node:fs/promises';
import { embedFonts } from '@visograph/typeface';
import { refuseUnlessOwner } from '../catalogue/ownersOnly.ts';
import { isTooDeep } from '../http/bodies.ts';
import { notFound, Refusal, refuseFile } from '../http/problem.ts';
import { fileAnswer, type JobCall, type JobHandlers } from '../http/route.ts';
import { written } from './editRoutes.ts';
import { tableToXlsx } from '../spreadsheets/tableXlsx.ts';
import { xlsxType } from '../spreadsheets/workbook.ts';

/** The place of the scope parameter; null for the whole project. */
async function scopeOf(call: JobCall<'GET /projects/:project/reports/:report'>): Promise<string | null> {
  const scope = call.query('scope');
  if (scope === null || scope === '') return null;
  const { network } = await call.network();
  if (network.get('place', scope) === null) throw notFound(`The place ${scope}`);
  return scope;
}

/** What the elevation is to show besides the names, as the query says; what is not known is left out. */
function elevationWishes(
  call: JobCall<'GET /projects/:project/racks/:rack/svg'>,
  network: Network,
  rack: Rack,
): ElevationWishes {
  const colour = call.query('colour') ?? 'role';
  const fact = plateFacts.find((one) => one === call.query('fact')) ?? null;
  if (!isColourBy(colour) || colour === 'role') return { fact };
  const today = new Date().toISOString().slice(0, 10);
  return { fact, shading: shadingOf(network, network.find('devicesByRack', rack.id), colour, { today }) };
}

const readText = (text: string): unknown => {
  if (isTooDeep(Buffer.from(text)))
    throw refuseFile([
      { path: '$', message: 'Lists or objects lie within each other too deep for an exchange file.' },
    ]);
  const parsed = parseExchange(text);
  if (!parsed.ok) throw refuseFile(parsed.problems);
  return parsed.data;
};

type Importing = JobCall<'POST /projects/:project/exchange'> | JobCall<'POST /projects/:project/example'>;

/** Takes in what a file holds, all of it or nothing; or tells what that would come to. */
async function takeIn(
  { role, network: meant, pen, jobId, beginWriting }: Omit<Importing, 'param' | 'query' | 'body'>,
  data: unknown,
  { preview }: { preview: boolean },
): Promise<Answer<'POST /projects/:project/exchange'>> {
  const { network } = await meant();
  const read = readExchange(network, data);
  if (!read.ok) throw refuseFile(read.problems);
  refuseUnlessOwner(role, read.changes);
  const count = (op: string): number => read.changes.filter((change) => change.op === op).length;
  const summary = { created: count('create'), updated: count('update'), sentence: read.sentence };
  if (preview || read.changes.length === 0) return summary;
  await beginWriting();
  written(await pen().write({ id: jobId, changes: read.changes, sentence: read.sentence }));
  return summary;
}

/** Files of a project, in and out, and what is worked out over all of it. */
export const fileHandlers = {
  'GET /projects/:project/exchange': async (call) => {
    const { network } = await call.network();
    const file = writeExchange(network);
    return fileAnswer(
      `${file.project?.name ?? 'project'}.visograph.json`,
      'application/json',
      `${JSON.stringify(file, null, 1)}\n`,
    );
  },
  'POST /projects/:project/exchange': async (call) =>
    takeIn(call, readText(call.body), { preview: call.query('preview') === '1' }),
  'POST /projects/:project/example': async (call) => {
    const { exampleFile } = call.services;
    if (exampleFile === null)
      throw new Refusal(
        404,
        'No example',
        'This server has no example network. Begin an empty project instead.',
      );
    return takeIn(call, readText(await readFile(exampleFile, 'utf8')), { preview: false });
  },
  'GET /projects/:project/reports/:report': async (call) => {
    const report = findReport(call.param('report'));
    if (report === null) throw notFound(`The schedule ${call.param('report')}`);
    const scopeId = await scopeOf(call);
    const { network } = await call.network();
    const table = report.make(network, scopeId);
    const format = call.query('format');
    const fileName = `${report.title} - ${scopeTitle(network, scopeId)}`;
    if (format === 'xlsx') {
      return fileAnswer(`${fileName}.xlsx`, xlsxType, await tableToXlsx(report.title, table));
    }
    if (format !== 'csv') return table;
    return fileAnswer(`${fileName}.csv`, 'text/csv; charset=utf-8', `\uFEFF${tableToCsv(table)}`);
  },
  'GET /projects/:project/racks/:rack/svg': async (call) => {
    const { network } = await call.network();
    const rack = network.get('rack', call.param('rack'));
    if (rack === null) throw notFound('This rack');
    const scene = elevationScene(network, rack, elevationWishes(call, network, rack));
    return fileAnswer(
      `${rack.name} elevation.svg`,
      'image/svg+xml',
      await embedFonts(elevationSvg(call.query('cables') === '1' ? withCables(network, scene) : scene)),
    );
  },
} satisfies Partial<JobHandlers>;
