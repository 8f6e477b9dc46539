import { type Way, type Ways } from '@visograph/core/cabling';
import { metresText, modelTitle, moneyText } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { ListBox, ListBoxItem } from 'react-aria-components';
import { styled } from 'styled-components';
import { Hint } from '../../kit/panel/panels.tsx';
import { mono } from '../../theme/mono.ts';

/** One scroll area for both, so that the fields below stay where they are. */
const Area = styled.div`
  flex: 1;
  min-height: 62px;
  overflow: auto;
`;
const List = styled(ListBox<Way & { id: string }>)`
  outline: none;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
`;
const Item = styled(ListBoxItem)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  column-gap: 10px;
  padding: 3px 8px;
  outline: none;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  &[data-selected] {
    background: ${({ theme }) => theme.accentWash};
  }
  &[data-focus-visible] {
    box-shadow: inset 0 0 0 2px ${({ theme }) => theme.accent};
  }
  b {
    font-weight: 600;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  span {
    ${mono}
    font-size: 12px;
    text-align: right;
  }
  small {
    grid-column: 1 / -1;
    font-size: 12px;
    line-height: 16px;
    color: ${({ theme }) => theme.inkSoft};
  }
  small[data-warn] {
    color: ${({ theme }) => theme.warn};
  }
`;
const Not = styled.details`
  font-size: 12px;
  color: ${({ theme }) => theme.inkSoft};
  summary {
    cursor: default;
  }
  b {
    font-weight: 600;
  }
`;

/** The ways to join two ports, best first with price and reason; below, what does not fit and why. */
export function WaysList({
  ways,
  value,
  onChange,
}: {
  ways: Ways;
  value: string | null;
  onChange: (typeId: string) => void;
}): ReactNode {
  const items = ways.fits.map((way) => ({ ...way, id: way.type.id }));
  return (
    <Area>
      {items.length > 0 && (
        <List
          aria-label="What fits"
          items={items}
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={value === null ? [] : [value]}
          onSelectionChange={(keys) => {
            const [key] = keys === 'all' ? [] : [...keys];
            if (key !== undefined) onChange(String(key));
          }}
        >
          {(way) => (
            <Item id={way.id} textValue={modelTitle(way.type)}>
              <b>
                {[modelTitle(way.type), way.optics.length === 0 ? '' : `${way.optics.length} optics`]
                  .filter(Boolean)
                  .join(' + ')}
              </b>
              <span>{way.lengthM === null ? '' : metresText(way.lengthM)}</span>
              <span>{moneyText(way)}</span>
              <small>{way.reason}</small>
              {way.warnings.map((warning) => (
                <small key={warning} data-warn="">
                  {warning}
                </small>
              ))}
            </Item>
          )}
        </List>
      )}
      {items.length === 0 && <Hint>Nothing in the catalogue joins these two ports.</Hint>}
      {ways.doesNotFit.length > 0 && (
        <Not open={items.length === 0}>
          <summary>{`Does not fit (${ways.doesNotFit.length})`}</summary>
          <ul>
            {ways.doesNotFit.map(({ type, reason }) => (
              <li key={type.id}>
                <b>{modelTitle(type)}</b> {reason}
              </li>
            ))}
          </ul>
        </Not>
      )}
    </Area>
  );
}
