import { inForce } from '../../lens/inForce.ts';
import { portsText } from '../../model/kinds/cloud/ports.ts';
import type { Network } from '../../model/network/network.ts';
import { table } from '../../report/parts.ts';
import type { Column, Table } from '../../report/table.ts';
import { instancesOf, networksIn } from '../inventory.ts';
import { exposuresOf } from '../rules/exposure.ts';
import { serviceName } from '../services.ts';
import { servedAcross, zoneLosses } from '../zones.ts';

const reachColumns: Column[] = [
  { key: 'network', label: 'Virtual network' },
  { key: 'instance', label: 'Instance' },
  { key: 'address', label: 'Called at' },
  { key: 'protocol', label: 'Protocol' },
  { key: 'ports', label: 'Ports' },
  { key: 'service', label: 'Service' },
  { key: 'who', label: 'By' },
  { key: 'through', label: 'Through' },
];

/** What of a cloud the internet may call, instance by instance: by routes, public addresses and rules. */
export const internetReachSchedule = (network: Network, scopeId: string | null): Table =>
  table(
    reachColumns,
    networksIn(network, scopeId).flatMap((place) =>
      instancesOf(network, place.id).flatMap((device) =>
        exposuresOf(network, device).map(({ address, protocol, ports, anybody, balancerId }) => ({
          id: device.id,
          cells: {
            ...{ network: place.name, instance: device.name, address, protocol, ports: portsText([ports]) },
            service: protocol === 'other' ? null : serviceName(protocol, portsText([ports])),
            who: anybody ? 'everybody' : 'some addresses',
            through: network.get('device', balancerId)?.name ?? null,
          },
        })),
      ),
    ),
  );

const lossColumns: Column[] = [
  { key: 'network', label: 'Virtual network' },
  { key: 'zone', label: 'Lost zone' },
  { key: 'what', label: 'What' },
  { key: 'name', label: 'Name' },
  { key: 'comes', label: 'What it comes to' },
];

/** What fails with each zone of each network. */
export const zoneLossSchedule = (network: Network, scopeId: string | null): Table =>
  table(
    lossColumns,
    networksIn(network, scopeId).flatMap((place) => {
      const across = servedAcross(inForce(network), place.id);
      return zoneLosses(network, place.id).flatMap(({ zoneId, gone, missed, cutOff, withoutTarget }) => {
        const base = { network: place.name, zone: network.get('place', zoneId)?.name ?? '' };
        const isMissed = new Set(missed.map(({ id }) => id));
        return [
          ...gone.map(({ id, name }) => ({
            id,
            cells: {
              ...{ ...base, what: 'instance', name },
              comes: isMissed.has(id) ? 'gone, and nothing else does it' : 'gone, done by another elsewhere',
            },
          })),
          // They are told with the gateway that is gone.
          ...cutOff.map(({ id, name }) => ({
            id: across.find(({ subnets }) => subnets.some((one) => one.id === id))?.deviceId ?? '',
            cells: { ...base, what: 'subnet', name, comes: 'loses its way out' },
          })),
          ...withoutTarget.map(({ id, name }) => ({
            id,
            cells: { ...base, what: 'load balancer', name, comes: 'has no target left' },
          })),
        ];
      });
    }),
  );
