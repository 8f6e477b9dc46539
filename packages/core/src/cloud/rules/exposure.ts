import { inForce } from '../../lens/inForce.ts';
import type { PortRange } from '../../model/kinds/cloud/ports.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { everywhere, parsePrefix, privateSpace } from '../../model/values/ip.ts';
import { natureOf } from '../nature.ts';
import { isPrivate } from '../follow.ts';
import { seatsOfDevice, type Seat } from '../inventory.ts';
import { callingPorts } from './flow.ts';
import { allTraffic, letPassTogether, letsPass } from './letsPass.ts';
import { setsOfPort } from './passage.ts';
import { everybody, peersOfPrefixes } from './ruleTraffic.ts';
import {
  holdsPeer,
  peersAt,
  shared,
  spansShared,
  spansWithout,
  trafficOf,
  type Atom,
  type Peers,
  type Traffic,
} from './traffic.ts';

/** What the internet may call at an instance. */
export interface Exposure {
  /** The interface that takes it in: its own, or that of the load balancer before it. */
  portId: string;
  /** The address that is called. */
  address: string;
  protocol: Atom;
  ports: PortRange;
  /** Whether anybody may call, or some addresses alone. */
  anybody: boolean;
  /** The load balancer that hands it on; null: it is called itself. */
  balancerId: string | null;
}

const globalV6 = parsePrefix('2000::/3');
/** Peers that are out on the internet: not private space, and of IPv6 what is global unicast. */
const internet: Peers = new Map([
  ['4', spansWithout(everybody.get('4') ?? [], peersOfPrefixes(privateSpace).get('4') ?? [])],
  ['6', peersOfPrefixes(globalV6 === null ? [everywhere[6]] : [globalV6]).get('6') ?? []],
]);

/** What comes in at a seat from the internet, and of which the answer goes out again. */
function letIn(network: Network, { portId, subnet }: Seat): Traffic {
  const sets = setsOfPort(network, portId);
  const border = network.get('ruleSet', subnet.ruleSetId);
  const inward = [
    letPassTogether(
      network,
      sets.map(({ id }) => id),
      'in',
    ),
    border === null ? allTraffic : letsPass(network, border.id, 'in'),
  ].reduce(shared, trafficOf('any', [{ from: 0, to: 65535 }], internet));
  const forgetful = [
    ...sets.filter(({ remembers }) => !remembers).map(({ id }) => letPassTogether(network, [id], 'out')),
    ...(border === null || border.remembers ? [] : [letsPass(network, border.id, 'out')]),
  ];
  return forgetful.reduce(answered, inward);
}

/** Of what comes in, what is answered through a set that does not remember. */
function answered(inward: Traffic, outward: Traffic): Traffic {
  return new Map(
    [...inward].flatMap(([atom, segments]) => {
      const ported = atom === 'TCP' || atom === 'UDP' || atom === 'SCTP';
      const back = peersAt(outward, atom, ported ? callingPorts : { from: 0, to: 65535 });
      const left = segments.flatMap((segment) => {
        const peers = new Map(
          [...segment.peers].flatMap(([space, spans]) => {
            const both = spansShared(spans, back.get(space) ?? []);
            return both.length === 0 ? [] : [[space, both] as const];
          }),
        );
        return peers.size === 0 ? [] : [{ ...segment, peers }];
      });
      return left.length === 0 ? [] : [[atom, left] as const];
    }),
  );
}

/** The public addresses of a seat that the internet can call, in an open subnet. */
function calledAt(network: Network, { portId, subnet, ip, row }: Seat): string[] {
  if (natureOf(network, subnet).nature !== 'open') return [];
  if (ip.family === 6) return isPrivate(ip) ? [] : [row.address.replace(/\/\d+$/, '')];
  return network
    .find('publicAddressesByPort', portId)
    .map(({ address }) => address)
    .filter((address) => !address.includes(':'))
    .sort();
}

function directly(network: Network, deviceId: string): Exposure[] {
  return seatsOfDevice(network, deviceId).flatMap((seat) =>
    calledAt(network, seat).flatMap((address) => {
      const space = String(seat.ip.family);
      const whole = internet.get(space) ?? [];
      return [...letIn(network, seat)].flatMap(([protocol, segments]) =>
        segments.flatMap(({ from, to, peers }): Exposure[] => {
          const spans = peers.get(space) ?? [];
          if (spans.length === 0) return [];
          const anybody = spansWithout(whole, spans).length === 0;
          return [{ portId: seat.portId, address, protocol, ports: { from, to }, anybody, balancerId: null }];
        }),
      );
    }),
  );
}

/** What a load balancer that faces the internet hands on to a device. */
function handedOn(network: Network, device: Device): Exposure[] {
  return network.find('targetsByDevice', device.id).flatMap((target) => {
    const balancer = network.get('device', target.balancerId);
    if (balancer === null || network.findOne('instanceByDevice', balancer.id)?.facing !== 'internet')
      return [];
    const seats = seatsOfDevice(network, balancer.id);
    const lets = seatsOfDevice(network, device.id).some((seat) => {
      const sets = setsOfPort(network, seat.portId).map(({ id }) => id);
      const inward = letPassTogether(network, sets, 'in');
      const peers = peersAt(inward, target.protocol, { from: target.port, to: target.port });
      return seats.some(({ ip }) => holdsPeer(peers, String(ip.family), ip.value));
    });
    if (!lets) return [];
    return directly(network, balancer.id)
      .filter(
        ({ protocol, ports }) =>
          protocol === target.protocol && ports.from <= target.listens && target.listens <= ports.to,
      )
      .map((exposure) => ({
        ...exposure,
        ports: { from: target.listens, to: target.listens },
        balancerId: balancer.id,
      }));
  });
}

/**
 * What of an instance the internet may call: through a public address in an open subnet, by what the border of the
 * subnet and the rule sets of the interface let in and out again; and what load balancers that face the internet hand
 * on to it.
 */
export function exposuresOf(whole: Network, device: Device): Exposure[] {
  const network = inForce(whole);
  return [...directly(network, device.id), ...handedOn(network, device)];
}
