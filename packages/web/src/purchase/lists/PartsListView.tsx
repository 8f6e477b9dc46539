import { grouped, metresText, moneyText, type Network, type PartsList } from '@visograph/core/model';
import {
  beginQuotation,
  giveBack,
  partColumns,
  partGroupings,
  partGroupsOf,
  placeColumns,
  removePartsList,
  reserveInStock,
  unchooseAll,
  type OrderConcern,
  type PartGrouping,
  type PartsAnswer,
} from '@visograph/core/purchase';
import type { Cell, TableRow } from '@visograph/core/report';
import { useMemo, useState, type ReactNode } from 'react';
import { addressOf } from '../../data/api.ts';
import { useProject } from '../../data/project.tsx';
import { useMeantQuery } from '../../data/shown.ts';
import { Choice } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Grid, type GridColumn, type GridRow } from '../../kit/grid/Grid.tsx';
import { Empty } from '../../kit/panel/panels.tsx';
import { Bar, Halves, Main } from '../layout.tsx';
import { today } from '../../data/today.ts';
import { useDo } from '../../data/useDo.ts';
import { usePurchaseAddress } from '../usePurchaseAddress.ts';
import { Concerns } from './Concerns.tsx';
import { LineFacts } from './LineFacts.tsx';
import { PartsListFacts } from './PartsListFacts.tsx';

const groupTitles: Record<PartGrouping, string> = {
  section: 'By section',
  supplier: 'By supplier',
  place: 'By place',
};
/** What a line shows beside what it is called, and how wide; packs stand beside the line that is chosen. */
const widths: Readonly<Record<string, number>> = {
  what: 204,
  partNumber: 100,
  planned: 66,
  inPlace: 68,
  spares: 62,
  reserved: 76,
  inStock: 70,
  toBuy: 60,
  order: 56,
  price: 82,
  amount: 88,
  supplier: 140,
  count: 70,
};
const shortLabels: Readonly<Record<string, string>> = { reserved: 'Reserved', inStock: 'In stock' };

const columnsOf = (list: PartsList, by: PartGrouping): GridColumn[] =>
  (by === 'place' ? placeColumns : partColumns(list.currency)).flatMap(({ key, label, numeric }) => {
    const width = widths[key];
    return width === undefined
      ? []
      : [
          {
            ...{ key, width, label: shortLabels[key] ?? label, numeric: numeric ?? false },
            text: key === 'what' || key === 'supplier',
          },
        ];
  });

const amount = (value: Cell | undefined): Cell => (typeof value === 'number' ? grouped(value, 2) : null);
/** A line as it is read: lengths with what they are of, no noughts, amounts to the cent. */
const seen = ({ what = null, lengthM = null, price, amount: sum, ...rest }: TableRow): TableRow => ({
  ...Object.fromEntries(Object.entries(rest).map(([key, value]) => [key, value === 0 ? null : value])),
  what: typeof lengthM === 'number' ? `${what ?? ''}, ${metresText(lengthM)}` : what,
  price: amount(price),
  amount: amount(sum),
});

/** Lines under the headings of their groups, each with what it comes to. */
function rowsOf(network: Network, list: PartsList, answer: PartsAnswer, by: PartGrouping): GridRow[] {
  return partGroupsOf(network, list, answer, by).flatMap(({ title, rows, ids, totalMinor }, group) => [
    {
      id: `group#${group}`,
      heading: 0,
      cells: { what: title, ...(totalMinor === null ? {} : { amount: amount(totalMinor / 100) }) },
    },
    ...rows.map((cells, at) => ({ id: `${group}#${ids[at] ?? ''}`, cells: seen(cells) })),
  ]);
}

/** What a list is made of, in words. */
function inWords(network: Network, list: PartsList): string {
  const kit = network.get('kit', list.kitId);
  const chosen = network.find('listedDevicesByList', list.id).length;
  const of =
    kit !== null
      ? `the kit ${kit.name}${list.kitTimes === 1 ? '' : ` ${list.kitTimes} times`}`
      : chosen > 0
        ? `${chosen} chosen ${chosen === 1 ? 'device' : 'devices'}`
        : (network.get('place', list.scopeId)?.name ?? 'all places');
  const counts = { planned: 'what is planned', 'in place': 'what is in place', both: 'all that there is' };
  return [
    kit === null ? `${counts[list.counts]} of ${of}` : of,
    ...(list.spares.length === 0 ? [] : ['with spares']),
    `prices of ${today()}`,
  ].join(' · ');
}

