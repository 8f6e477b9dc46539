import type { Address } from '../model/kinds/logical/address.ts';
import type { Network } from '../model/network/network.ts';
import { portTitle } from '../model/network/ports.ts';

/** Who has an address: "on kq-core-1:vlan10", "kept for mail.example". */
export const ownerText = (network: Network, row: Address): string =>
  row.portId === null
    ? `kept${row.dnsName === null ? '' : ` for ${row.dnsName}`}`
    : `on ${portTitle(network, row.portId)}`;
