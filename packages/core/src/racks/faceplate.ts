import type { CatalogueModel, PortGroup } from '../model/kinds/catalogueModel.ts';
import { expandPortPattern } from '../model/portPattern.ts';

/** IEC 60297: one unit is 44.45 mm high; the face between the rack's posts is 450 mm wide. */
export const unitHeightMm = 44.45;
export const faceWidthMm = 450;

export interface FacePort {
  name: string;
  /** Millimetres from the top left corner of the face. */
  x: number;
  y: number;
  width: number;
  height: number;
}

const gapMm = 1.2;
const blockGapMm = 5;

function cell(
  group: PortGroup,
  index: number,
  count: number,
): { column: number; row: number; columns: number } {
  const columns = Math.ceil(count / group.rows);
  return group.order === 'down'
    ? { column: Math.floor(index / group.rows), row: index % group.rows, columns }
    : { column: index % columns, row: Math.floor(index / columns), columns };
}

const wide = new Set(['QSFP28', 'QSFP+', 'C13', 'C14', 'C19', 'C20', 'MPO', 'serial']);

/**
 * Where each port of a face sits, from the model's port groups: groups from left to right, rows and columns as
 * stated, a gap after each block, sized so that all fit between `startMm` and the right edge.
 */
export function faceLayout(
  model: Pick<CatalogueModel, 'portGroups' | 'units'>,
  face: 'front' | 'rear',
  startMm = 150,
): FacePort[] {
  const groups: { names: string[]; group: PortGroup }[] = [];
  for (const group of model.portGroups) {
    const pattern = group.face === face ? group.pattern : group.rearPattern;
    const names = pattern === null ? null : expandPortPattern(pattern);
    if (names?.ok && (group.face === face || group.rearPattern !== null))
      groups.push({ names: names.names, group });
  }
  const weightOf = (group: PortGroup): number => (wide.has(group.connector) ? 1.5 : 1);
  const columnsOf = (count: number, group: PortGroup): number => Math.ceil(count / group.rows);
  const gaps = groups.reduce((sum, { names, group }) => {
    const columns = columnsOf(names.length, group);
    return sum + (group.block > 0 ? Math.floor((columns - 1) / group.block) : 0);
  }, groups.length * 1.5);
  const cells = groups.reduce(
    (sum, { names, group }) => sum + columnsOf(names.length, group) * weightOf(group),
    0,
  );
  const room = faceWidthMm - startMm - 8 - gaps * blockGapMm;
  const unit = Math.max(2, Math.min(13, room / Math.max(1, cells) - gapMm));
  const height = Math.max(1, model.units) * unitHeightMm;

  const used = cells * (unit + gapMm) + gaps * blockGapMm;
  let left = Math.max(startMm, faceWidthMm - 8 - used);
  const ports: FacePort[] = [];
  for (const { names, group } of groups) {
    const width = unit * weightOf(group);
    const columns = columnsOf(names.length, group);
    const rowHeight = Math.min(13, (height - 8) / group.rows - gapMm);
    const top = (height - group.rows * (rowHeight + gapMm)) / 2;
    const blockGaps = (column: number): number => (group.block > 0 ? Math.floor(column / group.block) : 0);
    names.forEach((name, index) => {
      const { column, row } = cell(group, index, names.length);
      const x = left + column * (width + gapMm) + blockGaps(column) * blockGapMm;
      ports.push({ name, x, y: top + row * (rowHeight + gapMm), width, height: rowHeight });
    });
    left += columns * (width + gapMm) + (blockGaps(columns - 1) + 1.5) * blockGapMm;
  }
  return ports;
}
