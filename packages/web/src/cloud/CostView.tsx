import {
  cloudCost,
  costsBy,
  hoursPerMonth,
  listOn,
  type CloudCost,
  type CostBy,
} from '@visograph/core/cloud';
import {
  byName,
  pricedThings,
  profileAround,
  type CloudPriceList,
  type Network,
  type Place,
  type PricedThing,
} from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useShown } from '../data/shown.ts';
import { today } from '../data/today.ts';
import { Choice } from '../kit/choice.tsx';
import { Grid, type GridColumn } from '../kit/grid/Grid.tsx';
import { Empty } from '../kit/panel/panels.tsx';
import { Asked } from './Asked.tsx';
import { money } from './money.ts';
import { PriceButtons } from './PriceButtons.tsx';
import { NewPriceList } from './record/CloudRecords.tsx';
import { Translation } from './Translation.tsx';

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
  small {
    color: ${({ theme }) => theme.inkSoft};
    margin-left: 6px;
  }
`;

const columns: readonly GridColumn[] = [
  { key: 'name', label: 'Of', width: 150 },
  { key: 'what', label: 'What', width: 196 },
  { key: 'zone', label: 'Zone', width: 60 },
  { key: 'amount', label: 'Amount', width: 86, numeric: true },
  { key: 'cost', label: 'Per month', width: 110, numeric: true },
];
const otherColumn: GridColumn = { key: 'other', label: 'By the other list', width: 120, numeric: true };

const isPriced = (text: string): text is PricedThing => text in pricedThings;
const priced = (millionths: number | null, currency: string): string =>
  millionths === null ? 'no price' : money(millionths, currency);

/** How much more or less another list comes to; nothing where the currencies differ. */
function differenceText(cost: CloudCost, other: CloudCost): string {
  const said = `${money(other.total, other.currency)} by ${other.list.name}`;
  if (other.currency !== cost.currency) return said;
  const more = other.total - cost.total;
  const sum = money(Math.abs(more), cost.currency);
  return more === 0 ? `${said}, the same` : `${said}, ${sum} ${more > 0 ? 'more' : 'less'}`;
}

/** What sums are of, in words. */
const keyText = (network: Network, by: string, key: string | null): string =>
  key === null
    ? by === 'zone'
      ? 'of no single zone'
      : 'without'
    : by === 'kind' && isPriced(key)
      ? pricedThings[key].title
      : (network.get('place', key)?.name ?? key);

const asked = (by: string): CostBy =>
  by === 'network' || by === 'zone' || by === 'kind' ? by : { label: by.replace(/^label /, '') };

function Costs({ place, list }: { place: Place; list: CloudPriceList }): ReactNode {
  const network = useShown();
  const { canEdit } = useProject();
  const { select } = useWhereabouts();
  const [by, setBy] = useState('kind');
  const [otherId, setOther] = useState<string | null>(null);
  const other = network.get('cloudPriceList', otherId);
  // Public addresses and what stands beside networks belong to the region: they are counted with it.
  const scopeId = place.parentId ?? place.id;
  const cost = useMemo(() => cloudCost(network, scopeId, list), [network, list, scopeId]);
  const second = useMemo(
    () => (other === null ? null : cloudCost(network, scopeId, other)),
    [network, other, scopeId],
  );
  const labels = [...new Set(cost.lines.flatMap((line) => Object.keys(line.labels)))].sort();
  const lists = [...network.all('cloudPriceList')].filter(({ id }) => id !== list.id).sort(byName);
  const otherSums = new Map(
    second === null ? [] : costsBy(second, asked(by)).map(({ key, millionths }) => [key, millionths]),
  );
  const rows = cost.lines.map((line, at) => ({
    id: `${line.kind} ${line.id} ${at}`,
    cells: {
      name: line.name,
      what:
        line.which === null ? pricedThings[line.of].title : `${pricedThings[line.of].title}, ${line.which}`,
      zone: network.get('place', line.zoneId)?.name ?? null,
      amount: `${line.amount} ${line.unit}`,
      cost: priced(line.millionths, cost.currency),
      // The same lines in the same order: both are of the same network.
      other: second === null ? null : priced(second.lines[at]?.millionths ?? null, second.currency),
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
          {second !== null && (
            <p>
              {differenceText(cost, second)}
              {second.unpriced > 0 ? `; ${second.unpriced} without a price are not in it` : ''}
            </p>
          )}
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
        {lists.length > 0 && (
          <Choice
            label="Compared with"
            width={170}
            value={otherId ?? ''}
            options={[
              { id: '', text: 'no other list' },
              ...lists.map(({ id, name }) => ({ id, text: name })),
            ]}
            onChange={(id) => setOther(id === '' ? null : id)}
          />
        )}
        <PriceButtons place={place} list={list} canEdit={canEdit} />
      </Bar>
      <Sums aria-label="Sums">
        {costsBy(cost, asked(by)).map(({ key, millionths }) => (
          <li key={key ?? ''}>
            <span>{keyText(network, by, key)}</span>
            {money(millionths, cost.currency)}
            {second !== null && <small>{`or ${money(otherSums.get(key) ?? 0, second.currency)}`}</small>}
          </li>
        ))}
      </Sums>
      <Translation place={place} list={list} />
      <Grid
        label="Costs"
        columns={second === null ? columns : [...columns, otherColumn]}
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

/** What a network's place in the cloud costs each month: by the price list of its provider, and what is reckoned to flow. */
export function CostView({ place }: { place: Place }): ReactNode {
  const network = useShown();
  const { canEdit } = useProject();
  const profile = profileAround(network, place.id);
  const list = listOn(network, profile?.id ?? null, today());
  if (list !== null) return <Costs key={list.id} place={place} list={list} />;
  return (
    <Empty title="No prices yet">
      {profile === null
        ? 'The account says of no provider whose prices would hold. Choose one in the record of the account.'
        : `${profile.name} has no price list that is valid today. What things cost by the hour and by the GB is data of the project: add a list, then type its prices or take them in from a file.`}
      {canEdit && profile !== null && (
        <Asked text="Add price list" primary>
          {(close) => <NewPriceList profile={profile} after={null} close={close} />}
        </Asked>
      )}
    </Empty>
  );
}
