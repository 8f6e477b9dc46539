import { cloudCost, costsBy, hoursPerMonth, listOn, type CostBy } from '@visograph/core/cloud';
import { pricedThings, profileAround, type Place, type PricedThing } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhereabouts } from '../data/location.ts';
import { useShown } from '../data/shown.ts';
import { today } from '../data/today.ts';
import { Choice } from '../kit/choice.tsx';
import { Grid, type GridColumn } from '../kit/grid/Grid.tsx';
import { Empty } from '../kit/panel/panels.tsx';

const Bar = styled.div`
  flex: none;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: flex-end;
  padding: 8px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  strong {
    font-size: 15px;
    font-weight: 600;
  }
  p {
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
    max-width: 60ch;
  }
`;
const Sums = styled.ul`
  flex: none;
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  margin: 0;
  padding: 8px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  li span {
    color: ${({ theme }) => theme.inkSoft};
    margin-right: 6px;
  }
`;

const columns: readonly GridColumn[] = [
  { key: 'name', label: 'Of', width: 150 },
  { key: 'what', label: 'What', width: 196 },
  { key: 'zone', label: 'Zone', width: 60 },
  { key: 'amount', label: 'Amount', width: 86, numeric: true },
  { key: 'cost', label: 'Per month', width: 110, numeric: true },
];

const money = (millionths: number, currency: string): string =>
  `${(millionths / 1e6).toFixed(2)} ${currency}`;
const isPriced = (text: string): text is PricedThing => text in pricedThings;

/** What a network's place in the cloud costs each month: by the price list of its provider, and what is reckoned to flow. */
export function CostView({ place }: { place: Place }): ReactNode {
  const network = useShown();
  const { select } = useWhereabouts();
  const [by, setBy] = useState('kind');
  const list = listOn(network, profileAround(network, place.id)?.id ?? null, today());
  // Public addresses and what stands beside networks belong to the region: they are counted with it.
  const scopeId = place.parentId ?? place.id;
  const cost = useMemo(
    () => (list === null ? null : cloudCost(network, scopeId, list)),
    [network, list, scopeId],
  );
  if (cost === null)
    return (
      <Empty title="No prices yet">
        The provider of this account has no price list that is valid today. Add one: what things cost by the
        hour and by the GB is data of the project.
      </Empty>
    );
  const labels = [...new Set(cost.lines.flatMap((line) => Object.keys(line.labels)))].sort();
  const asked: CostBy =
    by === 'network' || by === 'zone' || by === 'kind' ? by : { label: by.replace(/^label /, '') };
  const keyText = (key: string | null): string =>
    key === null
      ? by === 'zone'
        ? 'of no single zone'
        : 'without'
      : by === 'kind' && isPriced(key)
        ? pricedThings[key].title
        : (network.get('place', key)?.name ?? key);
  const rows = cost.lines.map((line, at) => ({
    id: `${line.kind} ${line.id} ${at}`,
    cells: {
      name: line.name,
      what:
        line.which === null ? pricedThings[line.of].title : `${pricedThings[line.of].title}, ${line.which}`,
      zone: network.get('place', line.zoneId)?.name ?? null,
      amount: `${line.amount} ${line.unit}`,
      cost: line.millionths === null ? 'no price' : money(line.millionths, cost.currency),
    },
  }));
  return (
    <>
      <Bar>
        <div>
          <strong>{`${money(cost.total, cost.currency)} a month`}</strong>
          <p>
            {`${network.get('place', scopeId)?.name ?? ''} by ${cost.list.name}, ${hoursPerMonth} hours a month`}
            {cost.unpriced > 0 ? `; ${cost.unpriced} without a price are not in it` : ''}
          </p>
        </div>
        <Choice
          label="Summed by"
          width={150}
          value={by}
          options={[
            { id: 'kind', text: 'What is paid for' },
            { id: 'network', text: 'Virtual network' },
            { id: 'zone', text: 'Zone' },
            ...labels.map((label) => ({ id: `label ${label}`, text: `Label ${label}` })),
          ]}
          onChange={(next) => setBy(next ?? 'kind')}
        />
      </Bar>
      <Sums aria-label="Sums">
        {costsBy(cost, asked).map(({ key, millionths }) => (
          <li key={key ?? ''}>
            <span>{keyText(key)}</span>
            {money(millionths, cost.currency)}
          </li>
        ))}
      </Sums>
      <Grid
        label="Costs"
        columns={columns}
        rows={rows}
        selectedId={null}
        onSelect={(id) => {
          const [kind = '', row = ''] = id.split(' ');
          if (kind === 'device' || kind === 'publicAddress' || kind === 'flowEstimate')
            select({ kind, id: row });
        }}
        empty={<Empty title="Nothing is paid for yet" />}
      />
    </>
  );
}
