import {
  addressesIn,
  childrenOf,
  deletePrefix,
  mergePrefix,
  nextFreeAddress,
  parentOf,
  splitPrefix,
  virtualsIn,
  useOf,
} from '@visograph/core/addressing';
import { editRow, type Attempt } from '@visograph/core/commands';
import {
  formatIp,
  lastOf,
  parseInterface,
  parseIp,
  parsePrefix,
  placePath,
  portTitle,
  prefixRoles,
  sizeOf,
  hostRange,
  type Network,
  type Redundancy,
  type Prefix,
} from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { Picker } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from '../../record/parts.tsx';
import { KeepAddress } from './KeepAddress.tsx';
import { PrefixActs } from './PrefixActs.tsx';
import { RangesCard } from './RangesCard.tsx';
import { OnSheetCard } from '../../sheets/record/OnSheetCard.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';

const Hosts = styled.div`
  display: grid;
  grid-template-columns: repeat(32, 1fr);
  gap: 1px;
  span {
    aspect-ratio: 1;
    border: 1px solid ${({ theme }) => theme.rule};
    background: ${({ theme }) => theme.surface};
  }
  span[data-state='given'] {
    background: ${({ theme }) => theme.ink};
    border-color: ${({ theme }) => theme.ink};
  }
  span[data-state='gateway'] {
    background: ${({ theme }) => theme.accent};
    border-color: ${({ theme }) => theme.accent};
  }
  span[data-state='DHCP'] {
    background: ${({ theme }) => theme.container};
  }
  span[data-state='reserved'],
  span[data-state='edge'] {
    background: ${({ theme }) => theme.rule};
  }
`;
const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: flex;
    gap: 8px;
    min-height: 20px;
  }
