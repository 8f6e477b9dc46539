import {
  compareNames,
  modelTitle,
  moneyText,
  readMoney,
  type Network,
  type PriceList,
} from '@visograph/core/model';
import { editRow } from '@visograph/core/commands';
import { isValidOn, removePriceList } from '@visograph/core/purchase';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useShown } from '../../data/shown.ts';
import { Button } from '../../kit/controls.tsx';
import { Filter } from '../../kit/Filter.tsx';
import type { GridColumn, GridRow } from '../../kit/grid/Grid.tsx';
import { ViewedGrid } from '../../views/ViewedGrid.tsx';
import { SideList } from '../../kit/list/SideList.tsx';
import { Empty } from '../../kit/panel/panels.tsx';
import { Bar, Halves, Main } from '../layout.tsx';
import { today } from '../../data/today.ts';
import { useDo, useKeep } from '../../data/useDo.ts';
import { usePurchaseAddress } from '../usePurchaseAddress.ts';
import { TakeInPrices } from './TakeInPrices.tsx';

const columnsOf = (currency: string): GridColumn[] => [
  { key: 'part', label: 'Part', width: 240, text: true, worked: true },
  { key: 'partNumber', label: 'Part number', width: 120, worked: true },
  { key: 'lengthM', label: 'Length (m)', width: 80, numeric: true, worked: true },
  { key: 'licence', label: 'Licence', width: 150, text: true, worked: true },
  { key: 'price', label: `Each (${currency})`, width: 110, numeric: true, figure: true, editable: true },
  { key: 'pack', label: 'Pack', width: 60, numeric: true, editable: true },
  { key: 'catalogue', label: 'Catalogue price', width: 130, text: true, worked: true },
];

const rowsOf = (network: Network, list: PriceList): GridRow[] =>
  network
    .find('pricesByList', list.id)
    .map((price) => ({ price, model: network.get('model', price.modelId) }))
    .sort(
      (a, b) =>
        compareNames(
          a.model === null ? '' : modelTitle(a.model),
          b.model === null ? '' : modelTitle(b.model),
        ) ||
        (a.price.lengthM ?? 0) - (b.price.lengthM ?? 0) ||
        compareNames(a.price.licence ?? '', b.price.licence ?? ''),
    )
    .map(({ price, model }) => ({
      id: price.id,
      cells: {
        part: model === null ? '' : modelTitle(model),
        partNumber: model?.partNumber ?? null,
        lengthM: price.lengthM,
        licence: price.licence,
        price: price.unitMinor / 100,
        pack: price.pack,
        catalogue:
          model === null || price.lengthM !== null || price.licence !== null
            ? null
            : moneyText(model) || null,
      },
    }));

/** Price lists of suppliers: from when until when they hold, and what they ask. */
export function PricesView(): ReactNode {
  const { view, canEdit } = useProject();
  const network = useShown();
  const { open, set } = usePurchaseAddress();
  const act = useDo();
  const keep = useKeep();
  const [filter, setFilter] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const [taking, setTaking] = useState(false);
  const lists = useMemo(
    () => [...network.all('priceList')].sort((a, b) => compareNames(a.name, b.name)),
    [network],
  );
  const list = lists.find(({ id }) => id === open) ?? lists[0] ?? null;
  const rows = useMemo(() => (list === null ? [] : rowsOf(network, list)), [network, list]);
  const edit = (id: string, key: string, text: string): string | null => {
    const price = view.network.get('price', id);
    if (price === null || list === null) return 'It is no longer there.';
    if (key === 'pack') {
      if (!/^\d+$/.test(text.trim())) return `“${text}” is no whole number of pieces.`;
      return keep({ ok: true, set: editRow(view.network, 'price', price, { pack: Number(text) }) });
    }
    const money = readMoney(text, list.currency);
    if (money?.priceMinor == null) return `“${text}” is no amount such as 1 250.00.`;
    if (money.currency !== list.currency)
      return `The list is in ${list.currency}, not ${money.currency ?? ''}.`;
    return keep({ ok: true, set: editRow(view.network, 'price', price, { unitMinor: money.priceMinor }) });
  };
  return (
    <Halves>
      {lists.length > 0 && (
        <SideList
          label="Price lists"
          chosen={list?.id ?? null}
          onOpen={(id) => set({ open: id })}
          groups={[
            {
              title: 'Of suppliers',
              items: lists.map(({ id, name, supplier }) => ({ id, text: name, detail: supplier })),
            },
          ]}
        >
          {canEdit && <Button onPress={() => setTaking(true)}>Take in prices …</Button>}
        </SideList>
      )}
      <Main>
        {list === null ? (
          <Empty title="No price list yet">
            Until there is one, parts cost what the catalogue says.
            {canEdit && (
              <Button $tone="primary" onPress={() => setTaking(true)}>
                Take in prices
              </Button>
            )}
          </Empty>
        ) : (
          <>
            <Bar>
              <p>
                {`${list.supplier} · ${list.currency} · from ${list.validFrom}${list.validUntil === null ? '' : ` until ${list.validUntil}`} · ${isValidOn(list, today()) ? 'holds today' : 'does not hold today'}${list.notes === null ? '' : ` · ${list.notes}`}`}
              </p>
              <Filter label="Find a price" value={filter} onChange={setFilter} />
              {canEdit && (
                <Button onPress={() => act(removePriceList(view.network, list)) && set({ open: null })}>
                  Delete the list
                </Button>
              )}
            </Bar>
            <ViewedGrid
              view="prices"
              key={list.id}
              label={list.name}
              columns={columnsOf(list.currency)}
              rows={rows}
              filter={filter}
              selectedId={chosen}
              onSelect={setChosen}
              {...(canEdit ? { onEdit: edit } : {})}
              empty={<Empty title="No price is called so">Take the filter out.</Empty>}
            />
          </>
        )}
      </Main>
      {taking && <TakeInPrices onClose={() => setTaking(false)} onDone={(id) => set({ open: id })} />}
    </Halves>
  );
}
