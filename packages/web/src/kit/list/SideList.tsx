import { Fragment, type ReactNode } from 'react';
import { styled } from 'styled-components';

const Side = styled.nav`
  flex: none;
  width: 216px;
  min-height: 0;
  display: flex;
  flex-direction: column;
  border-right: 1px solid ${({ theme }) => theme.rule};
  > :first-child {
    padding: 8px 10px;
  }
  > div:last-child {
    overflow: auto;
    padding-bottom: 10px;
  }
  h2 {
    padding: 8px 12px 3px;
    font-size: 12px;
    font-weight: 600;
    color: ${({ theme }) => theme.inkSoft};
  }
  > div:last-child button {
    display: block;
    width: 100%;
    padding: 4px 12px;
    border: 0;
    font: inherit;
    text-align: left;
    color: inherit;
    background: none;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > div:last-child button[aria-current='true'] {
    background: ${({ theme }) => theme.accentWash};
    box-shadow: inset 3px 0 0 ${({ theme }) => theme.accent};
  }
  > div:last-child button:hover {
    background: ${({ theme }) => theme.accentWash};
  }
  > div:last-child button:focus-visible {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: -2px;
  }
  > div:last-child h2 button {
    display: inline;
    width: auto;
    padding: 0;
    font: inherit;
    font-weight: 600;
  }
  p {
    padding: 2px 12px;
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
`;

export interface SideGroup {
  title: string;
  /** What the title is made of, where each of it is opened by itself. */
  parts?: readonly { id: string; text: string }[];
  items: readonly { id: string; text: string; detail: string }[];
  /** Told where there are none. */
  none?: string;
}

/** What of a section can be opened, by name, beside what is open. */
export function SideList({
  label,
  groups,
  chosen,
  onOpen,
  onPart,
  children,
}: {
  label: string;
  groups: readonly SideGroup[];
  chosen: string | null;
  onOpen: (id: string) => void;
  onPart?: (id: string) => void;
  /** What stands above: a filter, or a button that begins another. */
  children?: ReactNode;
}): ReactNode {
  return (
    <Side aria-label={label}>
      <div>{children}</div>
      <div>
        {groups.map(({ title, parts, items, none }) => (
          <section key={title} aria-label={title}>
            <h2>
              {parts === undefined
                ? title
                : parts.map(({ id, text }, at) => (
                    <Fragment key={id}>
                      {at > 0 && ' · '}
                      <button type="button" onClick={() => onPart?.(id)}>
                        {text}
                      </button>
                    </Fragment>
                  ))}
            </h2>
            {items.map(({ id, text, detail }) => (
              <button
                key={id}
                type="button"
                title={detail}
                aria-current={id === chosen}
                onClick={() => onOpen(id)}
              >
                {text}
              </button>
            ))}
            {items.length === 0 && none !== undefined && <p>{none}</p>}
          </section>
        ))}
      </div>
    </Side>
  );
}
