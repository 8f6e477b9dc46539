import { compareNames, modelTitle, placePath, type Network, type StockLine } from '@visograph/core/model';
import { countStock, removeStock, reservedIn } from '@visograph/core/purchase';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useShown } from '../../data/shown.ts';
import { Button } from '../../kit/controls.tsx';
import { Filter } from '../../kit/Filter.tsx';
import type { GridColumn, GridRow } from '../../kit/grid/Grid.tsx';
import { ViewedGrid } from '../../views/ViewedGrid.tsx';
import { Empty } from '../../kit/panel/panels.tsx';
import { Bar, Main } from '../layout.tsx';
import { useDo, useKeep } from '../../data/useDo.ts';
import { MovePanel } from './MovePanel.tsx';

const columns: readonly GridColumn[] = [
  { key: 'part', label: 'Part', width: 220, text: true, worked: true },
  { key: 'partNumber', label: 'Part number', width: 118, worked: true },
  { key: 'lengthM', label: 'Length (m)', width: 78, numeric: true, worked: true },
  { key: 'store', label: 'Store', width: 260, text: true, worked: true },
  { key: 'count', label: 'On hand', width: 74, numeric: true, editable: true },
  { key: 'reserved', label: 'Reserved', width: 74, numeric: true, worked: true },
  { key: 'free', label: 'Free', width: 58, numeric: true, worked: true },
  { key: 'least', label: 'At least', width: 74, numeric: true, editable: true },
  { key: 'state', label: 'State', width: 160, text: true, worked: true },
  { key: 'notes', label: 'Notes', width: 180, text: true, editable: true },
];

function stateOf({ count, least }: StockLine, reserved: number): string | null {
  if (reserved > count) return `${reserved - count} reserved, not there`;
  if (least !== null && count - reserved < least) return `${least - (count - reserved)} too few`;
  return null;
}

const rowsOf = (network: Network): GridRow[] =>
  [...network.all('stock')]
    .map((line) => ({
      line,
      model: network.get('model', line.modelId),
      store: placePath(network, line.placeId),
    }))
    .sort(
      (a, b) =>
        compareNames(a.store, b.store) ||
        compareNames(
          a.model === null ? '' : modelTitle(a.model),
          b.model === null ? '' : modelTitle(b.model),
        ) ||
        (a.line.lengthM ?? 0) - (b.line.lengthM ?? 0),
    )
    .map(({ line, model, store }) => {
      const reserved = reservedIn(network, line);
      return {
        id: line.id,
        cells: {
          part: model === null ? '' : modelTitle(model),
          partNumber: model?.partNumber ?? null,
          lengthM: line.lengthM,
          store,
          count: line.count,
          reserved,
          free: Math.max(0, line.count - reserved),
          least: line.least,
          state: stateOf(line, reserved),
          notes: line.notes,
        },
      };
    });

/** What lies in stores: counted where it stands, received and taken out as steps. */
export function StockView(): ReactNode {
  const { view, canEdit } = useProject();
  const keep = useKeep();
  const network = useShown();
  const act = useDo();
  const [filter, setFilter] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const [moving, setMoving] = useState<'receive' | 'issue' | null>(null);
  const rows = useMemo(() => rowsOf(network), [network]);
  const line = network.get('stock', chosen);
  const edit = (id: string, key: string, text: string): string | null => {
    const row = view.network.get('stock', id);
    if (row === null) return 'It is no longer there.';
    const typed = text.trim();
    if (key !== 'notes' && typed !== '' && !/^\d+$/.test(typed))
      return `“${typed}” is no whole number of pieces.`;
    if (key === 'count' && typed === '') return 'On hand is missing: type 0 where there are none.';
    const value = typed === '' ? null : key === 'notes' ? typed : Number(typed);
    return keep(countStock(view.network, row, { [key]: value }));
  };
  return (
    <Main>
      <Bar>
        <p>Any place can be a store. Counts are typed in the rows.</p>
        <Filter label="Find in the stock" value={filter} onChange={setFilter} />
        {canEdit && <Button onPress={() => setMoving('receive')}>Receive …</Button>}
        {canEdit && line !== null && <Button onPress={() => setMoving('issue')}>Take out …</Button>}
        {canEdit && line !== null && (
          <Button onPress={() => act(removeStock(view.network, line)) && setChosen(null)}>
            Delete the line
          </Button>
        )}
      </Bar>
      <ViewedGrid
        view="stock"
        label="Stock"
        columns={columns}
        rows={rows}
        filter={filter}
        selectedId={chosen}
        onSelect={setChosen}
        {...(canEdit ? { onEdit: edit } : {})}
        empty={
          <Empty title="Nothing is in stock">
            What lies in a store is reserved for parts lists before anything is bought.
            {canEdit && (
              <Button $tone="primary" onPress={() => setMoving('receive')}>
                Receive parts
              </Button>
            )}
          </Empty>
        }
      />
      {moving !== null && (
        <MovePanel way={moving} line={line} onDone={setChosen} onClose={() => setMoving(null)} />
      )}
    </Main>
  );
}
