import type { Network } from '../../model/network/network.ts';
import { bitsOf, parseInterface, type IpPrefix } from '../../model/values/ip.ts';

/** The interfaces that a rule set is tied to. */
export const membersOf = (network: Network, setId: string): string[] =>
  network.find('ruleSetUsesBySet', setId).map(({ portId }) => portId);

/** The addresses of those interfaces, as host prefixes. */
export const addressesInSet = (network: Network, setId: string): IpPrefix[] =>
  membersOf(network, setId).flatMap((portId) =>
    network.find('addressesByPort', portId).flatMap(({ address }): IpPrefix[] => {
      const at = parseInterface(address);
      return at === null ? [] : [{ ...at.address, length: bitsOf(at.address.family) }];
    }),
  );
