import { distance } from 'fastest-levenshtein';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Price } from '../model/kinds/purchase/priceList.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { readMoney } from '../model/values/money.ts';
import { metresText } from '../model/values/numbers.ts';
import { compareNames } from '../model/values/order.ts';
import { keysOf } from '../model/values/words.ts';
import { readNumber } from '../report/question/test.ts';

/** A price that a row of a table gives. */
export type ReadPrice = Omit<Price, 'id' | 'listId'>;

/** What is wrong with a row, by its number in the table, the heading being row 1. */
export interface RowProblem {
  row: number;
  column: string;
  message: string;
}
export interface ReadPrices {
  prices: readonly ReadPrice[];
  problems: readonly RowProblem[];
  /** Rows with anything in them, without the heading. */
  rows: number;
}

/** What a column of a price list can hold, and the words that its heading may be. */
const headings = {
  partNumber: [
    'part number',
    'part no',
    'part',
    'article',
    'article number',
    'article no',
    'item',
    'item number',
    'item no',
    'order number',
  ],
  model: ['model', 'name', 'description', 'product', 'designation'],
  length: ['length', 'length m', 'metres', 'meters'],
  licence: ['licence', 'license', 'subscription'],
  price: ['price', 'unit price', 'net price', 'list price', 'price each', 'each'],
  currency: ['currency'],
  pack: ['pack', 'pack size', 'packaging', 'per pack', 'units per pack', 'quantity per pack'],
} as const;
type Heading = keyof typeof headings;
const columnNames: Record<Heading, string> = {
  partNumber: 'Part number',
  model: 'Model',
  length: 'Length',
  licence: 'Licence',
  price: 'Price',
  currency: 'Currency',
  pack: 'Pack',
};

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replaceAll(/\(.*?\)/g, ' ')
    .replaceAll(/[^a-z]+/g, ' ')
    .trim();

function columnsOf(heading: readonly string[]): Map<Heading, number> {
  const found = new Map<Heading, number>();
  heading.forEach((text, at) => {
    const words = plain(text);
    for (const key of keysOf<Heading>(headings))
      if (!found.has(key) && headings[key].some((word) => word === words)) {
        found.set(key, at);
        return;
      }
  });
  return found;
}

/** Of ten letters so many may differ where a model is asked after. */
const likeness = 0.7;

/** The model of the catalogue whose title is spelled most like a text; null where none is near. */
function nearest(network: Network, text: string): string | null {
  const wanted = text.toLowerCase();
  const [best] = [...network.all('model')]
    .map((model) => modelTitle(model))
    .map((title) => ({ title, off: distance(title.toLowerCase(), wanted) }))
    .filter(({ title, off }) => off <= (1 - likeness) * Math.max(title.length, wanted.length))
    .sort((a, b) => a.off - b.off || compareNames(a.title, b.title));
  return best?.title ?? null;
}

class RowWrong extends Error {
  constructor(
    readonly column: Heading,
    message: string,
  ) {
    super(message);
  }
}

interface Known {
  byPartNumber: ReadonlyMap<string, CatalogueModel | null>;
  network: Network;
}

function modelOf({ byPartNumber, network }: Known, partNumber: string, title: string): CatalogueModel {
  if (partNumber !== '') {
    const found = byPartNumber.get(partNumber.toLowerCase());
    if (found !== undefined && found !== null) return found;
    if (found === null)
      throw new RowWrong(
        'partNumber',
        `Two models of the catalogue have the part number ${partNumber}. Give the model as well.`,
      );
    if (title === '')
      throw new RowWrong(
        'partNumber',
        `No model of the catalogue has the part number ${partNumber}. Add it there, or give the model.`,
      );
  }
  if (title === '') throw new RowWrong('model', 'Neither a part number nor a model is given.');
  const model = network.findOne('modelByTitle', title.toLowerCase());
  if (model !== null) return model;
  const near = nearest(network, title);
  throw new RowWrong(
    'model',
    `The catalogue has no model “${title}”.${near === null ? '' : ` Is it ${near}?`}`,
  );
}

