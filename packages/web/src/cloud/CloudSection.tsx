import {
  accountsOf,
  cloudGatewaySchedule,
  cloudInstanceSchedule,
  cloudRouteSchedule,
  cloudSubnetSchedule,
  networksIn,
  publicAddressSchedule,
  readRouteRows,
  readRuleRows,
} from '@visograph/core/cloud';
import { childPlaces, placeChain, type Place } from '@visograph/core/model';
import { addSheet, inSheetOrder } from '@visograph/core/sheets';
import { useMemo, useState, type ReactNode } from 'react';
import { Button as AriaButton, MenuItem, MenuTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useShown } from '../data/shown.ts';
import { Button, Floating } from '../kit/controls.tsx';
import { ImportRows } from '../kit/ImportRows.tsx';
import { SideList } from '../kit/list/SideList.tsx';
import { Empty, Work, WorkHead } from '../kit/panel/panels.tsx';
import { MenuList } from '../kit/tools.tsx';
import { Views } from '../kit/Views.tsx';
import { GatewayButtons, RouteButtons, SubnetButtons } from './AddParts.tsx';
import { Asked } from './Asked.tsx';
import { CloudTable } from './CloudTable.tsx';
import { CostView } from './CostView.tsx';
import { NetworkPictureView } from './NetworkPictureView.tsx';
import { NamesView } from './NamesView.tsx';
import { NewAccount, NewRegion } from './NewAccount.tsx';
import { NewNetwork } from './NewNetwork.tsx';
import { JoinPanel } from './JoinPanel.tsx';
import { AddInstance } from './AddInstance.tsx';
import { ReadAccount } from './ReadAccount.tsx';
import { AddListButton, DemandLabelButton } from './ListButtons.tsx';
import { KeepAddressButton } from './KeepAddress.tsx';
import { ReachView } from './ReachView.tsx';
import { RulesView } from './RulesView.tsx';
import { cloudViews, useCloudAddress, type CloudView } from './useCloudAddress.ts';

const Halves = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;
const Main = styled.div`
  flex: 1;
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
`;
/** What of the network is looked at; in a second line where there is no room for all of it. */
const ViewBar = styled.div`
  flex: none;
  padding: 6px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  > * {
    flex-wrap: wrap;
    row-gap: 4px;
  }
`;
/** What can be begun, below each other. */
const Begin = styled.div`
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 5px;
`;
const rulesHelp =
  'A spreadsheet (.xlsx or .csv) with headings in its first row: Rule set, Direction (in, out), and as far as known Position, Verdict, Traffic (a service such as https, or TCP 8000-8100) or Protocol and Ports, Peer (a prefix, everybody, the name of a list or rule set), Notes.';
const routesHelp =
  'A spreadsheet (.xlsx or .csv) with headings in its first row: Route table, Destination (a prefix or the name of a list), Through (a gateway, a peering, device:port, or nowhere), and if wished Notes.';

/** Lists that can be brought in. */
function ListsMenu({ onChoose }: { onChoose: (list: 'rules' | 'routes') => void }): ReactNode {
  return (
    <MenuTrigger>
      <Button as={AriaButton}>More</Button>
      <Floating placement="bottom end">
        <MenuList aria-label="More" onAction={(key) => onChoose(key === 'routes' ? 'routes' : 'rules')}>
          <MenuItem id="rules">Import rules</MenuItem>
          <MenuItem id="routes">Import routes</MenuItem>
        </MenuList>
      </Floating>
    </MenuTrigger>
  );
}

