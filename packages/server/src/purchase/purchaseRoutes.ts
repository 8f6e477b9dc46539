import { isDay, reviewOf } from '@visograph/core/check';
import { isOneOf, moneyText, type Network, type Quotation, type Sheet } from '@visograph/core/model';
import {
  lineNet,
  partGroupings,
  partGroupsOf,
  partsOf,
  partsTable,
  percentText,
  toOrder,
  totalsOf,
  type PartGrouping,
} from '@visograph/core/purchase';
import { tableToCsv } from '@visograph/core/report';
import { planOf } from '@visograph/core/sheets';
import { notFound, Refusal } from '../http/problem.ts';
import { fileAnswer, type JobCall, type JobHandlers } from '../http/route.ts';
import type { PrintSheet } from '../sheets/printing/order.ts';
import { workbook, xlsxType, type WorkbookLine } from '../spreadsheets/workbook.ts';
import { quotationPdf } from './quotationPdf.ts';

const notUnderstood = (detail: string): Refusal => new Refusal(400, 'The request is not understood', detail);

function dayOf(text: string | null): string {
  if (text === null) return new Date().toISOString().slice(0, 10);
  if (isDay(text)) return text;
  throw notUnderstood(`on is ${text.slice(0, 20)}, not a day such as 2027-03-01.`);
}

/** The quotation that a call names. @throws Refusal */
function quotationOf(call: JobCall<'GET /projects/:project/quotation'>, network: Network): Quotation {
  const [number, revision] = [call.query('number'), call.query('revision')];
  if (number === null) throw notUnderstood('number is missing: say which quotation.');
  const all = network
    .find('quotationsByNumber', number.toLowerCase())
    .sort((a, b) => b.revision - a.revision);
  const found = revision === null ? all[0] : all.find((one) => String(one.revision) === revision);
  if (found === undefined)
    throw notFound(`The quotation ${number}${revision === null ? '' : ` revision ${revision}`}`);
  return found;
}

/** The sheets that are printed with a quotation, as they are now; one that is gone is left out. */
function drawingsOf(network: Network, { drawings, quotedOn }: Quotation): PrintSheet[] {
  const named = new Map([...network.all('sheet')].map((sheet): [string, Sheet] => [sheet.name, sheet]));
  return drawings.flatMap((name): PrintSheet[] => {
    const sheet = named.get(name);
    if (sheet === undefined) return [];
    const plan = planOf(network, sheet, { today: quotedOn });
    return plan.tooMany === null ? [{ name, plan, page: sheet.page }] : [];
  });
}

/** A quotation as a workbook: sections with their lines, then the sums. */
function quotationBook(row: Quotation): Promise<Buffer> {
  const totals = totalsOf(row);
  const units = (minor: number | null): number | null => (minor === null ? null : minor / 100);
  const columns = [
    { key: 'what', label: 'Item' },
    { key: 'part', label: 'Part number' },
    { key: 'count', label: 'Count', numeric: true },
    { key: 'unit', label: 'Unit' },
    { key: 'each', label: 'Each', numeric: true, unit: row.currency },
    { key: 'discount', label: 'Discount', numeric: true, unit: '%' },
    { key: 'tax', label: 'Tax', numeric: true, unit: '%' },
    { key: 'net', label: 'Net', numeric: true, unit: row.currency },
    { key: 'option', label: 'Option' },
  ];
  const strong = (text: string, net: number | null): WorkbookLine => ({
    cells: [text, null, null, null, null, null, null, units(net), null],
    ...{ level: 0, strong: true },
  });
  const lines = row.sections.flatMap((section, at): WorkbookLine[] => [
    strong(
      section.discount === 0 ? section.name : `${section.name}, less ${percentText(section.discount)}`,
      totals.sections[at]?.netMinor ?? 0,
    ),
    ...section.lines.map((line): WorkbookLine => ({
      cells: [
        line.what,
        line.partNumber,
        line.count,
        line.unit,
        units(line.unitMinor),
        line.discount / 100,
        line.tax / 100,
        units(lineNet(line, section)),
        line.optional ? 'option' : null,
      ],
      ...{ level: 1, strong: false },
    })),
  ]);
  const sums = [
    strong('Net sum', totals.netMinor),
    ...totals.taxes.map(({ rate, taxMinor }) => strong(`Tax ${percentText(rate)}`, taxMinor)),
    strong('Total', totals.totalMinor),
  ];
  const notes = [row.title, row.customer ?? '', ...(row.terms ?? '').split('\n')];
  return workbook(
    `${row.number} r${row.revision}`,
    columns,
    [...lines, ...sums],
    notes.filter((line) => line.trim() !== ''),
  );
}

