import { translationCosts, type TranslationCost } from '@visograph/core/cloud';
import type { CloudPriceList, Place } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../data/shown.ts';
import { money } from './money.ts';

const Line = styled.p`
  flex: none;
  padding: 8px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  font-size: 12.5px;
  span {
    color: ${({ theme }) => theme.inkSoft};
    margin-right: 6px;
  }
`;

/** What translation costs as it is, and what one gateway for all zones or one in each would cost. */
export function Translation({ place, list }: { place: Place; list: CloudPriceList }): ReactNode {
  const network = useShown();
  const costs = useMemo(() => translationCosts(network, place.id, list), [network, place.id, list]);
  if (costs === null) return null;
  const told = ({ gateways, crossingGb, total }: TranslationCost): string =>
    `${gateways} ${gateways === 1 ? 'gateway' : 'gateways'}, ${crossingGb} GB across zones: ${total === null ? 'no price' : `${money(total, list.currency)} a month`}`;
  return (
    <Line>
      <span>Translation now</span>
      {`${told(costs.now)}. `}
      <span>Once for all zones</span>
      {`${told(costs.once)}; a lost zone takes the way out of the others. `}
      <span>One in each</span>
      {`${told(costs.each)}.`}
    </Line>
  );
}
