import {
  changeSchema,
  checkNetwork,
  elevationScene,
  withCables,
  findReport,
  isColourBy,
  kindNames,
  newId,
  parseExchange,
  plateFacts,
  readExchange,
  scopeTitle,
  shadingOf,
  tableToCsv,
  writeExchange,
  type ElevationWishes,
  type FileProblem,
  type Kind,
  type Network,
  type Rack,
} from '@visograph/core';
import { elevationSvg } from '@visograph/drawing/svg';
import { z } from 'zod';
import { addProject } from '../accounts/accounts.ts';
import type { UndoResult, Written } from '../store/projectStore.ts';
import { embedFonts } from '@visograph/typeface';
import { attach } from './attach.ts';
import { notFound, Refusal, refuseFile, refuseProblems } from './problem.ts';
import { refuseUnlessOwner } from './ownersOnly.ts';
import { tableToXlsx, xlsxType } from './tableXlsx.ts';
import { route, type Call, type Route } from './route.ts';

export const importLimit = 40 * 1024 * 1024;
const isId = (text: string | null): text is string => z.uuid().safeParse(text).success;

const changesBody = z.strictObject({
  id: z.uuid(),
  sentence: z.string().min(1).max(500),
  changes: z.array(changeSchema).min(1).max(200_000),
});

export function written(result: Written | UndoResult): unknown {
  if (result.ok) return result.entry;
  if ('nothing' in result)
    throw new Refusal(409, 'Nothing to do', 'There is no step of yours left to take back or make again.');
  throw refuseProblems(result.problems);
}

/** The place of the scope parameter; null for the whole project. */
async function scopeOf(call: Call<unknown>): Promise<string | null> {
  const scope = call.query('scope');
  if (scope === null || scope === '') return null;
  const { network } = await call.network();
  if (network.get('place', scope) === null) throw notFound(`The place ${scope}`);
  return scope;
}

/** What the elevation is to show besides the names, as the query says; what is not known is left out. */
function elevationWishes(call: Call<unknown>, network: Network, rack: Rack): ElevationWishes {
  const colour = call.query('colour') ?? 'role';
  const fact = plateFacts.find((one) => one === call.query('fact')) ?? null;
  if (!isColourBy(colour) || colour === 'role') return { fact };
  const today = new Date().toISOString().slice(0, 10);
  return { fact, shading: shadingOf(network, network.find('devicesByRack', rack.id), colour, { today }) };
}

const readText = (text: string): unknown => {
  const parsed = parseExchange(text);
  if (!parsed.ok) throw refuseFile(parsed.problems);
  return parsed.data;
};

