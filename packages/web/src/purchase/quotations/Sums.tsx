import { moneyText, type Quotation } from '@visograph/core/model';
import { percentText, type Totals } from '@visograph/core/purchase';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { mono } from '../../theme/mono.ts';

const Frame = styled.dl`
  flex: none;
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 2px 22px;
  margin: 0;
  padding: 7px 14px;
  border-top: 1px solid ${({ theme }) => theme.rule};
  div {
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
  dt {
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
  dd {
    ${mono}
    margin: 0;
    font-size: 12.5px;
  }
  div:last-of-type dd {
    font-weight: 600;
    font-size: 14px;
  }
`;

/** The sums of a quotation; what is not in them comes first. */
export function Sums({ row, totals }: { row: Quotation; totals: Totals }): ReactNode {
  const money = (minor: number): string => moneyText({ priceMinor: minor, currency: row.currency });
  const sums: (readonly [label: string, value: string | null])[] = [
    ['Without a price', totals.unpriced === 0 ? null : String(totals.unpriced)],
    ['Options, not in the sum', totals.optionsMinor === 0 ? null : money(totals.optionsMinor)],
    ['Discounts', totals.grossMinor === totals.netMinor ? null : money(totals.netMinor - totals.grossMinor)],
    ['Net', money(totals.netMinor)],
    ...totals.taxes.map(({ rate, taxMinor }) => [`Tax ${percentText(rate)}`, money(taxMinor)] as const),
    ['Total', money(totals.totalMinor)],
  ];
  return (
    <Frame aria-label="Sums">
      {sums.map(([label, value]) =>
        value === null ? null : (
          <div key={label}>
            <dt>{label}</dt>
            <dd>{value}</dd>
          </div>
        ),
      )}
    </Frame>
  );
}
