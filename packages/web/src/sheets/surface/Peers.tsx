import type { Box, Scene } from '@visograph/core/sheets';
import { useStore, ViewportPortal } from '@xyflow/react';
import { useSyncExternalStore, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import type { Peer } from '../../data/presence.ts';
import { useTheme } from '../../theme/theme.tsx';

const Pointer = styled.div`
  position: absolute;
  top: 0;
  left: 0;
  pointer-events: none;
  z-index: 9;
  transform-origin: 0 0;
  span {
    position: absolute;
    left: 10px;
    top: 14px;
    padding: 0 5px;
    border-radius: 3px;
    font-size: 11px;
    line-height: 16px;
    white-space: nowrap;
    color: #fff;
  }
  svg {
    display: block;
  }
`;
const Around = styled.div`
  position: absolute;
  pointer-events: none;
  z-index: 4;
  border-radius: 5px;
`;

/** A colour for each person, the same in every window. */
const colourOf = (peer: Peer, set: readonly string[]): string => {
  let sum = 0;
  for (const letter of peer.name) sum = (sum * 31 + (letter.codePointAt(0) ?? 0)) % 9973;
  return set[sum % set.length] ?? '#000';
};

export function usePeers(sheetId: string): readonly Peer[] {
  const { sync } = useProject();
  const peers = useSyncExternalStore(sync.presence.subscribe, sync.presence.current);
  return peers.filter((peer) => peer.sheetId === sheetId);
}

/** Pointers and selections of the others on this sheet. */
export function Peers({ peers, scene }: { peers: readonly Peer[]; scene: Scene }): ReactNode {
  const { tokens } = useTheme();
  const zoom = useStore((state) => state.transform[2]);
  if (peers.length === 0) return null;
  const boxes = new Map<string, Box>([
    ...scene.plates.map((plate): [string, Box] => [plate.id, plate.box]),
    ...scene.marks.map((mark): [string, Box] => [mark.id, mark.box]),
  ]);
  return (
    <ViewportPortal>
      {peers.map((peer) => {
        const colour = colourOf(peer, tokens.set);
        return (
          <div key={peer.peer}>
            {peer.selection.map((id) => {
              const box = boxes.get(id);
              return box === undefined ? null : (
                <Around
                  key={id}
                  title={peer.name}
                  style={{
                    left: box.x - 4,
                    top: box.y - 4,
                    width: box.width + 8,
                    height: box.height + 8,
                    border: `2px solid ${colour}`,
                  }}
                />
              );
            })}
            {peer.at !== null && (
              <Pointer
                data-peer={peer.name}
                style={{ transform: `translate(${peer.at.x}px, ${peer.at.y}px) scale(${1 / zoom})` }}
              >
                <svg width="14" height="18" viewBox="0 0 14 18" aria-hidden="true">
                  <path d="M1 1V14L4.6 10.8L7 16L9.4 15L7.1 9.9H12Z" fill={colour} stroke="#fff" />
                </svg>
                <span style={{ background: colour }}>{peer.name}</span>
              </Pointer>
            )}
          </div>
        );
      })}
    </ViewportPortal>
  );
}
