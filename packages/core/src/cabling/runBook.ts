import { derived } from '../model/network/derived.ts';
import type { Kind } from '../model/kinds.ts';
import type { Cable } from '../model/kinds/lines/cable.ts';
import type { Circuit } from '../model/kinds/lines/circuit.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import { LayeredMap, type LayeredDraft } from '../model/network/layeredMap.ts';
import type { Network, Touched } from '../model/network/network.ts';
import { cableAt, circuitAt } from '../model/network/ports.ts';
import { concerns, type Reads } from '../model/network/reads.ts';
import type { Fault } from './fault.ts';
import { judgeRun } from './link.ts';
import { traceRun, type Run } from './trace.ts';

/** A run with what is wrong with it. */
export interface JudgedRun {
  /** The port it was followed from, and where it arrived; null where it ends open or comes back to itself. */
  from: string;
  to: string | null;
  ends: Run['ends'];
  /** Ids of the cables and circuits it takes, in order. */
  carriers: readonly string[];
  faults: readonly Fault[];
  /** No active port reaches it: it was followed from a port in the middle. */
  passive: boolean;
}

/**
 * Every run of a network once: from each active port that something is plugged into, and of what no such port reaches
 * from a port in the middle. Where a run looks the same from both of its ends it is here from one of them; one of a
 * single cable is here only where something may be wrong with it.
 */
export interface RunBook {
  /**
   * By the port a run was followed from; where it looks the same from its other end, there stands the port it was
   * followed from.
   */
  starts: LayeredMap<JudgedRun | string>;
  /** By cable or circuit: where the runs over it were followed from. */
  byCarrier: LayeredMap<string | readonly string[]>;
  /** Where the runs that have a fault or are loops were followed from. */
  wrong: ReadonlySet<string>;
  /** How many were followed from a port in the middle. */
  passive: number;
}

const isPower = (port: Port): boolean => port.role === 'powerIn' || port.role === 'powerOut';

/** Two empty cages say that optics are not documented here: that is no fault of the link. */
function told(faults: readonly Fault[]): readonly Fault[] {
  const missing = faults.filter(({ facts }) => facts.is === 'empty cage');
  return missing.length === 2 ? faults.filter((fault) => !missing.includes(fault)) : faults;
}

/** Devices of models that may be fed over their data port. */
function poweredDevices(network: Network): Set<string> {
  const ids = new Set<string>();
  for (const model of network.all('model'))
    if (model.poeClass !== null)
      for (const device of network.find('devicesByModel', model.id)) ids.add(device.id);
  return ids;
}

/** A run as it goes into the book. */
interface ReadRun {
  carriers: string[];
  /**
   * What decides about it, but for power over Ethernet: runs of one key are judged alike. Null where an end may take
   * power, which hangs on more.
   */
  key: string | null;
  /** It fans out somewhere: then it may look different from its two ends. */
  fans: boolean;
}

/** Reads and judges runs, each sort of them once. */
class Judge {
  private readonly faultless = new Set<string>();
  private readonly powered: ReadonlySet<string>;
  private readonly fanning: ReadonlySet<string>;
  private readonly legs: boolean;

  constructor(private readonly network: Network) {
    this.powered = poweredDevices(network);
    const fanning = [...network.all('model')].filter(({ legsA, legsB }) => legsA > 1 || legsB > 1);
    this.fanning = new Set(fanning.map(({ id }) => id));
    this.legs = network.count('leg') > 0;
  }

  read(run: Run): ReadRun {
    const { network } = this;
    const carriers: string[] = [];
    let key = '';
    let alike = run.branches.length === 0 && run.stop === null;
    let fans = run.branches.length > 0;
    for (const hop of run.hops) {
      if ('port' in hop) {
        const port = network.get('port', hop.port);
        alike &&= port !== null && !this.powered.has(port.deviceId);
        fans ||= port?.leadsToStrand != null;
        if (alike && port !== null) key += portKey(port);
      } else if ('cable' in hop) {
        carriers.push(hop.cable);
        const cable = network.get('cable', hop.cable);
        fans ||= cable?.typeId != null && this.fanning.has(cable.typeId);
        fans ||= this.legs && network.countOf('legsByCable', hop.cable) > 0;
        if (alike) key += cableKey(cable);
      } else {
        carriers.push(hop.circuit);
        alike = false;
      }
    }
    return { carriers, key: alike ? key : null, fans };
  }

