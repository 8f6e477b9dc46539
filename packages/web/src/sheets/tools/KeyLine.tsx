import type { KeyEntry } from '@visograph/core/sheets';
import { MediumStroke, shadeColour } from '@visograph/drawing';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { RoleMark } from '../../kit/panel/panels.tsx';
import { useTheme } from '../../theme/theme.tsx';

const Line = styled.ul`
  flex: none;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: center;
  min-height: 26px;
  max-height: 72px;
  padding: 2px 12px;
  overflow: auto;
  font-size: 12px;
  white-space: nowrap;
  color: ${({ theme }) => theme.inkSoft};
  border-top: 1px solid ${({ theme }) => theme.rule};
  li {
    display: flex;
    gap: 6px;
    align-items: center;
  }
`;

/** The key of the sheet in one line below it: strokes and codes that are really on it. */
export function KeyLine({ entries }: { entries: readonly KeyEntry[] }): ReactNode {
  const { tokens } = useTheme();
  return (
    <Line aria-label="Key">
      {entries.map((entry) => (
        <li key={`${entry.form}${entry.text}`}>
          {entry.medium !== undefined && (
            <svg width="26" height="10" aria-hidden="true">
              <MediumStroke
                path="M0 5H26"
                medium={entry.medium}
                many={false}
                colour={tokens.ink}
                paper={tokens.ground}
              />
            </svg>
          )}
          {entry.shade !== undefined && (
            <i
              style={{ width: 12, height: 12, borderRadius: 2, background: shadeColour(tokens, entry.shade) }}
            />
          )}
          {entry.role !== undefined && <RoleMark role={entry.role} />}
          {entry.text}
        </li>
      ))}
    </Line>
  );
}
