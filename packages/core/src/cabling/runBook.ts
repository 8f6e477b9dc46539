import { derived } from '../model/derived.ts';
import type { Kind } from '../model/kinds.ts';
import type { Cable } from '../model/kinds/cable.ts';
import type { Circuit } from '../model/kinds/circuit.ts';
import type { Device } from '../model/kinds/device.ts';
import type { Leg } from '../model/kinds/leg.ts';
import type { Port } from '../model/kinds/port.ts';
import { LayeredMap, type LayeredDraft } from '../model/layeredMap.ts';
import type { Network, Touched } from '../model/network.ts';
import { cableAt, circuitAt } from '../model/ports.ts';
import { concerns, type Reads } from '../model/reads.ts';
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
}

/**
 * Every run of a network once: from each active port that something is plugged into, and of what no such port reaches
 * from a port in the middle. Where a run looks the same from both of its ends it is here from one of them.
 */
export interface RunBook {
  /** By the port a run was followed from. */
  runs: LayeredMap<JudgedRun>;
  /** Ports at which a run arrived that looks the same from there: where it was followed from. */
  arrivals: LayeredMap<string>;
  /** By cable or circuit: where the runs over it were followed from. */
  byCarrier: LayeredMap<readonly string[]>;
  /** Where the runs that have a fault or are loops were followed from. */
  wrong: ReadonlySet<string>;
}

const isPower = (port: Port): boolean => port.role === 'powerIn' || port.role === 'powerOut';
const isActive = (port: Port | null): port is Port =>
  port !== null && port.role !== 'passThrough' && !isPower(port);

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

class Judge {
  private readonly faultless = new Set<string>();
  private readonly powered: ReadonlySet<string>;

  constructor(private readonly network: Network) {
    this.powered = poweredDevices(network);
  }

  faultsOf(run: Run): readonly Fault[] {
    const key = this.keyOf(run);
    if (key !== null && this.faultless.has(key)) return none;
    const faults = told(judgeRun(this.network, run).faults);
    if (faults.length === 0 && key !== null) this.faultless.add(key);
    return faults;
  }

  /**
   * What decides about a run, but for power over Ethernet: runs of one key are judged alike. Null where an end may take
   * power, which hangs on more.
   */
  private keyOf(run: Run): string | null {
    if (run.branches.length > 0 || run.stop !== null) return null;
    const { network } = this;
    let key = '';
    for (const hop of run.hops) {
      if ('port' in hop) {
        const port = network.get('port', hop.port);
        if (port === null || this.powered.has(port.deviceId)) return null;
        key += `|${port.connector ?? ''}/${port.speedBps ?? ''}/${port.transceiverId ?? ''}/${port.role}`;
      } else if ('cable' in hop) {
        const cable = network.get('cable', hop.cable);
        key += `|${cable?.typeId ?? ''}/${cable?.lengthM ?? ''}/${cable?.splices ?? 0}`;
      } else return null;
    }
    return key;
  }
}
const none: readonly Fault[] = [];

/** Whether a hop fans out: a run over it may look different from its two ends. */
function fansOut(network: Network, hop: Run['hops'][number]): boolean {
  if ('port' in hop) return network.get('port', hop.port)?.passThroughStrand != null;
  if ('circuit' in hop) return false;
  const cableId = hop.cable;
  const type = network.get('model', network.get('cable', cableId)?.typeId ?? null);
  return (type?.legsA ?? 1) > 1 || (type?.legsB ?? 1) > 1 || network.countOf('legsByCable', cableId) > 0;
}

/** The cables and circuits of a run, in order. */
const carriersOf = (run: Run): string[] =>
  run.hops.flatMap((hop) => ('cable' in hop ? [hop.cable] : 'circuit' in hop ? [hop.circuit] : []));

/** Ports at the ends of a cable, its legs included. */
function portsOfCable(network: Network, id: string): Port[] {
  const cable = network.get('cable', id);
  const legs = network.find('legsByCable', id);
  return [cable?.aPortId ?? null, cable?.bPortId ?? null, ...legs.map((leg) => leg.portId)].flatMap(
    (portId) => network.get('port', portId) ?? [],
  );
}

/** A book of runs being written: what is gone is taken out, what is new is followed. */
class Writer {
  private readonly judge: Judge;
  private readonly runs: LayeredDraft<JudgedRun>;
  private readonly arrivals: LayeredDraft<string>;
  private readonly byCarrier: LayeredDraft<readonly string[]>;
  private readonly wrong: Set<string>;

  constructor(
    private readonly network: Network,
    before: RunBook,
  ) {
    this.judge = new Judge(network);
    this.runs = before.runs.draft();
    this.arrivals = before.arrivals.draft();
    this.byCarrier = before.byCarrier.draft();
    this.wrong = new Set(before.wrong);
  }

  /** The runs over a cable or circuit. */
  over(carrier: string): readonly JudgedRun[] {
    return (this.byCarrier.get(carrier) ?? []).flatMap((from) => this.runs.get(from) ?? []);
  }

