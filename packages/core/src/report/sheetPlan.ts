import { seenBy } from '../lens/seenBy.ts';
import type { Mark } from '../model/kinds/drawings/mark.ts';
import type { Schedule } from '../model/kinds/reports/schedule.ts';
import { projectionNatures } from '../model/kinds/drawings/projections.ts';
import type { Sheet } from '../model/kinds/drawings/sheet.ts';
import type { Network } from '../model/network/network.ts';
import type { Kind } from '../model/kinds.ts';
import { allFactSorts, factSorts, type Facet, type FactSort } from '../model/values/facts.ts';
import { grouped } from '../model/values/numbers.ts';
import { planOf as planWithTables, type PlanOptions } from '../sheets/projection/plan.ts';
import type { DrawingPlan } from '../sheets/scene/drawingPlan.ts';
import type { Scene } from '../sheets/scene/scene.ts';
import { sceneOf, type DrawOptions } from '../sheets/scene/sceneOf.ts';
import { mostTableRows, type SheetTable } from '../sheets/scene/table.ts';
import { answerOf, type Answer } from './question/answer.ts';
import { questionOf } from './question/builtIn.ts';
import { scheduleLines } from './question/lines.ts';
import type { Cell } from './table.ts';

/** Thousands of what has a unit are parted; numbers that name something are not. */
const textOf = (value: Cell, unit?: string): string =>
  typeof value === 'number' && unit !== undefined
    ? grouped(value, String(value).split('.')[1]?.length ?? 0)
    : String(value ?? '');

function tableOf(answer: Answer, schedule: Schedule): SheetTable {
  const { heads, lines } = scheduleLines(answer, schedule, mostTableRows);
  const left = answer.lines.slice(mostTableRows).filter(({ form }) => form === 'row').length;
  const rows = lines
    // What is worked out of all of them does not stand below some of them.
    .filter(({ form }) => form !== 'total' || left === 0)
    .map(({ form, cells }) => ({
      heading: form !== 'row',
      cells: cells.map((value, at) => textOf(value, heads[at]?.unit)),
    }));
  return {
    title: schedule.name,
    heads: heads.map(({ label, unit, numeric }) => ({
      text: unit === undefined ? label : `${label} (${unit})`,
      numeric: numeric === true,
    })),
    rows,
    below: [
      ...(answer.count === 0 ? ['No row passes.'] : []),
      ...(left === 0 ? [] : [`${grouped(left)} more rows stand in the schedule alone.`]),
      ...answer.problems,
      ...(schedule.notes ?? '').split('\n').filter((line) => line !== ''),
    ],
  };
}

/**
 * The sorts of fact that were switched off on a sheet: its tables do not tell them either. What such a sheet shows
 * only when asked to, or cannot show at all, a table may tell: somebody chose its columns.
 */
export const hiddenOn = ({ projection, show }: Pick<Sheet, 'projection' | 'show'>): FactSort[] =>
  allFactSorts.filter((sort) => {
    const { facet } = factSorts[sort];
    return facet !== null && projectionNatures[projection].usual.includes(facet) && !show.includes(facet);
  });

/** What a sheet must show for rows of a kind to be listed on it. */
const drawnAs: Partial<Record<Kind, Facet>> = {
  device: 'devices',
  module: 'devices',
  port: 'devices',
  cable: 'links',
  leg: 'links',
  circuit: 'links',
};
const facetWords: Partial<Record<Facet, string>> = { devices: 'devices', links: 'links' };

/** The rows of the schedules that stand on a sheet, by mark, read from what the sheet shows of the network. */
function tablesOn(network: Network, sheet: Sheet, today: string): Map<string, SheetTable> {
  const marks: readonly Mark[] = network
    .find('marksBySheet', sheet.id)
    .filter(({ form }) => form === 'schedule');
  if (marks.length === 0) return new Map();
  const hidden = new Set(hiddenOn(sheet));
  const seen = seenBy(network, { sees: new Set(allFactSorts.filter((sort) => !hidden.has(sort))) });
  return new Map(
    marks.flatMap(({ id, scheduleId }): [string, SheetTable][] => {
      const schedule = network.get('schedule', scheduleId);
      if (schedule === null) return [];
      const answer = answerOf(seen, questionOf(schedule), sheet.scopeId, today);
      if (answer === null) return [];
      const facet = drawnAs[answer.kind];
      if (facet === undefined || sheet.show.includes(facet)) return [[id, tableOf(answer, schedule)]];
      const below = [`This sheet does not show ${facetWords[facet] ?? facet}.`];
      return [[id, { title: schedule.name, heads: [], rows: [], below }]];
    }),
  );
}

/** Reads the model for a sheet: what is on it, what was done with it by hand, and the rows of its tables. */
export const planOf = (network: Network, sheet: Sheet, options: PlanOptions): DrawingPlan =>
  planWithTables(network, sheet, { ...options, tables: tablesOn(network, sheet, options.today) });

/** Reads the model for a sheet and draws it at once. */
export const sheetScene = (network: Network, sheet: Sheet, options: DrawOptions & PlanOptions): Scene =>
  sceneOf(planOf(network, sheet, options), options);
