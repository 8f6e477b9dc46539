import { compareIp, formatIp, maskOf, parsePrefix } from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';
import { prefixesInScope } from './addresses.ts';
import { table } from '../../report/parts.ts';
import type { Column, Table } from '../../report/table.ts';

const columns: Column[] = [
  { key: 'prefix', label: 'Prefix' },
  { key: 'mask', label: 'Mask' },
  { key: 'from', label: 'From' },
  { key: 'to', label: 'To' },
  { key: 'gateway', label: 'Gateway' },
  { key: 'vlan', label: 'VLAN', numeric: true },
  { key: 'vrf', label: 'VRF' },
  { key: 'place', label: 'Place' },
  { key: 'note', label: 'Note' },
];

/** Every range that DHCP hands out, with what a server tells its clients: mask and gateway (RFC 2132 options 1 and 3). */
export function dhcpSchedule(network: Network, scopeId: string | null): Table {
  const rows = prefixesInScope(network, scopeId)
    .filter((row) => row.status !== 'retired')
    .flatMap((row) => {
      const prefix = parsePrefix(row.prefix);
      return prefix === null ? [] : [{ row, prefix }];
    })
    .sort((a, b) => compareIp(a.prefix, b.prefix))
    .flatMap(({ row, prefix }) =>
      row.ranges
        .filter((range) => range.use === 'DHCP')
        .map((range) => ({
          id: row.id,
          cells: {
            prefix: row.prefix,
            mask:
              prefix.family === 4
                ? formatIp({ family: 4, value: maskOf(4, prefix.length) })
                : `/${prefix.length}`,
            from: range.from,
            to: range.to,
            gateway: row.gateway,
            vlan: network.get('vlan', row.vlanId)?.vid ?? null,
            vrf: network.get('vrf', row.vrfId)?.name ?? null,
            place: network.get('place', row.placeId)?.name ?? null,
            note: range.note === '' ? null : range.note,
          },
        })),
    );
  return table(columns, rows);
}
