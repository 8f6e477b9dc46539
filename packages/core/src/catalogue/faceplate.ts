import type { CatalogueModel, Slot } from '../model/kinds/equipment/catalogueModel.ts';
import { groupNames, type PortGroup } from '../model/kinds/equipment/portGroup.ts';
import { slotNumber } from './modelPorts.ts';

/** IEC 60297: one unit is 44.45 mm high; the face between the rack's posts is 450 mm wide. */
export const unitHeightMm = 44.45;
export const faceWidthMm = 450;

/** A rectangle on a face, in millimetres from its top left corner. */
interface Spot {
  x: number;
  y: number;
  width: number;
  height: number;
}
export interface FacePort extends Spot {
  name: string;
}
export interface FaceSlot extends Spot {
  name: string;
  family: string;
  filled: boolean;
}
export interface Face {
  ports: FacePort[];
  slots: FaceSlot[];
}
type Faced = Pick<CatalogueModel, 'portGroups' | 'units'> &
  Partial<Pick<CatalogueModel, 'slots' | 'halfWidth'>>;
/** The model of the module in a slot, or null when the slot is empty. */
export type InSlot = (slot: Slot) => Pick<CatalogueModel, 'portGroups'> | null;

const gapMm = 1.2;
const blockGapMm = 5;
const edgeMm = 8;
const largestPortMm = 13;
/** Part of the face before the first port that is left to the name. */
const nameShare = 1 / 3;

const wide = new Set([
  'QSFP28',
  'QSFP+',
  'C13',
  'C14',
  'C19',
  'C20',
  'IEC 309-16',
  'IEC 309-32',
  'MPO',
  'serial',
  'DC',
]);
const weightOf = (group: PortGroup): number => (wide.has(group.connector) ? 1.5 : 1);

interface Run {
  names: readonly string[];
  group: PortGroup;
}

function cell(group: PortGroup, index: number, count: number): { column: number; row: number } {
  const columns = Math.ceil(count / group.rows);
  return group.order === 'down'
    ? { column: Math.floor(index / group.rows), row: index % group.rows }
    : { column: index % columns, row: Math.floor(index / columns) };
}

/** Groups from left to right inside an area, right-aligned, sized so that all fit. */
function portsIn(runs: readonly Run[], area: Spot): FacePort[] {
  const columnsOf = ({ names, group }: Run): number => Math.ceil(names.length / group.rows);
  const breaks = (group: PortGroup, column: number): number =>
    group.block > 0 ? Math.floor(column / group.block) : 0;
  const gaps = runs.reduce(
    (sum, run) => sum + breaks(run.group, columnsOf(run) - 1),
    (runs.length - 1) * 1.5,
  );
  const cells = runs.reduce((sum, run) => sum + columnsOf(run) * weightOf(run.group), 0);
  const gap = Math.min(blockGapMm, area.width / Math.max(1, gaps) / 4);
  const room = area.width - gaps * gap;
  const unit = Math.max(1.6, Math.min(largestPortMm, room / Math.max(1, cells) - gapMm));
  const used = runs.reduce(
    (sum, run) => sum + columnsOf(run) * (unit * weightOf(run.group) + gapMm),
    gaps * gap,
  );
  let left = area.x + Math.max(0, area.width - used);
  const ports: FacePort[] = [];
  for (const run of runs) {
    const { names, group } = run;
    const width = unit * weightOf(group);
    const rowHeight = Math.min(largestPortMm, area.height / group.rows - gapMm);
    const top = area.y + (area.height - group.rows * (rowHeight + gapMm)) / 2;
    names.forEach((name, index) => {
      const { column, row } = cell(group, index, names.length);
      const x = left + column * (width + gapMm) + breaks(group, column) * gap;
      ports.push({ name, x, y: top + row * (rowHeight + gapMm), width, height: rowHeight });
    });
    left += columnsOf(run) * (width + gapMm) + (breaks(group, columnsOf(run) - 1) + 1.5) * gap;
  }
  return ports;
}

const runsOf = (groups: readonly PortGroup[], face: 'front' | 'rear', slot: number): Run[] =>
  groups
    .map((group) => ({ group, names: groupNames(group, group.face === face ? 'own' : 'other', slot) }))
    .filter((run) => run.names.length > 0);

/** Bays side by side in as many lines as the height holds, at most one bay a unit high. */
function slotsIn(slots: readonly Slot[], area: Spot): (Spot & { slot: Slot })[] {
  const lines = Math.max(1, Math.min(slots.length, Math.round(area.height / unitHeightMm)));
  const columns = Math.ceil(slots.length / lines);
  const width = area.width / columns;
  const height = area.height / lines;
  return slots.map((slot, at) => ({
    slot,
    x: area.x + (at % columns) * width,
    y: area.y + Math.floor(at / columns) * height,
    width: width - 2,
    height: height - 2,
  }));
}

/**
 * Where each port and slot of a face sits, from the model's port groups and slots: ports in the groups' rows and
 * columns with a gap after each block, bays beside them, the ports of a module inside its bay.
 */
export function faceLayout(model: Faced, face: 'front' | 'rear', inSlot: InSlot = () => null): Face {
  const width = faceWidthMm * (model.halfWidth === true ? 0.5 : 1);
  const height = Math.max(0.5, model.units) * unitHeightMm;
  const start = width * nameShare;
  const runs = runsOf(model.portGroups, face, 1);
  const bays = (model.slots ?? []).filter((slot) => slot.face === face);
  const area = { x: start, y: 4, width: width - start - edgeMm, height: height - 8 };
  const share = bays.length === 0 ? 0 : runs.length === 0 ? 1 : 0.45;
  const forPorts = { ...area, width: area.width * (1 - share) - (share > 0 ? 4 : 0) };
  const ports = runs.length === 0 ? [] : portsIn(runs, forPorts);
  const slots: FaceSlot[] = [];
  if (bays.length > 0) {
    const bayArea = { ...area, x: area.x + area.width * (1 - share), width: area.width * share };
    for (const { slot, ...spot } of slotsIn(bays, bayArea)) {
      const module = inSlot(slot);
      slots.push({ ...spot, name: slot.name, family: slot.family, filled: module !== null });
      if (module === null) continue;
      const number = slotNumber({ slots: model.slots ?? [] }, slot.name);
      const groups = module.portGroups.map((group) => ({ ...group, face }));
      const inner = { x: spot.x + 3, y: spot.y + 2, width: spot.width - 6, height: spot.height - 4 };
      const inside = runsOf(groups, face, number);
      if (inside.length > 0) ports.push(...portsIn(inside, inner));
    }
  }
  return { ports, slots };
}

/** Outlets of gear at the side of a rack: one below the other along a strip of this size, front and rear alike. */
export function sideLayout(
  model: Pick<CatalogueModel, 'portGroups'>,
  width: number,
  height: number,
): FacePort[] {
  const names = model.portGroups.flatMap((group) => groupNames(group, 'own'));
  const pitch = height / Math.max(1, names.length);
  const port = Math.min(width * 0.8, pitch * 0.72);
  return names.map((name, at) => ({
    name,
    x: (width - port) / 2,
    y: at * pitch + (pitch - port) / 2,
    width: port,
    height: port,
  }));
}
