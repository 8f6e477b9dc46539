import { devicesInScope } from '@visograph/core/model';
import {
  layer2Of,
  linkMatrix,
  matrixVlans,
  setMarks,
  switchMatrix,
  vlanNumberingsInScope,
  type MarkWish,
  type MatrixRow,
} from '@visograph/core/switching';
import { useCallback, useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Choice } from '../kit/choice.tsx';
import { Filter } from '../kit/Filter.tsx';
import { Empty, Hint } from '../kit/panel/panels.tsx';
import { VlanMatrix, type Painted } from './VlanMatrix.tsx';

const Bar = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 6px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  > p {
    flex: 1;
    min-width: 0;
  }
`;

const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

/** VLANs of one numbering over switches or over the links between them, to be set in the cells. */
export function MatrixView({ by }: { by: 'links' | 'switches' }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const shown = useDeferredValue(network);
  const { scopeId, select } = useWhereabouts();
  const numberings = vlanNumberingsInScope(network, scopeId);
  const [chosen, setChosen] = useState<string | null>(null);
  const numberingId =
    numberings.find((numbering) => numbering.id === chosen)?.id ?? numberings[0]?.id ?? null;
  const [filter, setFilter] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const vlans = useMemo(
    () => (numberingId === null ? [] : matrixVlans(shown, numberingId)),
    [shown, numberingId],
  );
  const rows = useMemo((): MatrixRow[] => {
    const layer2 = layer2Of(shown);
    const make = by === 'links' ? linkMatrix : switchMatrix;
    const words = filter.trim().toLowerCase();
    return make(layer2, devicesInScope(shown, scopeId), vlans).filter(
      (row) =>
        row.numberingIds.includes(numberingId) && `${row.label} ${row.detail}`.toLowerCase().includes(words),
    );
  }, [shown, scopeId, vlans, by, numberingId, filter]);
  const onPaint = useCallback(
    (cells: readonly Painted[]) => {
      if (by === 'switches' && cells.some(({ mark }) => mark === 'U'))
        return setWhy(
          'A switch as a whole can carry a VLAN tagged, or not. Untagged is set on its ports and links.',
        );
      const wishes = cells.flatMap(({ row, vid, mark }): MarkWish[] =>
        row.ends.map((end) => ({ port: end.port, vid, mark })),
      );
      if (wishes.length === 0)
        return setWhy(
          `${cells[0]?.row.label ?? 'It'} has no trunk to another switch. Set its ports one by one.`,
        );
      const numbers = [...new Set(cells.map((cell) => cell.vid))];
      const where = new Set(cells.map((cell) => cell.row.id)).size;
      const attempt = setMarks(
        network,
        wishes,
        `Set VLAN ${numbers.join(', ')} on ${counted(where, by === 'links' ? 'link' : 'switch').replace('switchs', 'switches')}`,
      );
      setWhy(attempt.ok ? null : attempt.why);
      if (attempt.ok && attempt.set.changes.length > 0) commit(attempt.set);
    },
    [by, network, commit],
  );
  if (numberingId === null)
    return (
      <Empty title="No VLAN numbering holds here">
        Name one in the record of a site: its numbering then holds in all that is inside.
      </Empty>
    );
  return (
    <>
      <Bar>
        <Choice
          label="VLAN numbering"
          hideLabel
          width={130}
          value={numberingId}
          options={numberings.map((numbering) => ({ id: numbering.id, text: numbering.name }))}
          onChange={setChosen}
        />
        <p>
          {why === null ? (
            <Hint>
              {by === 'links'
                ? 'Press or drag: tagged at both ends, or not. U, T and - can be typed and pasted.'
                : 'Press or drag: on all trunks of the switch and their far ends, or on none.'}
            </Hint>
          ) : (
            <Hint role="alert">{why}</Hint>
          )}
        </p>
        <Filter value={filter} onChange={setFilter} />
      </Bar>
      {rows.length === 0 ? (
        <Empty title={filter === '' ? 'Nothing to carry VLANs here' : 'No row contains that'}>
          {filter === ''
            ? 'Set ports of switches as access or trunk ports and connect them: they appear here.'
            : 'Clear the filter to see all.'}
        </Empty>
      ) : (
        <VlanMatrix
          label={by === 'links' ? 'Links' : 'Switches'}
          rows={rows}
          vlans={vlans}
          canEdit={canEdit}
          onPaint={onPaint}
          onPick={(row) => {
            const [end] = row.ends;
            const device = end?.bridge.devices[0];
            if (by === 'links' && end !== undefined)
              select({ kind: 'port', id: (end.members[0] ?? end.port).id });
            else if (device !== undefined) select({ kind: 'device', id: device.id });
          }}
        />
      )}
    </>
  );
}
