import { kinds } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { DeviceRecord } from '../racks/record/DeviceRecord.tsx';
import { CableRecord } from '../cabling/record/CableRecord.tsx';
import { CircuitRecord } from '../cabling/record/CircuitRecord.tsx';
import { AddInside } from '../racks/record/AddInside.tsx';
import { KindRecord } from './KindRecord.tsx';
import { MarkRecord } from '../sheets/record/MarkRecord.tsx';
import { ModelRecord } from '../catalogue/record/ModelRecord.tsx';
import { PlaceRecord } from '../places/record/PlaceRecord.tsx';
import { PortRecord } from '../cabling/record/PortRecord.tsx';
import { RackRecord } from '../racks/record/RackRecord.tsx';
import { PrefixRecord } from '../addressing/record/PrefixRecord.tsx';
import { VlanRecord } from '../switching/record/VlanRecord.tsx';
import { SheetRecord } from '../sheets/record/SheetRecord.tsx';

const Nothing = styled.p`
  padding: 14px;
  color: ${({ theme }) => theme.inkSoft};
`;

/** The record of what is selected: facts edited in place, ports, connections, history. */
export function Record(): ReactNode {
  const { view, canEdit } = useProject();
  const { selection, scopeId } = useWhereabouts();
  const { network } = view;
  const { sheet: sheetId } = useParams();
  if (selection === null) {
    const open = network.get('sheet', sheetId ?? null);
    if (open !== null) return <SheetRecord key={open.id} sheet={open} />;
    const place = network.get('place', scopeId);
    if (place !== null) return <PlaceRecord key={place.id} place={place} />;
    return (
      <>
        <Nothing>Select a device, a port, a cable or a rack: its record stands here.</Nothing>
        {canEdit && <AddInside placeId={null} />}
      </>
    );
  }
  const { kind, id } = selection;
  const mark = kind === 'mark' ? network.get('mark', id) : null;
  if (mark !== null) return <MarkRecord key={id} mark={mark} />;
  const device = kind === 'device' ? network.get('device', id) : null;
  if (device !== null) return <DeviceRecord key={id} device={device} />;
  const port = kind === 'port' ? network.get('port', id) : null;
  if (port !== null) return <PortRecord key={id} port={port} />;
  const cable = kind === 'cable' ? network.get('cable', id) : null;
  if (cable !== null) return <CableRecord key={id} cable={cable} />;
  const circuit = kind === 'circuit' ? network.get('circuit', id) : null;
  if (circuit !== null) return <CircuitRecord key={id} circuit={circuit} />;
  const rack = kind === 'rack' ? network.get('rack', id) : null;
  if (rack !== null) return <RackRecord key={id} rack={rack} />;
  const place = kind === 'place' ? network.get('place', id) : null;
  if (place !== null) return <PlaceRecord key={id} place={place} />;
  const vlan = kind === 'vlan' ? network.get('vlan', id) : null;
  if (vlan !== null) return <VlanRecord key={id} vlan={vlan} />;
  const prefix = kind === 'prefix' ? network.get('prefix', id) : null;
  if (prefix !== null) return <PrefixRecord key={id} row={prefix} />;
  const model = kind === 'model' ? network.get('model', id) : null;
  if (model !== null) return <ModelRecord key={id} model={model} />;
  const sheet = kind === 'sheet' ? network.get('sheet', id) : null;
  if (sheet !== null) return <SheetRecord key={id} sheet={sheet} />;
  const row = network.get(kind, id);
  if (row !== null) return <KindRecord key={id} kind={kind} row={row} />;
  return <Nothing>{`This ${kinds[kind].one} is no longer there.`}</Nothing>;
}