export const projectRoutes: readonly Route[] = [
  route({
    method: 'post',
    path: '/projects',
    access: 'signedIn',
    summary: 'Begin a project with the built-in catalogue; the person becomes its owner',
    body: z.strictObject({ name: z.string().trim().min(1, 'is empty').max(80) }),
    handle: async ({ account, body, services }) => {
      const made = await addProject(services.knex, services.store, account, { name: body.name });
      if (!made.ok) throw refuseFile(made.problems);
      return { id: made.projectId, name: body.name, role: 'owner', revision: 1 };
    },
  }),
  route({
    method: 'get',
    path: '/projects/:project/network',
    access: 'reader',
    summary: 'All rows of the project at its newest revision, or at=revision for those of an earlier moment',
    handle: async ({ network: meant, query, request, response }) => {
      const { network, revision, line, base } = await meant();
      const tag = line === null ? `"r${revision}"` : `"p${line}.${revision}.${base ?? 0}"`;
      response.set('ETag', tag).set('Cache-Control', 'private, no-cache');
      if (query('at') === null && query('built') === null && request.headers['if-none-match'] === tag) {
        response.status(304).end();
        return undefined;
      }
      const rows: Partial<Record<Kind, unknown[]>> = {};
      for (const kind of kindNames) rows[kind] = [...network.all(kind)];
      return { revision, line, base, rows };
    },
  }),
  route({
    method: 'get',
    path: '/projects/:project/changes',
    access: 'reader',
    summary: 'The journal, newest first; before=revision for older entries, row=id for those about one row',
    handle: async ({ projectId, services, query, network: meant }) => {
      const before = Number(query('before') ?? Infinity);
      const row = query('row');
      const { line } = await meant();
      return services.store.history(projectId, line, {
        before: Number.isFinite(before) ? before : null,
        rowId: isId(row) ? row : null,
        most: 100,
      });
    },
  }),
  route({
    method: 'post',
    path: '/projects/:project/changes',
    access: 'editor',
    summary: 'Make changes together, or none; the id makes sending twice harmless',
    body: changesBody,
    handle: async ({ body, role, pen }) => {
      refuseUnlessOwner(role, body.changes);
      return written(await pen().write(body));
    },
  }),
  ...(['undo', 'redo'] as const).map((direction) =>
    route({
      method: 'post',
      path: `/projects/:project/${direction}`,
      access: 'editor',
      summary: direction === 'undo' ? "Take back the person's own latest step" : 'Make it again',
      body: z.strictObject({ id: z.uuid().optional() }),
      handle: async ({ body, pen }) => written(await pen().step(direction, body.id)),
    }),
  ),
  route({
    method: 'get',
    path: '/projects/:project/exchange',
    access: 'reader',
    summary: 'The project as an exchange file',
    handle: async (call) => {
      const { network } = await call.network();
      const file = writeExchange(network);
      attach(
        call,
        `${file.project?.name ?? 'project'}.visograph.json`,
        'application/json',
        `${JSON.stringify(file, null, 1)}\n`,
      );
      return undefined;
    },
  }),
  route<string>({
    method: 'post',
    path: '/projects/:project/exchange',
    access: 'editor',
    summary: 'Import an exchange file: created or updated by name, all or nothing; preview=1 writes nothing',
    textLimit: importLimit,
    handle: async ({ body, role, query, network: meant, pen }) => {
      const data = readText(body);
      const { network } = await meant();
      const read = readExchange(network, data);
      if (!read.ok) throw refuseFile(read.problems as FileProblem[]);
      refuseUnlessOwner(role, read.changes);
      const count = (op: string): number => read.changes.filter((change) => change.op === op).length;
      const summary = { created: count('create'), updated: count('update'), sentence: read.sentence };
      if (query('preview') === '1' || read.changes.length === 0) return summary;
      written(
        await pen().write({
          id: newId(),
          changes: read.changes,
          sentence: read.sentence,
        }),
      );
      return summary;
    },
  }),
  route({
    method: 'get',
    path: '/projects/:project/findings',
    access: 'reader',
    summary: 'What the checks find; with built=1 in what is built today, without what is only planned',
    handle: async (call) => checkNetwork((await call.network()).network),
  }),
  route({
    method: 'get',
    path: '/projects/:project/reports/:report',
    access: 'reader',
    summary:
      'A schedule for a scope, as JSON, with format=csv as CSV (RFC 4180), with format=xlsx as a workbook (ISO/IEC 29500); built=1 leaves out what is only planned',
    handle: async (call) => {
      const report = findReport(call.param('report'));
      if (report === null) throw notFound(`The schedule ${call.param('report')}`);
      const scopeId = await scopeOf(call);
      const { network } = await call.network();
      const table = report.make(network, scopeId);
      const format = call.query('format');
      const fileName = `${report.title} - ${scopeTitle(network, scopeId)}`;
      if (format === 'xlsx') {
        attach(call, `${fileName}.xlsx`, xlsxType, await tableToXlsx(report.title, table));
        return undefined;
      }
      if (format !== 'csv') return table;
      attach(call, `${fileName}.csv`, 'text/csv; charset=utf-8', `\uFEFF${tableToCsv(table)}`);
      return undefined;
    },
  }),
  route({
    method: 'get',
    path: '/projects/:project/racks/:rack/svg',
    access: 'reader',
    summary: 'A rack elevation as SVG with its fonts inside; colour=…, fact=… and cables=1 as on the screen',
    handle: async (call) => {
      const { network } = await call.network();
      const rack = network.get('rack', call.param('rack'));
      if (rack === null) throw notFound('This rack');
      const scene = elevationScene(network, rack, elevationWishes(call, network, rack));
      attach(
        call,
        `${rack.name} elevation.svg`,
        'image/svg+xml',
        await embedFonts(elevationSvg(call.query('cables') === '1' ? withCables(network, scene) : scene)),
      );
      return undefined;
    },
  }),
];
