import { applyChanges } from '../../change/apply.ts';
import type { ChangeSet } from '../../change/change.ts';
import { countOf, type ListRow } from '../../exchange/listRows.ts';
import type { Network } from '../../model/network/network.ts';
import {
  equipmentColumnsByContent,
  equipmentColumnsByName,
  ownColumns,
  type EquipmentColumns,
} from './equipmentColumns.ts';
import { EquipmentReader, type EquipmentWish } from './equipmentReader.ts';
import { ListModels, type UnknownModel } from './unknownModels.ts';

export interface EquipmentRead {
  columns: EquipmentColumns;
  /** Whether the first row holds headings. */
  headed: boolean;
  results: ListRow[];
  unknown: UnknownModel[];
  /** "2 models, 3 places and 1 rack": what is made beside the devices; empty where nothing is. */
  alsoMade: string;
  /** Devices whose management address is kept as an own field until the management VLAN is said. */
  withoutPort: number;
  set: ChangeSet;
  /** Why nothing can be read. */
  problem: string | null;
}

/**
 * Reads an equipment list, as from a spreadsheet. Columns are matched by heading and by content, or as told. Every row
 * is told what it comes to: new, the same, changes with both values, or cannot and why; the changes are those of the
 * good rows. Models that the catalogue does not know are asked once for all their rows. Yields how many rows are done,
 * so that long lists can show progress and be stopped.
 */
export function* readEquipmentRows(
  network: Network,
  rows: readonly (readonly string[])[],
  wish: EquipmentWish,
): Generator<number, EquipmentRead> {
  const [first = [], ...rest] = rows;
  const named = equipmentColumnsByName(first);
  const known = Object.keys(named).length;
  const headed = known >= 2 || (known === 1 && first.filter((cell) => cell.trim() !== '').length === 1);
  const body = headed ? rest : rows;
  const models = new ListModels(network, wish.models);
  const fields =
    wish.columns?.fields ??
    equipmentColumnsByContent(network, body, headed ? named : {}, (text) => models.isModel(text));
  const columns = wish.columns ?? { fields, own: headed ? ownColumns(first, body, fields) : [] };
  const nothing = {
    columns,
    headed,
    results: [],
    unknown: [],
    alsoMade: '',
    withoutPort: 0,
    set: { changes: [], sentence: '' },
  };
  if (
    columns.fields.name === undefined &&
    columns.fields.serial === undefined &&
    columns.fields.model === undefined
  )
    return { ...nothing, problem: 'No column is known to hold the names. Choose it, or call it “Name”.' };
  const reader = new EquipmentReader(network, columns, wish, body, headed ? first : [], models);
  for (const [at, cells] of body.entries()) {
    if (cells.some((cell) => cell.trim() !== '')) reader.read(at + (headed ? 2 : 1), cells);
    if (at % 1000 === 999) yield at + 1;
  }
  const { changes, alsoMade: also, results } = yield* reader.finish();
  return {
    columns,
    headed,
    results,
    unknown: models.unknown(),
    alsoMade: also,
    withoutPort: reader.withoutPort,
    set: {
      changes,
      sentence: `Imported an equipment list: ${countOf(results, 'new')} new, ${countOf(results, 'changes')} changed`,
    },
    problem: results.length === 0 ? 'There are no rows below the headings.' : null,
  };
}

/** The same at once, for a list short enough; what only shows in the whole is told as one. */
export function readEquipmentList(
  network: Network,
  rows: readonly (readonly string[])[],
  wish: EquipmentWish,
): EquipmentRead {
  const steps = readEquipmentRows(network, rows, wish);
  let step = steps.next();
  while (step.done !== true) step = steps.next();
  const read = step.value;
  if (read.set.changes.length === 0) return read;
  const applied = applyChanges(network, read.set.changes);
  return applied.ok ? read : { ...read, problem: applied.problems[0]?.message ?? null };
}