/** One parts list: its lines in groups, what keeps it from being ordered, what it is made of. */
export function PartsListView({
  list,
  network,
  answer,
  concerns,
  checking,
}: {
  list: PartsList;
  network: Network;
  answer: PartsAnswer;
  concerns: readonly OrderConcern[];
  /** The rules have not been asked yet. */
  checking: boolean;
}): ReactNode {
  const { project, view, canEdit } = useProject();
  const meant = useMeantQuery();
  const { by, set } = usePurchaseAddress();
  const act = useDo();
  const [setting, setSetting] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const columns = useMemo(() => columnsOf(list, by), [list, by]);
  const rows = useMemo(() => rowsOf(network, list, answer, by), [network, list, answer, by]);
  const line = answer.lines.find(({ key }) => key === chosen) ?? null;
  const reserved = network.find('reservedPartsByList', list.id).length > 0;
  const inStock = answer.lines.some(({ toBuy, inStock: free }) => toBuy > 0 && free > 0);
  const picked = network.find('listedDevicesByList', list.id).length > 0;
  const total = moneyText({ priceMinor: answer.totalMinor, currency: list.currency });
  const quote = (): void => {
    const attempt = beginQuotation(view.network, list, today());
    if (act(attempt)) set({ view: 'quotations', open: attempt.id });
  };
  const address = (format: string): string =>
    addressOf('GET /projects/:project/parts', {
      params: { project: project.id },
      query: { ...meant, list: list.name, by, on: today(), format },
    });
  return (
    <>
      <Bar>
        <p>
          {inWords(network, list)}
          {' · '}
          <strong>{total}</strong>
          {answer.unpriced > 0 &&
            ` and ${grouped(answer.unpriced)} ${answer.unpriced === 1 ? 'line' : 'lines'} without a price`}
        </p>
        <Choice<PartGrouping>
          label="Group by"
          hideLabel
          width={116}
          value={by}
          options={partGroupings.map((id) => ({ id, text: groupTitles[id] }))}
          onChange={(next) => set({ by: next })}
        />
        {canEdit && inStock && (
          <Button onPress={() => act(reserveInStock(view.network, list, answer.lines))}>
            Reserve from stock
          </Button>
        )}
        {canEdit && reserved && (
          <Button onPress={() => act(giveBack(view.network, list, null))}>Give it back</Button>
        )}
        {canEdit && picked && (
          <Button onPress={() => act(unchooseAll(view.network, list))}>Count all of its place</Button>
        )}
        {(['xlsx', 'csv'] as const).map((format) => (
          <Button
            key={format}
            aria-label={`Save ${format.toUpperCase()}`}
            onPress={() => window.location.assign(address(format))}
          >
            {format.toUpperCase()}
          </Button>
        ))}
        {canEdit && <Button onPress={quote}>Write a quotation</Button>}
        {canEdit && (
          <Button aria-pressed={setting} onPress={() => setSetting((on) => !on)}>
            {setting ? 'Close what it counts' : 'What it counts'}
          </Button>
        )}
        {canEdit && (
          <Button onPress={() => act(removePartsList(view.network, list)) && set({ open: null })}>
            Delete
          </Button>
        )}
      </Bar>
      <Halves>
        <Main>
          <Concerns
            concerns={concerns}
            checking={checking}
            onShow={setChosen}
            nothing={answer.lines.length === 0}
          />
          <Grid
            label={list.name}
            columns={columns}
            rows={rows}
            selectedId={rows.find(({ id }) => chosen !== null && id.endsWith(`#${chosen}`))?.id ?? null}
            onSelect={(id) => setChosen(id.startsWith('group#') ? null : id.slice(id.indexOf('#') + 1))}
            empty={
              <Empty title="Nothing is counted">
                {list.counts === 'planned'
                  ? 'Nothing is planned there. Set the status of devices and cables to planned, choose a kit, or count what is in place.'
                  : 'There are no devices or cables there.'}
                {canEdit && <Button onPress={() => setSetting(true)}>What it counts</Button>}
              </Empty>
            }
          />
        </Main>
        {setting ? (
          <PartsListFacts list={list} />
        ) : (
          line !== null && (
            <LineFacts line={line} list={list} network={network} onClose={() => setChosen(null)} />
          )
        )}
      </Halves>
    </>
  );
}
