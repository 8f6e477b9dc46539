import { type Place } from '@visograph/core/model';
import { capacitySchedule, placeCapacitySchedule } from '@visograph/core/racks';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../data/shown.ts';
import { useWhereabouts } from '../data/location.ts';
import { Choice } from '../kit/choice.tsx';
import type { GridColumn } from '../kit/grid/Grid.tsx';
import { ViewedGrid } from '../views/ViewedGrid.tsx';

const short: Record<string, string> = {
  massLimitKg: 'Limit',
  typicalW: 'Typ.',
  maxW: 'Max.',
  aloneW: 'Alone',
  massKg: 'Mass',
  btuPerHour: 'Heat',
  over: 'Above a limit',
};
const Line = styled.div`
  flex: none;
  padding: 5px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`;
const widths: Record<string, number> = { rack: 66, place: 86, kind: 60, racks: 46, btuPerHour: 78, over: 96 };

/** Every rack of a place with what it holds and may hold; sorts by any figure. */
export function CapacityTable({ place }: { place: Place | null }): ReactNode {
  const network = useShown();
  const { selection, select } = useWhereabouts();
  const [per, setPer] = useState<'rack' | 'place'>('rack');
  const table = useMemo(
    () => (per === 'rack' ? capacitySchedule : placeCapacitySchedule)(network, place?.id ?? null),
    [network, place, per],
  );
  const columns = useMemo(
    () =>
      table.columns
        .filter(({ key }) => !['units', 'free25g', 'free100g', 'usableW'].includes(key))
        .map(({ key, label, unit, numeric }): GridColumn => ({
          key,
          label: unit === undefined ? (short[key] ?? label) : `${short[key] ?? label} ${unit}`,
          width: widths[key] ?? 58,
          ...(numeric === true ? { numeric, figure: unit !== undefined } : { text: key !== 'rack' }),
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
      <ViewedGrid
        view={`capacity-${per}`}
        schedule={per === 'rack' ? 'capacity' : 'place-capacity'}
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
