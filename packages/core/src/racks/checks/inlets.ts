import { defineRule, type Evidence, type Facts, type Parts, type Rule } from '../../check/finding.ts';
import { nameOf, portText } from '../../check/names.ts';
import { connect, moveEnd, proposeConnection } from '../../cabling/commands/cables.ts';
import { cableTypes, mismatch } from '../../cabling/match.ts';
import { judged, type Attempt } from '../../commands/attempt.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { cableAt, isFree } from '../../model/network/ports.ts';
import { byName } from '../../model/values/order.ts';
import { bothOf } from '../../check/rowParts.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network, Touched } from '../../model/network/network.ts';
import type { Reads } from '../../model/network/reads.ts';
import { inletsOf, type Inlet } from '../feedsBehind.ts';
import { passesPowerOn } from '../summary.ts';

const reads: Reads = {
  device: ['role', 'rackId', 'feed', 'status'],
  port: ['deviceId', 'role'],
  cable: ['aPortId', 'bPortId'],
  leg: ['cableId', 'portId'],
  rack: ['feeds'],
};

const isPower = (network: Network, portId: string | null): boolean => {
  const role = network.get('port', portId)?.role;
  return role === 'powerIn' || role === 'powerOut';
};

/** Devices whose inlets a touched row can concern; null where it may be any that hangs on it. */
function concerned(network: Network, touched: Touched, base: Network): string[] | null {
  const devices = bothOf(touched, 'device');
  if (devices.some(passesPowerOn)) return null;
  if (touched.kind === 'rack') return null;
  const plugs = [
    ...bothOf(touched, 'cable').flatMap(({ aPortId, bPortId }) => [aPortId, bPortId]),
    ...bothOf(touched, 'leg').map(({ portId }) => portId),
  ];
  if (plugs.some((id) => isPower(network, id) || isPower(base, id))) return null;
  const ports = bothOf(touched, 'port').filter(({ role }) => role === 'powerIn' || role === 'powerOut');
  if (ports.some(({ role }) => role === 'powerOut')) return null;
  // The inlet of a strip or UPS is how all that hangs on it is fed.
  const through = ports.flatMap(({ deviceId }) => [
    network.get('device', deviceId),
    base.get('device', deviceId),
  ]);
  if (through.some((device) => device !== null && passesPowerOn(device))) return null;
  return [...devices.map(({ id }) => id), ...ports.map(({ deviceId }) => deviceId)];
}

/** Devices with two inlets or more that hang on something, judged by what their inlets come to. */
function byInlets<F extends Facts>(
  judge: (network: Network, device: Device, inlets: readonly Inlet[]) => F | null,
): Parts<F> {
  const of = (network: Network, device: Device): Evidence<F>[] => {
    // What passes power on is the supply itself: a strip on one feed is as it should be.
    if (passesPowerOn(device)) return [];
    const inlets = network.countOf('powerPortsByDevice', device.id) < 2 ? [] : inletsOf(network, device);
    const facts = inlets.length < 2 ? null : judge(network, device, inlets);
    return facts === null ? [] : [{ severity: 'warn', subjects: [{ kind: 'device', id: device.id }], facts }];
  };
  return {
    *each(network) {
      for (const device of network.all('device')) {
        const found = of(network, device);
        if (found.length > 0) yield [device.id, found];
      }
    },
    judge: (network, id) => {
      const device = network.get('device', id);
      return device === null ? [] : of(network, device);
    },
    concerned,
  };
}

/** The first free outlet of each strip or UPS of the rack that hangs on other feeds than these inlets do. */
function outletsBeside(network: Network, device: Device, inlets: readonly Inlet[]): Port[] {
  const known = new Set(inlets.flatMap(({ supplies }) => [...supplies.keys()]));
  return network
    .find('devicesByRack', device.rackId ?? '')
    .filter((strip) => passesPowerOn(strip))
    .sort(byName)
    .flatMap((strip) => {
      const supplies = inletsOf(network, strip).flatMap((inlet) => [...inlet.supplies.keys()]);
      if (supplies.length === 0 || known.has(strip.id) || supplies.some((key) => known.has(key))) return [];
      const free = network
        .find('powerPortsByDevice', strip.id)
        .filter(({ id, role }) => role === 'powerOut' && isFree(network, id))
        .sort((a, b) => a.ordinal - b.ordinal);
      return free.slice(0, 1);
    });
}

