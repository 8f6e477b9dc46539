import { grouped } from '../model/values/numbers.ts';
import { collide, type Body } from '../change/constraints/rackSpace.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Rack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import { cableAt, otherEnd, portsOf } from '../model/network/ports.ts';
import { openPositions } from './occupancy.ts';
import { candidateOf, rackLoad, rackUsableW, type Candidate } from './placing.ts';
import { usableW } from './power.ts';

export interface FitPlacement {
  deviceId: string;
  rackId: string;
  unit: number | null;
  side: Device['side'];
  feed: string | null;
  /** Why there, in words. */
  reason: string;
}
export interface FitPlan {
  placements: FitPlacement[];
  unplaced: { deviceId: string; reason: string }[];
}
export interface FitRules {
  /** Units to leave free at the top of each rack. */
  keepFree: number;
}

/** From here on gear counts as heavy and goes to the bottom: about what one person may lift above the shoulder. */
const heavyKg = 18;

type Airflow = 'front to rear' | 'rear to front' | null;

/** A rack as it fills up while the plan is made. */
class Filling {
  readonly bodies: (Body & { airflow: Airflow })[];
  massKg: number;
  maxW: number;
  readonly feeds: { name: string; loadW: number; usableW: number }[];
  private sides = 0;

  constructor(
    network: Network,
    readonly rack: Rack,
    except: ReadonlySet<string>,
  ) {
    this.bodies = network
      .find('devicesByRack', rack.id)
      .filter((device) => !except.has(device.id))
      .map((device) => ({ ...device, airflow: airflowOf(network, device) }));
    const load = rackLoad(network, rack, except);
    this.massKg = load.massKg;
    this.maxW = load.maxW;
    this.sides = this.bodies.filter((body) => body.unit === null).length;
    this.feeds = rack.feeds.map((feed) => ({ name: feed.name, loadW: 0, usableW: usableW(feed) }));
    for (const device of network.find('devicesByRack', rack.id)) {
      const feed = this.feeds.find((one) => one.name === device.feed);
      if (feed !== undefined && !except.has(device.id)) feed.loadW += candidateOf(network, device).maxW;
    }
  }

  /** Why it cannot take this much more, or null. */
  refuses(massKg: number, maxW: number): string | null {
    const { massLimitKg, name } = this.rack;
    if (massLimitKg !== null && this.massKg + massKg > massLimitKg)
      return `${name} would hold ${grouped(this.massKg + massKg)} of at most ${massLimitKg} kg`;
    const usable = rackUsableW(this.rack);
    if (usable !== null && maxW > 0 && this.maxW + maxW > usable)
      return `${name} would draw ${grouped(this.maxW + maxW)} of ${grouped(usable)} W`;
    return null;
  }

  /** How much stands at its sides already. */
  get atSides(): number {
    return this.sides;
  }

  nextSide(): 'left' | 'right' {
    return this.sides++ % 2 === 0 ? 'left' : 'right';
  }

  nextFeed(maxW: number): string | null {
    const [feed] = [...this.feeds].sort((a, b) => a.loadW / a.usableW - b.loadW / b.usableW);
    if (feed === undefined) return null;
    feed.loadW += maxW;
    return feed.name;
  }

  /** No neighbour blows against it: hot air of one is not the cold air of the other. */
  airIsClear(body: Body, airflow: Airflow): boolean {
    if (airflow === null) return true;
    const reach = { ...body, unit: Math.max(1, (body.unit ?? 1) - 1), units: body.units + 2 };
    return !this.bodies.some(
      (other) => other.airflow !== null && other.airflow !== airflow && collide(reach, other),
    );
  }

  put(body: Body, airflow: Airflow, candidate: Candidate): void {
    this.bodies.push({ ...body, airflow });
    this.massKg += candidate.massKg ?? 0;
    this.maxW += candidate.maxW;
  }
}

function airflowOf(network: Network, device: Device): Airflow {
  const airflow = network.get('model', device.modelId)?.airflow;
  return airflow === 'front to rear' || airflow === 'rear to front' ? airflow : null;
}

const isPanel = (device: Device): boolean => device.role === 'PP' && device.units > 0;

