import { create, remove, update, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { nextFreeAddress } from '../../addressing/plan.ts';
import { blankInstance, type BalancerTarget } from '../../model/kinds/cloud/instance.ts';
import { blankDevice, type Device } from '../../model/kinds/equipment/device.ts';
import { blankPort, type Port } from '../../model/kinds/lines/port.ts';
import type { CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import type { RuleSet } from '../../model/kinds/cloud/ruleSet.ts';
import { blankAddress } from '../../model/kinds/logical/address.ts';
import { newId } from '../../model/values/ids.ts';
import { formatIp } from '../../model/values/ip.ts';
import type { Role } from '../../model/values/roles.ts';
import type { Network } from '../../model/network/network.ts';
import { prefixesOf, seatsOf, vrfOf } from '../inventory.ts';
import { setsOfPort } from '../rules/passage.ts';
import type { Made } from './places.ts';

/** Roles of what runs in a cloud, as they are offered. */
export const instanceRoles = ['VM', 'CH', 'LB', 'DB', 'FN', 'ST', 'QU'] as const satisfies readonly Role[];
export type InstanceRole = (typeof instanceRoles)[number];

/** An interface of a device in a subnet, with the next free address of each of its prefixes. */
function seatChanges(
  network: Network,
  deviceId: string,
  name: string,
  subnet: CloudSubnet,
): Change[] | { why: string } {
  const vrfId = vrfOf(network, subnet.placeId);
  const port: Port = { ...blankPort, ...{ id: newId(), deviceId, name, form: 'virtual', vrfId } };
  const changes: Change[] = [create('port', port)];
  for (const { row, prefix } of prefixesOf(network, subnet)) {
    const free = nextFreeAddress(network, row);
    if (free === null) return { why: `${row.prefix} of ${subnet.name} is full. Choose another subnet.` };
    changes.push(
      create('address', {
        ...blankAddress,
        ...{ id: newId(), address: `${formatIp(free)}/${prefix.length}`, vrfId, portId: port.id },
      }),
    );
  }
  return changes;
}

/** Puts something new into a subnet: with an interface, the next free addresses, and the rule sets that are named. */
export function addInstance(
  network: Network,
  subnet: CloudSubnet,
  wish: { name: string; role: InstanceRole; setIds: readonly string[] },
): Made<{ deviceId: string }> {
  const device: Device = {
    ...blankDevice,
    ...{ id: newId(), name: wish.name.trim(), role: wish.role, placeId: subnet.placeId, units: 0 },
  };
  const seat = seatChanges(network, device.id, 'eth0', subnet);
  if ('why' in seat) return refuse(seat.why);
  const port = seat.find(({ kind }) => kind === 'port');
  const uses = wish.setIds.map((setId) =>
    create('ruleSetUse', { id: newId(), setId, portId: port?.id ?? '' }),
  );
  const attempt = judged(
    network,
    [
      create('device', device),
      create('instance', { ...blankInstance, id: newId(), deviceId: device.id }),
      ...seat,
      ...uses,
    ],
    `Added ${device.name} to ${subnet.name}`,
  );
  return attempt.ok ? { ...attempt, deviceId: device.id } : attempt;
}

/** Moves an instance to another subnet of its network: its interface keeps what it is tied to and takes new addresses. */
export function moveInstance(network: Network, portId: string, to: CloudSubnet): Attempt {
  const seats = seatsOf(network, portId);
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  const [first] = seats;
  if (port === null || device === null || first === undefined)
    return refuse('It stands in no cloud subnet. Give its interface an address first.');
  if (first.subnet.id === to.id) return refuse(`${device.name} stands in ${to.name} already.`);
  const vrfId = vrfOf(network, to.placeId);
  const gone = seats.map(({ row }) => remove('address', row));
  const fresh: Change[] = [];
  for (const { row, prefix } of prefixesOf(network, to)) {
    const free = nextFreeAddress(network, row);
    if (free === null) return refuse(`${row.prefix} of ${to.name} is full. Choose another subnet.`);
    fresh.push(
      create('address', {
        ...blankAddress,
        ...{ id: newId(), address: `${formatIp(free)}/${prefix.length}`, vrfId, portId },
      }),
    );
  }
  const moved = [
    update('port', port, { vrfId }),
    device.placeId === first.subnet.placeId ? update('device', device, { placeId: to.placeId }) : null,
  ];
  // Rule sets are of a network: those of another one are left behind.
  const left =
    to.placeId === first.subnet.placeId
      ? []
      : setsOfPort(network, portId)
          .filter(({ placeId }) => placeId !== null && placeId !== to.placeId)
          .flatMap((set) => network.find('ruleSetUsesBySet', set.id).filter((use) => use.portId === portId))
          .map((use) => remove('ruleSetUse', use));
  return judged(network, [...gone, ...left, ...moved, ...fresh], `Moved ${device.name} to ${to.name}`);
}

/** Ties rule sets to an interface: those that are named and no others. */
export function tieRuleSets(network: Network, port: Port, sets: readonly RuleSet[]): Attempt {
  const uses = network.find('ruleSetUsesByPort', port.id);
  const wanted = new Set(sets.map(({ id }) => id));
  const there = new Set(uses.map(({ setId }) => setId));
  const device = network.get('device', port.deviceId)?.name ?? '';
  return judged(
    network,
    [
      ...uses.filter(({ setId }) => !wanted.has(setId)).map((use) => remove('ruleSetUse', use)),
      ...sets
        .filter(({ id }) => !there.has(id))
        .map(({ id }) => create('ruleSetUse', { id: newId(), setId: id, portId: port.id })),
    ],
    sets.length === 0
      ? `Took all rule sets off ${device} ${port.name}`
      : `Tied ${sets.map(({ name }) => name).join(' and ')} to ${device} ${port.name}`,
  );
}

/** Says of a device that it runs as an instance: with a size and a state that can be set from then on. */
export const describeInstance = (network: Network, device: Device): Attempt =>
  judged(
    network,
    [create('instance', { ...blankInstance, id: newId(), deviceId: device.id })],
    `Described ${device.name} as an instance`,
  );

/** Lets a load balancer send what it takes in on a port to a device. */
export function addTarget(
  network: Network,
  balancer: Device,
  target: Device,
  wish: Pick<BalancerTarget, 'protocol' | 'listens' | 'port'>,
): Attempt {
  if (target.id === balancer.id)
    return refuse(`${balancer.name} cannot send to itself. Choose another device.`);
  return judged(
    network,
    [
      create('balancerTarget', {
        ...{ id: newId(), balancerId: balancer.id, deviceId: target.id },
        ...wish,
      }),
    ],
    `${balancer.name} sends ${wish.protocol} ${wish.listens} to ${target.name} ${wish.port}`,
  );
}
