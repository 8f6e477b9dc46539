import { kinds, type Kind, type Network, type Row } from '@visograph/core/model';
import { Fragment, type ReactNode } from 'react';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts, type Selection } from '../data/location.ts';
import { AddInside } from '../racks/record/AddInside.tsx';
import { FoundCard } from './FoundCard.tsx';
import { KindRecord } from './KindRecord.tsx';
import { records } from './registry.tsx';

const Nothing = styled.p`
  padding: 14px;
  color: ${({ theme }) => theme.inkSoft};
`;

/** What can be selected in a section, while nothing is. */
const nothingIn: Readonly<Record<string, string>> = {
  places: 'Select a place, a rack or a device: its record stands here.',
  catalogue: 'Select a model: its record stands here.',
  equipment: 'Select a device: its record stands here.',
  cables: 'Select a cable or a circuit: its record stands here.',
  vlans: 'Select a VLAN: its record stands here.',
  addresses: 'Select a prefix or an address: its record stands here.',
  review: 'Choose a finding: the record of its thing stands here.',
  sheets: 'Open a sheet and choose something on it: its record stands here.',
};

/** The record of one row, made anew for each. */
function recordOf<K extends Kind>(network: Network, kind: K, id: string): ReactNode {
  const row = network.get(kind, id);
  if (row === null) return null;
  const own: ((row: Row<K>) => ReactNode) | undefined = records[kind];
  return (
    <Fragment key={id}>
      {own?.(row) ?? <KindRecord kind={kind} row={row} />}
      <FoundCard kind={kind} id={id} />
    </Fragment>
  );
}

/** The record of what is selected: facts edited in place, ports, connections, history. */
export function Record(): ReactNode {
  const { view, canEdit } = useProject();
  const { section, selection, scopeId } = useWhereabouts();
  const { network } = view;
  const { sheet: sheetId } = useParams();
  if (selection !== null)
    return (
      recordOf(network, selection.kind, selection.id) ?? (
        <Nothing>{`This ${kinds[selection.kind].one} is no longer there.`}</Nothing>
      )
    );
  // With nothing selected it is the sheet that is open, or the place that everything is about.
  const around: Selection[] = [
    ...(sheetId === undefined ? [] : [{ kind: 'sheet' as const, id: sheetId }]),
    ...(scopeId === null ? [] : [{ kind: 'place' as const, id: scopeId }]),
  ];
  const here = around.find(({ kind, id }) => network.get(kind, id) !== null);
  if (here !== undefined) return recordOf(network, here.kind, here.id);
  return (
    <>
      <Nothing>{nothingIn[section] ?? 'Select a row: its record stands here.'}</Nothing>
      {canEdit && section === 'places' && <AddInside placeId={null} />}
    </>
  );
}