function connected(network: Network, outlet: Port, inlet: Port): Attempt {
  const { changes, sentence } = connect(network, proposeConnection(network, outlet, inlet));
  return judged(network, changes, sentence);
}

const singleFed = defineRule({
  key: 'single-fed',
  title: 'Two inlets, one of them in use',
  why: 'The second power supply is there so that a device goes on when a feed fails; without a cord it does not.',
  reads,
  find: byInlets((network, device, inlets) => {
    // Where there is one feed, the second inlet has nothing to hang on.
    if (network.get('rack', device.rackId)?.feeds.length === 1) return null;
    const fed = inlets.filter(({ supplies }) => supplies.size > 0).length;
    return fed === 1 ? { inlets: inlets.length } : null;
  }),
  says: ({ inlets }, network, [device]) =>
    `${nameOf(network, 'device', device?.id ?? null)} has ${inlets} power inlets and hangs on one. Plug another into the other feed.`,
  mends: (_facts, network, [subject]) => {
    const device = network.get('device', subject?.id ?? null);
    if (device === null) return [];
    const inlets = inletsOf(network, device);
    const idle = inlets.find(({ port, supplies }) => supplies.size === 0 && isFree(network, port.id))?.port;
    if (idle === undefined) return [];
    return outletsBeside(network, device, inlets)
      .filter((outlet) => mismatch(cableTypes(network), outlet, idle) === null)
      .map((outlet) => ({
        wish: `Plug ${portText(network, idle.id)} into ${portText(network, outlet.id)}`,
        way: 'Plug the idle inlet into the other feed',
        attempt: connected(network, outlet, idle),
      }));
  },
});

/** What feeds an inlet, as one reads it: the feed and its rack, or the strip. */
const supplyText = (
  network: Network,
  { rackId, feed, deviceId }: { rackId: string | null; feed: string | null; deviceId: string | null },
): string =>
  feed === null ? nameOf(network, 'device', deviceId) : `feed ${feed} of ${nameOf(network, 'rack', rackId)}`;

const oneFeed = defineRule({
  key: 'inlets-one-feed',
  title: 'Both inlets on one feed',
  why: 'Two power supplies on one feed fail with it together.',
  reads,
  find: byInlets((_network, _device, inlets) => {
    const fed = inlets.filter(({ supplies }) => supplies.size > 0);
    const all = new Map(fed.flatMap(({ supplies }) => [...supplies]));
    const [only] = all.values();
    if (fed.length < 2 || all.size > 1 || only === undefined) return null;
    return {
      inlets: fed.length,
      supply:
        'feed' in only
          ? { rackId: only.rackId, feed: only.feed, deviceId: null }
          : { rackId: null, feed: null, deviceId: only.deviceId },
    };
  }),
  says: ({ inlets, supply }, network, [device]) =>
    `All ${inlets} inlets in use of ${nameOf(network, 'device', device?.id ?? null)} hang on ${supplyText(network, supply)} in the end. ${network.get('rack', supply.rackId)?.feeds.length === 1 ? 'Bring a second feed to the rack.' : 'Move one to another feed.'}`,
  mends: (_facts, network, [subject]) => {
    const device = network.get('device', subject?.id ?? null);
    if (device === null) return [];
    const inlets = inletsOf(network, device);
    const moved = inlets.filter(({ supplies }) => supplies.size > 0).at(-1)?.port;
    const cable = moved === undefined ? null : cableAt(network, moved.id);
    if (moved === undefined || cable === null) return [];
    const side = cable.aPortId === moved.id ? 'b' : 'a';
    return outletsBeside(network, device, inlets).map((outlet) => ({
      wish: `Move ${cable.label} of ${portText(network, moved.id)} to ${portText(network, outlet.id)}`,
      way: 'Move one inlet to another feed',
      attempt: moveEnd(network, cable, side, outlet),
    }));
  },
});

export const inletRules: readonly Rule[] = [singleFed, oneFeed];
