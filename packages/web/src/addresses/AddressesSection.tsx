import { holds, parsePrefix, prefixSchedule, prefixTree, type IpPrefix } from '@visograph/core';
import { useMemo, useState, type ReactNode } from 'react';
import { DialogTrigger } from 'react-aria-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Button, Choice, Floating } from '../kit/controls.tsx';
import { Filter } from '../kit/Filter.tsx';
import { Grid, type GridRow } from '../kit/Grid.tsx';
import { Empty, Work, WorkHead } from '../kit/panels.tsx';
import { AddPrefix } from './AddPrefix.tsx';
import { prefixColumns } from './prefixColumns.ts';
import { LadderView } from './LadderView.tsx';

/** How deep a prefix stands in its VRF: how many others hold it. */
function indented(text: string, depth: number): string {
  return `${'\u2003'.repeat(depth)}${text}`;
}

/** The address plan of one VRF: its space as a ladder, and its prefixes as rows. */
export default function AddressesSection(): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { scopeId, selection, select } = useWhereabouts();
  const [filter, setFilter] = useState('');
  const [chosenVrf, setVrf] = useState<string | null>(null);
  const vrfs = [...network.all('vrf')];
  const picked = selection?.kind === 'prefix' ? network.get('prefix', selection.id) : null;
  const [fallback = 'global'] = ['global', ...vrfs.map((vrf) => vrf.id)].sort(
    (a, b) => network.countOf('prefixesByVrf', b) - network.countOf('prefixesByVrf', a),
  );
  const vrf = chosenVrf ?? (picked === null ? fallback : (picked.vrfId ?? 'global'));
  const vrfId = vrf === 'global' ? null : vrf;
  const tree = prefixTree(network, vrfId);
  const [opened, setOpened] = useState<IpPrefix | null>(null);
  const top = useMemo(() => tree.children(null).map((entry) => entry.prefix), [tree]);
  const within = opened !== null && top.some((prefix) => holds(prefix, opened)) ? opened : (top[0] ?? null);
  const rows = useMemo((): GridRow[] => {
    const made = prefixSchedule(network, scopeId);
    return made.rows.flatMap((cells, at): GridRow[] => {
      const row = network.get('prefix', made.ids[at] ?? null);
      const prefix = row === null ? null : parsePrefix(row.prefix);
      if (row === null || prefix === null || (row.vrfId ?? 'global') !== vrf) return [];
      const depth = filter === '' ? tree.around(prefix).length - 1 : 0;
      return [{ id: row.id, cells: { ...cells, prefix: indented(row.prefix, Math.max(0, depth)) } }];
    });
  }, [network, scopeId, vrf, tree, filter]);
  return (
    <Work>
      <WorkHead>
        <h1>Addresses</h1>
        <p>{`${rows.length} prefixes`}</p>
        <div>
          <Choice
            label="VRF"
            hideLabel
            width={150}
            value={vrf}
            options={[
              ...vrfs.map((one) => ({ id: one.id, text: `VRF ${one.name}` })),
              { id: 'global', text: 'Global table' },
            ]}
            onChange={(id) => {
              setVrf(id);
              setOpened(null);
              if (picked !== null && (picked.vrfId ?? 'global') !== id) select(null);
            }}
          />
          <Filter value={filter} onChange={setFilter} />
          {canEdit && (
            <DialogTrigger>
              <Button $tone="primary">Add prefix</Button>
              <Floating placement="bottom end">
                <AddPrefix
                  vrfId={vrfId}
                  pool={picked?.role === 'pool' ? picked : null}
                  start={null}
                  onDone={(id) => select({ kind: 'prefix', id })}
                />
              </Floating>
            </DialogTrigger>
          )}
        </div>
      </WorkHead>
      {within !== null && filter === '' && (
        <LadderView
          network={network}
          vrfId={vrfId}
          outer={within}
          top={top}
          selectedId={picked?.id ?? null}
          canEdit={canEdit}
          onOpen={setOpened}
          onSelect={(id) => select({ kind: 'prefix', id })}
        />
      )}
      <Grid
        label="Prefixes"
        columns={prefixColumns}
        rows={rows}
        filter={filter}
        selectedId={picked?.id ?? null}
        onSelect={(id) => select({ kind: 'prefix', id })}
        empty={
          <Empty title={filter === '' ? 'No prefixes here yet' : 'No prefix contains that'}>
            {filter === ''
              ? 'Add a pool first, such as 10.40.0.0/14: subnets are then taken from it.'
              : 'Clear the filter to see all.'}
          </Empty>
        }
      />
    </Work>
  );
}
