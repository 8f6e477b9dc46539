import { Share } from '../kit/grid/drawn.tsx';
import type { GridColumn } from '../kit/grid/Grid.tsx';

/** Columns of prefixes, in the plan and beside drawings. */
export const prefixColumns: readonly GridColumn[] = [
  { key: 'prefix', label: 'Prefix', width: 180 },
  { key: 'name', label: 'Name', width: 200, text: true },
  { key: 'role', label: 'Role', width: 76 },
  { key: 'vlan', label: 'VLAN', width: 90 },
  { key: 'gateway', label: 'Gateway', width: 120 },
  { key: 'taken', label: 'Taken', width: 66, numeric: true, figure: true },
  {
    ...{ key: 'use', label: 'In use (%)', width: 96, numeric: true },
    draw: (value) =>
      value === '' ? (
        ''
      ) : (
        <Share part={Number(value)} of={100} runsOut figureWidth={4}>
          {value}
        </Share>
      ),
  },
];
