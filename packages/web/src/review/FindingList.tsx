import type { FindingGroup, InOrder } from '@visograph/core/check';
import { useEffect, useRef, type ReactNode } from 'react';
import {
  Collection,
  Header,
  ListBox,
  ListBoxItem,
  ListBoxSection,
  ListLayout,
  Virtualizer,
} from 'react-aria-components';
import { styled } from 'styled-components';
import { StateMark } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';

const rowHeight = 46;
const headingHeight = 30;

const Rows = styled(ListBox<FindingGroup>)`
  height: 100%;
  overflow: auto;
  outline: none;
  header {
    display: flex;
    align-items: center;
    gap: 8px;
    height: ${headingHeight}px;
    padding: 0 12px;
    background: ${({ theme }) => theme.band};
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    font-weight: 600;
    font-size: 12.5px;
    span {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    small {
      ${mono}
      font-weight: 400;
      font-size: 12px;
      color: ${({ theme }) => theme.inkSoft};
    }
  }
  [role='option'] {
    display: grid;
    grid-template-columns: 12px minmax(0, 1fr);
    gap: 0 8px;
    align-content: center;
    align-items: center;
    height: ${rowHeight}px;
    padding: 0 12px;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    cursor: default;
    outline: none;
    box-sizing: border-box;
    &[data-hovered] {
      background: ${({ theme }) => theme.band};
    }
    &[data-selected] {
      background: ${({ theme }) => theme.accentWash};
    }
    &[data-focus-visible] {
      box-shadow: inset 0 0 0 2px ${({ theme }) => theme.accent};
    }
    strong,
    small {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    strong {
      font-weight: 600;
    }
    small {
      grid-column: 2;
      font-size: 12px;
      color: ${({ theme }) => theme.inkSoft};
    }
  }
`;

/** How far down the row of a finding begins, in px; null where it is not listed. */
function topOf(groups: readonly FindingGroup[], listed: (one: InOrder) => boolean): number | null {
  let above = 0;
  for (const { items } of groups) {
    above += headingHeight;
    const at = items.findIndex(listed);
    if (at >= 0) return above + at * rowHeight;
    above += items.length * rowHeight;
  }
  return null;
}

/** Findings in their groups: as many as there are, of which only those in view are there; the chosen one comes into view. */
export function FindingList({
  groups,
  keyOf,
  chosen,
  onChoose,
}: {
  groups: readonly FindingGroup[];
  keyOf: (one: InOrder) => string;
  chosen: string | null;
  onChoose: (key: string) => void;
}): ReactNode {
  const rows = useRef<HTMLDivElement>(null);
  const top = topOf(groups, (one) => keyOf(one) === chosen);
  useEffect(() => {
    const list = rows.current;
    if (list === null || top === null) return;
    const seen = { from: list.scrollTop, to: list.scrollTop + list.clientHeight - rowHeight };
    if (top < seen.from) list.scrollTop = top - headingHeight;
    else if (top > seen.to) list.scrollTop += top - seen.to;
  }, [chosen, top]);
  return (
    <Virtualizer layout={ListLayout} layoutOptions={{ rowHeight, headingHeight }}>
      <Rows
        ref={rows}
        aria-label="Findings"
        items={groups}
        selectionMode="single"
        selectionBehavior="replace"
        disallowEmptySelection
        selectedKeys={chosen === null ? [] : [chosen]}
        onSelectionChange={(keys) => {
          const [key] = keys === 'all' ? [] : [...keys];
          if (key !== undefined) onChoose(String(key));
        }}
      >
        {(group) => (
          <ListBoxSection id={`group ${group.key}`}>
            <Header>
              <StateMark state={group.bad > 0 ? 'bad' : 'warn'} />
              <span title={group.title}>{group.title}</span>
              <small>{group.items.length}</small>
            </Header>
            <Collection items={group.items.map((one) => ({ ...one, id: keyOf(one) }))} dependencies={[keyOf]}>
              {(one) => (
                <ListBoxItem id={one.id} textValue={`${one.told.about[0] ?? ''} ${one.told.message}`}>
                  <StateMark state={one.severity} />
                  <strong>{one.told.about[0]}</strong>
                  <small title={one.told.message}>{one.told.message}</small>
                </ListBoxItem>
              )}
            </Collection>
          </ListBoxSection>
        )}
      </Rows>
    </Virtualizer>
  );
}
