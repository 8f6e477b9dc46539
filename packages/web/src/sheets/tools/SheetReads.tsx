import {
  arrowKinds,
  hasChoice,
  projectionNatures,
  projections,
  type ArrowKind,
  type Projection,
  type Sheet,
} from '@visograph/core/model';
import { setSheet, sisterSheet } from '@visograph/core/sheets';
import { vlansInScope } from '@visograph/core/switching';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { Choice } from '../../kit/choice.tsx';
import { arrowWords } from './arrowWords.ts';

const Line = styled.span`
  flex: none;
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
  color: ${({ theme }) => theme.inkSoft};
`;

const readings = projections.filter((id) => projectionNatures[id].ofDevices);
const all = 'all';

/** How the sheet reads the model: the same devices as cabling, switching or routing; and of these one VLAN or VRF. */
export function SheetReads({ sheet }: { sheet: Sheet }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { go } = useWhereabouts();
  if (hasChoice(sheet.projection, 'arrows'))
    return (
      <Line role="group" aria-label="What the sheet reads">
        <span>arrows</span>
        <Choice<ArrowKind>
          label="Arrows"
          hideLabel
          width={186}
          value={sheet.reading.arrows ?? 'routes'}
          options={arrowKinds.map((id) => ({ id, text: arrowWords[id], disabled: !canEdit }))}
          onChange={(arrows) =>
            void commit(setSheet(sheet, { reading: { ...sheet.reading, arrows } }, 'the arrows'))
          }
        />
      </Line>
    );
  if (!projectionNatures[sheet.projection].ofDevices) return null;
  const turn = (projection: Projection): void => {
    if (projection === sheet.projection) return;
    const { sheetId, set } = sisterSheet(network, sheet, projection);
    if (set === null || (canEdit && commit(set).ok)) go({ sheetId, selection: null });
  };
  const there = (projection: Projection): boolean =>
    canEdit || projection === sheet.projection || sisterSheet(network, sheet, projection).set === null;
  return (
    <Line role="group" aria-label="What the sheet reads">
      <Choice
        label="Read as"
        hideLabel
        width={112}
        value={sheet.projection}
        options={readings.map((id) => ({ id, text: projectionNatures[id].title, disabled: !there(id) }))}
        onChange={(id) => turn(readings.find((one) => one === id) ?? sheet.projection)}
      />
      {hasChoice(sheet.projection, 'vlan') && <span>lit up</span>}
      {hasChoice(sheet.projection, 'vlan') && (
        <Choice
          label="Light up a VLAN"
          hideLabel
          width={190}
          value={sheet.vlanId ?? all}
          options={[
            { id: all, text: 'All VLANs' },
            ...vlansInScope(network, sheet.scopeId).map((vlan) => ({
              id: vlan.id,
              text: `${vlan.vid} ${vlan.name}`,
              detail: network.get('vlanNumbering', vlan.numberingId)?.name ?? '',
              disabled: !canEdit,
            })),
          ]}
          onChange={(id) =>
            void commit(setSheet(sheet, { vlanId: id === all ? null : id }, 'the VLAN that is lit'))
          }
        />
      )}
      {hasChoice(sheet.projection, 'vrf') && <span>of</span>}
      {hasChoice(sheet.projection, 'vrf') && (
        <Choice
          label="One VRF alone"
          hideLabel
          width={150}
          value={sheet.vrfId ?? all}
          options={[
            { id: all, text: 'All VRFs' },
            ...[...network.all('vrf')].map((vrf) => ({
              id: vrf.id,
              text: `VRF ${vrf.name}`,
              disabled: !canEdit,
            })),
          ]}
          onChange={(id) =>
            void commit(setSheet(sheet, { vrfId: id === all ? null : id }, 'the VRF that is shown'))
          }
        />
      )}
    </Line>
  );
}