/** The switch a panel is cabled to most, among these. */
function servedBy(network: Network, panel: Device, switches: readonly Device[]): Device | null {
  const counts = new Map<string, number>();
  for (const port of portsOf(network, panel.id)) {
    const cable = cableAt(network, port.id);
    const far = network.get('port', cable === null ? null : otherEnd(network, cable, port.id));
    if (far !== null) counts.set(far.deviceId, (counts.get(far.deviceId) ?? 0) + 1);
  }
  let best: Device | null = null;
  for (const one of switches)
    if ((counts.get(one.id) ?? 0) > (best === null ? 0 : (counts.get(best.id) ?? 0))) best = one;
  return best;
}

interface Block {
  /** From the top down, directly below each other. */
  devices: { device: Device; reason: string }[];
  from: 'top' | 'bottom';
  rank: number;
}

/** Gear that belongs together: a panel, a cable manager below it, and the switch it serves below that. */
function clusters(network: Network, devices: readonly Device[]): { blocks: Block[]; rest: Device[] } {
  const byName = (a: Device, b: Device): number => compareNames(a.name, b.name);
  const switches = devices.filter((device) => device.role === 'SW' && device.units > 0).sort(byName);
  const panels = devices.filter(isPanel).sort(byName);
  const managers = devices.filter((device) => device.role === 'CA' && device.units > 0).sort(byName);
  const used = new Set<string>();
  const blocks: Block[] = [];
  const take = (device: Device | undefined): Device | undefined => {
    if (device !== undefined) used.add(device.id);
    return device;
  };
  const claimed = new Map<string, Device>();
  for (const panel of panels) {
    const free = switches.filter((one) => !claimed.has(one.id));
    const served = servedBy(network, panel, free);
    if (served !== null) claimed.set(served.id, panel);
  }
  const spare = panels.filter((panel) => ![...claimed.values()].includes(panel));
  for (const one of switches) {
    const cabled = claimed.get(one.id);
    const panel = take(cabled ?? spare.shift());
    if (panel === undefined) continue;
    const manager = take(managers.find((other) => !used.has(other.id)));
    take(one);
    const why = cabled === undefined ? 'next to a switch' : `directly above ${one.name}, which it serves`;
    blocks.push({
      from: 'top',
      rank: 2,
      devices: [
        { device: panel, reason: why === 'next to a switch' ? `directly above ${one.name}` : why },
        ...(manager === undefined
          ? []
          : [{ device: manager, reason: `between ${panel.name} and ${one.name}` }]),
        { device: one, reason: `directly below its panel ${panel.name}` },
      ],
    });
  }
  return { blocks, rest: devices.filter((device) => !used.has(device.id)) };
}

function single(network: Network, device: Device): Block {
  const mass = candidateOf(network, device).massKg ?? 0;
  if (device.role === 'UP')
    return {
      from: 'bottom',
      rank: 0,
      devices: [{ device, reason: `UPS at the bottom, ${Math.round(mass)} kg` }],
    };
  if (mass >= heavyKg)
    return {
      from: 'bottom',
      rank: 1 - mass / 1000,
      devices: [{ device, reason: `heavy, ${Math.round(mass)} kg: low` }],
    };
  if (device.role === 'PP')
    return { from: 'top', rank: 1, devices: [{ device, reason: 'panel at the top' }] };
  if (device.role === 'SV' || device.role === 'ST' || device.role === 'VM')
    return { from: 'bottom', rank: 1.5, devices: [{ device, reason: 'compute above the heavy gear' }] };
  return { from: 'top', rank: 3, devices: [{ device, reason: 'network gear below the panels' }] };
}

/** The highest unit of the block's free places in one rack, or null: the block stands below each other. */
function placeBlock(network: Network, filling: Filling, block: Block, rules: FitRules): number[] | null {
  const { rack } = filling;
  const height = block.devices.reduce((sum, { device }) => sum + device.units, 0);
  const ceiling = rack.units - rules.keepFree;
  const upward = rack.numbering === 'up';
  const [first] = block.devices;
  if (first === undefined) return null;
  const standing =
    block.devices.length === 1
      ? first.device
      : { units: height, face: 'front' as const, fillsBothFaces: true, side: 'full' as const };
  const isHigh = (unit: number): boolean => (upward ? unit + height - 1 > ceiling : unit <= rules.keepFree);
  const places = openPositions(rack, filling.bodies, standing).filter((unit) => !isHigh(unit));
  const fromTop = upward ? places : places.reverse();
  const ordered = block.from === 'top' ? fromTop : fromTop.reverse();
  const unitsAt = (lowest: number): number[] => {
    let at = upward ? lowest + height : lowest;
    return block.devices.map(({ device }) => {
      if (upward) return (at -= device.units);
      const unit = at;
      at += device.units;
      return unit;
    });
  };
  const clear = (lowest: number): boolean =>
    unitsAt(lowest).every((unit, at) => {
      const device = block.devices[at]?.device;
      return device === undefined || filling.airIsClear({ ...device, unit }, airflowOf(network, device));
    });
  const chosen = ordered.find(clear) ?? null;
  return chosen === null ? null : unitsAt(chosen);
}