  /**
   * Whether a cable joins two active ports directly and in a way that was judged faultless before: nothing is to be
   * followed then.
   */
  isPlain(cable: Cable, a: Port, b: Port): boolean {
    if (!this.ends(a) || !this.ends(b) || (cable.typeId !== null && this.fanning.has(cable.typeId)))
      return false;
    if (this.legs && this.network.countOf('legsByCable', cable.id) > 0) return false;
    return this.faultless.has(portKey(a) + cableKey(cable) + portKey(b));
  }

  /** Whether a run surely ends at a port, whatever strands come to it. */
  private ends(port: Port): boolean {
    if (port.role === 'panel' || isPower(port) || port.leadsToId !== null) return false;
    if (this.powered.has(port.deviceId)) return false;
    return port.transceiverId === null || this.network.get('model', port.transceiverId)?.opticStrands == null;
  }

  faultsOf(run: Run, key: string | null): readonly Fault[] {
    if (key !== null && this.faultless.has(key)) return none;
    const faults = told(judgeRun(this.network, run).faults);
    if (faults.length === 0 && key !== null) this.faultless.add(key);
    return faults;
  }
}
const none: readonly never[] = [];
const portKey = (port: Port): string =>
  `|${port.connector ?? ''}/${port.speedBps ?? ''}/${port.transceiverId ?? ''}/${port.role}`;
const cableKey = (cable: Cable | null): string =>
  `|${cable?.typeId ?? ''}/${cable?.lengthM ?? ''}/${cable?.splices ?? 0}`;

/** Ids of the ports at the ends of a cable, its legs included. */
function endsOfCable(network: Network, { id, aPortId, bPortId }: Cable): (string | null)[] {
  const legs = network.count('leg') === 0 ? none : network.find('legsByCable', id);
  return [aPortId, bPortId, ...legs.map((leg) => leg.portId)];
}

/** A part of a book that is being written: over an earlier one, or from nothing. */
type Pages<V> = Pick<LayeredDraft<V>, 'get' | 'set' | 'delete' | 'finish'>;
class NewPages<V> extends Map<string, V> {
  finish(): LayeredMap<V> {
    return LayeredMap.over(this);
  }
}

/** A book of runs being written: what is gone is taken out, what is new is followed. */
class Writer {
  private readonly judge: Judge;
  private readonly starts: Pages<JudgedRun | string>;
  private readonly byCarrier: Pages<string | readonly string[]>;
  private readonly wrong: Set<string>;
  private passive: number;
  /** What a run went over that is out of the book now: nobody may reach it any more. */
  private readonly loose: string[] = [];

  constructor(
    private readonly network: Network,
    before: RunBook | null,
  ) {
    this.judge = new Judge(network);
    this.starts = before?.starts.draft() ?? new NewPages();
    this.byCarrier = before?.byCarrier.draft() ?? new NewPages();
    this.wrong = new Set(before?.wrong);
    this.passive = before?.passive ?? 0;
  }

  /** The runs over a cable or circuit. */
  over(carrier: string): readonly JudgedRun[] {
    return this.startsOver(carrier).flatMap((from) => {
      const run = this.starts.get(from);
      return run === undefined || typeof run === 'string' ? [] : [run];
    });
  }

  private startsOver(carrier: string): readonly string[] {
    const starts = this.byCarrier.get(carrier);
    return starts === undefined ? none : typeof starts === 'string' ? [starts] : starts;
  }

