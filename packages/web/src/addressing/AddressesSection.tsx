import { planRows, prefixTable, prefixTree, readAddressRows } from '@visograph/core/addressing';
import { holds, parsePrefix, type IpPrefix } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { Button as AriaButton, DialogTrigger, MenuItem, MenuTrigger } from 'react-aria-components';
import { useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Choice } from '../kit/choice.tsx';
import { Button, Floating } from '../kit/controls.tsx';
import { Filter } from '../kit/Filter.tsx';
import { Grid, type GridRow } from '../kit/grid/Grid.tsx';
import { ImportRows } from '../kit/ImportRows.tsx';
import { Empty, Work, WorkHead } from '../kit/panel/panels.tsx';
import { MenuList } from '../kit/tools.tsx';
import { Views } from '../kit/Views.tsx';
import { AddPrefix } from './AddPrefix.tsx';
import { AddressList } from './AddressList.tsx';
import { LadderView } from './LadderView.tsx';
import { NumberLinks, NumberLoopbacks } from './NumberLinks.tsx';
import { PlanSite } from './PlanSite.tsx';
import { prefixColumns } from './prefixColumns.tsx';
import { TemplatesView } from './TemplatesView.tsx';
import { VrfsView } from './VrfsView.tsx';
import { ZoneFiles } from './ZoneFiles.tsx';

const views = { plan: 'Plan', list: 'Addresses', vrfs: 'VRFs', templates: 'Site templates' };
type View = keyof typeof views;
const isView = (text: string | null): text is View => text !== null && text in views;

const panels = {
  site: 'Plan a site from a template',
  links: 'Number links',
  loopbacks: 'Number loopbacks',
  import: 'Import a list',
  files: 'Names and DHCP as files',
};
type PanelName = keyof typeof panels;
const isPanel = (key: unknown): key is PanelName => typeof key === 'string' && key in panels;

const Cut = styled.p`
  padding: 4px 12px;
  color: ${({ theme }) => theme.inkSoft};
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`;

/** How deep a prefix stands in its VRF: how many others hold it. */
function indented(text: string, depth: number): string {
  return `${'\u2003'.repeat(depth)}${text}`;
}

