import { groupNames } from '../model/kinds/equipment/portGroup.ts';
import { inForce } from '../lens/inForce.ts';
import { without } from '../lens/without.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Feed, Rack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { cableAt, otherEnd } from '../model/network/ports.ts';
import { addWatts, deviceWatts, noWatts, type Watts } from '../catalogue/figures.ts';
import { passesPowerOn } from './summary.ts';

/** A feed of a rack, by name: where a power chain begins. */
export interface FeedRef {
  rackId: string;
  feed: string;
}
export const feedKey = (rackId: string, feed: string): string => `${rackId}/${feed.toLowerCase()}`;

/** Watts a feed may carry continuously: volts x amps x phases x derating. */
export const usableW = (feed: Feed): number => feed.volts * feed.amps * feed.phases * feed.derating;

export function feedOf(rack: Rack | null, name: string | null): Feed | null {
  return rack?.feeds.find((feed) => feed.name.toLowerCase() === name?.toLowerCase()) ?? null;
}

export type PowerState = 'live' | 'onBattery' | 'dark' | 'undocumented';

export interface FeedLoad extends Watts {
  rackId: string;
  feed: string;
  /** Load of phases 1, 2, 3; a single-phase feed has all on the first. */
  phases: [Watts, Watts, Watts];
}
export interface PowerFlow {
  stateOf: (device: Device) => PowerState;
  /** What runs through a device: its own draw and all behind its outlets. */
  throughOf: (device: Device) => Watts;
  loads: ReadonlyMap<string, FeedLoad>;
  /** What it hangs on, by device, as far as it was asked: the same in every flow of one network. */
  sourcesOf: Map<string, Source[]>;
}

type Source = { via: 'device'; device: Device; outlet: Port } | { via: 'feed'; rackId: string; feed: string };

/**
 * Follows power from feeds over strips and UPS to every inlet. A device draws evenly from those of its inlets
 * that are live, and runs while as many are live as its model needs. A feed that carries nothing has failed; a UPS
 * whose own inlets are dark goes on from its battery.
 */
class Flow implements PowerFlow {
  private readonly states = new Map<string, PowerState>();
  private readonly through = new Map<string, { total: Watts; phases: [Watts, Watts, Watts] }>();
  readonly loads = new Map<string, FeedLoad>();

  constructor(
    private readonly network: Network,
    devices: readonly Device[],
    private readonly batteries: boolean,
    private readonly alone: FeedRef | null,
    readonly sourcesOf: Map<string, Source[]>,
  ) {
    for (const device of devices) this.addToFeeds(device);
  }

  /** The sources of a device's inlets that are known. */
  private sources(device: Device): Source[] {
    const found = this.sourcesOf.get(device.id);
    if (found !== undefined) return found;
    const sources = this.network
      .find('powerPortsByDevice', device.id)
      .filter((port) => port.role === 'powerIn')
      .flatMap((port) => this.sourceOf(device, port) ?? []);
    this.sourcesOf.set(device.id, sources);
    return sources;
  }

  private sourceOf(device: Device, inlet: Port): Source | null {
    const cable = cableAt(this.network, inlet.id);
    const outlet = this.network.get('port', cable === null ? null : otherEnd(this.network, cable, inlet.id));
    const from = this.network.get('device', outlet?.deviceId ?? null);
    if (outlet !== null && from !== null && outlet.role === 'powerOut')
      return { via: 'device', device: from, outlet };
    if (cable === null && device.feed !== null && device.rackId !== null)
      return { via: 'feed', rackId: device.rackId, feed: device.feed };
    return null;
  }

  private isLive(source: Source): boolean {
    // A feed that the rack does not describe is taken to be there.
    if (source.via === 'feed')
      return (
        !this.isBesides(source) && feedOf(this.network.get('rack', source.rackId), source.feed)?.amps !== 0
      );
    const state = this.stateOf(source.device);
    return state === 'live' || state === 'onBattery';
  }

  /** Another feed of the rack whose one feed is to carry all. */
  private isBesides({ rackId, feed }: FeedRef): boolean {
    return this.alone?.rackId === rackId && this.alone.feed.toLowerCase() !== feed.toLowerCase();
  }

  private onBattery(source: Source): boolean {
    return source.via === 'device' && this.stateOf(source.device) === 'onBattery';
  }

  stateOf(device: Device): PowerState {
    const known = this.states.get(device.id);
    if (known !== undefined) return known;
    // A chain that comes back to itself has no source: it stays dark.
    this.states.set(device.id, 'dark');
    const sources = this.sources(device);
    const live = sources.filter((source) => this.isLive(source));
    const needed = this.network.get('model', device.modelId)?.inletsNeeded ?? 1;
    let state: PowerState = 'dark';
    if (sources.length === 0) state = 'undocumented';
    else if (live.length >= Math.min(needed, sources.length))
      state = live.every((source) => this.onBattery(source)) ? 'onBattery' : 'live';
    else if (device.role === 'UP' && this.batteries) state = 'onBattery';
    this.states.set(device.id, state);
    return state;
  }

  throughOf(device: Device): Watts {
    return this.passing(device).total;
  }

