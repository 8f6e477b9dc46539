import type { KeyEntry, Scene } from '@visograph/core/sheets';
import { MediumStroke, shadeColour, trunkWidth } from '@visograph/drawing';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWorkspace } from '../../data/workspace.tsx';
import { Button, Keycap } from '../../kit/controls.tsx';
import { RoleMark } from '../../kit/panel/panels.tsx';
import { useTheme } from '../../theme/theme.tsx';

const Line = styled.div`
  flex: none;
  display: flex;
  align-items: center;
  gap: 10px;
  height: 28px;
  padding: 0 6px 0 12px;
  border-top: 1px solid ${({ theme }) => theme.rule};
  > ul {
    flex: 1;
    min-width: 0;
    display: flex;
    gap: 2px 14px;
    align-items: center;
    overflow: auto hidden;
    scrollbar-width: none;
    font-size: 12px;
    white-space: nowrap;
    color: ${({ theme }) => theme.inkSoft};
  }
  li {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  > button {
    height: 22px;
    margin-left: auto;
    font-size: 12px;
  }
`;

const some = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;

/** One slim line below a sheet: its key, strokes and codes that are really on it, and the way to the rows behind it. */
export function KeyLine({ entries, scene }: { entries: readonly KeyEntry[]; scene: Scene }): ReactNode {
  const { tokens } = useTheme();
  const { dock, setDock, stripOpen, setStripOpen } = useWorkspace();
  const devices = new Set(scene.plates.flatMap((plate) => plate.deviceIds)).size;
  const cables = new Set(scene.links.flatMap((link) => link.cableIds)).size;
  const open = stripOpen && dock === null;
  return (
    <Line>
      {entries.length > 0 && (
        <ul aria-label="Key" tabIndex={0}>
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
              {entry.form === 'bundle' && (
                <svg width="26" height="10" aria-hidden="true">
                  <path d="M0 5H26" stroke={tokens.ink} strokeWidth={trunkWidth} />
                </svg>
              )}
              {entry.shade !== undefined && (
                <i
                  style={{
                    width: 12,
                    height: 12,
                    borderRadius: 2,
                    background: shadeColour(tokens, entry.shade),
                  }}
                />
              )}
              {entry.role !== undefined && <RoleMark role={entry.role} />}
              {entry.text}
            </li>
          ))}
        </ul>
      )}
      <Button
        $tone="quiet"
        aria-pressed={open}
        onPress={() => {
          setDock(null);
          setStripOpen(!open);
        }}
      >
        {`${open ? 'Hide rows' : 'Rows'}: ${some(devices, 'device')}, ${some(cables, 'line')}`}
        <Keycap>=</Keycap>
      </Button>
    </Line>
  );
}
