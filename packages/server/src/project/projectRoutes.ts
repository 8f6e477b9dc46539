import { scopeTitle } from '@visograph/core/cabling';
import { type JournalEntry } from '@visograph/core/change';
import { checkNetwork } from '@visograph/core/check';
import { parseExchange, readExchange, writeExchange } from '@visograph/core/exchange';
import { kindNames, newId, type Kind, type Network, type Rack, type Rows } from '@visograph/core/model';
import { elevationScene, withCables, plateFacts, type ElevationWishes } from '@visograph/core/racks';
import { findReport, tableToCsv } from '@visograph/core/report';
import { isColourBy, shadingOf } from '@visograph/core/sheets';
import { elevationSvg } from '@visograph/drawing/svg';
import { z } from 'zod';
import { addProject } from '../people/accounts.ts';
import type { UndoResult, Written } from '../store/projectStore.ts';
import { embedFonts } from '@visograph/typeface';
import { attach } from '../http/attach.ts';
import { notFound, Refusal, refuseFile, refuseProblems } from '../http/problem.ts';
import { refuseUnlessOwner } from '../catalogue/ownersOnly.ts';
import { tableToXlsx, xlsxType } from './tableXlsx.ts';
import { sent, type Call, type Handlers } from '../http/route.ts';

const isId = (text: string | null): text is string => z.uuid().safeParse(text).success;

function written(result: Written | UndoResult): JournalEntry {
  if (result.ok) return result.entry;
  if ('nothing' in result)
    throw new Refusal(409, 'Nothing to do', 'There is no step of yours left to take back or make again.');
  throw refuseProblems(result.problems);
}

/** The place of the scope parameter; null for the whole project. */
async function scopeOf(call: Call<'GET /projects/:project/reports/:report'>): Promise<string | null> {
  const scope = call.query('scope');
  if (scope === null || scope === '') return null;
  const { network } = await call.network();
  if (network.get('place', scope) === null) throw notFound(`The place ${scope}`);
  return scope;
}

/** What the elevation is to show besides the names, as the query says; what is not known is left out. */
function elevationWishes(
  call: Call<'GET /projects/:project/racks/:rack/svg'>,
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
  const parsed = parseExchange(text);
  if (!parsed.ok) throw refuseFile(parsed.problems);
  return parsed.data;
};

export const projectHandlers = {
  'POST /projects': async ({ account, body, services }) => {
    const file = body.example === true ? await services.example() : null;
    const made = await addProject(services.knex, services.store, account, {
      name: body.name,
      ...(file === null ? {} : { file }),
    });
    if (!made.ok) throw refuseFile(made.problems);
    return { id: made.projectId, name: body.name, role: 'owner' as const, revision: 1 };
  },
  'GET /projects/:project/network': async ({ network: meant, query, request, response }) => {
    const { network, revision, line, base } = await meant();
    const tag = line === null ? `"r${revision}"` : `"p${line}.${revision}.${base ?? 0}"`;
    response.set('ETag', tag).set('Cache-Control', 'private, no-cache');
    if (query('at') === null && query('built') === null && request.headers['if-none-match'] === tag) {
      response.status(304).end();
      return sent;
    }
    const rows: { [K in Kind]?: Rows[K][] } = Object.fromEntries(
      kindNames.map((kind) => [kind, [...network.all(kind)]]),
    );
    return { revision, line, base, rows };
  },
  'GET /projects/:project/changes': async ({ projectId, services, query, network: meant }) => {
    const before = Number(query('before') ?? Infinity);
    const row = query('row');
    const { line } = await meant();
    return services.store.history(projectId, line, {
      before: Number.isFinite(before) ? before : null,
      rowId: isId(row) ? row : null,
      most: 100,
    });
  },
  'POST /projects/:project/changes': async ({ body, role, pen }) => {
    refuseUnlessOwner(role, body.changes);
    return written(await pen().write(body));
  },
  'POST /projects/:project/undo': async ({ body, pen }) => written(await pen().step('undo', body.id)),
  'POST /projects/:project/redo': async ({ body, pen }) => written(await pen().step('redo', body.id)),
  'GET /projects/:project/exchange': async (call) => {
    const { network } = await call.network();
    const file = writeExchange(network);
    return attach(
      call,
      `${file.project?.name ?? 'project'}.visograph.json`,
      'application/json',
      `${JSON.stringify(file, null, 1)}\n`,
    );
  },
  'POST /projects/:project/exchange': async ({ body, role, query, network: meant, pen }) => {
    const data = readText(body);
    const { network } = await meant();
    const read = readExchange(network, data);
    if (!read.ok) throw refuseFile(read.problems);
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
  'GET /projects/:project/findings': async (call) => checkNetwork((await call.network()).network),
  'GET /projects/:project/reports/:report': async (call) => {
    const report = findReport(call.param('report'));
    if (report === null) throw notFound(`The schedule ${call.param('report')}`);
    const scopeId = await scopeOf(call);
    const { network } = await call.network();
    const table = report.make(network, scopeId);
    const format = call.query('format');
    const fileName = `${report.title} - ${scopeTitle(network, scopeId)}`;
    if (format === 'xlsx') {
      return attach(call, `${fileName}.xlsx`, xlsxType, await tableToXlsx(report.title, table));
    }
    if (format !== 'csv') return table;
    return attach(call, `${fileName}.csv`, 'text/csv; charset=utf-8', `\uFEFF${tableToCsv(table)}`);
  },
  'GET /projects/:project/racks/:rack/svg': async (call) => {
    const { network } = await call.network();
    const rack = network.get('rack', call.param('rack'));
    if (rack === null) throw notFound('This rack');
    const scene = elevationScene(network, rack, elevationWishes(call, network, rack));
    return attach(
      call,
      `${rack.name} elevation.svg`,
      'image/svg+xml',
      await embedFonts(elevationSvg(call.query('cables') === '1' ? withCables(network, scene) : scene)),
    );
  },
} satisfies Partial<Handlers>;
