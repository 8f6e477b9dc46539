import type { Device } from '../model/kinds/equipment/device.ts';
import type { Rack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { cableAt, isFree, otherEnd } from '../model/network/ports.ts';
import { addWatts, btuPerHourPerWatt, noWatts, type Watts } from '../catalogue/figures.ts';
import { rackUse } from './occupancy.ts';
import type { OverLimit } from './overLimit.ts';
import { feedKey, powerFlow, usableW } from './power.ts';
import { rackMemo } from './rackMemo.ts';
import { rackSummary } from './summary.ts';

export interface FeedUse extends Watts {
  feed: string;
  usableW: number;
  /** Load at maximum draw when every other feed of the rack has failed and the batteries are empty. */
  aloneW: number;
  /** The highest phase at maximum draw, and what one phase may carry. */
  worstPhaseW: number;
  usablePhaseW: number;
}

export interface RackCapacity {
  rackId: string;
  units: number;
  usedUnits: number;
  freeUnits: number;
  massKg: number;
  massLimitKg: number | null;
  /** Devices whose model states no mass: the sum is too low by theirs. */
  massUnknown: number;
  draw: Watts;
  /** Heat given off at maximum draw. */
  btuPerHour: number;
  feeds: FeedUse[];
  /** What is above its limit. */
  over: OverLimit[];
}

/** Free ports of devices that carry data, by speed. */
export function freePortsBySpeed(network: Network, devices: readonly Device[]): Map<number, number> {
  const free = new Map<number, number>();
  for (const device of devices) {
    if (device.status === 'retired') continue;
    for (const port of network.find('portsByDevice', device.id)) {
      if (port.role !== 'network' && port.role !== 'uplink') continue;
      if (!isFree(network, port.id)) continue;
      const speed = port.speedBps ?? 0;
      free.set(speed, (free.get(speed) ?? 0) + 1);
    }
  }
  return new Map([...free].sort((a, b) => b[0] - a[0]));
}

function feedUses(network: Network, rack: Rack, devices: readonly Device[]): FeedUse[] {
  if (rack.feeds.length === 0) return [];
  const flow = powerFlow(network, devices);
  return rack.feeds.map((feed) => {
    const key = feedKey(rack.id, feed.name);
    const load = flow.loads.get(key);
    const alone =
      rack.feeds.length === 1
        ? load
        : powerFlow(network, devices, {
            batteries: false,
            beside: flow,
            alone: { rackId: rack.id, feed: feed.name },
          }).loads.get(key);
    const limit = usableW(feed);
    return {
      feed: feed.name,
      usableW: limit,
      typicalW: load?.typicalW ?? 0,
      maxW: load?.maxW ?? 0,
      aloneW: alone?.maxW ?? 0,
      worstPhaseW: Math.max(...(load?.phases ?? [noWatts]).map((phase) => phase.maxW)),
      usablePhaseW: limit / feed.phases,
    };
  });
}

/** Strips, UPS and their like that pass on more than they can. */
function overloadedStrips(network: Network, devices: readonly Device[]): OverLimit[] {
  const limited = devices.flatMap((device) => {
    const capacityW = network.get('model', device.modelId)?.capacityW ?? null;
    return capacityW === null ? [] : [{ device, capacityW }];
  });
  if (limited.length === 0) return [];
  const flow = powerFlow(network, devices);
  return limited.flatMap(({ device, capacityW }): OverLimit[] => {
    const { maxW } = flow.throughOf(device);
    return maxW > capacityW ? [{ limit: 'strip', deviceId: device.id, loadW: maxW, limitW: capacityW }] : [];
  });
}

/** Mass and feeds above what the rack carries. */
function overloaded(capacity: Omit<RackCapacity, 'over'>): OverLimit[] {
  const { rackId, massKg, massLimitKg, feeds } = capacity;
  const over: OverLimit[] = [];
  if (massLimitKg !== null && massKg > massLimitKg)
    over.push({ limit: 'mass', rackId, massKg, limitKg: massLimitKg });
  for (const { feed, usableW, maxW, aloneW, worstPhaseW, usablePhaseW } of feeds) {
    if (maxW > usableW) over.push({ limit: 'feed', rackId, feed, loadW: maxW, limitW: usableW });
    else if (aloneW > usableW)
      over.push({ limit: 'redundancy', rackId, feed, loadW: aloneW, limitW: usableW });
    if (maxW <= usableW && worstPhaseW > usablePhaseW + 1e-6)
      over.push({ limit: 'phase', rackId, feed, loadW: worstPhaseW, limitW: usablePhaseW });
  }
  return over;
}

/** Whether a power cable leads out of the rack: then what happens elsewhere changes its figures. */
function sharesPower(network: Network, rack: Rack, devices: readonly Device[]): boolean {
  return devices.some((device) =>
    network.find('powerPortsByDevice', device.id).some((port) => {
      const cable = cableAt(network, port.id);
      const far = network.get('port', cable === null ? null : otherEnd(network, cable, port.id));
      return far !== null && network.get('device', far.deviceId)?.rackId !== rack.id;
    }),
  );
}

function capacityOf(network: Network, rack: Rack): RackCapacity {
  const devices = network.find('devicesByRack', rack.id);
  const use = rackUse(network, rack);
  const { massKg, massUnknown, draw } = rackSummary(network, rack);
  const figures = {
    rackId: rack.id,
    units: use.units,
    usedUnits: use.used,
    freeUnits: use.free,
    massKg,
    massLimitKg: rack.massLimitKg,
    massUnknown,
    draw,
    btuPerHour: draw.maxW * btuPerHourPerWatt,
    feeds: feedUses(network, rack, devices),
  };
  return { ...figures, over: [...overloaded(figures), ...overloadedStrips(network, devices)] };
}

/** Units, mass, power per feed and heat of a rack, and what is above its limit. Kept until it may have changed. */
export const rackCapacity = rackMemo((network, rack) => ({
  value: capacityOf(network, rack),
  linked: sharesPower(network, rack, network.find('devicesByRack', rack.id)),
}));

/** The sums over several racks; limits are summed only where every rack states one. */
export interface CapacitySum {
  racks: number;
  units: number;
  usedUnits: number;
  freeUnits: number;
  massKg: number;
  massLimitKg: number | null;
  draw: Watts;
  usableW: number | null;
  btuPerHour: number;
  over: OverLimit[];
}

export function sumCapacity(capacities: readonly RackCapacity[]): CapacitySum {
  const total = (of: (one: RackCapacity) => number): number =>
    capacities.reduce((sum, one) => sum + of(one), 0);
  const everyLimit = capacities.length > 0 && capacities.every((one) => one.massLimitKg !== null);
  const everyFeed = capacities.length > 0 && capacities.every((one) => one.feeds.length > 0);
  return {
    racks: capacities.length,
    units: total((one) => one.units),
    usedUnits: total((one) => one.usedUnits),
    freeUnits: total((one) => one.freeUnits),
    massKg: total((one) => one.massKg),
    massLimitKg: everyLimit ? total((one) => one.massLimitKg ?? 0) : null,
    draw: capacities.reduce((sum, one) => addWatts(sum, one.draw), noWatts),
    usableW: everyFeed ? total((one) => one.feeds.reduce((sum, feed) => sum + feed.usableW, 0)) : null,
    btuPerHour: total((one) => one.btuPerHour),
    over: capacities.flatMap((one) => one.over),
  };
}