  remove(run: JudgedRun): void {
    this.starts.delete(run.from);
    this.wrong.delete(run.from);
    this.loose.push(...run.carriers);
    if (run.passive) this.passive--;
    if (run.to !== null && this.starts.get(run.to) === run.from) this.starts.delete(run.to);
    for (const carrier of run.carriers) {
      const left = this.startsOver(carrier).filter((from) => from !== run.from);
      if (left.length === 0) this.byCarrier.delete(carrier);
      else this.byCarrier.set(carrier, left);
    }
  }

  /** Whether the run of a port is in the book, from here or from where it arrives. */
  has(portId: string): boolean {
    return this.starts.get(portId) !== undefined;
  }

  /** Follows the run of an active port. */
  follow(port: Port): void {
    const run = traceRun(this.network, port.id);
    const { carriers, key, fans } = this.judge.read(run);
    // What was followed from the middle because nobody reached it is reached now.
    if (this.passive > 0)
      for (const carrier of carriers)
        for (const other of this.over(carrier)) if (other.passive) this.remove(other);
    if (run.to !== null && run.ends === 'port' && !fans) this.starts.set(run.to, port.id);
    this.enter({
      from: port.id,
      to: run.to,
      ends: run.ends,
      carriers,
      faults: this.judge.faultsOf(run, key),
      passive: false,
    });
  }

  /** Whether a cable is a run by itself that has no fault: such a run is not kept, it touches no other. */
  isPlain(cable: Cable, a: Port, b: Port): boolean {
    return this.judge.isPlain(cable, a, b);
  }

  /** Follows a cable between panels that no active port reaches: laid for later, or a loop. */
  followPassive(cableId: string): void {
    const from = this.network.get('cable', cableId)?.aPortId ?? null;
    // One that begins at an active port is a run without a fault, which is not kept.
    if (this.network.get('port', from)?.role !== 'panel' || from === null) return;
    if (this.byCarrier.get(cableId) !== undefined) return;
    const run = traceRun(this.network, from);
    const { carriers } = this.judge.read(run);
    this.enter({ from, to: null, ends: run.ends, carriers, faults: none, passive: true });
    this.passive++;
  }

  private enter(run: JudgedRun): void {
    this.starts.set(run.from, run);
    for (const carrier of run.carriers) {
      const starts = this.byCarrier.get(carrier);
      if (starts === undefined) this.byCarrier.set(carrier, run.from);
      else if (!this.startsOver(carrier).includes(run.from))
        this.byCarrier.set(carrier, [...this.startsOver(carrier), run.from]);
    }
    if (run.faults.length > 0 || (run.ends === 'loop' && run.passive)) this.wrong.add(run.from);
  }

  finish(): RunBook {
    return {
      starts: this.starts.finish(),
      byCarrier: this.byCarrier.finish(),
      wrong: this.wrong,
      passive: this.passive,
    };
  }

  /** Cables that nobody may reach any more. */
  left(): readonly string[] {
    return this.loose;
  }
}

/** Follows what is plugged into the ends of these cables, active ports first; circuits are on the way of a cable. */
function followAll(network: Network, book: Writer, cables: Iterable<Cable>): RunBook {
  const passive: string[] = [];
  for (const cable of cables) {
    let reached = false;
    const [a, b] = [network.get('port', cable.aPortId), network.get('port', cable.bPortId)];
    if (a !== null && b !== null && book.isPlain(cable, a, b)) continue;
    for (const id of endsOfCable(network, cable)) {
      if (id !== null && book.has(id)) reached = true;
      else {
        const port = network.get('port', id);
        if (port === null || port.role === 'panel' || port.leadsToId !== null) continue;
        reached = true;
        if (!isPower(port)) book.follow(port);
      }
    }
    if (!reached) passive.push(cable.id);
  }
  for (const id of passive) book.followPassive(id);
  for (const id of book.left()) book.followPassive(id);
  return book.finish();
}

