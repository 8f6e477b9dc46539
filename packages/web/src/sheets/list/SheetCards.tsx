import type { Sheet } from '@visograph/core/model';
import { copySheet, deleteSheet, orderSheets } from '@visograph/core/sheets';
import { EllipsisVertical, GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import {
  Button as AriaButton,
  DropIndicator,
  GridList,
  GridListItem,
  MenuItem,
  MenuTrigger,
  useDragAndDrop,
} from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Floating } from '../../kit/controls.tsx';
import { reordered } from '../../kit/OrderedList.tsx';
import { MenuList } from '../../kit/tools.tsx';
import { whenText } from '../../history/useHistory.ts';
import { SheetPicture } from './SheetPicture.tsx';
import { sheetPlace, usesText, type SheetChange } from './useSheetList.ts';

const Cards = styled(GridList)<{ $small: boolean }>`
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(${({ $small }) => ($small ? 186 : 236)}px, 1fr));
  align-content: start;
  gap: 14px;
  padding: 14px 16px;
  outline: none;
  .card {
    position: relative;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
    background: ${({ theme }) => theme.surface};
    outline: none;
    &:hover,
    &[data-focus-visible] {
      border-color: ${({ theme }) => theme.accent};
    }
    &[data-focus-visible] {
      outline: 2px solid ${({ theme }) => theme.accent};
      outline-offset: 1px;
    }
    &[data-dragging] {
      opacity: 0.5;
    }
  }
  .open {
    display: block;
    width: 100%;
    padding: 0;
    border: 0;
    font: inherit;
    text-align: left;
    background: none;
    color: ${({ theme }) => theme.ink};
    &[data-focus-visible] {
      outline: 2px solid ${({ theme }) => theme.accent};
    }
    > span {
      display: block;
      padding: 8px 10px 9px;
      border-top: 1px solid ${({ theme }) => theme.rule};
    }
    strong,
    small {
      display: block;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    strong {
      padding-right: 44px;
    }
    small {
      font-size: 12px;
      line-height: 17px;
      color: ${({ theme }) => theme.inkSoft};
    }
  }
  menu {
    position: absolute;
    right: 4px;
    bottom: 44px;
    margin: 0;
    padding: 0;
    display: flex;
  }
  menu button {
    display: grid;
    place-items: center;
    width: 22px;
    height: 26px;
    padding: 0;
    border: 0;
    border-radius: 2px;
    background: none;
    color: ${({ theme }) => theme.inkSoft};
    &[data-hovered] {
      color: ${({ theme }) => theme.ink};
    }
    &[data-focus-visible] {
      outline: 2px solid ${({ theme }) => theme.accent};
    }
  }
  .drop {
    width: 2px;
    margin: 0 -8px;
    &[data-drop-target] {
      background: ${({ theme }) => theme.accent};
    }
  }
`;

interface Props {
  sheets: readonly Sheet[];
  changes: ReadonlyMap<string, SheetChange>;
  /** Whether they are put in order here: not where they are sorted otherwise, or only some are shown. */
  orderable: boolean;
  onOpen: (sheetId: string) => void;
  label?: string;
  /** More of them beside each other. */
  small?: boolean;
}

/** What can be done with a sheet from the list. */
function Acts({
  sheet,
  sheets,
  orderable,
}: {
  sheet: Sheet;
  sheets: readonly Sheet[];
  orderable: boolean;
}): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const at = sheets.indexOf(sheet);
  const move = (to: number): void => {
    const ids = sheets.map(({ id }) => id);
    ids.splice(at, 1);
    ids.splice(to, 0, sheet.id);
    commit(orderSheets(network, ids));
  };
  return (
    <MenuTrigger>
      <AriaButton aria-label={`More of ${sheet.name}`}>
        <EllipsisVertical size={15} />
      </AriaButton>
      <Floating>
        <MenuList
          aria-label={`More of ${sheet.name}`}
          disabledKeys={[
            ...(orderable ? [] : ['before', 'after']),
            ...(at === 0 ? ['before'] : []),
            ...(at === sheets.length - 1 ? ['after'] : []),
          ]}
          onAction={(key) => {
            if (key === 'copy') commit(copySheet(network, sheet));
            if (key === 'before') move(at - 1);
            if (key === 'after') move(at + 1);
            if (key === 'delete') commit(deleteSheet(network, sheet));
          }}
        >
          <MenuItem id="copy">Copy</MenuItem>
          <MenuItem id="before">One place earlier</MenuItem>
          <MenuItem id="after">One place later</MenuItem>
          <MenuItem id="delete">Delete (Ctrl+Z brings it back)</MenuItem>
        </MenuList>
      </Floating>
    </MenuTrigger>
  );
}

/** Sheets as pictures, each with where it is of, who changed it last and from where it is reached; dragged into an order. */
export function SheetCards({
  sheets,
  changes,
  orderable,
  onOpen,
  label = 'Sheets',
  small = false,
}: Props): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const next = reordered(sheets, keys, target);
      if (next !== null)
        commit(
          orderSheets(
            network,
            next.map(({ id }) => id),
          ),
        );
    },
    renderDropIndicator: (target) => <DropIndicator target={target} className="drop" />,
  });
  const drags = orderable && canEdit;
  return (
    <Cards
      $small={small}
      aria-label={label}
      layout="grid"
      selectionMode="none"
      keyboardNavigationBehavior="tab"
      dragAndDropHooks={drags ? dragAndDropHooks : undefined}
    >
      {sheets.map((sheet) => {
        const change = changes.get(sheet.id);
        const used = usesText(network, sheet);
        return (
          <GridListItem key={sheet.id} id={sheet.id} className="card" textValue={sheet.name}>
            <AriaButton className="open" onPress={() => onOpen(sheet.id)}>
              <SheetPicture sheet={sheet} />
              <span>
                <strong>{sheet.name}</strong>
                <small>{[sheet.projection, sheetPlace(network, sheet)].join(' · ')}</small>
                <small>
                  {[change === undefined ? '' : `${whenText(change.at)}, ${change.author}`, used]
                    .filter(Boolean)
                    .join(' · ')}
                  {'\u00a0'}
                </small>
              </span>
            </AriaButton>
            {canEdit && (
              <menu>
                {drags && (
                  <AriaButton slot="drag" aria-label={`Move ${sheet.name}`}>
                    <GripVertical size={14} />
                  </AriaButton>
                )}
                <Acts sheet={sheet} sheets={sheets} orderable={orderable} />
              </menu>
            )}
          </GridListItem>
        );
      })}
    </Cards>
  );
}
