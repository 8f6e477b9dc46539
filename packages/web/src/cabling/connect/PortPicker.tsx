import { type BEnd } from '@visograph/core/cabling';
import { connectors } from '@visograph/core/model';
import { useEffect, useRef, type ReactNode } from 'react';
import { ListBox, ListBoxItem } from 'react-aria-components';
import { styled } from 'styled-components';
import { mono } from '../../theme/mono.ts';

const List = styled(ListBox<BEnd & { id: string }>)`
  flex: 1;
  min-height: 60px;
  overflow: auto;
  outline: none;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  &[data-focus-visible] {
    border-color: ${({ theme }) => theme.accent};
  }
`;
const Item = styled(ListBoxItem)`
  display: grid;
  grid-template-columns: minmax(56px, 1fr) 56px minmax(70px, 1.4fr);
  gap: 8px;
  padding: 3px 8px;
  ${mono}
  font-size: 12.5px;
  outline: none;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  &[data-selected] {
    background: ${({ theme }) => theme.accentWash};
  }
  &[data-focus-visible] {
    box-shadow: inset 0 0 0 2px ${({ theme }) => theme.accent};
  }
  &[data-disabled] {
    color: ${({ theme }) => theme.inkSoft};
    opacity: 0.75;
  }
  span:last-child {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

const speedText = (bps: number | null): string =>
  bps === null ? '–' : bps >= 1e9 ? `${bps / 1e9}G` : `${bps / 1e6}M`;

/** The ports of one end: those that can be chosen, and the others with the reason why not. */
export function PortPicker({
  label,
  ends,
  value,
  onChange,
}: {
  label: string;
  ends: readonly BEnd[];
  value: string | null;
  onChange: (id: string) => void;
}): ReactNode {
  const items = ends.map((end) => ({ ...end, id: end.port.id }));
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // The list builds its items in a second pass: the chosen one is there in the next frame.
    const waiting = requestAnimationFrame(() => {
      void frame.current?.querySelector('[data-selected]')?.scrollIntoView({ block: 'center' });
    });
    return () => cancelAnimationFrame(waiting);
  }, [value, ends]);
  return (
    <List
      ref={frame}
      aria-label={label}
      items={items}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={value === null ? [] : [value]}
      disabledKeys={items.filter((item) => item.refused !== null).map((item) => item.id)}
      onSelectionChange={(keys) => {
        const [key] = keys === 'all' ? [] : [...keys];
        if (key !== undefined) onChange(String(key));
      }}
    >
      {(item) => (
        <Item id={item.id} textValue={item.port.name}>
          <span>{item.port.name}</span>
          <span>{speedText(item.port.speedBps)}</span>
          <span title={item.refused ?? ''}>
            {item.refused ?? (item.port.connector === null ? 'free' : connectors[item.port.connector].label)}
          </span>
        </Item>
      )}
    </List>
  );
}