/** The plan of one VRF: its space as a ladder, and its prefixes as rows. */
function PlanView({ vrf, filter }: { vrf: string; filter: string }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { scopeId, selection, select } = useWhereabouts();
  const picked = selection?.kind === 'prefix' ? network.get('prefix', selection.id) : null;
  const vrfId = vrf === 'global' ? null : vrf;
  const tree = prefixTree(network, vrfId);
  const [opened, setOpened] = useState<IpPrefix | null>(null);
  const top = useMemo(() => tree.children(null).map((entry) => entry.prefix), [tree]);
  const within = opened !== null && top.some((prefix) => holds(prefix, opened)) ? opened : (top[0] ?? null);
  const found = useMemo(
    () => planRows(network, vrfId, { scopeId, within, filter }),
    [network, vrfId, scopeId, within, filter],
  );
  const rows = useMemo((): GridRow[] => {
    const made = prefixTable(network, found.rows);
    return made.rows.flatMap((cells, at): GridRow[] => {
      const row = found.rows[at];
      const prefix = row === undefined ? null : parsePrefix(row.prefix);
      if (row === undefined || prefix === null) return [];
      const depth = filter === '' ? tree.around(prefix).length - 1 : 0;
      return [{ id: row.id, cells: { ...cells, prefix: indented(row.prefix, Math.max(0, depth)) } }];
    });
  }, [network, found, tree, filter]);
  return (
    <>
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
      {found.more > 0 && (
        <Cut>{`${found.rows.length} of ${found.rows.length + found.more} prefixes. Open a pool in the ladder, or filter, to see others.`}</Cut>
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
    </>
  );
}

/** The address plan: as a ladder with its rows, every address, the VRFs, and what sites get by template. */
export default function AddressesSection(): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { selection, select } = useWhereabouts();
  const [search, setSearch] = useSearchParams();
  const [filter, setFilter] = useState('');
  const [chosenVrf, setVrf] = useState<string | null>(null);
  const [panel, setPanel] = useState<PanelName | null>(null);
  const asked = search.get('show');
  const shown: View = isView(asked) ? asked : 'plan';
  const vrfs = [...network.all('vrf')];
  const picked = selection?.kind === 'prefix' ? network.get('prefix', selection.id) : null;
  const sizeOfPlan = (id: string): number => prefixTree(network, id === 'global' ? null : id).size;
  const [fallback = 'global'] = ['global', ...vrfs.map((vrf) => vrf.id)].sort(
    (a, b) => sizeOfPlan(b) - sizeOfPlan(a),
  );
  const vrf = chosenVrf ?? (picked === null ? fallback : (picked.vrfId ?? 'global'));
  const show = (next: View): void => {
    const query = new URLSearchParams(search);
    query.set('show', next);
    setSearch(query, { replace: true });
  };
  const close = (open: boolean): void => {
    if (!open) setPanel(null);
  };
  return (
    <Work>
      <WorkHead>
        <h1>Addresses</h1>
        <div>
          <Views views={views} shown={shown} onShow={show} />
          {shown === 'plan' && (
            <Choice
              label="VRF"
              hideLabel
              width={118}
              value={vrf}
              options={[
                ...vrfs.map((one) => ({ id: one.id, text: `VRF ${one.name}` })),
                { id: 'global', text: 'Global table' },
              ]}
              onChange={(id) => {
                setVrf(id);
                if (picked !== null && (picked.vrfId ?? 'global') !== id) select(null);
              }}
            />
          )}
          {(shown === 'plan' || shown === 'list') && <Filter value={filter} onChange={setFilter} />}
          <MenuTrigger>
            <Button as={AriaButton}>More</Button>
            <Floating placement="bottom end">
              <MenuList aria-label="More" onAction={(key) => isPanel(key) && setPanel(key)}>
                {Object.entries(panels)
                  .filter(([id]) => canEdit || id === 'files')
                  .map(([id, text]) => (
                    <MenuItem key={id} id={id}>
                      {text}
                    </MenuItem>
                  ))}
              </MenuList>
            </Floating>
          </MenuTrigger>
          {canEdit && shown === 'plan' && (
            <DialogTrigger>
              <Button $tone="primary">Add prefix</Button>
              <Floating placement="bottom end">
                <AddPrefix
                  vrfId={vrf === 'global' ? null : vrf}
                  pool={picked?.role === 'pool' ? picked : null}
                  start={null}
                  onDone={(id) => select({ kind: 'prefix', id })}
                />
              </Floating>
            </DialogTrigger>
          )}
        </div>
      </WorkHead>
      {shown === 'plan' && <PlanView key={vrf} vrf={vrf} filter={filter} />}
      {shown === 'list' && <AddressList filter={filter} />}
      {shown === 'vrfs' && <VrfsView />}
      {shown === 'templates' && <TemplatesView />}
      {panel === 'site' && <PlanSite open onOpenChange={close} />}
      {panel === 'links' && <NumberLinks open onOpenChange={close} />}
      {panel === 'loopbacks' && <NumberLoopbacks open onOpenChange={close} />}
      {panel === 'files' && <ZoneFiles open onOpenChange={close} />}
      {panel === 'import' && (
        <ImportRows
          title="Import prefixes and addresses"
          help="A spreadsheet (.xlsx or .csv) with headings in its first row: Prefix or Address, and as far as known VRF, Role, Name, VLAN (number, or group/number), Place, Gateway, Device, Port, DNS name, Notes. A row with an address gives it to a port, or keeps it; others are prefixes."
          read={(rows) => readAddressRows(network, rows)}
          open
          onOpenChange={close}
        />
      )}
    </Work>
  );
}