  private passing(device: Device): { total: Watts; phases: [Watts, Watts, Watts] } {
    const known = this.through.get(device.id);
    if (known !== undefined) return known;
    const empty: [Watts, Watts, Watts] = [noWatts, noWatts, noWatts];
    this.through.set(device.id, { total: noWatts, phases: empty });
    const state = this.stateOf(device);
    let total = state === 'dark' ? noWatts : deviceWatts(this.network, device);
    const phases: [Watts, Watts, Watts] = [total, noWatts, noWatts];
    if (passesPowerOn(device) && state !== 'dark') {
      for (const outlet of this.network.find('powerPortsByDevice', device.id)) {
        if (outlet.role !== 'powerOut') continue;
        const load = this.atOutlet(outlet);
        total = addWatts(total, load);
        const phase = this.phaseOf(device, outlet.name) - 1;
        phases[phase] = addWatts(phases[phase] ?? noWatts, load);
      }
    }
    const result = { total, phases };
    this.through.set(device.id, result);
    return result;
  }

  private phaseOf(device: Device, outlet: string): 1 | 2 | 3 {
    for (const group of this.network.get('model', device.modelId)?.portGroups ?? [])
      if (group.phase !== null && group.role === 'powerOut' && groupNames(group, 'own').includes(outlet))
        return group.phase === 3 ? 3 : group.phase === 2 ? 2 : 1;
    return 1;
  }

  /** The share of the device at the other end of an outlet's cable that this outlet carries. */
  private atOutlet(outlet: Port): Watts {
    const cable = cableAt(this.network, outlet.id);
    const inlet = this.network.get('port', cable === null ? null : otherEnd(this.network, cable, outlet.id));
    const fed = this.network.get('device', inlet?.deviceId ?? null);
    if (inlet === null || fed === null || inlet.role !== 'powerIn') return noWatts;
    return this.perInlet(fed).watts;
  }

  private perInlet(device: Device): { watts: Watts; live: Source[] } {
    const live = this.sources(device).filter((source) => this.isLive(source));
    const runs = this.stateOf(device);
    if (runs === 'dark' || live.length === 0) return { watts: noWatts, live: [] };
    const total = this.throughOf(device);
    return { watts: addWatts(noWatts, total, 1 / live.length), live };
  }

  private addToFeeds(device: Device): void {
    const { watts, live } = this.perInlet(device);
    for (const source of live) {
      if (source.via !== 'feed') continue;
      const key = feedKey(source.rackId, source.feed);
      const none: [Watts, Watts, Watts] = [noWatts, noWatts, noWatts];
      const load = this.loads.get(key) ?? {
        rackId: source.rackId,
        feed: source.feed,
        ...noWatts,
        phases: none,
      };
      const { total, phases } = this.passing(device);
      const share = total.maxW === 0 && total.typicalW === 0 ? 0 : 1 / live.length;
      const three = feedOf(this.network.get('rack', source.rackId), source.feed)?.phases === 3;
      this.loads.set(key, {
        ...load,
        ...addWatts(load, watts),
        phases: three
          ? [
              addWatts(load.phases[0], phases[0], share),
              addWatts(load.phases[1], phases[1], share),
              addWatts(load.phases[2], phases[2], share),
            ]
          : [addWatts(load.phases[0], watts), noWatts, noWatts],
      });
    }
  }
}

/**
 * The flow of power to these devices, as far as they are in the network: seen `without` feeds it is that of their
 * failure; with `batteries` false, as it is once those of the UPS are empty; with one feed `alone` it carries what the others of its rack did.
 */
export const powerFlow = (
  network: Network,
  devices: readonly Device[],
  {
    batteries = true,
    alone = null,
    beside,
  }: {
    batteries?: boolean;
    alone?: FeedRef | null;
    /** Another flow of the same network, which has found what hangs on what. */
    beside?: PowerFlow;
  } = {},
): PowerFlow => {
  const counted = inForce(network);
  const inUse = devices.filter(({ id }) => counted.get('device', id) !== null);
  return new Flow(counted, inUse, batteries, alone, beside?.sourcesOf ?? new Map());
};

export interface FeedFailure {
  feed: string;
  /** What stops, what goes on from a battery, and what has no power documented. */
  dark: Device[];
  onBattery: Device[];
  undocumented: Device[];
  /** Feeds that are then above what they may carry, once the batteries are empty. */
  overloaded: { rackId: string; feed: string; maxW: number; usableW: number }[];
}

const needsPower = (network: Network, device: Device): boolean =>
  network.find('powerPortsByDevice', device.id).some((port) => port.role === 'powerIn');

/** What happens to these devices when every feed of that name in those racks fails. */
export function feedFailure(whole: Network, racks: readonly Rack[], feed: string): FeedFailure {
  const network = inForce(whole);
  const devices = racks.flatMap((rack) => network.find('devicesByRack', rack.id));
  const failed = without(
    network,
    racks.map(({ id }) => ({ kind: 'feed', rackId: id, feed })),
  );
  const flow = powerFlow(failed, devices);
  const afterwards = powerFlow(failed, devices, { batteries: false });
  const powered = devices.filter((device) => needsPower(network, device));
  const inState = (state: PowerState): Device[] =>
    powered.filter((device) => flow.stateOf(device) === state).sort((a, b) => (a.name < b.name ? -1 : 1));
  const overloaded = [...afterwards.loads.values()].flatMap((load) => {
    const limit = feedOf(network.get('rack', load.rackId), load.feed);
    return limit !== null && load.maxW > usableW(limit) + 1e-6
      ? [{ rackId: load.rackId, feed: limit.name, maxW: load.maxW, usableW: usableW(limit) }]
      : [];
  });
  return {
    feed,
    dark: inState('dark'),
    onBattery: inState('onBattery'),
    undocumented: inState('undocumented'),
    overloaded,
  };
}