/** Parts lists and quotations, to read and as files. */
export const purchaseHandlers = {
  'GET /projects/:project/parts': async (call) => {
    const { network } = await call.network();
    const name = call.query('list');
    if (name === null) throw notUnderstood('list is missing: say which parts list.');
    const list = [...network.all('partsList')].find((one) => one.name.toLowerCase() === name.toLowerCase());
    if (list === undefined) throw notFound(`The parts list ${name}`);
    const by: string = call.query('by') ?? 'section';
    if (!isOneOf<PartGrouping>(partGroupings, by))
      throw notUnderstood(`by is ${by.slice(0, 20)}, not one of ${partGroupings.join(', ')}.`);
    const day = dayOf(call.query('on'));
    const answer = partsOf(network, list, day);
    const fileName = `${list.name} - ${day}`;
    switch (call.query('format')) {
      case 'csv': {
        const csv = tableToCsv(partsTable(network, list, answer, by));
        return fileAnswer(`${fileName}.csv`, 'text/csv; charset=utf-8', `\uFEFF${csv}`);
      }
      case 'xlsx': {
        const { columns, rows } = partsTable(network, list, answer, by);
        const lines = rows.map((row) => ({
          cells: columns.map(({ key }) => row[key] ?? null),
          ...{ level: 0, strong: false },
        }));
        const sum = moneyText({ priceMinor: answer.totalMinor, currency: list.currency });
        const notes = [
          `Sum of the amounts that are known: ${sum}`,
          ...(answer.unpriced === 0 ? [] : [`${answer.unpriced} lines without a price in ${list.currency}`]),
        ];
        return fileAnswer(`${fileName}.xlsx`, xlsxType, await workbook(list.name, columns, lines, notes));
      }
      default:
        return {
          list: list.name,
          currency: list.currency,
          totalMinor: answer.totalMinor,
          unpriced: answer.unpriced,
          groups: partGroupsOf(network, list, answer, by).map(({ title, totalMinor, rows, ids }) => ({
            ...{ title, totalMinor, rows: [...rows], ids: [...ids] },
          })),
          concerns: toOrder(network, list, answer, day, reviewOf(network, day).open).map(
            ({ severity, text, line }) => ({
              ...{ severity, text, line },
            }),
          ),
        };
    }
  },
  'GET /projects/:project/quotation': async (call) => {
    const { network } = await call.network();
    const row = quotationOf(call, network);
    const fileName = row.revision === 1 ? row.number : `${row.number} revision ${row.revision}`;
    switch (call.query('format')) {
      case 'xlsx':
        return fileAnswer(`${fileName}.xlsx`, xlsxType, await quotationBook(row));
      case 'pdf': {
        const [project] = network.all('project');
        const models = new Map(
          row.sections
            .flatMap(({ lines }) => lines.flatMap(({ model }) => model ?? []))
            .flatMap((title) => {
              const model = network.findOne('modelByTitle', title.toLowerCase());
              return model === null ? [] : [[title, model] as const];
            }),
        );
        const drawings = drawingsOf(network, row);
        const bytes = await quotationPdf({ row, from: project?.name ?? '', models, drawings });
        return fileAnswer(`${fileName}.pdf`, 'application/pdf', bytes);
      }
      default:
        return { quotation: row, totals: totalsOf(row) };
    }
  },
} satisfies Partial<JobHandlers>;