/** A network at work: its picture, or one of its tables. */
function Open({ place, view }: { place: Place; view: CloudView }): ReactNode {
  const network = useShown();
  const tables = useMemo(
    () => ({
      subnets: () => cloudSubnetSchedule(network, place.id),
      routes: () => cloudRouteSchedule(network, place.id),
      instances: () => cloudInstanceSchedule(network, place.id),
      gateways: () => cloudGatewaySchedule(network, place.id),
      // They belong to the region.
      addresses: () => publicAddressSchedule(network, place.parentId ?? place.id),
    }),
    [network, place.id, place.parentId],
  );
  switch (view) {
    case 'picture':
      return <NetworkPictureView place={place} />;
    case 'rules':
      return <RulesView place={place} />;
    case 'names':
      return <NamesView place={place} />;
    case 'cost':
      return <CostView place={place} />;
    case 'reach':
      return <ReachView place={place} />;
    case 'addresses':
      return (
        <CloudTable
          {...{ view: 'publicAddresses', label: 'Public addresses', kind: 'publicAddress' }}
          schedule="cloud-public-addresses"
          none="No public addresses yet"
          table={tables.addresses()}
        />
      );
    case 'subnets':
      return (
        <CloudTable
          {...{ view: 'cloudSubnets', label: 'Subnets', schedule: 'cloud-subnets', kind: 'cloudSubnet' }}
          none="No subnets yet"
          table={tables.subnets()}
        />
      );
    case 'routes':
      return (
        <CloudTable
          {...{ view: 'cloudRoutes', label: 'Routes', schedule: 'cloud-routes', kind: 'routeTable' }}
          none="No route tables yet"
          table={tables.routes()}
        />
      );
    case 'instances':
      return (
        <CloudTable
          {...{ view: 'cloudInstances', label: 'Instances', schedule: 'cloud-instances', kind: 'device' }}
          none="No instances yet"
          table={tables.instances()}
        />
      );
    case 'gateways':
      return (
        <CloudTable
          {...{ view: 'cloudGateways', label: 'Gateways', schedule: 'cloud-gateways', kind: 'device' }}
          none="No gateways yet"
          table={tables.gateways()}
        />
      );
  }
}

/** Opens the sheet of a network, or of what is around it; drawn when there is none yet. */
function DrawButton({ place }: { place: Place }): ReactNode {
  const { view: project, commit } = useProject();
  const { network } = project;
  const { go } = useWhereabouts();
  const draw = (): void => {
    const around = new Set(placeChain(network, place.id).map(({ id }) => id));
    const clouds = inSheetOrder(network.all('sheet')).filter(
      ({ projection, scopeId }) => projection === 'cloud' && around.has(scopeId ?? ''),
    );
    const [there] = [...clouds.filter(({ scopeId }) => scopeId === place.id), ...clouds];
    if (there !== undefined)
      return go({ section: 'sheets', scopeId: there.scopeId, sheetId: there.id, selection: null });
    const set = addSheet(network, { scopeId: place.id, projection: 'cloud' });
    if (commit(set).ok) go({ section: 'sheets', scopeId: place.id, sheetId: set.sheetId, selection: null });
  };
  return <Button onPress={draw}>Draw</Button>;
}

/** The regions of a project, each with its account. */
const regionsOf = (accounts: readonly Place[], childrenOf: (id: string) => Place[]): Place[] =>
  accounts.flatMap(({ id }) => childrenOf(id).filter(({ kind }) => kind === 'region'));

