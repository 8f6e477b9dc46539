import type { Role } from '../../model/roles.ts';
import { isFree } from '../../model/ports.ts';
import type { Finding, Rule } from '../finding.ts';
import { tell } from '../tell.ts';

/** Gear that somebody has to reach over the network to look after it. */
const managed = new Set<Role>(['SW', 'RT', 'FW', 'LB', 'AP', 'WB', 'CM', 'PH']);

/** What is managed over the network and plugged into it has an address. Says nothing before the first address is given. */
export const managementAddress: Rule = {
  key: 'no-management-address',
  title: 'Devices without a management address',
  find: (network) => {
    if (network.count('address') === 0) return [];
    const findings: Finding[] = [];
    for (const device of network.all('device')) {
      if (!managed.has(device.role) || device.status !== 'active') continue;
      const ports = network.find('everyPortByDevice', device.id);
      const plugged = ports.some(
        (port) =>
          port.role !== 'powerIn' &&
          port.role !== 'powerOut' &&
          port.form === 'physical' &&
          !isFree(network, port.id),
      );
      if (!plugged || ports.some((port) => network.countOf('addressesByPort', port.id) > 0)) continue;
      findings.push(
        tell(
          network,
          'no-management-address',
          'warn',
          [{ kind: 'device', row: device }],
          `${device.name} is plugged in and has no address to manage it by. Give it the next free one of its VLAN.`,
        ),
      );
    }
    return findings;
  },
};
