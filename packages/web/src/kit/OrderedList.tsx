import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import {
  Button,
  DropIndicator,
  GridList,
  GridListItem,
  useDragAndDrop,
  type DropTarget,
  type Key,
} from 'react-aria-components';
import { styled } from 'styled-components';

const List = styled(GridList)`
  display: flex;
  flex-direction: column;
  gap: 4px;
  outline: none;
  .line {
    display: flex;
    gap: 8px;
    align-items: center;
    outline: none;
    &[data-dragging] {
      opacity: 0.5;
    }
    &[data-focus-visible] {
      outline: 2px solid ${({ theme }) => theme.accent};
      outline-offset: 1px;
      border-radius: 3px;
    }
    > :last-child,
    /* The cell of a row of the list is not drawn itself. */
    > [role='gridcell'] > :last-child {
      flex: 1;
      min-width: 0;
    }
  }
  .grip {
    display: grid;
    padding: 2px 0;
    border: 0;
    background: none;
    color: ${({ theme }) => theme.inkSoft};
    border-radius: 2px;
    &[data-focus-visible] {
      outline: 2px solid ${({ theme }) => theme.accent};
    }
  }
  .drop {
    height: 2px;
    background: transparent;
    &[data-drop-target] {
      background: ${({ theme }) => theme.accent};
    }
  }
`;

/** The items after some of them were let go before or after another; null where that changes nothing. */
export function reordered<T extends { id: string }>(
  items: readonly T[],
  moved: ReadonlySet<Key>,
  target: { key: Key; dropPosition: DropTarget extends { dropPosition: infer P } ? P : string },
): T[] | null {
  const going = items.filter(({ id }) => moved.has(id));
  const staying = items.filter(({ id }) => !moved.has(id));
  const at = staying.findIndex(({ id }) => id === target.key);
  if (going.length === 0 || at < 0) return null;
  const from = target.dropPosition === 'after' ? at + 1 : at;
  const next = [...staying.slice(0, from), ...going, ...staying.slice(from)];
  return next.every((item, place) => item === items[place]) ? null : next;
}

interface Props<T extends { id: string }> {
  label: string;
  items: readonly T[];
  textOf: (item: T) => string;
  onOrder: (items: T[]) => void;
  /** Read, not put in order. */
  fixed?: boolean;
  children: (item: T, at: number) => ReactNode;
}

/** A list that a person puts in order: by dragging the grip, or with the keyboard from it (Enter, arrows, Enter). */
export function OrderedList<T extends { id: string }>({
  label,
  items,
  textOf,
  onOrder,
  fixed = false,
  children,
}: Props<T>): ReactNode {
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const next = reordered(items, keys, target);
      if (next !== null) onOrder(next);
    },
    renderDropIndicator: (target) => <DropIndicator target={target} className="drop" />,
  });
  return (
    <List
      aria-label={label}
      dragAndDropHooks={fixed ? undefined : dragAndDropHooks}
      selectionMode="none"
      keyboardNavigationBehavior="tab"
    >
      {items.map((item, at) => (
        <GridListItem key={item.id} className="line" id={item.id} textValue={textOf(item)}>
          {!fixed && (
            <Button slot="drag" className="grip" aria-label={`Move ${textOf(item)}`}>
              <GripVertical size={14} aria-hidden="true" />
            </Button>
          )}
          <div>{children(item, at)}</div>
        </GridListItem>
      ))}
    </List>
  );
}
