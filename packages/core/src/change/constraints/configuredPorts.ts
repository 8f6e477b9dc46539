import type { Cable } from '../../model/kinds/lines/cable.ts';
import type { Circuit } from '../../model/kinds/lines/circuit.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { formatVids } from '../../model/values/vids.ts';
import { speedText } from '../../model/values/speed.ts';
import type { Network } from '../../model/network/network.ts';
import { filledBy, portTitle } from '../../model/network/ports.ts';
import type { Problem } from '../../model/fields/problem.ts';

const impossible = (port: Port, field: keyof Port & string, message: string): Problem => ({
  code: 'impossible',
  kind: 'port',
  id: port.id,
  about: `port ${port.name}`,
  field,
  message,
});

/** An aggregate stands on the device of its members, or on one of the same stack or pair, and its members agree. */
export function aggregateAgrees(network: Network, port: Port): Problem[] {
  const aggregate = network.get('port', port.aggregateId);
  if (aggregate === null) {
    const stray = port.form === 'aggregate' ? null : network.find('portsByAggregate', port.id)[0];
    return stray === null || stray === undefined
      ? []
      : [
          impossible(
            port,
            'form',
            `${portTitle(network, port.id)} has members, such as ${stray.name}, so it has to stay an aggregate.`,
          ),
        ];
  }
  const title = portTitle(network, aggregate.id);
  if (aggregate.form !== 'aggregate')
    return [
      impossible(port, 'aggregateId', `${title} is no aggregate, so ${port.name} cannot be a member of it.`),
    ];
  if (aggregate.deviceId !== port.deviceId)
    return [
      impossible(
        port,
        'aggregateId',
        `${portTitle(network, port.id)} cannot be a member of ${title}: that is on another device. For a cross-chassis aggregate make one on each device of the pair and give both the same name.`,
      ),
    ];
  const unlike = network
    .find('portsByAggregate', aggregate.id)
    .find((other) => other.speedBps !== null && port.speedBps !== null && other.speedBps !== port.speedBps);
  return unlike === undefined
    ? []
    : [
        impossible(
          port,
          'aggregateId',
          `${title} would hold ${port.name} at ${speedText(port.speedBps ?? 0)} and ${unlike.name} at ${speedText(unlike.speedBps ?? 0)}. Members of an aggregate have one speed (IEEE 802.1AX).`,
        ),
      ];
}

/** A subinterface or tunnel runs over a port of its own device, and no other there takes the same tags. */
export function parentHolds(network: Network, port: Port): Problem[] {
  const parent = network.get('port', port.parentId);
  if (parent === null) return [];
  if (parent.deviceId !== port.deviceId)
    return [
      impossible(
        port,
        'parentId',
        `${port.name} cannot run over ${portTitle(network, parent.id)}: that is on another device.`,
      ),
    ];
  if (parent.aggregateId !== null)
    return [
      impossible(
        port,
        'parentId',
        `${port.name} cannot run over ${parent.name}: that is a member of an aggregate. Use the aggregate.`,
      ),
    ];
  if (port.form !== 'subinterface') return [];
  const same = network
    .find('portsByParent', parent.id)
    .find(
      (other) =>
        other.id !== port.id &&
        other.form === 'subinterface' &&
        other.vid === port.vid &&
        other.innerVid === port.innerVid,
    );
  if (same === undefined) return [];
  const tags = port.innerVid === null ? String(port.vid) : `${port.vid}.${port.innerVid}`;
  return [
    impossible(port, 'vid', `${same.name} takes tag ${tags} on ${parent.name} already. Choose another VLAN.`),
  ];
}

/**
 * What hangs on a port holds it where it is: members and what runs over it are on its device, as are routes out of it
 * and the module that brings it; what is plugged in needs a connector.
 */
export function staysWithItsOwn(network: Network, port: Port): Problem[] {
  const title = portTitle(network, port.id);
  const elsewhere = [
    ...network.find('portsByAggregate', port.id),
    ...network.find('portsByParent', port.id),
  ].find((other) => other.deviceId !== port.deviceId);
  if (elsewhere !== undefined)
    return [
      impossible(
        port,
        'deviceId',
        `${port.name} cannot be on another device than ${portTitle(network, elsewhere.id)}, which belongs to it. Move both, or part them first.`,
      ),
    ];
  const route = network.find('routesByPort', port.id).find((one) => one.deviceId !== port.deviceId);
  if (route !== undefined)
    return [
      impossible(
        port,
        'deviceId',
        `${port.name} cannot be on another device than its route to ${route.prefix}. Delete the route first.`,
      ),
    ];
  const module = network.get('module', port.moduleId);
  if (module !== null && module.deviceId !== port.deviceId)
    return [
      impossible(
        port,
        'moduleId',
        `${title} is of the module in ${module.slot} of ${network.get('device', module.deviceId)?.name ?? ''}, which is another device.`,
      ),
    ];
  const plugged = port.form === 'physical' ? null : filledBy(network, port.id);
  return plugged === null
    ? []
    : [
        impossible(
          port,
          'form',
          `${title} holds ${plugged}, so it has to stay a port with a connector. Unplug ${plugged} first.`,
        ),
      ];
}

/** A device has one VLAN interface for a VLAN. */
export function vlanInterfaceIsOne(network: Network, port: Port): Problem[] {
  if (port.form !== 'vlan') return [];
  const same = network
    .find('logicalPortsByDevice', port.deviceId)
    .find(
      (other) =>
        other.id !== port.id &&
        other.form === 'vlan' &&
        other.vid === port.vid &&
        other.vlanNumberingId === port.vlanNumberingId,
    );
  return same === undefined
    ? []
    : [
        impossible(
          port,
          'vid',
          `${same.name} is the interface of VLAN ${formatVids([port.vid ?? 0])} on this device already.`,
        ),
      ];
}

/** Only ports with a connector take a plug. */
export function pluggable(kind: 'cable' | 'circuit') {
  return (network: Network, line: Cable | Circuit): Problem[] =>
    (['aPortId', 'bPortId'] as const).flatMap((field): Problem[] => {
      const port = network.get('port', line[field]);
      if (port === null || port.form === 'physical') return [];
      const title = 'label' in line ? line.label : line.number;
      return [
        {
          code: 'impossible',
          kind,
          id: line.id,
          about: `${kind} ${title}`,
          field,
          message: `${portTitle(network, port.id)} is configured, not built: ${title} cannot be plugged into a ${port.form}. Choose a port with a connector.`,
        },
      ];
    });
}
