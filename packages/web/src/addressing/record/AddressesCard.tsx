import { addressesOf } from '@visograph/core/addressing';
import { everyPortOf, portTitle, type Device, type Port } from '@visograph/core/model';
import { vlanText, numberingOfPort } from '@visograph/core/switching';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { GiveAddress, TakeBack } from './GiveAddress.tsx';
import { Card, Goto } from '../../record/parts.tsx';

const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    min-height: 20px;
  }
`;

/** The addresses of ports, each with its port where there are several. */
function AddressLines({ ports, named }: { ports: readonly Port[]; named: boolean }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  return (
    <List>
      {ports.flatMap((port) =>
        addressesOf(network, port.id).map((row) => (
          <li key={row.id}>
            {named && <Goto to={{ kind: 'port', id: port.id }}>{port.name}</Goto>}
            <span>{row.address}</span>
            <Hint>
              {[
                network.get('vrf', row.vrfId)?.name,
                row.use === 'secondary' ? 'secondary' : null,
                row.dnsName,
              ]
                .filter(Boolean)
                .join(' · ')}
            </Hint>
            {canEdit && !named && <TakeBack row={row} />}
          </li>
        )),
      )}
    </List>
  );
}

/** What is configured on a device: aggregates, VLAN interfaces, subinterfaces, loopbacks, and all its addresses. */
export function DeviceAddressesCard({ device }: { device: Device }): ReactNode {
  const { network } = useProject().view;
  const ports = everyPortOf(network, device.id);
  const configured = ports.filter((port) => port.form !== 'physical');
  const withAddress = ports.filter((port) => network.countOf('addressesByPort', port.id) > 0);
  const silent = configured.filter((port) => !withAddress.includes(port));
  if (configured.length + withAddress.length === 0) return null;
  return (
    <Card title="Addresses and interfaces">
      <AddressLines ports={withAddress} named />
      <List>
        {silent.map((port) => (
          <li key={port.id}>
            <Goto to={{ kind: 'port', id: port.id }}>{port.name}</Goto>
            <Hint>{port.form}</Hint>
          </li>
        ))}
      </List>
    </Card>
  );
}

/** The addresses of one port, and what runs over it. */
export function PortAddressesCard({ port }: { port: Port }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const over = network.find('portsByParent', port.id).sort((a, b) => (a.vid ?? 0) - (b.vid ?? 0));
  const members = network.find('portsByAggregate', port.id);
  const shared = network.find('redundanciesByPort', port.id);
  const some = network.countOf('addressesByPort', port.id) + over.length + members.length + shared.length;
  if (some === 0 && port.form === 'physical' && !canEdit) return null;
  return (
    <Card title="Addresses">
      <AddressLines ports={[port]} named={false} />
      <List>
        {port.vid !== null && (
          <li>
            <Hint>{vlanText(network, numberingOfPort(network, port), port.vid)}</Hint>
          </li>
        )}
        {members.map((member) => (
          <li key={member.id}>
            <Hint>member</Hint>
            <Goto to={{ kind: 'port', id: member.id }}>
              {portTitle(network, member.id).replace(':', ' ')}
            </Goto>
          </li>
        ))}
      </List>
      {over.length > 0 && <AddressLines ports={over} named />}
      {canEdit && port.aggregateId === null && <GiveAddress port={port} />}
    </Card>
  );
}
