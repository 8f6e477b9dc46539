import { isFree } from '../../model/network/ports.ts';
import type { Role } from '../../model/values/roles.ts';
import { defineRule } from '../../check/finding.ts';
import { nameOf, portText } from '../../check/names.ts';
import { addressOffers, giveOffered } from '../commands/portAddress.ts';
import { carriesData, managementPort } from '../management.ts';
import { rowParts } from '../../check/rowParts.ts';
import { devicesTouched, pluggedReads } from './pluggedIn.ts';

/** Gear that somebody has to reach over the network to look after it. */
const managed = new Set<Role>(['SW', 'RT', 'FW', 'LB', 'AP', 'WB', 'CM', 'PH']);

/** What is managed over the network and plugged into it has an address. Says nothing before the first address is given. */
export const managementAddress = defineRule({
  key: 'no-management-address',
  title: 'Devices without a management address',
  why: 'What has no address of its own cannot be looked after over the network, nor watched.',
  reads: pluggedReads,
  find: rowParts(
    'device',
    (network, device) => {
      if (network.count('address') === 0 || !managed.has(device.role) || device.status !== 'active')
        return null;
      const ports = network.find('everyPortByDevice', device.id);
      const plugged = ports.some(
        (port) =>
          port.role !== 'powerIn' &&
          port.role !== 'powerOut' &&
          port.form === 'physical' &&
          !isFree(network, port.id),
      );
      if (!plugged || ports.some((port) => network.countOf('addressesByPort', port.id) > 0)) return null;
      return { severity: 'warn', subjects: [{ kind: 'device', id: device.id }], facts: {} };
    },
    (network, touched, base) => {
      // With the first address of all it begins to matter everywhere.
      if ((network.count('address') === 0) !== (base.count('address') === 0)) return null;
      return devicesTouched(network, touched, base);
    },
  ),
  says: (_facts, network, [device]) =>
    `${nameOf(network, 'device', device?.id ?? null)} is plugged in and has no address to manage it by. Give it the next free one of its VLAN.`,
  mends: (_facts, network, [device]) => {
    const ports = network.find('everyPortByDevice', device?.id ?? '');
    const data = ports.filter((port) => carriesData(port) && !isFree(network, port.id));
    const port = managementPort(network, ports) ?? (data.length === 1 ? (data[0] ?? null) : null);
    if (port === null) return [];
    return addressOffers(network, port).map((offer) => ({
      wish: `Give ${portText(network, port.id)} ${offer.address} (${offer.why})`,
      way: 'Give the next free address of its subnet',
      attempt: giveOffered(network, port, offer),
    }));
  },
});
