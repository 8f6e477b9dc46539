import { formatPrefix, parseInterface, prefixAround, type IpPrefix } from '../model/values/ip.ts';
import type { Address } from '../model/kinds/logical/address.ts';

/** The prefix that an address on a port says it is in: `10.40.8.1/22` is in 10.40.8.0/22. */
export function subnetOf(row: Pick<Address, 'address'>): IpPrefix | null {
  const read = parseInterface(row.address);
  return read === null ? null : prefixAround(read.address, read.length);
}

export const subnetText = (row: Pick<Address, 'address'>): string | null => {
  const subnet = subnetOf(row);
  return subnet === null ? null : formatPrefix(subnet);
};
