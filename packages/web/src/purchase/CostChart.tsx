import { moneyText } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { Bar, BarChart, LabelList, XAxis, YAxis } from 'recharts';
import { styled } from 'styled-components';
import { useTheme } from '../theme/theme.tsx';
import { fonts } from '@visograph/drawing';

const Frame = styled.figure`
  margin: 0;
  figcaption {
    font-size: 12.5px;
    font-weight: 600;
    margin-bottom: 4px;
  }
`;
const rowHeight = 26;
const width = 236;

/** What costs how much, as bars with their amounts: the table of the same is the one that it stands beside. */
export function CostChart({
  parts,
  currency,
}: {
  parts: readonly { name: string; minor: number }[];
  currency: string;
}): ReactNode {
  const { tokens } = useTheme();
  const data = parts
    .filter(({ minor }) => minor > 0)
    .map(({ name, minor }) => ({
      ...{ name, amount: minor / 100 },
      said: moneyText({ priceMinor: minor, currency }),
    }));
  const text = { fill: tokens.inkSoft, fontSize: 11, fontFamily: fonts.text };
  return (
    <Frame>
      <figcaption>Net cost by section</figcaption>
      <BarChart
        width={width}
        height={data.length * rowHeight + 8}
        data={data}
        layout="vertical"
        margin={{ top: 2, right: 92, bottom: 2, left: 0 }}
        accessibilityLayer
        title="Net cost by section"
      >
        <XAxis type="number" hide />
        <YAxis type="category" dataKey="name" width={82} tick={text} tickLine={false} axisLine={false} />
        <Bar dataKey="amount" fill={tokens.accent} isAnimationActive={false} barSize={12}>
          <LabelList
            dataKey="said"
            position="right"
            fill={tokens.ink}
            fontSize={11}
            fontFamily={fonts.mono}
          />
        </Bar>
      </BarChart>
    </Frame>
  );
}