`;

/** Larger prefixes are not drawn host by host. */
const mostDrawn = 512n;
const mostListed = 14;

/** The ports that share an address. */
const sharedBy = (network: Network, parts: readonly Redundancy[] = []): string =>
  parts.length === 0 ? '' : `shared by ${parts.map((part) => portTitle(network, part.portId)).join(', ')}`;

/** Every address of a small prefix: given, gateway, kept, or free. */
function HostsCard({ row }: { row: Prefix }): ReactNode {
  const { network } = useProject().view;
  const prefix = parsePrefix(row.prefix);
  if (prefix === null || sizeOf(prefix) > mostDrawn || sizeOf(prefix) < 4n) return null;
  const { first, last } = hostRange(network, row, prefix);
  const given = new Map(
    addressesIn(network, row.vrfId, prefix).flatMap((one) => {
      const at = parseInterface(one.address);
      return at === null ? [] : [[at.address.value, one] as const];
    }),
  );
  const shared = new Map(
    virtualsIn(network, row.vrfId, prefix).map(({ address, parts }) => [address.value, parts] as const),
  );
  const gateway = row.gateway === null ? null : parseIp(row.gateway);
  const stateOf = (value: bigint): string => {
    if (value === gateway?.value) return 'gateway';
    if (given.has(value) || shared.has(value)) return 'given';
    if (value < first || value > last) return 'edge';
    const range = row.ranges.find(({ from, to }) => {
      const [start, end] = [parseIp(from), parseIp(to)];
      return start !== null && end !== null && start.value <= value && value <= end.value;
    });
    return range?.use ?? 'free';
  };
  return (
    <Card title="Hosts">
      <Hosts role="img" aria-label={`${given.size} addresses given`}>
        {Array.from({ length: Number(sizeOf(prefix)) }, (_, at) => {
          const value = prefix.value + BigInt(at);
          const one = given.get(value);
          const text = formatIp({ family: prefix.family, value });
          const state = stateOf(value);
          return (
            <span
              key={at}
              data-state={state}
              title={`${text} ${one?.portId ? portTitle(network, one.portId) : sharedBy(network, shared.get(value)) || state}`}
            />
          );
        })}
      </Hosts>
      <Hint>Dark: given. Accent: gateway. Shaded: DHCP and kept.</Hint>
    </Card>
  );
}

function AddressList({ row }: { row: Prefix }): ReactNode {
  const { network } = useProject().view;
  const addresses = useMemo(() => {
    const prefix = parsePrefix(row.prefix);
    if (prefix === null || row.role === 'pool') return [];
    return addressesIn(network, row.vrfId, prefix)
      .map((one) => ({ one, at: parseInterface(one.address)?.address.value ?? 0n }))
      .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
      .map(({ one }) => one);
  }, [network, row]);
  if (row.role === 'pool') return null;
  return (
    <Card title={`Addresses · ${addresses.length}`}>
      <List>
        {addresses.slice(0, mostListed).map((one) => (
          <li key={one.id}>
            <span>{one.address.split('/')[0]}</span>
            {one.portId === null ? (
              <Hint>{one.dnsName ?? one.notes ?? 'kept'}</Hint>
            ) : (
              <Goto to={{ kind: 'port', id: one.portId }}>
                {portTitle(network, one.portId).replace(':', ' ')}
              </Goto>
            )}
          </li>
        ))}
      </List>
      {addresses.length > mostListed && <Hint>{`and ${addresses.length - mostListed} more`}</Hint>}
    </Card>
  );
}

function Inside({ row }: { row: Prefix }): ReactNode {
  const { network } = useProject().view;
  const children = childrenOf(network, row);
  if (children.length === 0) return null;
  return (
    <Card title={`Inside · ${children.length}`}>
      <List>
        {children.slice(0, mostListed).map((child) => (
          <li key={child.id}>
            <Goto to={{ kind: 'prefix', id: child.id }}>{child.prefix}</Goto>
            <Hint>{child.name ?? child.role}</Hint>
          </li>
        ))}
      </List>
      {children.length > mostListed && <Hint>{`and ${children.length - mostListed} more`}</Hint>}
    </Card>
  );
}

export function PrefixRecord({ row }: { row: Prefix }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const [why, setWhy] = useState<string | null>(null);
  const prefix = parsePrefix(row.prefix);
  const use = useOf(network, row);
  const outer = parentOf(network, row);
  const next = row.role === 'pool' ? null : nextFreeAddress(network, row);
  const act = (attempt: Attempt, gone = false): void => {
    setWhy(attempt.ok ? null : attempt.why);
    if (attempt.ok && commit(attempt.set).ok && gone) select(null);
  };
  const vlans = [...network.all('vlan')].map((vlan) => ({
    id: vlan.id,
    text: `${vlan.vid} ${vlan.name}`,
    detail: network.get('vlanNumbering', vlan.numberingId)?.name ?? '',
  }));
  const vrf = network.get('vrf', row.vrfId)?.name;
  return (
    <>
      <Head>
        <h2>{row.prefix}</h2>
        <p>
          {[row.role, vrf === undefined ? 'global table' : `VRF ${vrf}`, row.name]
            .filter(Boolean)
            .join(' · ')}
        </p>
        {canEdit && (
          <div>
            <Button onPress={() => act(splitPrefix(network, row))}>Split</Button>
            <Button onPress={() => act(mergePrefix(network, row))}>Join</Button>
            <Button
              onPress={() => act(deletePrefix(network, row, row.role === 'pool' ? 0 : use.taken), true)}
            >
              Delete
            </Button>
            <PrefixActs row={row} />
          </div>
        )}
        {why !== null && <Hint role="alert">{why}</Hint>}
      </Head>
      <Card title="Facts">
        <Facts>
          {prefix !== null && (
            <>
              <dt>Range</dt>
              <dd>{`${formatIp(prefix)} – ${formatIp(lastOf(prefix))}`}</dd>
            </>
          )}
          <dt>In use</dt>
          <dd>{`${Math.round(use.share * 1000) / 10} %, ${use.taken} ${row.role === 'pool' ? 'prefixes' : 'addresses'}`}</dd>
          {next !== null && (
            <>
              <dt>Next free</dt>
              <dd>{formatIp(next)}</dd>
            </>
          )}
          {outer !== null && (
            <>
              <dt>Inside</dt>
              <dd>
                <Goto to={{ kind: 'prefix', id: outer.id }}>{outer.prefix}</Goto>
              </dd>
            </>
          )}
          <EditableFact kind="prefix" row={row} field="name" />
          <ChosenFact kind="prefix" row={row} field="role" options={prefixRoles} />
          <ChosenFact kind="prefix" row={row} field="status" options={['planned', 'active', 'retired']} />
          {row.role !== 'pool' && <EditableFact kind="prefix" row={row} field="gateway" />}
          {row.placeId !== null && (
            <>
              <dt>Place</dt>
              <dd>{placePath(network, row.placeId).replaceAll('/', ' › ')}</dd>
            </>
          )}
          <EditableFact kind="prefix" row={row} field="notes" />
        </Facts>
        {canEdit && row.role !== 'pool' && (
          <Picker
            label="VLAN"
            options={vlans}
            value={row.vlanId}
            onChange={(vlanId) => void commit(editRow(network, 'prefix', row, { vlanId }))}
          />
        )}
      </Card>
      {row.role !== 'pool' && <RangesCard row={row} />}
      <HostsCard row={row} />
      {canEdit && <KeepAddress row={row} />}
      <Inside row={row} />
      <AddressList row={row} />
      <OnSheetCard kind="prefix" id={row.id} label={row.prefix} />
      <RowHistory rowId={row.id} />
    </>
  );
}
