import { capacitySchedule, placeCapacitySchedule, type Place } from '@visograph/core';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useNetwork } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Choice } from '../kit/controls.tsx';
import { Grid, type GridColumn } from '../kit/Grid.tsx';

const Line = styled.div`
  flex: none;
  padding: 5px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`;
const widths: Record<string, number> = { rack: 74, place: 130, over: 150 };

/** Every rack of a place with what it holds and may hold; sorts by any figure. */
export function CapacityTable({ place }: { place: Place | null }): ReactNode {
  const network = useNetwork();
  const { selection, select } = useWhereabouts();
  const [per, setPer] = useState<'rack' | 'place'>('rack');
  const table = useMemo(
    () => (per === 'rack' ? capacitySchedule : placeCapacitySchedule)(network, place?.id ?? null),
    [network, place, per],
  );
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
    <>
      <Line>
        <Choice
          label="Rows"
          hideLabel
          width={120}
          value={per}
          options={[
            { id: 'rack', text: 'Each rack' },
            { id: 'place', text: 'Each place' },
          ]}
          onChange={(next) => setPer(next === 'place' ? 'place' : 'rack')}
        />
      </Line>
      <Grid
        key={per}
        label="Capacity"
        columns={columns}
        rows={rows}
        selectedId={selection?.kind === per ? selection.id : null}
        onSelect={(id) => select({ kind: per, id })}
      />
    </>
  );
}