function readRow(known: Known, cell: (heading: Heading) => string, currency: string): ReadPrice {
  const model = modelOf(known, cell('partNumber'), cell('model'));
  const title = modelTitle(model);
  const said = cell('currency').toUpperCase();
  const money = readMoney(cell('price'), said === '' ? currency : said);
  if (cell('price') === '') throw new RowWrong('price', `${title} has no price.`);
  if (money?.priceMinor == null)
    throw new RowWrong('price', `“${cell('price')}” of ${title} is no amount such as 1 250.00.`);
  if (money.currency !== currency)
    throw new RowWrong(
      'currency',
      `${title} is priced in ${money.currency ?? 'no currency'}, the list in ${currency}. Put it into a list of its own.`,
    );
  const length = cell('length') === '' ? null : readNumber(cell('length').replace(/\s*m$/i, ''));
  if (cell('length') !== '' && length === null)
    throw new RowWrong('length', `“${cell('length')}” of ${title} is no length in metres.`);
  if (length !== null && !model.stockLengthsM.includes(length))
    throw new RowWrong(
      'length',
      model.stockLengthsM.length === 0
        ? `${title} is not made in lengths. Leave it empty.`
        : `${title} is not made in ${metresText(length)}, but in ${model.stockLengthsM.join(', ')} m.`,
    );
  if (length === null && model.stockLengthsM.length > 0 && cell('licence') === '')
    throw new RowWrong('length', `${title} is sold by its length. Give it.`);
  const licence = cell('licence');
  const licensed = model.licences.find(({ name }) => name.toLowerCase() === licence.toLowerCase());
  if (licence !== '' && licensed === undefined)
    throw new RowWrong('licence', `${title} has no licence “${licence}”.`);
  const pack = cell('pack') === '' ? 1 : readNumber(cell('pack'));
  if (pack === null || !Number.isInteger(pack) || pack < 1 || pack > 10_000)
    throw new RowWrong('pack', `“${cell('pack')}” of ${title} is no number of pieces from 1 to 10 000.`);
  return {
    modelId: model.id,
    lengthM: length,
    licence: licensed?.name ?? null,
    unitMinor: money.priceMinor,
    pack,
  };
}

/**
 * Reads a table of prices by its headings: part number or model, length, licence, price, currency, pack. Every row that
 * cannot be read is told with its column; of a part that is there twice the first counts.
 */
export function readPrices(
  network: Network,
  table: readonly (readonly string[])[],
  currency: string,
): ReadPrices {
  const [heading = [], ...rows] = table;
  const columns = columnsOf(heading);
  const filled = rows.filter((row) => row.some((text) => text.trim() !== '')).length;
  const missing = !columns.has('price')
    ? 'Price'
    : !columns.has('partNumber') && !columns.has('model')
      ? 'Part number or Model'
      : null;
  if (missing !== null) {
    const message = `The table has no column ${missing}. Its first row must name its columns: ${Object.values(columnNames).join(', ')}.`;
    return { prices: [], problems: [{ row: 1, column: missing, message }], rows: filled };
  }
  const byPartNumber = new Map<string, CatalogueModel | null>();
  for (const model of network.all('model')) {
    if (model.partNumber === null) continue;
    const key = model.partNumber.toLowerCase();
    byPartNumber.set(key, byPartNumber.has(key) ? null : model);
  }
  const prices = new Map<string, ReadPrice>();
  const problems: RowProblem[] = [];
  rows.forEach((row, index) => {
    if (row.every((text) => text.trim() === '')) return;
    const cell = (key: Heading): string => row[columns.get(key) ?? -1]?.trim() ?? '';
    const at = index + 2;
    try {
      const price = readRow({ network, byPartNumber }, cell, currency);
      const key = `${price.modelId}/${price.lengthM ?? ''}/${price.licence ?? ''}`;
      if (prices.has(key))
        throw new RowWrong('price', 'The part has a price in a row above. Delete one of them.');
      prices.set(key, price);
    } catch (error) {
      if (!(error instanceof RowWrong)) throw error;
      problems.push({ row: at, column: columnNames[error.column], message: error.message });
    }
  });
  return { prices: [...prices.values()], problems, rows: filled };
}