/**
 * Proposes where devices go, by stated rules: UPS and heavy gear low, a panel directly above the switch it
 * serves with a cable manager between, compute above the heavy gear, some units free at the top, racks filled by
 * the power they have left, single inlets on the feed with the smaller load, opposite airflow not side by side.
 */
export function proposeFit(
  network: Network,
  devices: readonly Device[],
  racks: readonly Rack[],
  rules: FitRules = { keepFree: 2 },
): FitPlan {
  const moving = new Set(devices.map((device) => device.id));
  const fillings = racks.map((rack) => new Filling(network, rack, moving));
  const plan: FitPlan = { placements: [], unplaced: [] };
  const { blocks, rest } = clusters(
    network,
    devices.filter((device) => device.units > 0),
  );
  const all = [...blocks, ...rest.map((device) => single(network, device))].sort(
    (a, b) =>
      a.rank - b.rank || compareNames(a.devices[0]?.device.name ?? '', b.devices[0]?.device.name ?? ''),
  );
  const inlets = (device: Device): number =>
    portsOf(network, device.id).filter(
      (port) => port.role === 'powerIn' && cableAt(network, port.id) === null,
    ).length;
  const feedFor = (filling: Filling, device: Device): string | null =>
    device.feed ?? (inlets(device) === 1 ? filling.nextFeed(candidateOf(network, device).maxW) : null);

  for (const device of devices.filter((one) => one.units === 0)) {
    const [filling] = [...fillings].sort((a, b) => a.atSides - b.atSides);
    if (filling === undefined) continue;
    const side = filling.nextSide();
    const feed = feedFor(filling, device);
    plan.placements.push({
      deviceId: device.id,
      rackId: filling.rack.id,
      unit: null,
      side,
      feed,
      reason: `at the ${side} of ${filling.rack.name}${feed === null ? '' : `, feed ${feed}`}`,
    });
  }
  for (const block of all) {
    const candidates = block.devices.map(({ device }) => candidateOf(network, device));
    const massKg = candidates.reduce((sum, one) => sum + (one.massKg ?? 0), 0);
    const maxW = candidates.reduce((sum, one) => sum + one.maxW, 0);
    const order = [...fillings].sort((a, b) => spare(b) - spare(a));
    const why: string[] = [];
    let placed = false;
    for (const filling of order) {
      const refused = filling.refuses(massKg, maxW);
      const units = refused === null ? placeBlock(network, filling, block, rules) : null;
      if (units === null) {
        why.push(
          refused ?? `${filling.rack.name} has no free place for it with ${rules.keepFree} U kept free`,
        );
        continue;
      }
      block.devices.forEach(({ device, reason }, at) => {
        const unit = units[at] ?? null;
        const candidate = candidates[at];
        if (candidate !== undefined) filling.put({ ...device, unit }, airflowOf(network, device), candidate);
        const feed = feedFor(filling, device);
        plan.placements.push({
          deviceId: device.id,
          rackId: filling.rack.id,
          unit,
          side: device.side,
          feed,
          reason:
            feed === null || feed === device.feed ? reason : `${reason}; feed ${feed} has less to carry`,
        });
      });
      placed = true;
      break;
    }
    if (placed) continue;
    if (block.devices.length > 1) {
      for (const { device } of block.devices) all.push(single(network, device));
      continue;
    }
    for (const { device } of block.devices)
      plan.unplaced.push({ deviceId: device.id, reason: why.join('; ') || 'No rack was chosen' });
  }
  return plan;
}

/** Share of its power a rack has left; racks without feeds are judged by mass, then as full of room. */
function spare(filling: Filling): number {
  const usable = rackUsableW(filling.rack);
  if (usable !== null) return 1 - filling.maxW / usable;
  return filling.rack.massLimitKg === null ? 1 : 1 - filling.massKg / filling.rack.massLimitKg;
}
