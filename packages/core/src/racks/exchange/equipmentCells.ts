import { dayReader, type DayRead } from '../../exchange/days.ts';
import { Wrong } from '../../exchange/listRows.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { readMoney } from '../../model/values/money.ts';
import type { EquipmentColumns, EquipmentField } from './equipmentColumns.ts';

/** The cells of one row, by what they hold; empty where the list has no such column. */
export type Cells = (field: EquipmentField) => string;

/** Words for the states of a device, as the trade writes them. */
const statusWords: Readonly<Record<Device['status'], readonly string[]>> = {
  planned: ['planned', 'plan', 'ordered', 'on order'],
  active: ['active', 'in use', 'in service', 'in operation', 'live', 'installed', 'running', 'up'],
  retired: ['retired', 'out of service', 'decommissioned', 'disposed', 'scrapped', 'removed'],
};

function statusOf(text: string): Device['status'] {
  const word = text.toLowerCase();
  for (const status of ['planned', 'active', 'retired'] as const)
    if (statusWords[status].includes(word)) return status;
  throw new Wrong(`the status “${text}” is not planned, active or retired`);
}

/** "12", "U12", "12-13" and "U12–U13" are unit 12. */
function unitOf(text: string): number {
  const [, low, high] = /^U?\s*(\d+(?:[.,]5)?)(?:\s*[-–]\s*U?\s*(\d+(?:[.,]5)?))?$/i.exec(text) ?? [];
  if (low === undefined) throw new Wrong(`the unit “${text}” is not a number such as 12`);
  const figures = [low, high ?? low].map((one) => Number(one.replace(',', '.')));
  return Math.min(...figures);
}

function faceOf(text: string): Device['face'] {
  const word = text.toLowerCase();
  if (word === 'front' || word === 'f') return 'front';
  if (word === 'rear' || word === 'back' || word === 'r') return 'rear';
  throw new Wrong(`the face “${text}” is not front or rear`);
}

const texts = [
  'serial',
  'assetNumber',
  'responsible',
  'supplier',
  'orderNumber',
  'contract',
  'softwareVersion',
  'notes',
] as const;
const days = ['boughtOn', 'installedOn', 'warrantyUntil', 'supportUntil'] as const;

/** Reads the facts of a row that need nothing of the network. */
export class CellReader {
  private readonly days = new Map<EquipmentField, (text: string) => DayRead>();

  constructor(
    rows: readonly (readonly string[])[],
    private readonly columns: EquipmentColumns,
    private readonly headings: readonly string[],
  ) {
    for (const field of days) {
      const column = columns.fields[field];
      if (column !== undefined) this.days.set(field, dayReader(rows.map((row) => row[column] ?? '')));
    }
  }

  /** What the row says of its device; what it leaves empty is not said. */
  facts(text: Cells, row: readonly string[], before: Device | null): Partial<Device> {
    const facts: Partial<Device> = {};
    for (const field of texts) if (text(field) !== '') facts[field] = text(field);
    for (const field of days) {
      const cell = text(field);
      const read = cell === '' ? undefined : this.days.get(field)?.(cell);
      if (read?.ok === false) throw new Wrong(read.why);
      if (read?.ok === true) facts[field] = read.day;
    }
    if (text('status') !== '') facts.status = statusOf(text('status'));
    if (text('face') !== '') facts.face = faceOf(text('face'));
    if (text('unit') !== '') facts.unit = unitOf(text('unit'));
    if (text('price') !== '') {
      const currency = text('currency').toUpperCase() || (before?.currency ?? null);
      const paid = readMoney(text('price'), currency);
      if (paid === null) throw new Wrong(`the price “${text('price')}” is not an amount such as 1250.00 EUR`);
      if (paid.currency === null)
        throw new Wrong(
          `the price ${text('price')} has no currency: write ${text('price')} EUR, or add its column`,
        );
      Object.assign(facts, paid);
    }
    const extra = this.own(row);
    if (Object.keys(extra).length > 0) facts.extra = { ...before?.extra, ...extra };
    return facts;
  }

  private own(row: readonly string[]): Record<string, string> {
    const found: Record<string, string> = {};
    for (const column of this.columns.own) {
      const name = this.headings[column]?.trim().slice(0, 40) || `Column ${column + 1}`;
      const value = row[column]?.trim() ?? '';
      if (value.length > 200) throw new Wrong(`${name} is longer than 200 characters`);
      if (value !== '') found[name] = value;
    }
    return found;
  }
}
