import { prefixSchedule } from '@visograph/core/addressing';
import { circuitSchedule } from '@visograph/core/cabling';
import { type Scene } from '@visograph/core/sheets';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { CableGrid } from '../../cabling/CableGrid.tsx';
import { circuitColumns } from '../../cabling/Circuits.tsx';
import { cableRows } from '../../cabling/cableRows.ts';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { DeviceGrid } from '../../racks/equipment/DeviceGrid.tsx';
import { Grid } from '../../kit/grid/Grid.tsx';
import { prefixColumns } from '../../addressing/prefixColumns.tsx';
import { deviceRows } from '../../racks/equipment/deviceRows.tsx';

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
  const { selection, select } = useWhereabouts();
  const [kind, setKind] = useState<'device' | 'cable' | 'circuit' | 'prefix'>(
    scene.links.some((link) => link.kind === 'prefix')
      ? 'prefix'
      : scene.links.every((link) => link.kind === 'circuit')
        ? 'circuit'
        : 'cable',
  );
  const [seen, setSeen] = useState(selection);
  if (seen !== selection) {
    setSeen(selection);
    const next = (['device', 'cable', 'circuit', 'prefix'] as const).find((one) => one === selection?.kind);
    if (next !== undefined) setKind(next);
  }
  const devices = useMemo(() => {
    const drawn = new Set(scene.plates.flatMap((plate) => plate.deviceIds));
    return deviceRows(network, null).filter((row) => drawn.has(row.id));
  }, [network, scene]);
  const cables = useMemo(() => {
    const drawn = new Set(scene.links.flatMap((link) => link.cableIds));
    return cableRows(network, null).filter((row) => drawn.has(row.id));
  }, [network, scene]);
  const circuits = useMemo(() => {
    const drawn = new Set(scene.links.flatMap((link) => link.cableIds));
    const table = circuitSchedule(network, null);
    return table.rows
      .map((cells, at) => ({ id: table.ids[at] ?? '', cells }))
      .filter((row) => drawn.has(row.id));
  }, [network, scene]);
  const prefixes = useMemo(() => {
    const drawn = new Set([
      ...scene.links.flatMap((link) => (link.kind === 'prefix' ? link.cableIds : [])),
      ...scene.plates.flatMap((plate) => (plate.form === 'subnet' ? plate.subjects : [])),
    ]);
    if (drawn.size === 0) return [];
    const table = prefixSchedule(network, null);
    return table.rows
      .map((cells, at) => ({ id: table.ids[at] ?? '', cells }))
      .filter((row) => drawn.has(row.id));
  }, [network, scene]);
  return (
    <Strip aria-label="Rows on this sheet">
      <Tabs>
        {prefixes.length > 0 && (
          <button
            type="button"
            aria-pressed={kind === 'prefix'}
            onClick={() => setKind('prefix')}
          >{`Subnets ${prefixes.length}`}</button>
        )}
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
        {circuits.length > 0 && (
          <button
            type="button"
            aria-pressed={kind === 'circuit'}
            onClick={() => setKind('circuit')}
          >{`Circuits ${circuits.length}`}</button>
        )}
      </Tabs>
      {kind === 'prefix' ? (
        <Grid
          label="Subnets on this sheet"
          columns={prefixColumns}
          rows={prefixes}
          selectedId={selection?.kind === 'prefix' ? selection.id : null}
          onSelect={(id) => select({ kind: 'prefix', id })}
        />
      ) : kind === 'circuit' ? (
        <Grid
          label="Circuits on this sheet"
          columns={circuitColumns}
          rows={circuits}
          selectedId={selection?.kind === 'circuit' ? selection.id : null}
          onSelect={(id) => select({ kind: 'circuit', id })}
        />
      ) : kind === 'device' ? (
        <DeviceGrid view="drawn-devices" label="Devices on this sheet" rows={devices} />
      ) : (
        <CableGrid view="drawn-cables" label="Cables on this sheet" rows={cables} />
      )}
    </Strip>
  );
}
