import type { Scene } from '@visograph/core';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { CableGrid } from '../cables/CableGrid.tsx';
import { cableRows } from '../cables/cableRows.ts';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { DeviceGrid } from '../equipment/DeviceGrid.tsx';
import { deviceRows } from '../equipment/deviceRows.ts';

const Strip = styled.section`
  flex: none;
  height: 196px;
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-top: 1px solid ${({ theme }) => theme.rule};
`;
const Tabs = styled.div`
  flex: none;
  display: flex;
  gap: 2px;
  padding: 3px 8px 0;
  background: ${({ theme }) => theme.ground};
  button {
    font: inherit;
    font-size: 12px;
    border: 0;
    background: none;
    padding: 2px 9px 3px;
    color: ${({ theme }) => theme.inkSoft};
    border-bottom: 2px solid transparent;
  }
  button[aria-pressed='true'] {
    color: ${({ theme }) => theme.ink};
    font-weight: 600;
    border-bottom-color: ${({ theme }) => theme.accent};
  }
`;

/** The rows behind what is drawn. Selecting or editing here is selecting and editing there. */
export function DataStrip({ scene }: { scene: Scene }): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const { selection } = useWhereabouts();
  const [kind, setKind] = useState<'device' | 'cable'>('cable');
  const [seen, setSeen] = useState(selection);
  if (seen !== selection) {
    setSeen(selection);
    if (selection?.kind === 'device' || selection?.kind === 'cable') setKind(selection.kind);
  }
  const devices = useMemo(() => {
    const drawn = new Set(scene.plates.flatMap((plate) => plate.deviceIds));
    return deviceRows(network, null).filter((row) => drawn.has(row.id));
  }, [network, scene]);
  const cables = useMemo(() => {
    const drawn = new Set(scene.links.flatMap((link) => link.cableIds));
    return cableRows(network, null).filter((row) => drawn.has(row.id));
  }, [network, scene]);
  return (
    <Strip aria-label="Rows on this sheet">
      <Tabs>
        <button
          type="button"
          aria-pressed={kind === 'cable'}
          onClick={() => setKind('cable')}
        >{`Cables ${cables.length}`}</button>
        <button
          type="button"
          aria-pressed={kind === 'device'}
          onClick={() => setKind('device')}
        >{`Devices ${devices.length}`}</button>
      </Tabs>
      {kind === 'device' ? (
        <DeviceGrid label="Devices on this sheet" rows={devices} />
      ) : (
        <CableGrid label="Cables on this sheet" rows={cables} />
      )}
    </Strip>
  );
}
