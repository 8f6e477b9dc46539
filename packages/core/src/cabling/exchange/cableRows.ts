import { grouped } from '../../model/values/numbers.ts';
import { applyChanges } from '../../change/apply.ts';
import { create, update, type Change, type ChangeSet } from '../../change/change.ts';
import { labelGiver } from '../labels.ts';
import { clash } from '../match.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { builtInModels } from '../../catalogue/builtIn/index.ts';
import { blankCable, cableStatuses, type Cable } from '../../model/kinds/lines/cable.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { countOf, Wrong, type ListRow } from '../../exchange/listRows.ts';
import { newId } from '../../model/values/ids.ts';
import { kinds, modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { filledBy, portTitle } from '../../model/network/ports.ts';
import { endIn, Ends } from './cableEnds.ts';
import { changesForPorts, linksToMake, type LinksMade } from './linkTable.ts';
import {
  cableFields,
  columnsByContent,
  columnsByName,
  columnsByShape,
  type CableColumns,
  type CableField,
} from './cableColumns.ts';

export interface CableRowsRead {
  columns: CableColumns;
  /** Whether the first row holds headings. */
  headed: boolean;
  results: ListRow[];
  /** "2 devices, 8 ports": what is made beside the cables; empty where nothing is. */
  alsoMade: string;
  set: ChangeSet;
  /** Why nothing can be read, such as ends that no column holds. */
  problem: string | null;
}

interface Parsed {
  row: number;
  existing: Cable | null;
  cable: Cable;
  given: boolean;
}

const numberIn = (text: string): number => {
  const value = Number(text.replace(/ ?m$/i, '').replace(',', '.'));
  if (!Number.isFinite(value)) throw new Wrong(`the length “${text}” is not a number of metres`);
  if (value < 0) throw new Wrong(`the length ${text} is negative`);
  return value;
};

/** Reads rows in two passes: what they say, then whether their ports are free once all of them are read. */
class Reader {
  private readonly types = new Map<string, CatalogueModel | null>();
  private readonly models: Change[] = [];
  private readonly labels = new Map<string, number>();
  readonly parsed: Parsed[] = [];
  readonly results = new Map<number, ListRow>();

  constructor(
    private readonly network: Network,
    private readonly columns: CableColumns,
    private readonly ends: Ends,
    private readonly made: LinksMade | null,
  ) {}

  private type(title: string): CatalogueModel {
    const key = title.toLowerCase();
    let model = this.types.get(key);
    if (model === undefined) {
      const known = this.network.findOne('modelByTitle', key);
      const builtIn =
        known === null
          ? builtInModels().find((one) => one.form === 'cable' && modelTitle(one).toLowerCase() === key)
          : undefined;
      model = known?.form === 'cable' ? known : null;
      if (builtIn !== undefined) {
        model = { ...builtIn, id: newId() };
        this.models.push(create('model', model));
      }
      this.types.set(key, model);
    }
    if (model === null) throw new Wrong(`there is no cable type “${title}” in the catalogue`);
    return model;
  }

  private end(text: (field: CableField) => string, side: 'a' | 'b'): string | null | undefined {
    const end = endIn(this.columns, text, side);
    if (end === undefined) return undefined;
    if ('whole' in end) return end.whole === '' ? null : this.ends.find(end.whole);
    if (end.device === '' && end.port === '') return null;
    if (end.device === '') throw new Wrong(`the ${side.toUpperCase()} device is missing`);
    if (end.port === '') throw new Wrong(`the port of ${end.device} is missing`);
    return this.ends.find(`${end.device}:${end.port}`);
  }

  read(row: number, cells: readonly string[]): void {
    const text = (field: CableField): string => cells[this.columns[field] ?? -1]?.trim() ?? '';
    const label = text('label');
    try {
      const earlier = label === '' ? undefined : this.labels.get(label.toLowerCase());
      if (earlier !== undefined) throw new Wrong(`row ${earlier} has the same label`);
      if (label !== '') this.labels.set(label.toLowerCase(), row);
      const [a, b] = [this.end(text, 'a'), this.end(text, 'b')];
      const joining = label === '' ? this.joining(a ?? null, b ?? null) : null;
      const existing = joining ?? this.network.findOne('cableByLabel', label.toLowerCase());
      const cable: Cable = {
        ...blankCable,
        ...existing,
        id: existing?.id ?? newId(),
        label: label || (existing?.label ?? ''),
      };
      // A cable without a label that joins the two already stays as it lies, whichever way round it is listed.
      if (a !== undefined && joining === null) cable.aPortId = a;
      if (b !== undefined && joining === null) cable.bPortId = b;
      if (cable.aPortId === null && cable.bPortId === null && existing === null)
        throw new Wrong('it names no end');
      if (cable.aPortId !== null && cable.aPortId === cable.bPortId)
        throw new Wrong(`both ends are ${portTitle(this.network, cable.aPortId)}`);
      if (text('type') !== '') cable.typeId = this.type(text('type')).id;
      if (text('lengthM') !== '') cable.lengthM = numberIn(text('lengthM'));
      if (text('notes') !== '') cable.notes = text('notes');
      if (text('status') !== '') {
        const status = cableStatuses.find((one) => one === text('status').toLowerCase());
        if (status === undefined)
          throw new Wrong(`the status “${text('status')}” is not ${cableStatuses.join(', ')}`);
        cable.status = status;
      }
      this.parsed.push({ row, existing, cable, given: cable.label !== '' });
    } catch (error) {
      if (!(error instanceof Wrong)) throw error;
      this.cannot(row, label, error.message);
    }
  }

  /** The cable that joins two ports already; null where none does. */
  private joining(a: string | null, b: string | null): Cable | null {
    const cable = a === null || b === null ? null : this.network.findOne('cablesByPort', a);
    const ends = [cable?.aPortId, cable?.bPortId];
    return cable !== null && ends.includes(a) && ends.includes(b) ? cable : null;
  }

  private cannot(row: number, label: string, why: string): void {
    this.results.set(row, { row, label: label || '–', does: 'cannot', detail: why });
  }

  /** Judges ports and pairs, gives labels where they are missing, and makes the changes of the good rows. */
  *finish(): Generator<number, Change[]> {
    const { network } = this;
    const leaving = new Map<string, Cable>();
    for (const { existing, cable } of this.parsed)
      for (const id of [existing?.aPortId, existing?.bPortId])
        if (id != null && id !== cable.aPortId && id !== cable.bPortId) leaving.set(id, cable);
    const claimed = new Map<string, number>();
    const good: Parsed[] = [];
    for (const [at, one] of this.parsed.entries()) {
      if (at % 2000 === 1999) yield at;
      const why = this.obstacle(one, claimed, leaving);
      if (why !== null) {
        this.cannot(one.row, one.cable.label, why);
        continue;
      }
      for (const id of [one.cable.aPortId, one.cable.bPortId]) if (id !== null) claimed.set(id, one.row);
      good.push(one);
    }
    this.giveLabels(good.filter((one) => !one.given));
    const around = this.made === null ? [] : changesForPorts(this.made, claimed.keys());
    const changes: Change[] = [...this.models, ...around];
    for (const { row, existing, cable } of good) {
      const change = existing === null ? create('cable', cable) : update('cable', existing, cable);
      const ends = [cable.aPortId, cable.bPortId].map((id) => portTitle(network, id) || 'open').join(' – ');
      const fields = change?.op === 'update' ? Object.keys(change.after) : [];
      const detail = fields.length === 0 ? ends : `${this.fieldText(fields)}; ${ends}`;
      const does = existing === null ? 'new' : change === null ? 'same' : 'changes';
      this.results.set(row, { row, label: cable.label, does, detail });
      if (change !== null) changes.push(change);
    }
    return changes;
  }

  private fieldText(fields: readonly string[]): string {
    const names: Record<string, string> = {
      aPortId: 'A end',
      bPortId: 'B end',
      typeId: 'type',
      lengthM: 'length',
    };
    return fields.map((field) => names[field] ?? field).join(', ');
  }

  private obstacle(
    { cable }: Parsed,
    claimed: ReadonlyMap<string, number>,
    leaving: ReadonlyMap<string, Cable>,
  ): string | null {
    for (const id of [cable.aPortId, cable.bPortId]) {
      if (id === null) continue;
      const row = claimed.get(id);
      if (row !== undefined) return `${portTitle(this.network, id)} is taken by row ${row}`;
      const holds = this.network.findOne('cablesByPort', id);
      if (holds !== null && holds.id !== cable.id && !leaving.has(id))
        return `${portTitle(this.network, id)} holds ${holds.label}`;
      if (holds === null && filledBy(this.network, id) !== null)
        return `${portTitle(this.network, id)} holds ${filledBy(this.network, id) ?? ''}`;
    }
    const [a, b] = [this.port(cable.aPortId), this.port(cable.bPortId)];
    return a === null || b === null ? null : clash(a, b);
  }

  private port(id: string | null): Port | null {
    return this.network.get('port', id);
  }

  private giveLabels(rows: readonly Parsed[]): void {
    const spokenFor = this.parsed.flatMap(({ cable, given }) => (given ? [cable.label] : []));
    const next = labelGiver(this.network, spokenFor);
    for (const { cable } of rows) cable.label = next(this.port(cable.aPortId), this.port(cable.bPortId));
  }
}

function alsoMade(changes: readonly Change[]): string {
  const count = (kind: 'device' | 'port'): number =>
    changes.filter((change) => change.kind === kind && change.op === 'create').length;
  return (['device', 'port'] as const)
    .map((kind) => ({ kind, number: count(kind) }))
    .filter(({ number }) => number > 0)
    .map(({ kind, number }) => `${grouped(number)} ${number === 1 ? kinds[kind].one : kinds[kind].many}`)
    .join(', ');
}

/**
 * Reads a cable list, as from a spreadsheet. Columns are matched by heading and by content, or as told. Every row is
 * told what it comes to: new, the same, changes, or cannot and why; the changes are those of the good rows. Yields
 * how many rows are done, so that long lists can show progress and be stopped. With `making` it is a table of links:
 * devices that are not there are made in that place, with the ports that it names.
 */
export function* readCableRows(
  network: Network,
  rows: readonly (readonly string[])[],
  told: CableColumns | null = null,
  making: { placeId: string | null } | null = null,
): Generator<number, CableRowsRead> {
  const [first = [], ...rest] = rows;
  const named = columnsByName(first);
  const headed = Object.keys(named).length >= 2;
  const body = headed ? rest : rows;
  const there = new Ends(network);
  const byName = headed ? named : {};
  const begun = making === null ? byName : columnsByShape(body, byName);
  const columns = told ?? columnsByContent(network, body, begun, (text) => there.names(text));
  const nothing = { columns, headed, results: [], alsoMade: '', set: { changes: [], sentence: '' } };
  if (!cableFields.some((field) => /End$|Device$/.test(field) && columns[field] !== undefined))
    return {
      ...nothing,
      problem:
        'No column is known to hold the ends. Choose the columns of the A and the B end, or name them “A end” and “B end”.',
    };
  const made = making === null ? null : linksToMake(network, body, columns, making.placeId);
  const whole = made?.network ?? network;
  const reader = new Reader(whole, columns, made === null ? there : new Ends(whole), made);
  for (const [at, cells] of body.entries()) {
    if (cells.some((cell) => cell.trim() !== '')) reader.read(at + (headed ? 2 : 1), cells);
    if (at % 1000 === 999) yield at + 1;
  }
  const changes = yield* reader.finish();
  const results = [...reader.results.values()].sort((a, b) => a.row - b.row);
  return {
    columns,
    headed,
    results,
    alsoMade: alsoMade(changes),
    set: {
      changes,
      sentence: `Imported a cable list: ${countOf(results, 'new')} new, ${countOf(results, 'changes')} changed`,
    },
    problem: results.length === 0 ? 'There are no rows below the headings.' : null,
  };
}

/** The same at once, for a list short enough; problems that only show in the whole are told as one. */
export function readCableList(
  network: Network,
  rows: readonly (readonly string[])[],
  told: CableColumns | null = null,
  making: { placeId: string | null } | null = null,
): CableRowsRead {
  const steps = readCableRows(network, rows, told, making);
  let step = steps.next();
  while (step.done !== true) step = steps.next();
  const read = step.value;
  if (read.set.changes.length === 0) return read;
  const applied = applyChanges(network, read.set.changes);
  return applied.ok ? read : { ...read, problem: applied.problems[0]?.message ?? null };
}