/** What is plugged into a port, and into those behind it inside its device. */
function* carriersAt(network: Network, portId: string | null): Generator<string> {
  const port = network.get('port', portId);
  if (portId === null || port === null) return;
  const behind = port.role === 'panel' ? network.find('portsByLeadsTo', portId) : [];
  for (const id of [portId, port.leadsToId, ...behind.map((one) => one.id)]) {
    if (id === null) continue;
    const carrier = cableAt(network, id)?.id ?? circuitAt(network, id)?.id;
    if (carrier !== undefined) yield carrier;
  }
}

/** Cables and circuits whose runs a touched row can change; null: any. `base` is the network before. */
function* carriersTouched(network: Network, base: Network, touched: Touched): Generator<string> {
  /** The row as it was and as it is, each with the network that it stands in. */
  const sides = <R>(before: R | null, after: R | null): [of: Network, row: R][] => [
    ...(before === null ? [] : [[base, before] satisfies [Network, R]]),
    ...(after === null ? [] : [[network, after] satisfies [Network, R]]),
  ];
  if (touched.kind === 'cable' || touched.kind === 'circuit')
    for (const [of, row] of sides<Cable | Circuit>(touched.before, touched.after)) {
      yield row.id;
      for (const portId of [row.aPortId, row.bPortId]) {
        yield* carriersAt(of, portId);
        // Who is fed by a supply of its own asks for no power over its data ports.
        const port = of.get('port', portId);
        if (port !== null && isPower(port)) yield* carriersOfDevice(of, port.deviceId);
      }
    }
  if (touched.kind === 'leg')
    for (const [of, row] of sides(touched.before, touched.after)) {
      yield row.cableId;
      yield* carriersAt(of, row.portId);
    }
  if (touched.kind === 'port')
    for (const [of, row] of sides(touched.before, touched.after)) {
      yield* carriersAt(of, row.id);
      yield* carriersAt(of, row.leadsToId);
    }
  if (touched.kind === 'device')
    for (const [of, row] of sides(touched.before, touched.after)) yield* carriersOfDevice(of, row.id);
}

function* carriersOfDevice(network: Network, deviceId: string): Generator<string> {
  for (const port of network.find('portsByDevice', deviceId)) yield* carriersAt(network, port.id);
}

/** What decides about a run. Types, modules and rules of cabling do so everywhere. */
export const runReads: Reads = {
  cable: ['typeId', 'lengthM', 'splices', 'status', 'aPortId', 'bPortId'],
  circuit: ['lengthM', 'status', 'aPortId', 'bPortId'],
  leg: ['cableId', 'side', 'number', 'portId'],
  port: [
    'deviceId',
    'name',
    'connector',
    'speedBps',
    'role',
    'moduleId',
    'leadsToId',
    'leadsToStrand',
    'transceiverId',
  ],
  device: ['modelId'],
  model: 'all',
  module: 'all',
  project: ['cabling'],
};
const everywhere: ReadonlySet<Kind> = new Set<Kind>(['model', 'module', 'project']);

/** The runs of a network in force; after an edit only those that it can concern are followed again. */
export const runBookOf: (network: Network) => RunBook = derived(
  (network) => followAll(network, new Writer(network, null), network.all('cable')),
  (before, network, touched, base) => {
    const relevant = touched.filter((one) => concerns(runReads, one));
    if (relevant.length === 0) return before;
    if (relevant.some(({ kind }) => everywhere.has(kind))) return null;
    const book = new Writer(network, before);
    const again = new Set<string>();
    for (const one of relevant) for (const carrier of carriersTouched(network, base, one)) again.add(carrier);
    for (const carrier of [...again])
      for (const run of book.over(carrier)) {
        book.remove(run);
        for (const beside of run.carriers) again.add(beside);
      }
    return followAll(
      network,
      book,
      [...again].flatMap((id) => network.get('cable', id) ?? []),
    );
  },
);

/** The runs that have a fault or are loops. */
export const wrongRuns = ({ wrong, starts }: RunBook): JudgedRun[] =>
  [...wrong].flatMap((from) => {
    const run = starts.get(from);
    return run === undefined || typeof run === 'string' ? [] : [run];
  });
