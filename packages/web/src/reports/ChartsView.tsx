import type { Chart } from '@visograph/core/report';
import { chartsOf } from '@visograph/core/report';
import { fonts } from '@visograph/drawing';
import { useDeferredValue, useMemo, type ReactNode } from 'react';
import { Bar, BarChart, Legend, Tooltip, XAxis, YAxis } from 'recharts';
import { styled } from 'styled-components';
import { useWhereabouts } from '../data/location.ts';
import { useShown } from '../data/shown.ts';
import { Empty, Hint } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';
import { useTheme } from '../theme/theme.tsx';

const All = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(500px, 1fr));
  align-content: start;
  gap: 26px 30px;
  padding: 16px 18px 30px;
`;
const One = styled.figure`
  margin: 0;
  min-width: 0;
  h2 {
    font-size: 13.5px;
  }
  details {
    margin-top: 4px;
    font-size: 12.5px;
  }
  summary {
    color: ${({ theme }) => theme.inkSoft};
    cursor: default;
  }
  table {
    border-collapse: collapse;
    margin-top: 4px;
  }
  th,
  td {
    padding: 2px 18px 2px 0;
    text-align: left;
  }
  th {
    font-weight: 400;
    color: ${({ theme }) => theme.inkSoft};
  }
  td[data-numeric] {
    ${mono}
    text-align: right;
  }
`;
const rowHeight = 24;
const width = 500;

function ChartOf({ chart }: { chart: Chart }): ReactNode {
  const { tokens } = useTheme();
  const { title, what, name, series, unit, table } = chart;
  const colours = series.length === 1 ? [tokens.accent] : [tokens.accent, tokens.rule];
  const text = { fill: tokens.inkSoft, fontSize: 11, fontFamily: fonts.text };
  return (
    <One aria-label={title}>
      <h2>{title}</h2>
      <Hint as="p">{what}</Hint>
      <BarChart
        width={width}
        height={table.rows.length * rowHeight + 64}
        data={[...table.rows]}
        layout="vertical"
        margin={{ top: 4, right: 20, bottom: 2, left: 0 }}
        accessibilityLayer
        title={title}
      >
        <XAxis
          type="number"
          tick={text}
          tickLine={false}
          stroke={tokens.rule}
          allowDecimals={false}
          unit={unit === '%' ? '%' : ''}
        />
        <YAxis
          type="category"
          dataKey={name}
          width={150}
          tick={text}
          tickLine={false}
          axisLine={false}
          interval={0}
        />
        <Tooltip
          isAnimationActive={false}
          cursor={{ fill: tokens.accentWash }}
          contentStyle={{ background: tokens.surface, border: `1px solid ${tokens.rule}`, fontSize: 12 }}
          labelStyle={{ color: tokens.ink }}
          itemStyle={{ color: tokens.ink }}
        />
        {series.length > 1 && (
          <Legend
            itemSorter={null}
            wrapperStyle={{ fontSize: 11 }}
            formatter={(said: string) => <span style={{ color: tokens.inkSoft }}>{said}</span>}
          />
        )}
        {series.map(({ key, label }, at) => (
          <Bar
            key={key}
            dataKey={key}
            name={`${label}, ${unit}`}
            stackId="all"
            fill={colours[at] ?? tokens.accent}
            isAnimationActive={false}
            barSize={12}
          />
        ))}
      </BarChart>
      <details>
        <summary>{`As a table of ${table.rows.length} ${table.rows.length === 1 ? 'row' : 'rows'}`}</summary>
        <table>
          <thead>
            <tr>
              {table.columns.map(({ key, label, unit: own }) => (
                <th key={key} scope="col">
                  {own === undefined ? label : `${label} (${own})`}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((row, at) => (
              <tr key={table.ids[at]}>
                {table.columns.map(({ key, numeric }) => (
                  <td key={key} data-numeric={numeric}>
                    {row[key]}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </One>
  );
}

/** What is answered better by bars than by rows: ports, units, age, addresses; each with its rows. */
export function ChartsView(): ReactNode {
  const shown = useShown();
  const { scopeId } = useWhereabouts();
  const wanted = useMemo(() => ({ shown, scopeId }), [shown, scopeId]);
  const late = useDeferredValue(wanted);
  const charts = useMemo(
    () => chartsOf(late.shown, late.scopeId).filter(({ table }) => table.rows.length > 0),
    [late],
  );
  if (charts.length === 0)
    return (
      <Empty title="Nothing to draw here">
        Charts come with places, racks, devices and prefixes. Choose a wider scope in the path at the top.
      </Empty>
    );
  return (
    <All>
      {charts.map((chart) => (
        <ChartOf key={chart.key} chart={chart} />
      ))}
    </All>
  );
}