/** Clouds: accounts, regions and virtual networks, each network as its own picture with its tables. */
export default function CloudSection(): ReactNode {
  const { view: project, canEdit } = useProject();
  const { network } = project;
  const { select } = useWhereabouts();
  const { view, open, set } = useCloudAddress();
  const [inRegion, setInRegion] = useState<string | null>(null);
  const [joining, setJoining] = useState(false);
  const [reading, setReading] = useState<string | null>(null);
  const [list, setList] = useState<'rules' | 'routes' | null>(null);
  const accounts = accountsOf(network);
  const regions = regionsOf(accounts, (id) => childPlaces(network, id));
  const networks = networksIn(network, null);
  const chosen = networks.find(({ id }) => id === open) ?? networks[0] ?? null;
  const region = network.get('place', inRegion);
  const read = network.get('place', reading);
  const titleOf = (place: Place): string =>
    `${network.get('place', place.parentId)?.name ?? ''} · ${place.name}`;
  const account = (
    <Asked text="Add account" primary={accounts.length === 0}>
      {(close) => (
        <NewAccount
          onDone={(id) => {
            select({ kind: 'place', id });
            close();
          }}
        />
      )}
    </Asked>
  );
  return (
    <Work>
      <WorkHead>
        <h1>{chosen === null ? 'Cloud' : chosen.name}</h1>
        <div>
          {chosen !== null && (
            <>
              <Button onPress={() => select({ kind: 'place', id: chosen.id })}>About it</Button>
              {canEdit && (
                <>
                  <ListsMenu onChoose={setList} />
                  {view === 'picture' && <Button onPress={() => setJoining(true)}>Join</Button>}
                  {view === 'picture' && <DrawButton place={chosen} />}
                  {view === 'subnets' && <SubnetButtons place={chosen} />}
                  {view === 'routes' && <RouteButtons place={chosen} />}
                  {view === 'gateways' && <GatewayButtons place={chosen} />}
                  {view === 'rules' && <AddListButton />}
                  {view === 'instances' && <DemandLabelButton />}
                  {view === 'instances' && <AddInstance place={chosen} />}
                  {view === 'addresses' && <KeepAddressButton place={chosen} />}
                </>
              )}
            </>
          )}
        </div>
      </WorkHead>
      <Halves>
        {accounts.length > 0 && (
          <SideList
            label="Accounts, regions and networks"
            chosen={chosen?.id ?? null}
            onOpen={(id) => set({ open: id, sel: null })}
            onPart={(id) => select({ kind: 'place', id })}
            groups={regions.map((one) => ({
              title: titleOf(one),
              parts: [network.get('place', one.parentId), one].flatMap((part) =>
                part === null ? [] : [{ id: part.id, text: part.name }],
              ),
              items: networksIn(network, one.id).map(({ id, name }) => ({ id, text: name, detail: name })),
              none: 'No networks yet',
            }))}
          >
            {canEdit && (
              <Begin>
                {regions.map((one) => (
                  <Button key={one.id} onPress={() => setInRegion(one.id)}>
                    {regions.length === 1 ? 'New network' : `New network in ${one.name}`}
                  </Button>
                ))}
                {accounts.map((one) => (
                  <Asked
                    key={one.id}
                    text={accounts.length === 1 ? 'Add region' : `Add region to ${one.name}`}
                  >
                    {(close) => <NewRegion account={one} onDone={close} />}
                  </Asked>
                ))}
                {account}
                {accounts.map((one) => (
                  <Button key={one.id} onPress={() => setReading(one.id)}>
                    {accounts.length === 1 ? 'Read the account' : `Read ${one.name}`}
                  </Button>
                ))}
              </Begin>
            )}
          </SideList>
        )}
        <Main>
          {chosen === null ? (
            <Empty title={accounts.length === 0 ? 'No cloud yet' : 'No virtual network yet'}>
              {accounts.length === 0
                ? 'Begin with the account: it says which provider it is, and so what can be had there.'
                : 'Propose a network by need: what has to be reached, what goes out, what does neither.'}
              {canEdit && (accounts.length === 0 ? account : null)}
            </Empty>
          ) : (
            <>
              <ViewBar>
                <Views views={cloudViews} shown={view} onShow={(next) => set({ view: next })} />
              </ViewBar>
              <Open key={chosen.id} place={chosen} view={view} />
            </>
          )}
        </Main>
      </Halves>
      {region !== null && (
        <NewNetwork
          region={region}
          onClose={() => setInRegion(null)}
          onDone={(id) => set({ open: id, view: 'picture', sel: null })}
        />
      )}
      {list !== null && chosen !== null && (
        <ImportRows
          title={list === 'rules' ? `Import rules of ${chosen.name}` : `Import routes of ${chosen.name}`}
          help={list === 'rules' ? rulesHelp : routesHelp}
          read={(rows) =>
            list === 'rules' ? readRuleRows(network, chosen, rows) : readRouteRows(network, chosen, rows)
          }
          open
          onOpenChange={(next) => !next && setList(null)}
        />
      )}
      {read !== null && <ReadAccount account={read} onClose={() => setReading(null)} />}
      {joining && chosen !== null && <JoinPanel place={chosen} onClose={() => setJoining(false)} />}
    </Work>
  );
}
