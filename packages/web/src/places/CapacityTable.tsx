import { capacitySchedule, type Place } from '@visograph/core';
import { useMemo, type ReactNode } from 'react';
import { useNetwork } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Grid, type GridColumn } from '../kit/Grid.tsx';

const widths: Record<string, number> = { rack: 74, place: 130, over: 150 };

/** Every rack of a place with what it holds and may hold; sorts by any figure. */
export function CapacityTable({ place }: { place: Place | null }): ReactNode {
  const network = useNetwork();
  const { selection, select } = useWhereabouts();
  const table = useMemo(() => capacitySchedule(network, place?.id ?? null), [network, place]);
  const columns = useMemo(
    () =>
      table.columns
        .filter(({ key }) => !['units', 'free25g', 'free100g'].includes(key))
        .map(({ key, label, unit, numeric }): GridColumn => ({
          key,
          label: unit === undefined ? label : `${label}, ${unit}`,
          width: widths[key] ?? 82,
          ...(numeric === true ? { numeric } : { text: key !== 'rack' }),
        })),
    [table.columns],
  );
  const rows = useMemo(
    () =>
      table.rows.map((cells, at) => ({
        id: table.ids[at] ?? '',
        cells: {
          ...cells,
          place:
            String(cells['place'] ?? '')
              .split('/')
              .at(-1) ?? '',
        },
      })),
    [table],
  );
  return (
    <Grid
      label="Capacity"
      columns={columns}
      rows={rows}
      selectedId={selection?.kind === 'rack' ? selection.id : null}
      onSelect={(id) => select({ kind: 'rack', id })}
    />
  );
}