  remove(run: JudgedRun): void {
    this.runs.delete(run.from);
    this.wrong.delete(run.from);
    if (run.to !== null && this.arrivals.get(run.to) === run.from) this.arrivals.delete(run.to);
    for (const carrier of run.carriers) {
      const left = (this.byCarrier.get(carrier) ?? []).filter((from) => from !== run.from);
      if (left.length === 0) this.byCarrier.delete(carrier);
      else this.byCarrier.set(carrier, left);
    }
  }

  /** Follows the run of an active port, unless it is in the book already. */
  follow(port: Port): void {
    if (this.runs.get(port.id) !== undefined || this.arrivals.get(port.id) !== undefined) return;
    const run = traceRun(this.network, port.id);
    const carriers = carriersOf(run);
    // What was followed from the middle because nobody reached it is reached now.
    for (const carrier of carriers)
      for (const other of this.over(carrier)) if (this.isPassive(other)) this.remove(other);
    const alike =
      run.to !== null &&
      run.ends === 'port' &&
      run.branches.length === 0 &&
      !run.hops.some((hop) => fansOut(this.network, hop));
    if (alike && run.to !== null) this.arrivals.set(run.to, port.id);
    this.enter({
      from: port.id,
      to: run.to,
      ends: run.ends,
      carriers,
      faults: this.judge.faultsOf(run),
    });
  }

  /** Follows a cable between panels that no active port reaches: laid for later, or a loop. */
  followPassive(cableId: string): void {
    const from = this.network.get('cable', cableId)?.aPortId ?? null;
    if (from === null || (this.byCarrier.get(cableId) ?? []).length > 0) return;
    const run = traceRun(this.network, from);
    this.enter({ from, to: null, ends: run.ends, carriers: carriersOf(run), faults: none });
  }

  private isPassive(run: JudgedRun): boolean {
    return !isActive(this.network.get('port', run.from));
  }

  private enter(run: JudgedRun): void {
    this.runs.set(run.from, run);
    for (const carrier of new Set(run.carriers))
      this.byCarrier.set(carrier, [...(this.byCarrier.get(carrier) ?? []), run.from]);
    if (run.faults.length > 0 || (run.ends === 'loop' && this.isPassive(run))) this.wrong.add(run.from);
  }

  finish(): RunBook {
    return {
      runs: this.runs.finish(),
      arrivals: this.arrivals.finish(),
      byCarrier: this.byCarrier.finish(),
      wrong: this.wrong,
    };
  }
}

/** Follows what is plugged into the ends of these cables, active ports first; circuits are on the way of a cable. */
function followAll(network: Network, book: Writer, carriers: Iterable<string>): RunBook {
  const passive: string[] = [];
  for (const id of carriers) {
    if (network.get('cable', id) === null) continue;
    let active = false;
    for (const port of portsOfCable(network, id))
      if (isActive(port)) {
        active = true;
        book.follow(port);
      } else active ||= isPower(port);
    if (!active) passive.push(id);
  }
  for (const id of passive) book.followPassive(id);
  return book.finish();
}

const empty = (): RunBook => ({
  runs: LayeredMap.empty(),
  arrivals: LayeredMap.empty(),
  byCarrier: LayeredMap.empty(),
  wrong: new Set(),
});

/** What is plugged into a port, and into those behind it inside its device. */
function* carriersAt(network: Network, portId: string | null): Generator<string> {
  const port = network.get('port', portId);
  if (portId === null || port === null) return;
  const behind = port.role === 'passThrough' ? network.find('portsByPassThrough', portId) : [];
  for (const id of [portId, port.passThroughId, ...behind.map((one) => one.id)]) {
    if (id === null) continue;
    const carrier = cableAt(network, id)?.id ?? circuitAt(network, id)?.id;
    if (carrier !== undefined) yield carrier;
  }
}

/** Cables and circuits whose runs a touched row can change; null: any. `base` is the network before. */
function* carriersTouched(network: Network, base: Network, touched: Touched): Generator<string> {
  for (const [of, row] of [
    [base, touched.before],
    [network, touched.after],
  ] as const) {
    if (row === null) continue;
    switch (touched.kind) {
      case 'cable':
      case 'circuit': {
        const ends = row as Cable | Circuit;
        yield row.id;
        for (const portId of [ends.aPortId, ends.bPortId]) {
          yield* carriersAt(of, portId);
          // Who is fed by a supply of its own asks for no power over its data ports.
          const port = of.get('port', portId);
          if (port !== null && isPower(port)) yield* carriersOfDevice(of, port.deviceId);
        }
        break;
      }
      case 'leg':
        yield (row as Leg).cableId;
        yield* carriersAt(of, (row as Leg).portId);
        break;
      case 'port':
        yield* carriersAt(of, row.id);
        yield* carriersAt(of, (row as Port).passThroughId);
        break;
      case 'device':
        yield* carriersOfDevice(of, (row as Device).id);
        break;
    }
  }
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
    'passThroughId',
    'passThroughStrand',
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
  (network) => followAll(network, new Writer(network, empty()), ids(network.all('cable'))),
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
    return followAll(network, book, again);
  },
);

function* ids(rows: Iterable<{ id: string }>): Generator<string> {
  for (const { id } of rows) yield id;
}
